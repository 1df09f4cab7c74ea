import { evidenceFor } from './average.ts'
import type { RateEvent, RateReading, RateRun } from './log.ts'
import type { Influence } from './influences.ts'
import { gather } from './segments.ts'

/** One reading in so many is mistyped, and one clock in so many has its hands set without a word. */
const MISTYPED = 0.01
const HANDS_UNTOLD = 0.01
/** What is mistyped, or set, is off by anything up to this, s. */
const OFF_BY_S = 7200
/** In a long book only the readings at odds with their neighbours are tried. */
const TRIED = 14
/** While nothing is off by more than so many of its own standard deviations there is nothing to look for. */
const ODD = 3.6
/** More than this share of a book can't all be mistyped. */
const MOST_SHARE = 1 / 3
/** A moment before, s: hands that nobody wrote down were set just before the reading that shows it. */
const JUST_BEFORE_S = 1

/** A reading that does not belong with the others. */
export interface Suspect {
  /** its place among the readings, as given */
  index: number
  /** by itself mistyped, or all from it on shifted: the hands were set */
  kind: 'mistyped' | 'hands'
}

/** A book as it is once its suspects are set apart. */
export interface Cleared {
  suspects: Suspect[]
  readings: RateReading[]
  events: RateEvent[]
}

/**
 * The readings that don't belong, one after another, and the book without them.
 *
 * Each is found by how much likelier the rest becomes without it (or with the hands set before it), weighed against
 * how seldom a reading is mistyped and over how wide a range. A short book where any one of three might be the wrong
 * one goes by what clocks do: that which leaves an ordinary rate.
 */
export function clear(
  readings: RateReading[],
  events: RateEvent[],
  prior: number | null,
  runs: RateRun[] = [],
  influences: Influence[] = [],
): Cleared {
  const numbered = readings.map((r, index) => ({ ...r, index })).sort((a, b) => a.atS - b.atS)
  let kept = numbered
  let happened = events
  const suspects: Suspect[] = []
  let { evidence, worst } = evidenceFor(gather(kept, happened, runs), prior, influences)
  while (worst > ODD && kept.length >= 3 && suspects.length + 1 <= MOST_SHARE * numbered.length) {
    let best: {
      gain: number
      suspect: Suspect
      readings: typeof kept
      events: RateEvent[]
      evidence: number
      worst: number
    } | null = null
    for (const at of oddest(kept)) {
      const one = kept[at]!
      const tries: { suspect: Suspect; readings: typeof kept; events: RateEvent[]; cost: number }[] = [
        {
          suspect: { index: one.index, kind: 'mistyped' },
          readings: kept.filter((_, i) => i !== at),
          events: happened,
          cost: Math.log(MISTYPED / OFF_BY_S),
        },
      ]
      // Hands set before the second reading say no more than a mistyped first one, unless the nut was turned as well.
      if (at > 1 || (at === 1 && happened.some((e) => e.atS >= kept[0]!.atS && e.atS < one.atS)))
        tries.push({
          suspect: { index: one.index, kind: 'hands' },
          readings: kept,
          events: [...happened, { atS: Math.max(kept[at - 1]!.atS, one.atS - JUST_BEFORE_S), kind: 'hands' }],
          cost: Math.log(HANDS_UNTOLD),
        })
      for (const { cost, ...attempt } of tries) {
        const without = evidenceFor(gather(attempt.readings, attempt.events, runs), prior, influences)
        const gain = without.evidence + cost - evidence
        if (gain > 0 && (best === null || gain > best.gain)) best = { ...attempt, gain, ...without }
      }
    }
    if (best === null) break
    suspects.push(best.suspect)
    kept = best.readings
    happened = best.events
    evidence = best.evidence
    worst = best.worst
  }
  return { suspects: suspects.sort((a, b) => a.index - b.index), readings: kept, events: happened }
}

/** Places of the readings most at odds with the line through their neighbours; all of a short book. */
function oddest(readings: RateReading[]): number[] {
  const places = readings.map((_, i) => i)
  if (readings.length <= TRIED) return places
  const odd = (i: number) => {
    const from = Math.max(0, Math.min(readings.length - 3, i - 1))
    const [a, b, c] = [readings[from]!, readings[from + 1]!, readings[from + 2]!]
    const share = c.atS > a.atS ? (b.atS - a.atS) / (c.atS - a.atS) : 0
    return Math.abs(b.errorS - a.errorS - share * (c.errorS - a.errorS))
  }
  return places.sort((a, b) => odd(b) - odd(a)).slice(0, TRIED)
}
