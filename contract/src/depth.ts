import { FEELS } from '@treadle/core/choices'
import { array, id, measured, only, string, text, version, type InferType } from './fields.ts'
import { arborPlace } from './place.ts'
import type { Stamped } from './stamped.ts'

export const GEARINGS = ['plain', 'contrate', 'crown'] as const

/** A wheel and a pinion in the depthing tool: how the transfer felt at each setting, and the one that is kept. */
export const DepthTrialChange = only({
  id: id(),
  version: version(),
  /** the arbor whose pinion is driven */
  ...arborPlace,
  gearing: string().oneOf(GEARINGS).required().label('Gearing'),
  runnerMm: measured(0, 50).nullable().defined().label('Runner, across'),
  /** of the wheel in hand, where it is another than the plates were made for */
  moduleMm: measured(0.02, 20).nullable().defined().label('Module'),
  trials: array(
    only({
      acrossMm: measured(0.1, 1000).required().label('Across the runners'),
      feel: string()
        .oneOf(['', ...FEELS])
        .defined()
        .label('How it feels'),
    }),
  )
    .max(20)
    .required()
    .label('Settings'),
  keptMm: measured(0.1, 1000).nullable().defined().label('Kept, across the runners'),
  note: text(500).defined().label('Note'),
})
export type DepthTrialChange = InferType<typeof DepthTrialChange>
export type DepthTrialRow = DepthTrialChange & Stamped

export function blankDepthTrial(
  id: string,
  place: Pick<DepthTrialChange, 'train' | 'arbor' | 'arborIndex'>,
): DepthTrialChange {
  return {
    ...place,
    id,
    version: 0,
    gearing: 'plain',
    runnerMm: null,
    moduleMm: null,
    trials: [],
    keptMm: null,
    note: '',
  }
}
