import { mean } from 'simple-statistics'
import { circularLossSecondsPerDay } from '../pendulum/circularLoss.ts'
import type { RateBook, RateBookInput } from './book.ts'

/** A change of the clock's arc from one stretch to the next, and how much of its change of rate that is. */
export interface ArcChange {
  beforeDeg: number
  afterDeg: number
  /** what the arc alone does to a free pendulum, s/day, + gains */
  byArc: number
  /** how much its rate really changed */
  changed: number
  standardError: number
  /** what is left stands out from its error: something else changed, its length or its suspension */
  more: boolean
}

/** Less than this is no change of arc that an eye tells, degrees. */
const LEAST = 0.04
const STANDS_OUT = 2

/**
 * What a change of arc, as an oiling or a heavier weight brings, did to the rate, told from a true change of length: the
 * last two stretches with a change between and arcs read in both; null where there are none, or the arc stayed.
 */
export function arcChangeOf(book: RateBook, input: RateBookInput): ArcChange | null {
  const changes = input.events.filter((e) => e.kind === 'change').map((e) => e.atS)
  for (let i = book.segments.length - 1; i > 0; i--) {
    const [before, after] = [book.segments[i - 1]!, book.segments[i]!]
    const between = changes.some((t) => t >= before.toS && t <= after.fromS)
    if (!between || before.rateSecondsPerDay === null || after.rateSecondsPerDay === null) continue
    const beforeDeg = meanArc(input, before.fromS, before.toS)
    const afterDeg = meanArc(input, after.fromS, after.toS)
    if (beforeDeg === null || afterDeg === null) continue
    if (Math.abs(afterDeg - beforeDeg) < LEAST) return null
    const byArc = circularLossSecondsPerDay(beforeDeg) - circularLossSecondsPerDay(afterDeg)
    const changed = after.rateSecondsPerDay - before.rateSecondsPerDay
    const standardError = Math.hypot(before.standardError ?? 0, after.standardError ?? 0)
    const more = Math.abs(changed - byArc) > STANDS_OUT * standardError
    return { beforeDeg, afterDeg, byArc, changed, standardError, more }
  }
  return null
}

/** "Its arc grew from 1.90° to 2.15°: that alone has it lose 3.3 s a day; it lost 3.1 ± 0.4 more, so nothing else changed." */
export function arcChangeInWords({ beforeDeg, afterDeg, byArc, changed, standardError, more }: ArcChange): string {
  const verb = (v: number) => (v >= 0 ? 'gain' : 'lose')
  const arc = `Its arc ${afterDeg > beforeDeg ? 'grew' : 'fell'} from ${beforeDeg.toFixed(2)}° to ${afterDeg.toFixed(2)}°: that alone has it ${verb(byArc)} ${Math.abs(byArc).toFixed(1)} s a day.`
  const did = `It ${changed >= 0 ? 'gained' : 'lost'} ${Math.abs(changed).toFixed(1)} ± ${standardError.toFixed(1)}`
  return more
    ? `${arc} ${did}: something else changed as well, its length or its suspension.`
    : `${arc} ${did}: the arc is all of it, its length stayed.`
}

function meanArc({ readings }: RateBookInput, fromS: number, toS: number): number | null {
  const arcs = readings.flatMap((r) =>
    r.semiArcDeg !== undefined && r.atS >= fromS && r.atS <= toS ? [r.semiArcDeg] : [],
  )
  return arcs.length === 0 ? null : mean(arcs)
}
