import { secondsOf, type Moment } from '../care/moment.ts'
import { isChange, type RateEventKind } from '../rate/kinds.ts'
import type { Halves } from '../strike/blows.ts'
import { patternInWords, wrongStrikes, type HeardStrike } from '../strike/faults.ts'
import { STRIKE_KIND_FACTS, strikesRight, type StrikeKind } from '../strike/kinds.ts'
import { trialStanding, type TrialStanding } from './standing.ts'

/** What was counted of a strike, and when. */
export interface StrikeCounted extends HeardStrike {
  heardAt: Moment
}

export interface TrialFacts {
  events: { at: Moment; kind: RateEventKind }[]
  strikeCounts: StrikeCounted[]
  /** how it strikes; null: it doesn't, or nobody has said how */
  strike: { kind: StrikeKind; halves: Halves } | null
  moon: boolean
  days: number
  nowS: number
}

/** What a trial may still need besides its days. */
export type TrialNeed = 'winding' | 'strike' | 'moon'

export interface JobTrial extends TrialStanding {
  needs: TrialNeed[]
  /** the day of it, from 1 */
  day: number
  days: number
  /** nothing more is wanted: its time is up, it was wound, struck round, and its moon moved */
  passed: boolean
}

/** Setting the hands, or a stop that somebody else noted, begins no trial anew; what changes the clock does. */
function restarts(kind: RateEventKind): boolean {
  return isChange(kind) && kind !== 'hands'
}

/** How a job’s trial stands, with all that this clock has to show in it; null: not begun. */
export function trialOf({ events, strikeCounts, strike, moon, days, nowS }: TrialFacts): JobTrial | null {
  const momentsOf = (which: (kind: RateEventKind) => boolean) =>
    events.filter((e) => which(e.kind)).map((e) => secondsOf(e.at))
  const begun = momentsOf((kind) => kind === 'trial').filter((s) => s <= nowS)
  if (begun.length === 0) return null
  const standing = trialStanding({
    days,
    startedAtS: Math.max(...begun),
    changesS: momentsOf(restarts),
    windingsS: momentsOf((kind) => kind === 'winding'),
    nowS,
  })
  const since = (at: Moment) => secondsOf(at) >= standing.countsFromS
  const moonMoved = momentsOf((kind) => kind === 'moon').some((s) => s >= standing.countsFromS && s <= nowS)
  const struck = strike
    ? strikeWanted(
        strike,
        strikeCounts.filter((c) => since(c.heardAt)),
      )
    : []
  const moonWanted = moon && !moonMoved ? ['its moon seen to move on'] : []
  const more = [...struck, ...moonWanted]
  return {
    ...standing,
    wanted: [...standing.wanted, ...more],
    needs: [
      ...(standing.wound ? [] : (['winding'] as const)),
      ...(struck.length > 0 ? (['strike'] as const) : []),
      ...(moonWanted.length > 0 ? (['moon'] as const) : []),
    ],
    day: Math.floor((nowS - standing.countsFromS) / 86_400) + 1,
    days,
    passed: standing.over && more.length === 0,
  }
}

/** What of a round of the dial is still to be heard, or was heard wrong. */
export function strikeWanted(strike: { kind: StrikeKind; halves: Halves }, heard: HeardStrike[]): string[] {
  const right = strikesRight(strike.kind, strike.halves)
  const counted = right.filter((r) => heard.some((h) => h.hour === r.hour && h.quarter === r.quarter)).length
  return [
    ...(wrongStrikes(strike, heard).length > 0
      ? [`its strike put right: ${patternInWords(strike, heard).replace(/\.$/, '')}`]
      : []),
    ...(counted < right.length ? [`struck round the dial: ${counted} of ${right.length} heard`] : []),
  ]
}

/** The days of a clock’s trial: longer where it chimes, shows the moon or a calendar, or is otherwise complicated. */
export function trialDaysFor(
  clock: {
    trains: { train: string }[]
    work: { moon: boolean; calendar: boolean; strike?: { kind: StrikeKind } | undefined }
  },
  ways: { trialDays: number; trialDaysLong: number },
): number {
  const { moon, calendar, strike } = clock.work
  const complicated =
    moon ||
    calendar ||
    clock.trains.some((t) => t.train === 'chime') ||
    (strike !== undefined && (STRIKE_KIND_FACTS[strike.kind].quarters !== 'none' || strike.kind === 'repeater'))
  return complicated ? ways.trialDaysLong : ways.trialDays
}
