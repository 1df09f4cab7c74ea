import type { HoleFacts } from '../hole/facts.ts'
import type { HoleJudged } from '../hole/judge.ts'
import { planOfPivot, type PivotFacts } from '../pivot/judge.ts'
import type { PivotRules } from '../pivot/plan.ts'
import type { PivotWork } from '../pivot/steps.ts'

/** What of a job is priced by the piece. */
export interface WorkCounted {
  train: number
  bush: number
  /** pivots that go in the lathe and are not let in anew */
  pivot: number
  're-pivot': number
  /** some hole has a verdict; until then nobody knows how many bushes there are */
  measured: boolean
}

interface JobFound {
  clock: { trains: unknown[] }
  holes: HoleFacts[]
  pivots: (PivotFacts & { work: PivotWork })[]
}

/** What a job’s findings come to, by the piece: each train, each hole to be bushed, each pivot turned or let in anew. */
export function workCounted(
  { clock, holes, pivots }: JobFound,
  judged: (hole: HoleFacts) => HoleJudged,
  rules: PivotRules,
): WorkCounted {
  const verdicts = holes.map((h) => judged(h).verdict)
  const ends = pivots.map((p) => ({ done: p.work, verdict: planOfPivot(p, rules)?.verdict ?? 'leave' }))
  const anew = ends.filter((p) => p.done === 're-pivoted' || (p.done === '' && p.verdict === 're-pivot')).length
  const turned = ends.filter((p) => p.done !== 'left' && (p.done !== '' || p.verdict !== 'leave')).length
  return {
    train: clock.trains.length,
    bush: verdicts.filter((v) => v === 'bush').length,
    're-pivot': anew,
    pivot: turned - anew,
    measured: verdicts.some((v) => v !== null),
  }
}
