import { bushingPlan, type BushingPlan } from '../bushing/plan.ts'
import type { BushingRules } from '../bushing/schools.ts'
import { samePlace } from '../plate/samePlace.ts'
import { bestPlay, sureness, type PlayMeasured, type PlayWay } from '../wear/sure.ts'
import type { HoleFacts } from './facts.ts'
import type { HolePlace } from './place.ts'

/** The workshop's rules and cutters, as far as a hole's verdict asks. */
export interface HoleRules {
  bushing: BushingRules
  /** by their measured size, mm */
  cuttersMm: number[]
}

/** An end of an arbor, as far as its hole asks. */
export interface PivotEnd {
  train: string
  arbor: string
  plate: string
  finishedMm: number | null
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
  /** the pivot it was judged by: the finished one, where one is on record; mm */
  pivotMm: number | null
}

/** Play of this share of its limit and more is near it. */
const NEAR = 0.8

/**
 * The verdict on a hole, with all that is known of it: its own figures, the finished pivot where one is on record, and
 * what the plate map tells of its place. There is no other way to judge one.
 *
 * The caliper's two axes give all three schools. A gauge or the lean test gives the play alone: enough to leave a hole,
 * and to know that it must be bushed; the sizes wait for the caliper.
 */
export function judgeHole(measured: HoleFacts, pivots: PivotEnd[], rules: HoleRules, place: HolePlace): HoleJudged {
  const hole = withFinishedPivot(measured, pivots)
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
      : byPlay === 'leave' && play !== null && limitMm !== null && play.playMm >= NEAR * limitMm,
    done: verdict !== null || hole.waived.trim() !== '',
    pivotMm: hole.pivotMm,
  }
}

/** The plan of a measured hole by the workshop's rules, its verdict overridden where a person did; null until measured. */
function planOfHole(hole: HoleFacts, { cuttersMm, bushing }: HoleRules, { depth, offCentre }: HolePlace) {
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

/**
 * The hole as its finished pivot finds it, where one is on record: sizes follow the finished pivot only. One that is
 * thicker than the hole, as a new one may be, wants a bush whatever the schools say.
 */
export function withFinishedPivot<H extends HoleFacts>(hole: H, pivots: PivotEnd[]): H {
  const pivotMm = pivots.find((p) => samePlace(p, hole))?.finishedMm
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
