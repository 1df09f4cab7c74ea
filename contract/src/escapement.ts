import type { WayKey } from '@treadle/core'
import { CLICK_STATES, DRAWN_KINDS, WAY_KEYS } from '@treadle/core/choices'
import {
  array,
  boolean,
  id,
  idOrNone,
  measured,
  mm,
  mixed,
  only,
  requiredLine,
  ruled,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import type { Stamped } from './stamped.ts'

const outline = (label: string) =>
  array(only({ xMm: measured(-500, 500).required(), yMm: measured(-500, 500).required() }))
    .max(200)
    .required()
    .label(label)

const isTrueing = (value: unknown) =>
  Array.isArray(value) && value.length === 9 && value.every((v) => typeof v === 'number' && Math.abs(v) <= 1e9)

export const ESCAPEMENT_KINDS = ['', ...DRAWN_KINDS, 'verge', 'platform'] as const
export type EscapementKind = (typeof ESCAPEMENT_KINDS)[number]
export const ESCAPEMENT_TITLES: Record<EscapementKind, string> = {
  '': 'not said yet',
  'dead-beat': 'dead-beat',
  recoil: 'recoil',
  'pin-pallet': 'pin-pallet',
  points: 'another, by points over a photo',
  verge: 'verge',
  platform: 'platform, with a balance',
}

/** The escapement of a clock on this visit: the wheel's tips, the pallets drawn, moved and worn, and the work on both. */
export const EscapementSheetChange = ruled(
  only({
    id: id(),
    version: version(),
    kind: string().oneOf(ESCAPEMENT_KINDS).defined().label('Escapement'),
    teeth: measured(3, 200).integer().nullable().defined().label('Teeth'),
    tipRadiusMm: mm(0.5, 500, 'Tips from the arbor'),
    centreDistanceMm: mm(0.5, 1000, 'Arbors apart'),
    spannedSpaces: measured(0.5, 99.5).nullable().defined().label('Spaces spanned'),
    palletMm: mm(0.05, 50, 'Pallet, thick'),
    /** from the edge that lets go on one pallet to that on the other, as they are */
    acrossMm: mm(0.5, 1000, 'Across the edges that let go'),
    liftDeg: measured(0.1, 60).nullable().defined().label('Lift'),
    lockDeg: measured(0, 30).nullable().defined().label('Lock'),
    swingDeg: measured(0.2, 60).nullable().defined().label('Swing either way'),
    palletEntry: outline('Entry pallet'),
    palletExit: outline('Exit pallet'),
    photoId: idOrNone(),
    /** of the photo: pixels to mm about the pallets' arbor */
    trueing: mixed<number[]>()
      .nullable()
      .defined()
      .test('trueing', '${path} must be nine numbers', (value) => value == null || isTrueing(value)),
    /** how the pallets were set on this visit */
    nearerMm: measured(-20, 20).required().label('Arbor nearer'),
    openedDeg: measured(-45, 45).required().label('Pallets opened'),
    tipRadiiMm: array(measured(0.5, 500).nullable().defined()).max(200).required().label('Tips'),
    bent: array(measured(1, 200).integer().required()).max(200).required().label('Bent teeth'),
    /** teeth that are left low */
    leftLow: array(measured(1, 200).integer().required()).max(4).required().label('Left low'),
    topped: array(requiredLine(30)).max(20).required().label('Steps done'),
    grooveEntryMm: mm(0, 5, 'Groove, entry'),
    grooveExitMm: mm(0, 5, 'Groove, exit'),
    faces: string().oneOf(['', 'left', 'stoned', 'fresh track', 'faced']).defined().label('Faces'),
    cock: string().oneOf(['', 'no cock', 'pinned', 'not pinned']).defined().label('Cock'),
    balance: string().oneOf(CLICK_STATES).defined().label('Balance swings free'),
    staff: string().oneOf(['', 'polished', 'worn', 'bent', 'broken']).defined().label('Staff pivots'),
    jewel: string().oneOf(['', 'sound', 'bored', 'cracked']).defined().label('Jewels'),
    roller: string().oneOf(CLICK_STATES).defined().label('Roller seated'),
    way: string<WayKey | ''>()
      .oneOf(['', ...WAY_KEYS])
      .defined()
      .label('Way out'),
    ownerAgreed: boolean().required().label('The owner agreed'),
    note: text(500).defined().label('Note'),
  }),
  [
    'tips',
    'Tips: there are more than the wheel has teeth',
    (e) => e.teeth === null || e.tipRadiiMm.length <= (e.teeth ?? Infinity),
  ],
  [
    'span',
    'Spaces spanned: it must be less than half the teeth',
    (e) => e.teeth === null || e.spannedSpaces === null || e.spannedSpaces <= e.teeth / 2 - 0.5,
  ],
)
export type EscapementSheetChange = InferType<typeof EscapementSheetChange>
export type EscapementSheetRow = EscapementSheetChange & Stamped

export function blankEscapement(id: string): EscapementSheetChange {
  return {
    id,
    version: 0,
    kind: '',
    teeth: null,
    tipRadiusMm: null,
    centreDistanceMm: null,
    spannedSpaces: null,
    palletMm: null,
    acrossMm: null,
    liftDeg: null,
    lockDeg: null,
    swingDeg: null,
    palletEntry: [],
    palletExit: [],
    photoId: null,
    trueing: null,
    nearerMm: 0,
    openedDeg: 0,
    tipRadiiMm: [],
    bent: [],
    leftLow: [],
    topped: [],
    grooveEntryMm: null,
    grooveExitMm: null,
    faces: '',
    cock: '',
    balance: '',
    staff: '',
    jewel: '',
    roller: '',
    way: '',
    ownerAgreed: false,
    note: '',
  }
}
