import type { Power } from '@treadle/core'
import { POWERS, TRAIN_NAMES } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  line,
  measured,
  only,
  requiredLine,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import { CardChoices } from './card.ts'
import { CalendarWork, MoonWork } from './dial.ts'
import { StrikeWork } from './strike.ts'

export const CLOCK_KINDS = ['wall', 'longcase', 'tower', 'shelf', 'mantel', 'bracket', 'other'] as const
export type ClockKind = (typeof CLOCK_KINDS)[number]
export const CLOCK_KIND_TITLES: Record<ClockKind, string> = {
  wall: 'Wall clock',
  longcase: 'Tall case clock',
  tower: 'Tower clock',
  shelf: 'Shelf clock',
  mantel: 'Mantel clock',
  bracket: 'Bracket clock',
  other: 'Another kind',
}

export const POWER_TITLES: Record<Power, string> = {
  spring: 'mainspring in its barrel',
  'open-spring': 'open mainspring',
  fusee: 'spring and fusee',
  weight: 'weight',
  remontoire: 'remontoire',
  'chime-drum': 'chime drum',
}

/** A mainspring by its dimensions; each may be unknown until it is measured. */
const SpringSize = only({
  widthMm: measured(1, 100).required().label('Width'),
  thicknessMm: measured(0.03, 3).required().label('Thickness'),
  lengthMm: measured(50, 20_000).required().label('Length'),
  barrelInsideMm: measured(4, 400).required().label('Barrel inside'),
  arborMm: measured(1, 200).required().label('Arbor'),
})

/** A train and what drives it: the size of its spring, or its weight and fall, as far as they are known. */
export const Train = only({
  train: string().oneOf(TRAIN_NAMES).required().label('Train'),
  power: string().oneOf(POWERS).required().label('Power'),
  spring: SpringSize.nullable().notRequired().default(undefined).label('Spring'),
  weightKg: measured(0.01, 2000).nullable().label('Weight'),
  fallMm: measured(10, 60_000).nullable().label('Fall'),
})
export type Train = InferType<typeof Train>

/** What the clock's work has besides its trains. */
export const Work = only({
  /** null: none, or nobody has looked */
  strikeWork: string()
    .oneOf(['count-wheel', 'rack'] as const)
    .nullable()
    .defined()
    .label('How the strike counts'),
  moon: boolean().required(),
  calendar: boolean().required(),
  mercury: boolean().required(),
  /** not said: nobody has set it up here */
  strike: StrikeWork.optional().default(undefined).label('Strike'),
  /** how its moon and its day of the month go; not said: nobody has looked */
  moonWork: MoonWork.optional().default(undefined).label('Moon'),
  calendarWork: CalendarWork.optional().default(undefined).label('Calendar'),
  /** its maker allows the minute hand to go back; not said: it may not */
  handsBack: boolean().optional().label('Hands may go back'),
})
export type Work = InferType<typeof Work>
export const PLAIN_WORK: Work = { strikeWork: null, moon: false, calendar: false, mercury: false }

export const TICKS = ['every beat', 'once a period'] as const

/** What is known of the pendulum and escapement; every figure may be missing. */
export const Pendulum = only({
  beatsPerHour: measured(2400, 18_000).nullable().defined().label('Beats an hour'),
  lengthMm: measured(30, 6000).nullable().defined().label('Length of the pendulum'),
  pitchMm: measured(0.1, 5).nullable().defined().label('Pitch of the nut’s thread'),
  semiArcDeg: measured(0.2, 45).nullable().defined().label('Semi-arc'),
  releaseDeg: measured(0.05, 40).nullable().defined().label('Release angle'),
  crutchLengthMm: measured(5, 2000).nullable().defined().label('Length of the crutch'),
  footSpacingMm: measured(20, 3000).nullable().defined().label('Distance of the feet'),
  caseHeightMm: measured(50, 6000).nullable().defined().label('Height of the case'),
  /** distance of the bearers under the movement’s seat board; not said: it has none, or nobody measured */
  seatSpacingMm: measured(20, 1000)
    .nullable()
    .optional()
    .default(undefined)
    .label('Distance of the seat board’s bearers'),
  escapeTeeth: measured(3, 200).integer().nullable().defined().label('Teeth of the escape wheel'),
  windsEveryDays: measured(1, 400).nullable().defined().label('Days between windings'),
  /** some escapements drop once a period only: one loud tick, the return almost silent; not said: at every beat */
  ticks: string().oneOf(TICKS).optional().label('Ticks'),
})
export type Pendulum = InferType<typeof Pendulum>

export const EMPTY_PENDULUM: Pendulum = {
  beatsPerHour: null,
  lengthMm: null,
  pitchMm: null,
  semiArcDeg: null,
  releaseDeg: null,
  crutchLengthMm: null,
  footSpacingMm: null,
  caseHeightMm: null,
  escapeTeeth: null,
  windsEveryDays: null,
}

export const Owner = only({
  id: id(),
  name: requiredLine(120).label('Owner'),
  phone: line(60).defined().label('Telephone'),
  address: line(300).defined().label('Address'),
})
export type Owner = InferType<typeof Owner>
export type OwnerRow = Owner & { version: number }

/** A change of what is known of an owner. */
export const OwnerChange = only({
  version: version(),
  name: requiredLine(120).label('Owner'),
  phone: line(60).defined().label('Telephone'),
  address: line(300).defined().label('Address'),
})
export type OwnerChange = InferType<typeof OwnerChange>

/** One owner who is in the book twice becomes one; or a clock passes to another. */
export const OwnerMerge = only({ version: version(), into: id() })
export const ClockPassed = only({ version: version(), ownerId: id() })

/** An owner with the clocks of theirs that are known. */
export interface OwnerListed {
  owner: OwnerRow
  clocks: { id: string; name: string }[]
}

/** Where a clock stands at its owner's, and how warm its room is; every figure may be missing. */
export const ClockHome = only({
  latitudeDeg: measured(-90, 90).nullable().defined().label('Latitude at home'),
  altitudeM: measured(-430, 6000).nullable().defined().label('Altitude at home'),
  /** mean of its coldest month */
  winterC: measured(-30, 40).nullable().defined().label('Room in winter'),
  summerC: measured(-30, 50).nullable().defined().label('Room in summer'),
})
export type ClockHome = InferType<typeof ClockHome>
export const NO_HOME: ClockHome = { latitudeDeg: null, altitudeM: null, winterC: null, summerC: null }

export const NewClock = only({
  id: id(),
  name: requiredLine(120).label('What you call it'),
  kind: string().oneOf(CLOCK_KINDS).required().label('Kind'),
  marks: text(1000).defined().label('Marks'),
  trains: array(Train).min(1, 'Trains: name at least one train').max(3).required().label('Trains'),
  pendulum: Pendulum,
  work: Work,
  /** not said: nobody asked */
  home: ClockHome.nullable().optional().default(undefined).label('At home'),
  /** not said: the usual card */
  card: CardChoices.nullable().optional().default(undefined).label('Card'),
})
export type NewClock = InferType<typeof NewClock>

/** A change of what is known of a clock. */
export const ClockChange = only({
  version: version(),
  name: requiredLine(120).label('What you call it'),
  kind: string().oneOf(CLOCK_KINDS).required().label('Kind'),
  marks: text(1000).defined().label('Marks'),
  trains: array(Train).min(1, 'Trains: name at least one train').max(3).required().label('Trains'),
  pendulum: Pendulum,
  work: Work,
  /** not said: nobody asked */
  home: ClockHome.nullable().optional().default(undefined).label('At home'),
  /** not said: the usual card */
  card: CardChoices.nullable().optional().default(undefined).label('Card'),
})
export type ClockChange = InferType<typeof ClockChange>
export type Clock = Omit<NewClock, 'trains'> & { trains: Train[]; ownerId: string; version: number }
