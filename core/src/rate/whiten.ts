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
 * @param readings - of one segment, in order of time, all with the same parameters in one order; sigma is the
 *   reading's own
 * @param walk - standard deviation of the walk, s per √day
 * @param overClaim - how much worse the readings are than their own sigma
 */
export function whitened(readings: TimedEquation[], walk: number, overClaim = 1): Equation[] {
  const [first] = readings
  if (!first) return []
  // Each reading of a segment speaks of the same parameters, in the same order.
  const parameters = first.terms.map(([i]) => i)
  const walked = new Float64Array(parameters.length)
  let walkedValue = 0
  let variance = 0
  let before = first.days
  return readings.map((reading) => {
    variance += walk ** 2 * Math.max(0, reading.days - before)
    before = reading.days
    const total = variance + (overClaim * reading.sigma) ** 2
    const gain = variance / total
    const value = reading.value - walkedValue
    const terms: [number, number][] = []
    for (let place = 0; place < reading.terms.length; place++) {
      const left = reading.terms[place]![1] - walked[place]!
      walked[place]! += gain * left
      terms.push([parameters[place]!, left])
    }
    walkedValue += gain * value
    variance *= 1 - gain
    return { terms, value, sigma: Math.sqrt(total) }
  })
}
