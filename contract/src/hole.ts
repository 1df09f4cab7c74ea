import {
  bestPlay,
  bushingPlan,
  OLD_BUSHES,
  sureness,
  type BushingPlan,
  type PlayMeasured,
  type PlayWay,
} from '@treadle/core'
import type { Settings } from './settings.ts'
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
    bushed: boolean().required(),
    flagged: boolean().required(),
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

/** The workshop's rules and cutters, as far as a hole's plan asks. */
export interface HoleRules {
  bushing: Settings['bushing']
  cuttersMm: number[]
}

/** What the plate map tells of a hole. */
export interface HolePlace {
  /** what its wear does to the depth of its gearing */
  depth: { moduleMm: number; depthShiftMm: number } | null
  /** how far, and which way, it goes back to the centre that the counts ask for, where a repair left it off that */
  offCentre: { mm: number; deg: number } | null
}

const NOWHERE: HolePlace = { depth: null, offCentre: null }

/** The plan of a measured hole by the workshop's rules, its verdict overridden where a person did; null until measured. */
export function planOfHole(
  hole: Pick<
    HoleChange,
    | 'longAxisMm'
    | 'shortAxisMm'
    | 'wearDeg'
    | 'pivotMm'
    | 'plateMm'
    | 'role'
    | 'moduleMm'
    | 'depthShiftMm'
    | 'oldHoleMm'
    | 'verdictOverride'
  >,
  { cuttersMm, bushing }: HoleRules,
  { depth, offCentre }: HolePlace = NOWHERE,
): BushingPlan | null {
  const { longAxisMm, shortAxisMm, wearDeg, pivotMm, plateMm, role, oldHoleMm } = hole
  if (longAxisMm === null || shortAxisMm === null || pivotMm === null || plateMm === null) return null
  // What was typed for the depth goes before what the map tells.
  const typed = hole.moduleMm !== null && hole.depthShiftMm !== null
  const moduleMm = typed ? (hole.moduleMm ?? undefined) : depth?.moduleMm
  const depthShiftMm = typed ? (hole.depthShiftMm ?? undefined) : depth?.depthShiftMm
  const plan = bushingPlan(
    { longAxisMm, shortAxisMm, wearDeg, pivotMm, plateMm, role, moduleMm, depthShiftMm, oldHoleMm, offCentre },
    cuttersMm,
    bushing,
  )
  return hole.verdictOverride === null ? plan : { ...plan, verdict: hole.verdictOverride }
}

/** An end of an arbor, as far as its hole asks. */
interface PivotEnd {
  train: string
  arbor: string
  plate: string
  finishedMm: number | null
}

/**
 * The hole as its finished pivot finds it, where one is on record: sizes follow the finished pivot only. One that is
 * thicker than the hole, as a new one may be, wants a bush whatever the schools say.
 */
export function withFinishedPivot<H extends Omit<HoleChange, 'typed'>>(hole: H, pivots: PivotEnd[]): H {
  const pivotMm = pivots.find(
    (p) => p.train === hole.train && p.arbor === hole.arbor && p.plate === hole.plate,
  )?.finishedMm
  if (pivotMm == null) return hole
  const { longAxisMm, shortAxisMm } = hole
  if (longAxisMm === null || shortAxisMm === null || pivotMm <= shortAxisMm) return { ...hole, pivotMm }
  return {
    ...hole,
    pivotMm,
    shortAxisMm: pivotMm,
    longAxisMm: Math.max(longAxisMm, pivotMm),
    verdictOverride: hole.verdictOverride ?? 'bush',
  }
}

export interface HoleJudged {
  verdict: 'bush' | 'leave' | null
  /** sizes and schools; null until the caliper was used */
  plan: BushingPlan | null
  play: PlayMeasured | null
  /** chance that the play is on its side of the workshop's limit; null: not measured */
  sure: number | null
  settleBy: PlayWay | null
  nearLimit: boolean
  /** judged, waived, or overridden by a person */
  done: boolean
}

/**
 * The verdict on a hole by whatever it was measured with.
 *
 * The caliper's two axes give all three schools. A gauge or the lean test gives the play alone: enough to leave a hole,
 * and to know that it must be bushed; the sizes wait for the caliper.
 */
export function judgeHole(hole: Omit<HoleChange, 'typed'>, rules: HoleRules, place: HolePlace = NOWHERE): HoleJudged {
  const plan = planOfHole(hole, rules, place)
  const play = bestPlay(hole)
  const share = hole.role === 'other' ? rules.bushing.playPercent : rules.bushing.finePlayPercent
  const limitMm = hole.pivotMm === null ? null : (share / 100) * hole.pivotMm
  const sure = play && limitMm !== null ? sureness(play, limitMm) : null
  const byPlay = play && limitMm !== null ? (play.playMm > limitMm ? ('bush' as const) : ('leave' as const)) : null
  const verdict = hole.verdictOverride ?? plan?.verdict ?? byPlay
  return {
    verdict,
    plan,
    play,
    sure: sure?.sure ?? null,
    settleBy: sure?.settleBy ?? null,
    nearLimit: plan
      ? plan.nearLimit
      : byPlay === 'leave' && play !== null && limitMm !== null && play.playMm >= 0.8 * limitMm,
    done: verdict !== null || hole.waived.trim() !== '',
  }
}
