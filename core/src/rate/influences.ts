import { mean } from 'simple-statistics'
import { circularLossSecondsPerDay } from '../pendulum/circularLoss.ts'
import type { RateReading } from './log.ts'
import type { Figure } from './solve.ts'

const DAY_S = 86_400

/** Something beside nut and wear that the rate follows: so many s/day for each unit of it. */
export interface Influence {
  /** the winding's is how far its run is gone: 0 as it is wound, 1 at the next winding */
  kind: 'warmth' | 'arc' | 'air' | 'winding'
  /** what is supposed of its figure before anything is read */
  prior: Figure
  /** what it stands at, from the middle of all that was read of it */
  at(atS: number): number
  /** the same summed up over time, unit·days from any fixed moment */
  sum(atS: number): number
  /** how well its mean over a stretch is known, by how its readings lie about their neighbours */
  errorOver(fromS: number, toS: number): number
}

/** What is told of the clock's surroundings beside its readings. */
export interface Beside {
  /** of a thermometer or a logger */
  temperatures?: { atS: number; celsius: number }[] | undefined
  /** when it was wound */
  windingsS?: number[] | undefined
  /** what its pendulum should do with a degree, s/day */
  warmth?: Figure | undefined
}

/** Less than this is no spread to learn from: °C, s/day of circular error, hPa. */
const LEAST_WARMTH = 1
const LEAST_ARC = 0.5
const LEAST_AIR = 6
const FEWEST = 3
/** Rods lose up to 0.9 s a day for a degree and over-compensated ones gain a few tenths; air and oil add to it. */
const ANY_WARMTH: Figure = { value: -0.3, standardError: 0.6 }
/** A free pendulum follows its circular error to the letter; a spring or an escapement takes some of it away, or adds. */
const ANY_ARC: Figure = { value: 1, standardError: 0.5 }
/** A third of a second for 25 mm of mercury, as dense bobs do. */
const ANY_AIR: Figure = { value: -0.01, standardError: 0.006 }
/** From wound to run down, s/day: a spring's arc falls, a weight's does not. */
const ANY_WINDING: Figure = { value: 0, standardError: 6 }
/** So many whole runs, and readings to each, before a rhythm is looked for. */
const FEWEST_RUNS = 3
const READ_IN_RUN = 1.6

/**
 * What the readings tell of beside the error: warmth, arc and air, drawn straight from one to the next and level before
 * the first and after the last; and how far its run was gone, by when it was wound.
 *
 * The error follows what lay between two readings, so it is summed over time and not taken at the moment of one. The
 * arc counts by its circular error, so that its figure is 1 for a free pendulum.
 */
export function influencesOf(readings: RateReading[], beside: Beside = {}): Influence[] {
  const of = (value: (r: RateReading) => number | undefined) =>
    readings.flatMap((r): Sample[] => {
      const v = value(r)
      return v === undefined ? [] : [{ atS: r.atS, value: v }]
    })
  const warmths = [
    ...of((r) => r.temperatureC),
    ...(beside.temperatures ?? []).map((t) => ({ atS: t.atS, value: t.celsius })),
  ]
  const arcs = of((r) => (r.semiArcDeg === undefined ? undefined : -circularLossSecondsPerDay(r.semiArcDeg)))
  const airs = of((r) => r.pressureHpa)
  return [
    ...influence('warmth', warmths, beside.warmth ?? ANY_WARMTH, LEAST_WARMTH),
    ...influence('arc', arcs, ANY_ARC, LEAST_ARC),
    ...influence('air', airs, ANY_AIR, LEAST_AIR),
    ...windingRhythm(readings, beside.windingsS ?? []),
  ]
}

/** How far its run is gone, rising from each winding to the next: nothing where it can't be told from the rate itself. */
function windingRhythm(readings: RateReading[], windingsS: number[]): Influence[] {
  const read = readings.map((r) => r.atS)
  const [first, last] = [Math.min(...read), Math.max(...read)]
  const inTime = [...new Set(windingsS)].sort((a, b) => a - b)
  const gaps = inTime.slice(1).map((t, i) => t - inTime[i]!)
  const within = inTime.filter((t) => t >= first && t <= last)
  if (within.length < FEWEST_RUNS) return []
  const usual = [...gaps].sort((a, b) => a - b)[gaps.length >> 1]!
  const inside = read.filter((t) => t >= within[0]! && t <= within.at(-1)!)
  if (usual < DAY_S / 4 || inside.length < READ_IN_RUN * (within.length - 1)) return []
  const gone = (t: number, woundS: number) => Math.min(1.5, (t - woundS) / usual)
  const samples = inTime.flatMap((t, i): Sample[] => [
    ...(i === 0 ? [] : [{ atS: t - 1, value: gone(t, inTime[i - 1]!) }]),
    { atS: t, value: 0 },
  ])
  const lastWound = inTime.at(-1)!
  if (last > lastWound) samples.push({ atS: last, value: gone(last, lastWound) })
  return influence('winding', samples, ANY_WINDING, 0.1).map((f) => ({ ...f, errorOver: () => 0 }))
}

interface Sample {
  atS: number
  value: number
}

function influence(kind: Influence['kind'], samples: Sample[], prior: Figure, least: number): Influence[] {
  const inTime = [...samples].sort((a, b) => a.atS - b.atS)
  const values = inTime.map((s) => s.value)
  if (inTime.length < FEWEST || Math.max(...values) - Math.min(...values) < least) return []
  // The winding's middle is half a run, wherever its first and last readings lie.
  const middle = kind === 'winding' ? 0.5 : mean(values)
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

/** So many values and more tell what wanders from what was misread. */
const TELLS_WANDER = 12

/**
 * How far one value stands for the time about it, one standard deviation.
 *
 * Of values that are misread by n and wander by w from one to the next, steps have the variance 2n² + w² and the distance
 * from the middle of both neighbours 1.5n² + w²/2. What wanders between two values strays from the straight line by w²/12
 * on the mean; what is misread counts whole. Few values can't tell one from the other: all is then taken as misread.
 */
function scatterOf(values: number[]): number {
  const squares = (of: number[]) => mean(of.map((d) => d * d))
  const off = squares(values.slice(1, -1).map((v, i) => v - (values[i]! + values[i + 2]!) / 2))
  if (values.length < TELLS_WANDER) return Math.sqrt(off / 1.5)
  const steps = squares(values.slice(1).map((v, i) => v - values[i]!))
  const misread = Math.min(off / 1.5, Math.max(0, 2 * off - steps))
  const wanders = Math.max(0, steps - 2 * misread)
  return Math.sqrt(misread + wanders / 12)
}
