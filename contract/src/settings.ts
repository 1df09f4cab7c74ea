import type { OilSchool } from '@treadle/core'
import {
  BUSHING_METHODS,
  DEFAULT_BEAT_TOLERANCE,
  DEFAULT_BUSHING_RULES,
  isTimeZone,
  OIL_SCHOOLS,
  RATE_GOAL,
  RATE_TOLERANCE,
} from '@treadle/core/choices'
import { boolean, line, measured, only, requiredLine, string, version, type InferType } from './fields.ts'

/** Everything the workshop decides for itself; each default is a rule of thumb of the craft. */
/** The case level first and the beat set there, or the beat set to any footing. */
export const FOOTING_SCHOOLS = ['level', 'as-it-stands'] as const

export const Settings = only({
  version: version(),
  workshop: requiredLine(120).label('Workshop'),
  place: line(120).defined().label('Place'),
  latitudeDeg: measured(-90, 90).required().label('Latitude'),
  altitudeM: measured(-430, 6000).required().label('Altitude'),
  /** IANA name: the workshop's days and hours */
  timeZone: requiredLine(60)
    .label('Time zone')
    .test(
      'zone',
      'Time zone must be one that the calendar knows, such as Europe/Oslo',
      (v) => v == null || isTimeZone(v),
    ),
  /** hours of the day at which somebody is at the bench: readings are asked for then */
  openFrom: measured(0, 23).required().label('At the bench from'),
  openUntil: measured(1, 24).required().label('At the bench until'),
  lengthUnit: string().oneOf(['mm', 'thou']).required().label('Caliper unit'),
  beat: only({
    finePoints: measured(0.01, 10).required().label('Even within'),
    acceptablePoints: measured(0.01, 20).required().label('Acceptable within'),
    heardPoints: measured(0.1, 40).required().label('Plainly heard from'),
    limitMs: measured(0.1, 200).required().label('Limit in milliseconds'),
    by: string().oneOf(['split', 'milliseconds']).required(),
  }),
  beatSchool: string().oneOf(['size', 'pack', 'crutch', 'adjuster']).required().label('First cure for the beat'),
  /** at the owner’s: the case plumb first, or its footing taken as it is */
  footingSchool: string().oneOf(FOOTING_SCHOOLS).required().label('Setting up'),
  /** up to this the case is packed, beyond it the crutch is bent */
  packUpToMs: measured(0, 200).required().label('Pack the case up to'),
  bushing: only({
    playPercent: measured(1, 50).required().label('Play'),
    finePlayPercent: measured(1, 50).required().label('Play, escape and pallets'),
    ovalPercent: measured(0.5, 50).required().label('Oval, of the pivot'),
    ovalMm: measured(0.005, 1).required().label('Oval'),
    depthPercent: measured(1, 50).required().label('Depth'),
    rule: string().oneOf(['two-or-depth', 'play', 'oval', 'depth']).required().label('Which schools decide'),
    leavePlayPercent: measured(1, 12).required().label('Play to leave'),
    leaveFinePlayPercent: measured(1, 12).required().label('Play to leave, escape and pallets'),
    leavePlayAtLeastMm: measured(0.005, 0.2).required().label('Least play'),
    pressFitMm: measured(0.005, 0.06).required().label('Press fit'),
    cleanUpMm: measured(0, 0.5).required().label('Cutter beyond the slot'),
    wallMm: measured(0.1, 2).required().label('Least wall'),
    drillUnderMm: measured(0.02, 0.2).required().label('Drilled under the pivot'),
  }),
  /** scored pivots: file and burnisher, or a ladder of papers and paste */
  pivotSchool: string().oneOf(['burnish', 'paste']).required().label('Scored pivots'),
  /** least part of its original diameter that a pivot may have */
  pivotLeastPercent: measured(50, 100).required().label('Least pivot'),
  /** filed back by hand, or centred in a jig */
  bushingMethod: string().oneOf(BUSHING_METHODS).required().label('Bushing'),
  /** from the middle point of the marker to its outer ones */
  markerReachMm: measured(1, 100).required().label('Marker, from its middle point to the outer ones'),
  rateToleranceSecondsPerDay: measured(0.1, 600).required().label('Rate within'),
  rateGoalSecondsPerDay: measured(0.05, 60).required().label('Worth waiting for'),
  trialDays: measured(1, 60).integer().required().label('Trial'),
  /** of chiming and complicated clocks */
  trialDaysLong: measured(1, 90).integer().required().label('Trial, chiming or complicated'),
  oilSchool: string<OilSchool>()
    .oneOf(Object.keys(OIL_SCHOOLS) as OilSchool[])
    .required()
    .label('Oil'),
  /** from hand-over on; 0: none is given */
  guaranteeMonths: measured(0, 120).integer().required().label('Guarantee'),
  pickupPpm: measured(-500, 500).required().label('Sound card fast by'),
  /** where a phone finds this workshop, for the code on the job tag; empty: as the page was opened */
  shopAddress: line(200)
    .defined()
    .matches(/^(https?:\/\/[^\s/]+)?$/, 'Shop’s address must be such as http://bench.local:4173')
    .label('Shop’s address'),
  phone: line(60).defined().label('Telephone'),
  currency: requiredLine(6).label('Currency'),
  taxPercent: string()
    .required()
    .matches(/^(100|\d{1,2}(\.\d{1,4})?)$/, 'Tax must be a per cent from 0 to 100, such as 21')
    .label('Tax'),
  depositPercent: string()
    .required()
    .matches(/^(100|\d{1,2}(\.\d{1,4})?)$/, 'Deposit must be a per cent from 0 to 100, such as 30')
    .label('Deposit'),
  /** photos keep what the camera wrote into them, the place too; else only the picture is kept */
  keepPhotoData: boolean().required().label('Keep the camera’s data'),
  /** one backup a day for so many days, and one a week for so many weeks */
  backupDays: measured(1, 60).integer().required().label('Daily backups'),
  backupWeeks: measured(0, 520).integer().required().label('Weekly backups'),
  pedalSound: boolean().required().label('Sound when the pedal is heard'),
})
export type Settings = InferType<typeof Settings>

export const DEFAULT_SETTINGS: Settings = {
  version: 1,
  workshop: 'The workshop',
  place: '',
  latitudeDeg: 45,
  altitudeM: 0,
  timeZone: 'UTC',
  openFrom: 8,
  openUntil: 18,
  lengthUnit: 'mm',
  beat: { ...DEFAULT_BEAT_TOLERANCE },
  beatSchool: 'size',
  footingSchool: 'level',
  packUpToMs: 20,
  bushing: { ...DEFAULT_BUSHING_RULES },
  pivotSchool: 'burnish',
  pivotLeastPercent: 90,
  bushingMethod: 'hand',
  markerReachMm: 8,
  rateToleranceSecondsPerDay: RATE_TOLERANCE,
  rateGoalSecondsPerDay: RATE_GOAL,
  trialDays: 7,
  trialDaysLong: 14,
  oilSchool: 'default',
  guaranteeMonths: 12,
  pickupPpm: 0,
  shopAddress: '',
  phone: '',
  currency: '€',
  taxPercent: '0',
  depositPercent: '0',
  keepPhotoData: false,
  backupDays: 7,
  backupWeeks: 4,
  pedalSound: true,
}
