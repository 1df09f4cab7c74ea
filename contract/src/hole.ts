import { OLD_BUSHES } from '@treadle/core/choices'
import {
  boolean,
  id,
  line,
  measured,
  only,
  ruled,
  requiredLine,
  string,
  text,
  type InferType,
  version,
} from './fields.ts'

const typed = () =>
  only({ value: line(40).defined(), unit: string().oneOf(['mm', 'thou', 'dial']).required() })
    .nullable()
    .defined()

/** A hole on the list of a job, as far as it is measured; every figure in mm, and as it was typed. */
export const HoleChange = ruled(
  only({
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
    /** play by dial gauge, and lean with the other plate off, where the caliper was not used */
    shakeMm: measured(0, 20).nullable().defined().label('Side shake'),
    leanDeg: measured(0, 30).nullable().defined().label('Lean'),
    /** what an earlier repair left in it */
    old: string().oneOf(OLD_BUSHES).required().label('Met in the hole'),
    /** across the hole that the old bush leaves; of a screwed one, across the crests of its thread */
    oldHoleMm: measured(0.1, 60).nullable().defined().label('Hole the old bush leaves'),
    /** across its oil sink */
    sinkMm: measured(0.1, 60).nullable().defined().label('Oil sink'),
    /** why it need not be judged; empty: it must be */
    waived: text(300).defined().label('Why it need not be judged'),
    bushed: boolean().required().label('Bushed'),
    flagged: boolean().required().label('Flagged for later'),
  }),
  [
    'reason',
    'Reason: say why, when the verdict is not the rule’s',
    (hole) => hole.verdictOverride === null || hole.overrideReason.trim().length >= 4,
  ],
  [
    'old hole',
    'Hole the old bush leaves: it must be larger than the pivot hole was, the short way',
    (hole) => hole.oldHoleMm == null || hole.shortAxisMm == null || hole.oldHoleMm > hole.shortAxisMm,
  ],
  [
    'sink',
    'Oil sink: it must be larger than the hole, the short way',
    (hole) => hole.sinkMm == null || hole.shortAxisMm == null || hole.sinkMm > hole.shortAxisMm,
  ],
)
export type HoleChange = InferType<typeof HoleChange>
export type Hole = HoleChange & { jobId: string; measuredBy: string; whoId?: string | null }

/** A hole on the list of which nothing is known yet. */
export function blankHole(
  id: string,
  place: Pick<HoleChange, 'train' | 'arbor' | 'arborIndex' | 'plate' | 'role'>,
): HoleChange {
  return {
    ...place,
    id,
    version: 0,
    longAxisMm: null,
    shortAxisMm: null,
    wearDeg: null,
    pivotMm: null,
    plateMm: null,
    moduleMm: null,
    depthShiftMm: null,
    shakeMm: null,
    leanDeg: null,
    old: 'none',
    oldHoleMm: null,
    sinkMm: null,
    waived: '',
    typed: { longAxis: null, shortAxis: null, wear: null, pivot: null, plate: null },
    verdictOverride: null,
    overrideReason: '',
    bushed: false,
    flagged: false,
  }
}
