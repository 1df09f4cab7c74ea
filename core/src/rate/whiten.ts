import type { Equation } from './solve.ts'

/** A reading as an equation of the parameters, with its moment. */
export interface TimedEquation extends Equation {
  days: number
}

/**
 * The same readings with their common wander taken out, so that least squares may weigh them one by one.
 *
 * A clock's error walks by itself: neighbours in time share what it walked. The walk is followed reading by reading, as
 * a linear function of those before (Kalman 1960, for a random walk seen through noise); what each reading adds to what
 * they foretell is independent of them, and has its own sigma.
 *
 * @param readings - of one segment, in order of time; sigma is the reading's own
 * @param walk - standard deviation of the walk, s per √day
 */
export function whitened(readings: TimedEquation[], walk: number): Equation[] {
  let walked: Map<number, number> = new Map()
  let walkedValue = 0
  let variance = 0
  let before = readings[0]?.days ?? 0
  return readings.map((reading) => {
    variance += walk ** 2 * Math.max(0, reading.days - before)
    before = reading.days
    const terms = new Map(reading.terms)
    for (const [i, a] of walked) terms.set(i, (terms.get(i) ?? 0) - a)
    const value = reading.value - walkedValue
    const total = variance + reading.sigma ** 2
    const gain = variance / total
    const next = new Map(walked)
    for (const [i, a] of terms) next.set(i, (next.get(i) ?? 0) + gain * a)
    walked = next
    walkedValue += gain * value
    variance *= 1 - gain
    return { terms: [...terms], value, sigma: Math.sqrt(total) }
  })
}
