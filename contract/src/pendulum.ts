import type { BobShape, HoldsAt, PendulumMaterial, SheetPart, SheetPartKind } from '@treadle/core'
import { BOB_SHAPES, HOLDS_AT, PENDULUM_MATERIALS, SHEET_PARTS } from '@treadle/core/choices'
import { array, id, measured, mm, moment, only, ruled, string, text, version, type InferType } from './fields.ts'
import type { Stamped } from './stamped.ts'

export const SHEET_PART_TITLES: Record<SheetPartKind, string> = {
  rod: 'Rod',
  bob: 'Bob',
  nut: 'Rating nut',
  jar: 'Jar',
  sleeve: 'Sleeve under the bob',
  gridiron: 'Gridiron',
  tray: 'Tray',
  weight: 'Added weight',
}

/** A part of a pendulum as it lies on the bench; what its kind has no use for is null. */
export const PendulumPartOnBench = only({
  kind: string<SheetPartKind>().oneOf(SHEET_PARTS).required().label('Part'),
  shape: string<BobShape>().oneOf(BOB_SHAPES).nullable().defined().label('Shape'),
  material: string<PendulumMaterial>().oneOf(PENDULUM_MATERIALS).required().label('Made of'),
  massG: measured(0.001, 2e6).nullable().defined().label('Mass'),
  atMm: mm(0, 8000, 'How deep'),
  lengthMm: mm(0.1, 8000, 'Length'),
  acrossMm: mm(0.1, 1000, 'Across'),
  thickMm: mm(0.1, 500, 'Thickness'),
  pairs: measured(1, 6).integer().nullable().defined().label('Pairs'),
  holdsAt: string<HoldsAt>().oneOf(HOLDS_AT).nullable().defined().label('Rests on the rod at its'),
  alphaPerMillion: measured(-20, 300).nullable().defined().label('Expansion'),
})

/** A whole pendulum laid out, with the thread that is left on its rod. */
export const PendulumSheetChange = only({
  id: id(),
  version: version(),
  parts: array(PendulumPartOnBench).max(40).required().label('Parts'),
  threadUpMm: mm(0, 500, 'Thread left to raise'),
  threadDownMm: mm(0, 500, 'Thread left to lower'),
  note: text(500).defined().label('Note'),
})
export type PendulumSheetChange = Omit<InferType<typeof PendulumSheetChange>, 'parts'> & { parts: SheetPart[] }
export type PendulumSheetRow = PendulumSheetChange & Stamped

export function blankPendulumSheet(id: string): PendulumSheetChange {
  return { id, version: 0, parts: [], threadUpMm: null, threadDownMm: null, note: '' }
}

export const RUN_DOWN_MOMENTS = ['found', 'after'] as const
export const RUN_DOWN_TITLES: Record<(typeof RUN_DOWN_MOMENTS)[number], string> = {
  found: 'before the repair',
  after: 'after the repair',
}
export const RUN_DOWN_WAYS = ['eye', 'scale', 'camera'] as const
export const RUN_DOWN_WAY_TITLES: Record<(typeof RUN_DOWN_WAYS)[number], string> = {
  eye: 'by eye',
  scale: 'against a scale',
  camera: 'by camera',
}
export const RUN_DOWN_DRIVES = ['', 'weight', 'spring'] as const

/** A pendulum left to run down with its crutch off, and what drives the clock: where the power goes. */
export const RunDownChange = ruled(
  only({
    id: id(),
    version: version(),
    when: string().oneOf(RUN_DOWN_MOMENTS).required().label('When'),
    ranAt: moment().label('Let go on'),
    way: string().oneOf(RUN_DOWN_WAYS).required().label('How the arc was told'),
    readings: array(
      only({
        atS: measured(0, 200_000).required().label('After'),
        semiArcDeg: measured(0.01, 90).required().label('Semi-arc'),
      }),
    )
      .max(300)
      .required()
      .label('Arcs'),
    /** at which the clock goes */
    semiArcDeg: measured(0.05, 45).nullable().defined().label('Semi-arc at work'),
    /** where no pendulum is laid out */
    massG: measured(0.1, 2e6).nullable().defined().label('Pendulum weighs'),
    drive: string().oneOf(RUN_DOWN_DRIVES).defined().label('Driven by'),
    weightKg: measured(0.001, 2000).nullable().defined().label('Weight'),
    fallMm: measured(1, 60_000).nullable().defined().label('Falls'),
    torqueNmm: measured(0.1, 1e6).nullable().defined().label('Torque at the great wheel'),
    turns: measured(0.01, 1000).nullable().defined().label('Turns of the great wheel'),
    hours: measured(0.1, 10_000).nullable().defined().label('In'),
    note: text(500).defined().label('Note'),
  }),
  [
    'readings',
    'Arcs: each must be of a later moment than the one before',
    (r) => r.readings.every((one, i) => i === 0 || one.atS > (r.readings[i - 1]?.atS ?? 0)),
  ],
)
export type RunDownChange = InferType<typeof RunDownChange>
export type RunDownRow = RunDownChange & Stamped

export function blankRunDown(id: string, when: RunDownChange['when'], ranAt: string): RunDownChange {
  return {
    id,
    version: 0,
    when,
    ranAt,
    way: 'eye',
    readings: [],
    semiArcDeg: null,
    massG: null,
    drive: '',
    weightKg: null,
    fallMm: null,
    torqueNmm: null,
    turns: null,
    hours: null,
    note: '',
  }
}
