import { nth } from '../check/nth.ts'
import { studentFactor } from '../check/studentFactor.ts'
import { median } from 'simple-statistics'
import type { Slip } from './slips.ts'
import { robustSpread } from './spread.ts'
import type { TrackedBeat } from './track.ts'

export interface BeatFit {
  /** mean time of one beat, s */
  beatS: number
  beatStandardErrorS: number
  /** by how much an interval from first to second side exceeds the mean beat, s */
  unevenS: number
  unevenStandardErrorS: number
  /** standard deviation of one healthy beat's time, s */
  scatterS: number
  /** seconds late of every beat against the healthy ones */
  lateS: number[]
  healthy: boolean[]
}

const HEALTHY_SPREADS = 4
/** A tighter bound than half a millisecond would throw out good beats of a short recording. */
const LEAST_SCATTER_S = 1.2e-4
const ROUNDS = 12

/**
 * Period and beat of the healthy beats: t = c + b·n ± h/2, with a free c after each slip of the recorder.
 *
 * Least squares on the beats within four robust spreads of the fit, repeated until they no longer change; bent teeth
 * and knocks are far outside and pull nothing. The standard errors are the classical ones, widened where neighbouring
 * beats err together. Returns null with too few beats to fit.
 */
export function fitBeats(beats: TrackedBeat[], slips: Slip[]): BeatFit | null {
  const segmentOf = beats.map((b) => slips.filter((s) => s.beforeIndex <= b.index).length)
  const segments = slips.length + 1
  const parameters = segments + 2
  if (beats.length < parameters + 1) return null
  let late = firstGuess(beats, segmentOf)
  let healthy: boolean[] = []
  let fitted: ReturnType<typeof leastSquares> = null
  for (let round = 0; round < ROUNDS; round++) {
    // Only the residuals of the last healthy set say how wide healthy is; the first guess uses all.
    const known = late.filter((_, i) => healthy[i] ?? true)
    const limit = HEALTHY_SPREADS * Math.max(LEAST_SCATTER_S, robustSpread(known))
    const next = late.map((v) => Math.abs(v) <= limit)
    if (next.filter(Boolean).length < parameters + 1) return null
    const same = healthy.length > 0 && next.every((v, i) => v === healthy[i])
    healthy = next
    if (same && fitted) break
    fitted = leastSquares(beats, segmentOf, segments, healthy)
    if (!fitted) return null
    late = fitted.late
  }
  if (!fitted) return null
  const kept = late.filter((_, i) => healthy[i])
  const freedom = kept.length - parameters
  const scatterS = Math.sqrt(kept.reduce((sum, v) => sum + v * v, 0) / freedom)
  const together = neighbourCorrelation(beats, late, healthy)
  const widen = (correlation: number) => studentFactor(freedom) * Math.sqrt((1 + correlation) / (1 - correlation))
  return {
    beatS: fitted.beatS,
    beatStandardErrorS: scatterS * Math.sqrt(fitted.beatVariance) * widen(Math.max(0, together)),
    unevenS: fitted.unevenS,
    // Neighbours are of opposite sides: errors that alternate widen the beat, errors in common the rate.
    unevenStandardErrorS: scatterS * Math.sqrt(fitted.unevenVariance) * widen(Math.max(0, -together)),
    scatterS,
    lateS: late,
    healthy,
  }
}

function side(index: number): number {
  return index % 2 === 0 ? -0.5 : 0.5
}

/** Residuals from medians alone, segment by segment. */
function firstGuess(beats: TrackedBeat[], segmentOf: number[]): number[] {
  const slopes: number[] = []
  const span = Math.max(2, 2 * Math.floor(beats.length / 6))
  for (let reach = span; reach >= 2 && slopes.length < 5; reach -= 2)
    beats.forEach((b, i) => {
      const j = i + reach
      const later = beats[j]
      if (later && segmentOf[j] === segmentOf[i] && (later.index - b.index) % 2 === 0)
        slopes.push((later.atS - b.atS) / (later.index - b.index))
    })
  const beatS = slopes.length > 0 ? median(slopes) : 0
  const left = beats.map((b) => b.atS - beatS * b.index)
  const out = new Array<number>(beats.length).fill(0)
  const halves: number[] = []
  beats.forEach((b, i) => {
    const one = beats[i + 1]
    const two = beats[i + 2]
    if (one?.index === b.index + 1 && two?.index === b.index + 2 && segmentOf[i] === segmentOf[i + 2])
      halves.push((nth(left, i + 1) - (nth(left, i) + nth(left, i + 2)) / 2) * 2 * -side(b.index))
  })
  const unevenS = halves.length > 0 ? median(halves) : 0
  for (const segment of new Set(segmentOf)) {
    const inside = beats.flatMap((b, i) => (segmentOf[i] === segment ? [nth(left, i) - unevenS * side(b.index)] : []))
    const middle = median(inside)
    beats.forEach((b, i) => {
      if (segmentOf[i] === segment) out[i] = nth(left, i) - unevenS * side(b.index) - middle
    })
  }
  return out
}

function leastSquares(beats: TrackedBeat[], segmentOf: number[], segments: number, healthy: boolean[]) {
  // Centring in each segment takes its constant out and keeps the 2 × 2 system well conditioned.
  const means = Array.from({ length: segments }, () => ({ count: 0, n: 0, s: 0, t: 0 }))
  beats.forEach((b, i) => {
    if (!healthy[i]) return
    const m = means[nth(segmentOf, i)] as { count: number; n: number; s: number; t: number }
    m.count++
    m.n += (b.index - m.n) / m.count
    m.s += (side(b.index) - m.s) / m.count
    m.t += (b.atS - m.t) / m.count
  })
  const centred = (b: TrackedBeat, i: number) => {
    const m = means[nth(segmentOf, i)] as { n: number; s: number; t: number }
    return { n: b.index - m.n, s: side(b.index) - m.s, t: b.atS - m.t }
  }
  let nn = 0
  let ns = 0
  let ss = 0
  let nt = 0
  let st = 0
  beats.forEach((b, i) => {
    if (!healthy[i]) return
    const { n, s, t } = centred(b, i)
    nn += n * n
    ns += n * s
    ss += s * s
    nt += n * t
    st += s * t
  })
  const determinant = nn * ss - ns * ns
  if (!(determinant > 0)) return null
  const beatS = (ss * nt - ns * st) / determinant
  const unevenS = (nn * st - ns * nt) / determinant
  const late = beats.map((b, i) => {
    const { n, s, t } = centred(b, i)
    return t - beatS * n - unevenS * s
  })
  return { beatS, unevenS, late, beatVariance: ss / determinant, unevenVariance: nn / determinant }
}

/** Correlation of neighbouring healthy beats' errors, 0 unless it is told from chance; at most 0.95. */
function neighbourCorrelation(beats: TrackedBeat[], late: number[], healthy: boolean[]): number {
  let product = 0
  let squares = 0
  let pairs = 0
  for (let i = 1; i < beats.length; i++) {
    const adjacent = (beats[i] as TrackedBeat).index === (beats[i - 1] as TrackedBeat).index + 1
    if (!adjacent || !healthy[i] || !healthy[i - 1]) continue
    product += nth(late, i) * nth(late, i - 1)
    squares += (nth(late, i) ** 2 + nth(late, i - 1) ** 2) / 2
    pairs++
  }
  if (pairs < 8 || squares === 0) return 0
  const correlation = product / squares
  return Math.abs(correlation) > 2 / Math.sqrt(pairs) ? Math.max(-0.95, Math.min(0.95, correlation)) : 0
}
