import { fitterOf, type RateFit, type Supposed, type Unsteadiness } from './fit.ts'
import type { Influence } from './influences.ts'
import type { Segment } from './segments.ts'
import type { Figure } from './solve.ts'

/** How clocks walk by themselves, s per √day: a usual figure, and by how much others differ from it (natural logarithm). */
const USUAL_WALK = 0.8
const WALK_SPREAD = 0.9
const CLAIM_SPREAD = 0.25
const WALKS = [0.05, 0.15, 0.3, 0.5, 0.8, 1.3, 2.2, 4, 8]
const OVER_CLAIMS = [1, 1.4, 2]
/** What weighs less than this changes no figure that is told. */
const NEGLIGIBLE = 1e-7

/** Every unsteadiness considered, with the natural logarithm of how usual it is. */
function grid(walks: number[], overClaims: number[]): (Unsteadiness & { usual: number })[] {
  return walks.flatMap((walk) =>
    overClaims.map((overClaim) => ({
      walk,
      overClaim,
      usual: -0.5 * (Math.log(walk / USUAL_WALK) / WALK_SPREAD) ** 2 - 0.5 * (Math.log(overClaim) / CLAIM_SPREAD) ** 2,
    })),
  )
}

const FINE = grid(WALKS, OVER_CLAIMS)
const COARSE = grid([0.15, 0.5, 1.6, 5], [1, 2.5])

/**
 * Rates and the nut's figure, weighed over how unsteady the clock may be.
 *
 * The scatter is judged by the readings themselves: each unsteadiness counts by how well it foretells them, so that
 * errors are wide while few readings tell how steady the clock is, and true once many do.
 */
export function fitRates(
  segments: Segment[],
  prior: number | null,
  influences: Influence[] = [],
): RateFit & { walk: number } {
  const fitter = fitterOf(segments, prior, influences)
  const all = FINE.map(({ usual, ...unsteady }) => ({ usual, walk: unsteady.walk, fit: fitter(unsteady) }))
  const likely = softmax(all.map(({ usual, fit }) => usual + fit.evidence))
  // Most are out of the question where there are many readings: their figures need not be asked for.
  const fits = all.filter((_, i) => likely[i]! > NEGLIGIBLE)
  const weights = likely.filter((w) => w > NEGLIGIBLE)
  const mixed = (figureOf: (fit: RateFit) => Figure | null): Figure | null => {
    const figures = fits.map(({ fit }) => figureOf(fit))
    if (figures.some((f) => f === null)) return null
    return mixture(figures as Figure[], weights)
  }
  return {
    evidence: evidenceOf(all),
    walk: fits.reduce((sum, { walk }, i) => sum + weights[i]! * walk, 0),
    worst: Math.min(...all.map(({ fit }) => fit.worst)),
    perTurn: mixed((fit) => fit.perTurn),
    rateIn: (segment) => mixed((fit) => fit.rateIn(segment)),
    rateOver: (segment, fromS, toS) => mixed((fit) => fit.rateOver(segment, fromS, toS)),
    influences: influences.map((_, i) =>
      mixture(
        fits.map(({ fit }) => fit.influences[i]!),
        weights,
      ),
    ),
    meanErrorIn: (segment) =>
      mixture(
        fits.map(({ fit }) => fit.meanErrorIn(segment)),
        weights,
      ),
  }
}

/** Before anything is read a clock is within some minutes a day, and shows the time to an hour or so. */
const ORDINARY: Supposed = { rate: 500, error: 5000 }

/**
 * Natural logarithm of how likely the readings are of an ordinary clock, however unsteady it may be; and what fits worst
 * where it fits best, in its own standard deviations.
 */
export function evidenceFor(
  segments: Segment[],
  prior: number | null,
  influences: Influence[] = [],
): { evidence: number; worst: number } {
  const fitter = fitterOf(segments, prior, influences, ORDINARY)
  const fits = COARSE.map(({ usual, ...unsteady }) => ({ usual, fit: fitter(unsteady) }))
  const best = fits.reduce((a, b) => (b.usual + b.fit.evidence > a.usual + a.fit.evidence ? b : a))
  return { evidence: evidenceOf(fits), worst: best.fit.worst }
}

function evidenceOf(fits: { usual: number; fit: RateFit }[]): number {
  const logs = fits.map(({ usual, fit }) => usual + fit.evidence)
  const most = Math.max(...logs)
  return most + Math.log(logs.reduce((sum, l) => sum + Math.exp(l - most), 0))
}

function softmax(logs: number[]): number[] {
  const most = Math.max(...logs)
  const raw = logs.map((l) => Math.exp(l - most))
  const sum = raw.reduce((a, b) => a + b, 0)
  return raw.map((r) => r / sum)
}

/** Mean and standard deviation of a weighted mixture. */
function mixture(figures: Figure[], weights: number[]): Figure {
  const value = figures.reduce((sum, f, i) => sum + weights[i]! * f.value, 0)
  const variance = figures.reduce((sum, f, i) => sum + weights[i]! * (f.standardError ** 2 + (f.value - value) ** 2), 0)
  return { value, standardError: Math.sqrt(variance) }
}
