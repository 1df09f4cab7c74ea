import { fitRates } from './average.ts'
import type { RateBookInput } from './book.ts'
import { influencesOf } from './influences.ts'
import { gather } from './segments.ts'
import { secondsPerDayPerTurn } from '../pendulum/nut.ts'

/** What one way of reading, or one device, gives to the rate that is told now. */
export interface Share {
  by: string
  /** readings or watches of it */
  count: number
  /** of all that is known of the rate, 0 to 1 */
  share: number
}

/**
 * Each way's share in the rate now: how much less would be known of it without that way, by the precision it would lose
 * (1/σ²); the shares come to 1.
 *
 * @returns most first; empty while no rate is told
 */
export function sharesOf(book: RateBookInput): Share[] {
  const { readings, events, runs = [], pitchMm, lengthMm } = book
  const prior = pitchMm !== undefined && lengthMm !== undefined ? secondsPerDayPerTurn(lengthMm, pitchMm) : null
  const influences = influencesOf(readings, book)
  const names = [...new Set([...readings.map((r) => r.by ?? ''), ...runs.map((r) => r.device)])]
  const knownWithout = (name: string | null): number => {
    const left = readings.filter((r) => name === null || (r.by ?? '') !== name)
    const heard = runs.filter((r) => name === null || r.device !== name)
    if (left.length === 0 && heard.length === 0) return 0
    const segments = gather(left, events, heard)
    const last = segments.at(-1)
    const rate = last && fitRates(segments, prior, influences).rateIn(last)
    return rate ? rate.standardError ** -2 : 0
  }
  const all = knownWithout(null)
  if (all === 0) return []
  const lost = names.map((by) => ({ by, lost: Math.max(0, all - knownWithout(by)) }))
  const sum = lost.reduce((s, l) => s + l.lost, 0)
  if (sum === 0) return []
  return lost
    .map(({ by, lost }) => ({
      by,
      count: readings.filter((r) => (r.by ?? '') === by).length + runs.filter((r) => r.device === by).length,
      share: lost / sum,
    }))
    .sort((a, b) => b.share - a.share)
}
