import { requireWithin } from '../check/require.ts'

const DAY_S = 86_400

export interface TrialInput {
  days: number
  /** Unix s */
  startedAtS: number
  /** adjustments, oil, stops: what begins the count anew, Unix s */
  changesS: number[]
  /** full windings, Unix s */
  windingsS: number[]
  nowS: number
}

export interface TrialStanding {
  /** since when it counts: the last change, or the start; Unix s */
  countsFromS: number
  endsAtS: number
  /** its time is up, and it was wound once since it counts */
  over: boolean
  /** it was fully wound since it counts */
  wound: boolean
  /** what is still wanted, in sentences */
  wanted: string[]
}

/**
 * How a trial stands: since when it counts, when its days are up, and what is still wanted.
 *
 * A change after the start begins the count anew; what happened before the start, or is still to come, does not. A full
 * winding belongs in it: a clock that runs on a fresh spring alone has proved little.
 */
export function trialStanding({ days, startedAtS, changesS, windingsS, nowS }: TrialInput): TrialStanding {
  requireWithin('days', days, 0.01, 1000)
  const past = changesS.filter((s) => s <= nowS)
  const countsFromS = Math.max(startedAtS, ...past)
  const endsAtS = countsFromS + days * DAY_S
  const ranOut = nowS >= endsAtS
  const wound = windingsS.some((s) => s > countsFromS && s <= nowS)
  const wanted = [
    ...(ranOut ? [] : [`${leftOf(endsAtS - nowS)} more without a change`]),
    ...(wound ? [] : ['a full winding since it counts']),
  ]
  return { countsFromS, endsAtS, over: ranOut && wound, wound, wanted }
}

function leftOf(seconds: number): string {
  const days = Math.ceil(seconds / DAY_S - 1e-9)
  if (days > 1) return `${days} days`
  const hours = Math.ceil(seconds / 3600 - 1e-9)
  return hours > 1 ? `${hours} hours` : 'an hour'
}
