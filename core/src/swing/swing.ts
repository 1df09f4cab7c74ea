import { median } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import { FieldError } from '../check/require.ts'
import { robustSpread } from '../listen/spread.ts'

/** A pendulum's angle at a moment, degrees from the vertical of the picture, + right. */
export interface AngleAt {
  atS: number
  deg: number
}

export interface Swing {
  semiArcDeg: number
  standardError: number
  periodS: number
  periodStandardError: number
  /** the middle of its swing, degrees from the vertical of the picture, + right */
  middleDeg: number
  /** passes its middle to the right at this moment, s */
  phaseS: number
  /** scatter of a single angle about the swing, degrees */
  scatterDeg: number
  anglesUsed: number
}

const LEAST_ANGLES = 12
const SHORTEST_PERIOD_S = 0.2
const LONGEST_PERIOD_S = 4
const ROUNDS = 12
/** A sinusoid stays within 1.4 of its own robust spread: what is far beyond is something else. */
const WIDEST = 3
/** Out of all the periods that are tried noise makes some arc: it must be so many of its errors. */
const CLEAR = 5.5
/** Angles farther from the swing than so many spreads are not the pendulum's. */
const OUTLIER = 4

/**
 * The swing that runs through a pendulum's angles: θ = middle + A·sin(2π(t − phase)/T), by least squares.
 *
 * The period is sought from 0.2 to 4 s by what each explains, then everything is fitted together; angles far off the
 * swing are left out. The standard errors are the classical ones of the fit, widened where neighbouring angles err alike.
 *
 * @throws FieldError where there are too few angles, or nothing swings
 */
export function fitSwing(angles: AngleAt[]): Swing {
  if (angles.length < LEAST_ANGLES)
    throw new FieldError('film', `${angles.length} angles`, `it takes at least ${LEAST_ANGLES} to tell a swing`)
  const middle0 = median(angles.map((a) => a.deg))
  const spread0 = robustSpread(angles.map((a) => a.deg))
  let used = angles.filter((a) => Math.abs(a.deg - middle0) <= WIDEST * spread0)
  if (used.length < LEAST_ANGLES) used = angles
  let periodS = findPeriod(used)
  let fit = harmonic(used, periodS)
  for (let round = 0; round < ROUNDS; round++) {
    periodS = refine(used, periodS)
    fit = harmonic(used, periodS)
    const { angleAt, scatter } = fit
    const kept = angles.filter((a) => Math.abs(a.deg - angleAt(a.atS)) <= Math.max(1e-6, OUTLIER * scatter))
    if (kept.length === used.length || kept.length < LEAST_ANGLES) break
    used = kept
  }
  const { sine, cosine, middle, scatter, angleAt } = fit
  const semiArcDeg = Math.hypot(sine, cosine)
  if (!(semiArcDeg > CLEAR * scatter * Math.sqrt(2 / used.length)))
    throw new FieldError('film', `${semiArcDeg.toFixed(3)}°`, 'nothing in it swings clearly')
  const together = neighbours(used.map((a) => a.deg - angleAt(a.atS)))
  const widen = Math.sqrt((1 + together) / (1 - together))
  const phase = Math.atan2(-cosine, sine)
  const duration = nth(used, used.length - 1).atS - nth(used, 0).atS
  return {
    semiArcDeg,
    standardError: scatter * Math.sqrt(2 / used.length) * widen,
    periodS,
    // Frequency from a sinusoid of so many angles: σ_ω = √24·σ/(A·D·√n).
    periodStandardError:
      ((periodS ** 2 / (2 * Math.PI)) * Math.sqrt(24) * scatter * widen) /
      (semiArcDeg * duration * Math.sqrt(used.length)),
    middleDeg: middle,
    phaseS: (phase / (2 * Math.PI)) * periodS,
    scatterDeg: scatter,
    anglesUsed: used.length,
  }
}

function findPeriod(angles: AngleAt[]): number {
  const first = nth(angles, 0).atS
  const duration = nth(angles, angles.length - 1).atS - first
  const mostS = Math.min(LONGEST_PERIOD_S, 1.2 * duration)
  // Steps fine enough that no swing falls between two.
  const step = 0.2 / Math.max(duration, 1e-9)
  let best = { hz: 1, left: Infinity }
  for (let hz = 1 / mostS; hz <= 1 / SHORTEST_PERIOD_S; hz += step) {
    const { scatter } = harmonic(angles, 1 / hz)
    if (scatter < best.left) best = { hz, left: scatter }
  }
  return 1 / best.hz
}

/** The period near a first one that leaves least, by golden section. */
function refine(angles: AngleAt[], periodS: number): number {
  const duration = nth(angles, angles.length - 1).atS - nth(angles, 0).atS
  const width = 0.25 / Math.max(duration, 1e-9)
  let low = 1 / periodS - width
  let high = 1 / periodS + width
  const golden = (Math.sqrt(5) - 1) / 2
  const left = (hz: number) => harmonic(angles, 1 / hz).scatter
  for (let i = 0; i < 48; i++) {
    const a = high - golden * (high - low)
    const b = low + golden * (high - low)
    if (left(a) < left(b)) high = b
    else low = a
  }
  return 2 / (low + high)
}

/** θ = middle + sine·sin ωt + cosine·cos ωt for a given period, with the scatter left. */
function harmonic(angles: AngleAt[], periodS: number) {
  const w = (2 * Math.PI) / periodS
  const n = angles.length
  let [s, c, ss, cc, sc, y, ys, yc] = [0, 0, 0, 0, 0, 0, 0, 0]
  for (const { atS, deg } of angles) {
    const sin = Math.sin(w * atS)
    const cos = Math.cos(w * atS)
    s += sin
    c += cos
    ss += sin * sin
    cc += cos * cos
    sc += sin * cos
    y += deg
    ys += deg * sin
    yc += deg * cos
  }
  const [a11, a12, a22] = [ss - (s * s) / n, sc - (s * c) / n, cc - (c * c) / n]
  const [b1, b2] = [ys - (y * s) / n, yc - (y * c) / n]
  const determinant = a11 * a22 - a12 * a12
  const sine = determinant > 1e-12 ? (a22 * b1 - a12 * b2) / determinant : 0
  const cosine = determinant > 1e-12 ? (a11 * b2 - a12 * b1) / determinant : 0
  const middle = (y - sine * s - cosine * c) / n
  const angleAt = (t: number) => middle + sine * Math.sin(w * t) + cosine * Math.cos(w * t)
  const left = angles.reduce((sum, a) => sum + (a.deg - angleAt(a.atS)) ** 2, 0)
  return { sine, cosine, middle, angleAt, scatter: Math.sqrt(left / Math.max(1, n - 4)) }
}

function neighbours(left: number[]): number {
  let product = 0
  let squares = 0
  for (let i = 1; i < left.length; i++) {
    product += nth(left, i) * nth(left, i - 1)
    squares += nth(left, i) ** 2
  }
  return squares > 0 ? Math.max(0, Math.min(0.95, product / squares)) : 0
}
