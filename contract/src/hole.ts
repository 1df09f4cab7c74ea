import { bushingPlan, type BushingPlan } from '@treadle/core'
import type { Settings } from './settings.ts'
import { boolean, id, line, measured, only, requiredLine, string, text, type InferType, version } from './fields.ts'

const typed = () =>
  only({ value: line(40).defined(), unit: string().oneOf(['mm', 'thou', 'dial']).required() })
    .nullable()
    .defined()

/** A hole on the list of a job, as far as it is measured; every figure in mm, and as it was typed. */
export const HoleChange = only({
  id: id(),
  version: version(),
  train: requiredLine(20).label('Train'),
  arbor: requiredLine(60).label('Arbor'),
  arborIndex: measured(0, 12).integer().required().label('Place in the train'),
  plate: string().oneOf(['front', 'back']).required().label('Plate'),
  role: string().oneOf(['escape', 'pallet', 'other']).required().label('Role'),
  longAxisMm: measured(0.05, 50).nullable().defined().label('Long way'),
  shortAxisMm: measured(0.05, 50).nullable().defined().label('Short way'),
  wearDeg: measured(0, 360).nullable().defined().label('Worn toward'),
  pivotMm: measured(0.05, 50).nullable().defined().label('Pivot'),
  plateMm: measured(0.3, 60).nullable().defined().label('Plate here'),
  moduleMm: measured(0.05, 20).nullable().defined().label('Module'),
  depthShiftMm: measured(-5, 5).nullable().defined().label('Shift along the line of centres'),
  typed: only({ longAxis: typed(), shortAxis: typed(), wear: typed(), pivot: typed(), plate: typed() }),
  verdictOverride: string().oneOf(['bush', 'leave']).nullable().defined().label('Verdict'),
  overrideReason: text(500).defined().label('Reason'),
  bushed: boolean().required(),
  flagged: boolean().required(),
}).test(
  'reason',
  'Reason: say why, when the verdict is not the rule’s',
  (hole) => hole.verdictOverride === null || hole.overrideReason.trim().length >= 4,
)
export type HoleChange = InferType<typeof HoleChange>
export type Hole = HoleChange & { jobId: string; measuredBy: string }

/** The plan of a measured hole by the workshop's rules, its verdict overridden where a person did; null until measured. */
export function planOfHole(
  hole: Pick<
    HoleChange,
    'longAxisMm' | 'shortAxisMm' | 'pivotMm' | 'plateMm' | 'role' | 'moduleMm' | 'depthShiftMm' | 'verdictOverride'
  >,
  { cuttersMm, bushing }: Pick<Settings, 'cuttersMm' | 'bushing'>,
): BushingPlan | null {
  const { longAxisMm, shortAxisMm, pivotMm, plateMm, role } = hole
  if (longAxisMm === null || shortAxisMm === null || pivotMm === null || plateMm === null) return null
  const moduleMm = hole.moduleMm ?? undefined
  const depthShiftMm = hole.depthShiftMm ?? undefined
  const plan = bushingPlan(
    { longAxisMm, shortAxisMm, pivotMm, plateMm, role, moduleMm, depthShiftMm },
    cuttersMm,
    bushing,
  )
  return hole.verdictOverride === null ? plan : { ...plan, verdict: hole.verdictOverride }
}
