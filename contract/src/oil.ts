import type { OilKind, OilPart, OilSchool } from '@treadle/core'
import { OIL_KINDS, OIL_PARTS, OIL_SCHOOLS } from '@treadle/core/choices'
import {
  array,
  day,
  id,
  idOrNone,
  line,
  measured,
  only,
  requiredLine,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import type { Stamped } from './stamped.ts'

const schools = Object.keys(OIL_SCHOOLS) as OilSchool[]

/** An oil or a grease of the workshop. */
export const OilChange = only({
  id: id(),
  version: version(),
  name: requiredLine(80).label('Name'),
  kind: string<OilKind>().oneOf(OIL_KINDS).required().label('Kind'),
  /** the day its bottle was opened */
  openedOn: day().nullable().defined().label('Opened on'),
  /** how long an open bottle is trusted */
  keepsYears: measured(0.25, 30).required().label('Keeps, once open'),
  /** how long it is trusted in a clock; empty: as the workshop has it */
  school: string<'' | OilSchool>()
    .oneOf(['', ...schools])
    .defined()
    .label('Trusted in a clock'),
  drawer: line(40).defined().label('Drawer'),
  note: text(300).defined().label('Note'),
})
export type OilChange = InferType<typeof OilChange>
export type OilRow = OilChange

export function blankOil(id: string, kind: OilKind): OilChange {
  return { id, version: 0, name: '', kind, openedOn: null, keepsYears: 3, school: '', drawer: '', note: '' }
}

export const OIL_SIDES = ['front', 'back', 'inside'] as const
export type OilSide = (typeof OIL_SIDES)[number]

const pointKey = () => requiredLine(100)

/** What is oiled on this visit: with which oils, the points added by hand, the sinks measured, and what is ticked off. */
export const OilSheetChange = only({
  id: id(),
  version: version(),
  pivotOilId: idOrNone(),
  heavyOilId: idOrNone(),
  greaseId: idOrNone(),
  /** points that no sheet of this movement knows */
  added: array(
    only({
      name: requiredLine(60).label('Point'),
      part: string<OilPart>().oneOf(OIL_PARTS).required().label('Part'),
      side: string<OilSide>().oneOf(OIL_SIDES).required().label('Side'),
    }),
  )
    .max(60)
    .required()
    .label('Points added'),
  sinks: array(
    only({
      key: pointKey(),
      acrossMm: measured(0.3, 20).required().label('Sink, across'),
      depthMm: measured(0.05, 10).required().label('Sink, deep'),
    }),
  )
    .max(120)
    .required()
    .label('Sinks'),
  done: array(pointKey()).max(400).required().label('Ticked off'),
  /** points that this clock has not, or that are left as they are */
  left: array(pointKey()).max(400).required().label('Left out'),
  note: text(1000).defined().label('Note'),
})
export type OilSheetChange = InferType<typeof OilSheetChange>
export type OilSheetRow = OilSheetChange & Stamped

export function blankOilSheet(id: string): OilSheetChange {
  return {
    id,
    version: 0,
    pivotOilId: null,
    heavyOilId: null,
    greaseId: null,
    added: [],
    sinks: [],
    done: [],
    left: [],
    note: '',
  }
}

export const WITNESS_MOMENTS = ['oiled', 'trial', 'visit'] as const
export type WitnessMoment = (typeof WITNESS_MOMENTS)[number]
export const WITNESS_TITLES: Record<WitnessMoment, string> = {
  oiled: 'freshly oiled',
  trial: 'at the end of its trial',
  visit: 'as it came back',
}
export const WITNESS_STATES = ['', 'stays', 'spread', 'dry'] as const
export type WitnessState = (typeof WITNESS_STATES)[number]
export const WITNESS_STATE_TITLES: Record<WitnessState, string> = {
  '': 'not judged',
  stays: 'stays in its sink',
  spread: 'has run out of it',
  dry: 'is dry or gummed',
}

/** A picture of the sinks at a moment, as a witness of which oil stays. */
export const WitnessChange = only({
  id: id(),
  version: version(),
  moment: string<WitnessMoment>().oneOf(WITNESS_MOMENTS).required().label('When'),
  side: string<'front' | 'back'>()
    .oneOf(['front', 'back'] as const)
    .required()
    .label('Side'),
  photoId: id().label('Picture'),
  state: string<WitnessState>().oneOf(WITNESS_STATES).defined().label('The oil'),
  note: text(500).defined().label('Note'),
})
export type WitnessChange = InferType<typeof WitnessChange>
export type WitnessRow = WitnessChange & Stamped

/** A witness of any visit of a clock, with the pivot oil that was in its sinks then, and when it was put in. */
export interface WitnessListed extends Omit<WitnessRow, 'who' | 'whoId'> {
  jobNumber: number
  takenAt: string
  /** none where nobody wrote it down */
  oilId: string | null
  oiledAt: string | null
}
