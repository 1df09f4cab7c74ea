import { FieldError, requirePositive } from '../check/require.ts'
import { distanceMm, requirePoint, type Point } from './point.ts'

/** A hole that is known, and how far the one sought is from it, mm. */
export interface KnownDistance extends Point {
  distanceMm: number
}

export interface Located extends Point {
  /** root mean square of what the distances are off by, mm; 0 for two */
  residualMm: number
}

/**
 * Where a hole is, mm, from its distances to two or more that are known.
 *
 * Two distances: both places where the circles meet, by x and then y. Three or more: the place of least squares,
 * found by Gauss and Newton's steps; where the known holes stand in one line there is its mirror image too.
 *
 * @throws FieldError at the distance that can't be, by how much
 */
export function locate(from: KnownDistance[]): Located[] {
  if (from.length < 2) throw new FieldError('from', from.length, 'give two known holes or more')
  from.forEach((known, i) => {
    requirePoint(`from[${i}]`, known)
    requirePositive(`from[${i}].distanceMm`, known.distanceMm)
  })
  const [first, second] = from as [KnownDistance, KnownDistance, ...KnownDistance[]]
  const found = from.length === 2 ? meeting(first, second) : leastSquares(from)
  return found.sort((a, b) => a.xMm - b.xMm || a.yMm - b.yMm)
}

/** Both places where two circles meet; one of them twice where they only touch. */
function meeting(a: KnownDistance, b: KnownDistance): Located[] {
  const apart = distanceMm(a, b)
  if (apart < 1e-9) throw new FieldError('from[1]', [b.xMm, b.yMm], 'it must be another hole than the first')
  const over = apart - a.distanceMm - b.distanceMm
  const inside = Math.abs(a.distanceMm - b.distanceMm) - apart
  if (over > 1e-6)
    throw new FieldError('from[1].distanceMm', b.distanceMm, `the two circles miss each other by ${over.toFixed(3)} mm`)
  if (inside > 1e-6)
    throw new FieldError(
      'from[1].distanceMm',
      b.distanceMm,
      `one circle lies inside the other and they miss each other by ${inside.toFixed(3)} mm`,
    )
  const along = (apart ** 2 + a.distanceMm ** 2 - b.distanceMm ** 2) / (2 * apart)
  const across = Math.sqrt(Math.max(0, a.distanceMm ** 2 - along ** 2))
  const ux = (b.xMm - a.xMm) / apart
  const uy = (b.yMm - a.yMm) / apart
  return [1, -1].map((side) => ({
    xMm: a.xMm + along * ux - side * across * uy,
    yMm: a.yMm + along * uy + side * across * ux,
    residualMm: 0,
  }))
}

/** The best of several starts; and its like on the other side of the line where the known holes stand in one. */
function leastSquares(from: KnownDistance[]): Located[] {
  const middle = {
    xMm: from.reduce((sum, p) => sum + p.xMm, 0) / from.length,
    yMm: from.reduce((sum, p) => sum + p.yMm, 0) / from.length,
  }
  const reach = Math.max(...from.map((p) => p.distanceMm))
  if (Math.max(...from.map((p) => distanceMm(p, middle))) < 1e-9)
    throw new FieldError('from', from.length, 'the known holes must not all be the same one')
  const ends = Array.from({ length: 12 }, (_, i) => (i * Math.PI) / 6).map((angle) =>
    settle(from, { xMm: middle.xMm + reach * Math.cos(angle), yMm: middle.yMm + reach * Math.sin(angle) }),
  )
  const best = ends.reduce((a, b) => (b.residualMm < a.residualMm ? b : a))
  const other = ends.find((e) => Math.abs(e.residualMm - best.residualMm) < 1e-9 && distanceMm(e, best) > 1e-6)
  return inOneLine(from) && other ? [best, other] : [best]
}

/** Gauss and Newton's steps, damped, from a start to where they stand still. */
function settle(from: KnownDistance[], start: Point): Located {
  let at = start
  let sum = squares(from, at)
  let damping = 1e-6
  for (let round = 0; round < 200; round++) {
    let [xx, xy, yy, gx, gy] = [0, 0, 0, 0, 0]
    for (const known of from) {
      const away = Math.max(1e-12, distanceMm(known, at))
      const jx = (at.xMm - known.xMm) / away
      const jy = (at.yMm - known.yMm) / away
      const off = away - known.distanceMm
      xx += jx * jx
      xy += jx * jy
      yy += jy * jy
      gx += jx * off
      gy += jy * off
    }
    const a = xx + damping
    const d = yy + damping
    const det = a * d - xy * xy
    const step = { xMm: (xy * gy - d * gx) / det, yMm: (xy * gx - a * gy) / det }
    const next = { xMm: at.xMm + step.xMm, yMm: at.yMm + step.yMm }
    const nextSum = squares(from, next)
    if (nextSum <= sum) {
      at = next
      sum = nextSum
      damping = Math.max(1e-15, damping / 10)
      if (Math.hypot(step.xMm, step.yMm) < 1e-13) break
    } else damping *= 10
    if (damping > 1e12) break
  }
  return { ...at, residualMm: Math.sqrt(sum / from.length) }
}

function squares(from: KnownDistance[], at: Point): number {
  return from.reduce((sum, known) => sum + (distanceMm(known, at) - known.distanceMm) ** 2, 0)
}

function inOneLine(points: Point[]): boolean {
  const [a, ...rest] = points as [Point, ...Point[]]
  const far = rest.reduce((best, p) => (distanceMm(a, p) > distanceMm(a, best) ? p : best), a)
  const length = distanceMm(a, far)
  return points.every(
    (p) =>
      Math.abs((far.xMm - a.xMm) * (p.yMm - a.yMm) - (far.yMm - a.yMm) * (p.xMm - a.xMm)) / Math.max(1e-12, length) <
      1e-6,
  )
}
