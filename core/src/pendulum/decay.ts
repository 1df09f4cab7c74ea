import { FieldError, requireFinite, requirePositive, requireWithin } from '../check/require.ts'
import { studentFactor } from '../check/studentFactor.ts'
import { STANDARD_GRAVITY } from './gravity.ts'

/** The arc at one moment of a run-down: the pendulum swings by itself, nothing drives it. */
export interface ArcReading {
  atS: number
  /** plumb to the end of the swing */
  semiArcDeg: number
}

export interface Decay {
  /** ω·τ/2 at the arc asked for */
  quality: number
  qualityStandardError: number
  /** in which the arc falls to 1/e, as it falls at the arc asked for, s */
  tauS: number
  lossPerPeriodMicroJ: number
  lossPerBeatMicroJ: number
  /** share of the loss at that arc that grows with the square of the speed, 0 to 1: air whirled up */
  squareShare: number
  /** how far the readings lie from the curve, degrees */
  scatterDeg: number
  /** the fitted arc so many seconds after the first, degrees */
  arcAt: (afterS: number) => number
}

const MOST_READINGS = 1000
/** With fewer readings than this a square-law part is not sought. */
const SQUARE_NEEDS = 4
/** It must explain the readings better by so many of its own standard errors, or more where they are few. */
const SQUARE_SURE = 3.5
const STEPS = 60
/** An arc told by eye is no better than this, degrees: stands in where two readings leave no scatter to judge by. */
const LEAST_SCATTER_DEG = 0.002

/**
 * Q of a free pendulum, and what each swing costs it, from its run-down.
 *
 * −dA/dt = a·A + b·A²: linear drag and suspension, and square-law drag where the readings show it (A falls as e^(−t/τ)
 * where they don't). At the arc asked for τ = 1/(a + b·A), Q = ω·τ/2, and a period costs E·2π/Q with E = m·g·h(1 − cos A).
 * Least squares on the arcs, alike in error; the error of Q from their own scatter.
 *
 * @param readings - 2 to 1000, the arc in degrees, above 0 to 90; falling on the whole
 * @param lengthMm - of the equivalent simple pendulum
 * @param massG - of the whole pendulum
 * @param cgMm - depth of its centre of gravity
 * @param semiArcDeg - at which the loss is asked
 * @throws FieldError naming the figure
 * @see Nelson & Olsson, The pendulum: rich physics from a simple system, Am. J. Phys. 54 (1986)
 */
export function pendulumDecay(
  readings: ArcReading[],
  lengthMm: number,
  massG: number,
  cgMm: number,
  semiArcDeg: number,
): Decay {
  requireWithin('readings', readings.length, 2, MOST_READINGS)
  readings.forEach((r, i) => {
    requireFinite(`readings[${i}].atS`, r.atS)
    requireWithin(`readings[${i}].semiArcDeg`, r.semiArcDeg, 1e-4, 90)
  })
  requirePositive('lengthMm', lengthMm)
  requirePositive('massG', massG)
  requirePositive('cgMm', cgMm)
  requireWithin('semiArcDeg', semiArcDeg, 0.01, 90)
  const sorted = [...readings].sort((a, b) => a.atS - b.atS)
  const first = sorted[0]!
  const last = sorted[sorted.length - 1]!
  if (last.atS <= first.atS || last.semiArcDeg >= first.semiArcDeg)
    throw new FieldError('readings', sorted.length, 'the arc must fall from the first to the last')
  const points = sorted.map((r) => ({ t: r.atS - first.atS, arc: r.semiArcDeg }))
  const chosen = fallThrough(points)
  const falls = chosen.a + chosen.b * semiArcDeg
  if (!(falls > 0)) throw new FieldError('readings', sorted.length, 'the arcs scatter more than they fall')
  const omega = Math.sqrt(STANDARD_GRAVITY / (lengthMm / 1000))
  const quality = omega / (2 * falls)
  const energyMicroJ =
    (massG / 1000) * STANDARD_GRAVITY * (cgMm / 1000) * (1 - Math.cos((semiArcDeg * Math.PI) / 180)) * 1e6
  const lossPerPeriodMicroJ = (energyMicroJ * 2 * Math.PI) / quality
  return {
    quality,
    qualityStandardError: (quality / falls) * chosen.errorAt(semiArcDeg),
    tauS: 1 / falls,
    lossPerPeriodMicroJ,
    lossPerBeatMicroJ: lossPerPeriodMicroJ / 2,
    squareShare: (chosen.b * semiArcDeg) / falls,
    scatterDeg: chosen.scatterDeg,
    arcAt: (afterS) => arcAt(afterS, [chosen.start, chosen.a, chosen.b]),
  }
}

/**
 * The linear law unless the readings plainly show a square part. Nothing gives a free pendulum energy: where the best of
 * both laws would have the linear part drive it, as scattered readings of a short fall do, the square part is alone.
 */
function fallThrough(points: { t: number; arc: number }[]): Fall {
  const linear = fit(points, [START, LINEAR])
  if (points.length < SQUARE_NEEDS) return linear
  const both = fit(points, [START, LINEAR, SQUARE])
  const square = both.a < 0 ? fit(points, [START, SQUARE]) : both
  const freedom = points.length - 3
  const better = Math.sqrt(Math.max(0, linear.squares / square.squares - 1) * freedom)
  return square.b > 0 && better > SQUARE_SURE * studentFactor(freedom) ? square : linear
}

/** What is sought, by its place in the fit. */
const [START, LINEAR, SQUARE] = [0, 1, 2]

interface Fall {
  start: number
  a: number
  b: number
  squares: number
  scatterDeg: number
  /** standard error of a + b·A */
  errorAt(arc: number): number
}

/** A(t) of −dA/dt = a·A + b·A², from A₀; a may be 0. */
function arcAt(t: number, [start, a, b]: readonly number[]): number {
  const [A, lin, sq] = [start!, a!, b!]
  const grown = Math.abs(lin * t) < 1e-9 ? t : -Math.expm1(-lin * t) / lin
  return (A * Math.exp(-lin * t)) / (1 + sq * A * grown)
}

/** Least squares by Gauss and Newton, damped where a step would make it worse (Levenberg 1944, Marquardt 1963). */
function fit(points: { t: number; arc: number }[], free: readonly number[]): Fall {
  const first = points[0]!
  const last = points[points.length - 1]!
  const falls = Math.log(first.arc / last.arc) / last.t
  // Steps of each parameter's own size.
  const size = [first.arc, falls, falls / first.arc]
  let p = free.includes(LINEAR) ? [first.arc, falls, 0] : [first.arc, 0, falls / first.arc]
  const squaresOf = (q: number[]) => points.reduce((sum, { t, arc }) => sum + (arc - arcAt(t, q)) ** 2, 0)
  let squares = squaresOf(p)
  let damping = 1e-3
  let normal: number[][] = []
  for (let step = 0; step < STEPS; step++) {
    const slopes = points.map(({ t }) =>
      free.map((i) => {
        const d = 1e-6 * size[i]!
        const up = p.map((v, k) => (k === i ? v + d : v))
        const down = p.map((v, k) => (k === i ? v - d : v))
        return ((arcAt(t, up) - arcAt(t, down)) / (2 * d)) * size[i]!
      }),
    )
    const left = points.map(({ t, arc }) => arc - arcAt(t, p))
    normal = free.map((_, i) => free.map((_, j) => slopes.reduce((sum, s) => sum + s[i]! * s[j]!, 0)))
    const right = free.map((_, i) => slopes.reduce((sum, s, k) => sum + s[i]! * left[k]!, 0))
    const damped = normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)))
    const move = solveSmall(damped, right)
    const next = p.map((v, k) => {
      const place = free.indexOf(k)
      return place < 0 ? v : v + move[place]! * size[k]!
    })
    const after = squaresOf(next)
    if (after <= squares) {
      const done = squares - after < 1e-14 * (squares + 1e-12)
      p = next
      squares = after
      damping /= 10
      if (done) break
    } else damping *= 10
    if (damping > 1e12) break
  }
  const spare = points.length - free.length
  const scatterDeg = Math.max(LEAST_SCATTER_DEG, spare > 0 ? Math.sqrt(squares / spare) : 0)
  return {
    start: p[0]!,
    a: p[1]!,
    b: p[2]!,
    squares: Math.max(squares, points.length * 1e-12),
    scatterDeg,
    errorAt: (arc) => {
      const along = free.map((k) => (k === START ? 0 : k === LINEAR ? size[k]! : size[k]! * arc))
      const across = solveSmall(normal, along)
      return (
        scatterDeg *
        Math.sqrt(
          Math.max(
            0,
            along.reduce((sum, v, i) => sum + v * across[i]!, 0),
          ),
        )
      )
    },
  }
}

/** Gauss's elimination with pivots, for two or three unknowns. */
function solveSmall(matrix: number[][], right: number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]!])
  const n = rows.length
  for (let c = 0; c < n; c++) {
    const best = rows.slice(c).reduce((at, row, i) => (Math.abs(row[c]!) > Math.abs(rows[at]![c]!) ? c + i : at), c)
    ;[rows[c], rows[best]] = [rows[best]!, rows[c]!]
    const pivot = rows[c]![c]! || 1e-300
    for (let r = 0; r < n; r++) {
      if (r === c) continue
      const times = rows[r]![c]! / pivot
      for (let k = c; k <= n; k++) rows[r]![k]! -= times * rows[c]![k]!
    }
  }
  return rows.map((row, i) => row[n]! / (row[i]! || 1e-300))
}
