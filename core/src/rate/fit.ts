import type { Influence } from './influences.ts'
import type { RateRun } from './log.ts'
import type { Segment } from './segments.ts'
import { solve, type Equation, type Figure, type Solution } from './solve.ts'
import { whitened, type TimedEquation } from './whiten.ts'

const DAY_S = 86_400
/** How far the nut's real figure may stand from 43200·p/L before the log has taught it: one standard deviation, share. */
const PRIOR_SPREAD = 0.25
/** What stopping and starting for a turn of the nut may shift the error by, s: one standard deviation. */
const JUMP_SIGMA_S = 2
/** No nut stops just where it is meant to, and no clock keeps its rate to the letter: s/day from one segment to the next. */
const WANDER_SIGMA = 0.2
/** By how much a clock may strike early or late by its own dial, s: one standard deviation. */
const STRIKES_OFF_S = 60
/** What may be supposed of a rate and of an error before anything is read: standard deviations, s/day and s. */
export interface Supposed {
  rate: number
  error: number
}

/** How far what a gram does may stand from what its pendulum says: one standard deviation, share. */
export const GRAM_SPREAD = 0.07
/** A sound card that is known to the letter still leaves the equations solvable, s/day. */
const EXACT = 1e-6

/** Stands for knowing nothing; it keeps the equations solvable. */
const NOTHING: Supposed = { rate: 1e10, error: 1e10 }

/** How unsteady a clock is, and how much worse its readings are than they claim. */
export interface Unsteadiness {
  /** how the error walks by itself, s per √day */
  walk: number
  /** scatter of the readings over what they claim, ≥ 1 */
  overClaim: number
}

export interface RateFit {
  /** gain of one whole raising turn; null when neither log nor prior tells */
  perTurn: Figure | null
  /** s/day; null where the readings can't tell */
  rateIn(segment: Segment): Figure | null
  /** the same over a stretch within or after it, by the warmth and the arc of then */
  rateOver(segment: Segment, fromS: number, toS: number): Figure | null
  /** s/day for a unit of each influence */
  influences: Figure[]
  /** error at the segment's mean time, s */
  meanErrorIn(segment: Segment): Figure
  /** natural logarithm of how likely the readings are */
  evidence: number
  /** what fits worst, in its own standard deviations */
  worst: number
}

/**
 * Rates of all segments and the figure of the nut, together, for any unsteadiness: what does not hang on it is laid out
 * once, as a book is tried by many.
 *
 * error = cₛ + (rₑ + k·turns + wₛ)·t in each segment, wₛ small, and the error's own walk beside it; where only the nut
 * was turned between two segments their lines meet within a couple of seconds. Readings by the strike share what it is
 * off by the dial; runs by one device share what its own clock is off. Each influence adds its figure times what it
 * stood at, summed over the time between.
 */
export function fitterOf(
  segments: Segment[],
  prior: number | null,
  influences: Influence[] = [],
  supposed = NOTHING,
): (unsteadiness: Unsteadiness) => RateFit {
  const held = segments.filter((s) => s.readings.length > 0 || s.runs.length > 0)
  const epochs = [...new Set(segments.map((s) => s.epoch))]
  const K = 0
  const rate = (s: Segment) => 1 + epochs.indexOf(s.epoch)
  const constant = (s: Segment) => 1 + epochs.length + held.indexOf(s)
  const wander = (s: Segment) => 1 + epochs.length + held.length + held.indexOf(s)
  const base = segments.find((s) => s.readings.length > 0)?.meanErrorS ?? 0
  const runs = held.flatMap((s) => s.runs)
  const devices = [...new Map(runs.map((r) => [r.device, r.deviceError]))]
  const STRIKE = 1 + epochs.length + 2 * held.length
  const INFLUENCE = STRIKE + 1 + devices.length
  const GIVEN = INFLUENCE + influences.length
  /** Terms of what each influence stood at over a stretch, unit·days. */
  const between = (fromS: number, toS: number) =>
    influences.map((f, i): [number, number] => [INFLUENCE + i, f.sum(toS) - f.sum(fromS)])
  const mean = (fromS: number, toS: number) =>
    influences.map((f, i): [number, number] => [
      INFLUENCE + i,
      toS > fromS ? ((f.sum(toS) - f.sum(fromS)) * DAY_S) / (toS - fromS) : f.at(fromS),
    ])
  const meanIn = (s: Segment) => {
    const times = [...s.readings.map((r) => r.atS), ...s.runs.flatMap((r) => [r.fromS, r.toS])]
    return times.length > 0 ? mean(Math.min(...times), Math.max(...times)) : mean(s.fromS, s.fromS)
  }
  const device = (run: RateRun) => STRIKE + 1 + devices.findIndex(([name]) => name === run.device)
  const supposedEquations: Equation[] = [
    { terms: [[K, 1]], value: 0, sigma: supposed.rate },
    ...epochs.map((_, i): Equation => ({ terms: [[1 + i, 1]], value: 0, sigma: supposed.rate })),
    ...held.map((s): Equation => ({ terms: [[constant(s), 1]], value: 0, sigma: supposed.error })),
  ]
  for (const s of held) supposedEquations.push({ terms: [[wander(s), 1]], value: 0, sigma: WANDER_SIGMA })
  supposedEquations.push({ terms: [[STRIKE, 1]], value: 0, sigma: STRIKES_OFF_S })
  supposedEquations.push({ terms: [[GIVEN, 1]], value: 1, sigma: GRAM_SPREAD })
  devices.forEach(([, deviceError], i) => {
    supposedEquations.push({ terms: [[STRIKE + 1 + i, 1]], value: 0, sigma: Math.max(deviceError, EXACT) })
  })
  influences.forEach(({ prior: { value, standardError } }, i) => {
    supposedEquations.push({ terms: [[INFLUENCE + i, 1]], value, sigma: standardError })
  })
  if (prior !== null) supposedEquations.push({ terms: [[K, 1]], value: prior, sigma: PRIOR_SPREAD * prior })
  /** of each segment its readings, each with its own sigma, and its runs */
  const laid = held.map((s) => ({
    readings: s.readings.map((r): TimedEquation => {
      const days = (r.atS - s.meanS) / DAY_S
      return {
        days,
        terms: [
          [constant(s), 1],
          [rate(s), days],
          [K, days * s.turns],
          [GIVEN, days * s.given],
          [wander(s), days],
          [STRIKE, r.byStrike === true ? 1 : 0],
          ...between(s.meanS, r.atS),
        ],
        value: r.errorS - base,
        sigma: 1 / Math.sqrt(r.weight),
      }
    }),
    runs: s.runs.map((run) => ({
      days: (run.toS - run.fromS) / DAY_S,
      standardError: run.standardError,
      terms: [
        [rate(s), 1],
        [K, s.turns],
        [GIVEN, s.given],
        [wander(s), 1],
        [device(run), 1],
        ...mean(run.fromS, run.toS),
      ] as Equation['terms'],
      value: run.secondsPerDay,
    })),
  }))
  const meetings = links(segments).map(meeting)

  return ({ walk, overClaim }) => {
    const equations = [...supposedEquations]
    for (const { readings, runs } of laid) {
      equations.push(...whitened(readings, walk, overClaim))
      for (const { days, standardError, terms, value } of runs)
        equations.push({ terms, value, sigma: Math.hypot(standardError, walk / Math.sqrt(days)) })
    }
    for (const { unreadDays, jumpS, ...equation } of meetings)
      equations.push({ ...equation, sigma: Math.hypot(jumpS, walk * Math.sqrt(unreadDays)) })
    return told(solve(equations, GIVEN + 1))
  }

  function told(solution: Solution): RateFit {
    const known = (figure: Figure) => (figure.standardError < supposed.rate / 10 ? figure : null)
    return {
      evidence: solution.logEvidence,
      worst: solution.worst,
      perTurn: known(combine(solution, [[K, 1]])),
      rateIn: (s) => rateWith(s, meanIn(s)),
      // What comes and goes with the winding is left out of the rate: it is that of a whole run.
      rateOver: (s, fromS, toS) =>
        rateWith(
          s,
          mean(fromS, toS).map(([i, by], k) => [i, influences[k]?.kind === 'winding' ? 0 : by]),
        ),
      influences: influences.map((_, i) => combine(solution, [[INFLUENCE + i, 1]])),
      meanErrorIn: (s) => {
        const figure = combine(solution, [[constant(s), 1]])
        return { ...figure, value: figure.value + base }
      },
    }

    function rateWith(s: Segment, influenced: [number, number][]): Figure | null {
      const terms: [number, number][] = [[rate(s), 1], [K, s.turns], [GIVEN, s.given], ...influenced]
      const isHeld = held.includes(s)
      const figure = known(combine(solution, isHeld ? [...terms, [wander(s), 1]] : terms))
      if (!figure) return null
      const { value, standardError } = figure
      return {
        value,
        standardError: isHeld ? standardError : Math.hypot(standardError, WANDER_SIGMA),
      }
    }
  }

  /** The lines of two segments meet where the nut was turned, but for stopping and starting and the walk between. */
  function meeting({ from, to }: Link): Omit<Equation, 'sigma'> & { unreadDays: number; jumpS: number } {
    const before = segments[from]!
    const after = segments[to]!
    const terms = new Map<number, number>()
    const add = (parameter: number, by: number) => terms.set(parameter, (terms.get(parameter) ?? 0) + by)
    const run = (s: Segment, fromS: number, toS: number) => {
      const days = (toS - fromS) / DAY_S
      for (const [i, by] of between(fromS, toS)) add(i, by)
      add(rate(s), days)
      add(K, days * s.turns)
      add(GIVEN, days * s.given)
      if (held.includes(s)) add(wander(s), days)
    }
    add(constant(after), 1)
    add(constant(before), -1)
    run(after, after.meanS, after.fromS)
    run(before, segments[from + 1]!.fromS, before.meanS)
    for (let i = from + 1; i < to; i++) run(segments[i]!, segments[i + 1]!.fromS, segments[i]!.fromS)
    const unreadDays = (after.readings[0]!.atS - before.readings.at(-1)!.atS) / DAY_S
    return {
      terms: [...terms],
      value: 0,
      unreadDays,
      jumpS: JUMP_SIGMA_S * Math.sqrt(to - from),
    }
  }
}

interface Link {
  from: number
  to: number
}

/** Pairs of segments with readings that only turns of the nut lie between. */
function links(segments: Segment[]): Link[] {
  const out: Link[] = []
  let from = -1
  segments.forEach((s, i) => {
    if (s.breaks) from = -1
    if (s.readings.length === 0) return
    if (from >= 0) out.push({ from, to: i })
    from = i
  })
  return out
}

function combine(solution: Solution, terms: [number, number][]): Figure {
  let value = 0
  let variance = 0
  for (const [i, a] of terms) {
    value += a * solution.values[i]!
    for (const [j, b] of terms) variance += a * b * solution.covariance(i, j)
  }
  return { value, standardError: Math.sqrt(Math.max(0, variance)) }
}
