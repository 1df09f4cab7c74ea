import { circularLossSecondsPerDay } from '../pendulum/circularLoss.ts'
import type { RateReading } from './log.ts'
import type { Figure } from './solve.ts'

const DAY_S = 86_400

/** Something beside nut and wear that the rate follows: so many s/day for each unit of it. */
export interface Influence {
  kind: 'warmth' | 'arc'
  /** what is supposed of its figure before anything is read */
  prior: Figure
  /** what it stands at, from the middle of all that was read of it */
  at(atS: number): number
  /** the same summed up over time, unit·days from any fixed moment */
  sum(atS: number): number
  /** how well its mean over a stretch is known, by how its readings lie about their neighbours */
  errorOver(fromS: number, toS: number): number
}

/** Less than this is no spread to learn from: °C, and s/day of circular error. */
const LEAST_WARMTH = 1
const LEAST_ARC = 0.5
const FEWEST = 3
/** Rods lose up to 0.9 s a day for a degree and over-compensated ones gain a few tenths; air and oil add to it. */
const ANY_WARMTH: Figure = { value: -0.3, standardError: 0.6 }
/** A free pendulum follows its circular error to the letter; a spring or an escapement takes some of it away, or adds. */
const ANY_ARC: Figure = { value: 1, standardError: 0.5 }

/**
 * What the readings tell of beside the error: warmth and arc, drawn straight from one to the next and level before the
 * first and after the last.
 *
 * The error follows what lay between two readings, so it is summed over time and not taken at the moment of one. The
 * arc counts by its circular error, so that its figure is 1 for a free pendulum.
 *
 * @param warmth - what is supposed of a degree, s/day; of any clock when not given
 */
export function influencesOf(readings: RateReading[], warmth: Figure = ANY_WARMTH): Influence[] {
  const of = (value: (r: RateReading) => number | undefined) =>
    readings.flatMap((r): Sample[] => {
      const v = value(r)
      return v === undefined ? [] : [{ atS: r.atS, value: v }]
    })
  const arcs = of((r) => (r.semiArcDeg === undefined ? undefined : -circularLossSecondsPerDay(r.semiArcDeg)))
  return [
    ...influence(
      'warmth',
      of((r) => r.temperatureC),
      warmth,
      LEAST_WARMTH,
    ),
    ...influence('arc', arcs, ANY_ARC, LEAST_ARC),
  ]
}

interface Sample {
  atS: number
  value: number
}

function influence(kind: Influence['kind'], samples: Sample[], prior: Figure, least: number): Influence[] {
  const inTime = [...samples].sort((a, b) => a.atS - b.atS)
  const values = inTime.map((s) => s.value)
  if (inTime.length < FEWEST || Math.max(...values) - Math.min(...values) < least) return []
  const middle = values.reduce((sum, v) => sum + v, 0) / values.length
  // Sums up to each sample, by the trapezoids between.
  const sums = [0]
  inTime.slice(1).forEach((s, i) => {
    const before = inTime[i]!
    sums.push(sums[i]! + ((s.value + before.value) / 2 - middle) * ((s.atS - before.atS) / DAY_S))
  })
  const place = (atS: number) => {
    let [low, high] = [0, inTime.length - 1]
    while (low < high) {
      const half = (low + high + 1) >> 1
      if (inTime[half]!.atS <= atS) low = half
      else high = half - 1
    }
    return low
  }
  const at = (atS: number) => {
    const first = inTime[0]!
    if (atS <= first.atS) return first.value - middle
    const i = place(atS)
    const [from, to] = [inTime[i]!, inTime[i + 1]]
    if (!to) return from.value - middle
    const part = (atS - from.atS) / (to.atS - from.atS)
    return from.value + part * (to.value - from.value) - middle
  }
  const sum = (atS: number) => {
    const i = atS <= inTime[0]!.atS ? 0 : place(atS)
    const from = inTime[i]!
    const days = (atS - from.atS) / DAY_S
    return sums[i]! + ((at(atS) + from.value - middle) / 2) * days
  }
  const scatter = scatterOf(values)
  const errorOver = (fromS: number, toS: number) =>
    scatter / Math.sqrt(Math.max(1, inTime.filter((s) => s.atS >= fromS && s.atS <= toS).length))
  return [{ kind, prior, at, sum, errorOver }]
}

/** Standard deviation of one value about the middle of its neighbours; √1.5 of its own where they are as unsure. */
function scatterOf(values: number[]): number {
  const off = values.slice(1, -1).map((v, i) => v - (values[i]! + values[i + 2]!) / 2)
  return Math.sqrt(off.reduce((sum, d) => sum + d * d, 0) / off.length / 1.5)
}
