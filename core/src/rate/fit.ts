import type { Segment } from './segments.ts'
import { solve, type Equation, type Solution } from './solve.ts'

const DAY_S = 86_400
/** How far the nut's real figure may stand from 43200·p/L before the log has taught it: one standard deviation, share. */
const PRIOR_SPREAD = 0.25
/** What stopping and starting for a turn of the nut may shift the error by, s: one standard deviation. */
const JUMP_SIGMA_S = 2
/** A shift of so many of those was a setting of the hands that nobody wrote down. */
const JUMP_REFUSED = 4
/** No nut stops just where it is meant to, and no clock keeps its rate to the letter: s/day from one segment to the next. */
const WANDER_SIGMA = 0.2
/** Stands for knowing nothing, s/day; it keeps the equations solvable. */
const VAGUE = 1e10

interface Figure {
  value: number
  standardError: number
}

export interface RateFit {
  /** gain of one whole raising turn; null when neither log nor prior tells */
  perTurn: Figure | null
  /** s/day; null where the readings can't tell */
  rateIn(segment: Segment): Figure | null
  /** error at the segment's mean time, s */
  meanErrorIn(segment: Segment): Figure
}

/**
 * Rates of all segments and the figure of the nut, together.
 *
 * error = cₛ + (rₑ + k·turns + wₛ)·t in each segment, wₛ small; where only the nut was turned between two segments their lines meet
 * within a couple of seconds, unless the readings say that the hands were set as well.
 */
export function fitRates(segments: Segment[], prior: number | null): RateFit {
  const first = fitWith(segments, prior, new Set(), 1)
  const refused = new Set(
    links(segments).flatMap((link) => (Math.abs(first.shift(link)) > JUMP_REFUSED * JUMP_SIGMA_S ? [link.to] : [])),
  )
  const second = refused.size > 0 ? fitWith(segments, prior, refused, 1) : first
  const widening = scatterOverClaim(segments, second)
  return widening > 1 ? fitWith(segments, prior, refused, widening) : second
}

interface Fitted extends RateFit {
  shift(link: Link): number
}

interface Link {
  from: number
  to: number
}

function fitWith(segments: Segment[], prior: number | null, refused: Set<number>, widening: number): Fitted {
  const held = segments.filter((s) => s.readings.length > 0)
  const epochs = [...new Set(segments.map((s) => s.epoch))]
  const K = 0
  const rate = (s: Segment) => 1 + epochs.indexOf(s.epoch)
  const constant = (s: Segment) => 1 + epochs.length + held.indexOf(s)
  const wander = (s: Segment) => 1 + epochs.length + held.length + held.indexOf(s)
  const base = held[0]?.meanErrorS ?? 0
  const equations: Equation[] = [
    { terms: [[K, 1]], value: 0, sigma: VAGUE },
    ...epochs.map((_, i): Equation => ({ terms: [[1 + i, 1]], value: 0, sigma: VAGUE })),
  ]
  for (const s of held) equations.push({ terms: [[wander(s), 1]], value: 0, sigma: WANDER_SIGMA })
  if (prior !== null) equations.push({ terms: [[K, 1]], value: prior, sigma: PRIOR_SPREAD * prior })
  for (const s of held)
    for (const r of s.readings) {
      const days = (r.atS - s.meanS) / DAY_S
      equations.push({
        terms: [
          [constant(s), 1],
          [rate(s), days],
          [K, days * s.turns],
          [wander(s), days],
        ],
        value: r.errorS - base,
        sigma: Math.sqrt(widening / r.weight),
      })
    }
  const meeting = ({ from, to }: Link): Equation => {
    const before = segments[from]!
    const after = segments[to]!
    const terms = new Map<number, number>()
    const add = (parameter: number, by: number) => terms.set(parameter, (terms.get(parameter) ?? 0) + by)
    const run = (s: Segment, days: number) => {
      add(rate(s), days)
      add(K, days * s.turns)
      if (s.readings.length > 0) add(wander(s), days)
    }
    add(constant(after), 1)
    add(constant(before), -1)
    run(after, (after.fromS - after.meanS) / DAY_S)
    run(before, (before.meanS - segments[from + 1]!.fromS) / DAY_S)
    for (let i = from + 1; i < to; i++) run(segments[i]!, (segments[i]!.fromS - segments[i + 1]!.fromS) / DAY_S)
    return { terms: [...terms], value: 0, sigma: JUMP_SIGMA_S * Math.sqrt(to - from) }
  }
  for (const link of links(segments)) if (!refused.has(link.to)) equations.push(meeting(link))

  const solution = solve(equations, 1 + epochs.length + 2 * held.length)
  const known = (figure: Figure) => (figure.standardError < VAGUE / 10 ? figure : null)
  return {
    perTurn: known(combine(solution, [[K, 1]])),
    rateIn: (s) => {
      const terms: [number, number][] = [
        [rate(s), 1],
        [K, s.turns],
      ]
      if (s.readings.length > 0) return known(combine(solution, [...terms, [wander(s), 1]]))
      const figure = known(combine(solution, terms))
      return figure && { ...figure, standardError: Math.hypot(figure.standardError, WANDER_SIGMA) }
    },
    meanErrorIn: (s) => {
      const figure = combine(solution, [[constant(s), 1]])
      return { ...figure, value: figure.value + base }
    },
    shift: (link) => meeting(link).terms.reduce((sum, [i, a]) => sum + a * solution.values[i]!, 0),
  }
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

/** χ² per degree of freedom of the readings about the fit, at least 1; 1 while there are too few to say. */
function scatterOverClaim(segments: Segment[], fit: RateFit): number {
  let chiSquared = 0
  let freedom = 0
  for (const s of segments) {
    const slope = fit.rateIn(s)
    if (!slope || s.readings.length < 2) continue
    const mean = fit.meanErrorIn(s).value
    freedom += s.readings.length - 2
    for (const r of s.readings)
      chiSquared += r.weight * (r.errorS - mean - (slope.value * (r.atS - s.meanS)) / DAY_S) ** 2
  }
  return freedom >= 2 ? Math.max(1, chiSquared / freedom) : 1
}
