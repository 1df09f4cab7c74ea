import { mean } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import { FieldError, requirePositive } from '../check/require.ts'
import type { Place } from './frame.ts'

const DEG = 180 / Math.PI

/** Degrees from the vertical of the picture, + right, of the line from the suspension down to a place. */
export function angleFrom(suspension: Place, at: Place): number {
  return DEG * Math.atan2(at.x - suspension.x, at.y - suspension.y)
}

/**
 * Where the suspension stands in the picture: a known length above where the mark hangs in the middle of its swing.
 *
 * @param lengthMm - from the suspension to the mark
 * @param mmPerPixel - from two points of the picture a known distance apart, in the pendulum's own plane
 */
export function suspensionAbove(middle: Place, lengthMm: number, mmPerPixel: number): Place {
  requirePositive('lengthMm', lengthMm)
  requirePositive('mmPerPixel', mmPerPixel)
  return { x: middle.x, y: middle.y - lengthMm / mmPerPixel }
}

/**
 * Where the suspension stands by an arc scale in the picture: from two of its strokes, so many degrees apart.
 *
 * The scale is printed about the suspension; its strokes a and b lie at −half and +half of the angle between them.
 */
export function suspensionByScale(left: Place, right: Place, betweenDeg: number): Place {
  if (!(betweenDeg > 0.5 && betweenDeg < 90))
    throw new FieldError('betweenDeg', betweenDeg, 'it must be a number from 0.5 to 90')
  const width = Math.hypot(right.x - left.x, right.y - left.y)
  if (width < 10) throw new FieldError('strokes', width, 'the two strokes must stand at least 10 pixels apart')
  const deep = width / 2 / Math.tan(betweenDeg / 2 / DEG)
  // At a right angle to the line of the strokes, upward.
  const [dx, dy] = [(right.x - left.x) / width, (right.y - left.y) / width]
  return { x: (left.x + right.x) / 2 + dy * deep, y: (left.y + right.y) / 2 - dx * deep }
}

/**
 * Where the suspension stands, by places of the bob and the angle of its rod at each: x − x₀ = tan α·(y − y₀), by least
 * squares; null where it did not move.
 */
export function suspensionByAngles(places: Place[], anglesDeg: number[]): Place | null {
  const n = places.length
  const tans = anglesDeg.map((deg) => Math.tan(deg / DEG))
  const mt = tans.reduce((sum, t) => sum + t, 0) / n
  const offs = places.map((p, i) => p.x - nth(tans, i) * p.y)
  const mo = offs.reduce((sum, o) => sum + o, 0) / n
  let [tt, to] = [0, 0]
  tans.forEach((t, i) => {
    tt += (t - mt) ** 2
    to += (t - mt) * (nth(offs, i) - mo)
  })
  if (!(tt > 1e-9)) return null
  const y = -to / tt
  return { x: mo + mt * y, y }
}

/**
 * The suspension from the path of the mark alone: the middle of the circle it moves on; with how far that is known.
 *
 * x² + y² = 2ax + 2by + c by least squares, then once more on distances. An arc of few degrees is nearly straight: the
 * error grows with the square of its smallness, and is told.
 *
 * @see Kåsa 1976, A circle fitting procedure and its error analysis
 */
export function suspensionByPath(path: Place[]): { suspension: Place; radius: number; radiusError: number } {
  if (path.length < 12) throw new FieldError('path', path.length, 'it takes at least 12 places')
  const mx = mean(path.map((p) => p.x))
  const my = mean(path.map((p) => p.y))
  let [xx, xy, yy, xz, yz, zz] = [0, 0, 0, 0, 0, 0]
  for (const p of path) {
    const [x, y] = [p.x - mx, p.y - my]
    const z = x * x + y * y
    xx += x * x
    xy += x * y
    yy += y * y
    xz += x * z
    yz += y * z
    zz += z
  }
  const determinant = xx * yy - xy * xy
  if (determinant <= 0) throw new FieldError('path', 'a straight line', 'the mark must move on an arc')
  let a = (yy * xz - xy * yz) / (2 * determinant)
  let b = (xx * yz - xy * xz) / (2 * determinant)
  let radius = Math.sqrt(a * a + b * b + zz / path.length)
  let radiusError = Infinity
  for (let round = 0; round < 30; round++) {
    const step = gaussNewton(path, mx, my, a, b, radius)
    if (!step) break
    a += step.a
    b += step.b
    radius += step.radius
    radiusError = step.radiusError
    if (Math.abs(step.radius) < 1e-7 * radius) break
  }
  return { suspension: { x: mx + a, y: my + b }, radius, radiusError }
}

function gaussNewton(path: Place[], mx: number, my: number, a: number, b: number, radius: number) {
  const normal = [0, 0, 0].map(() => [0, 0, 0])
  const right = [0, 0, 0]
  let left = 0
  for (const p of path) {
    const [dx, dy] = [p.x - mx - a, p.y - my - b]
    const distance = Math.hypot(dx, dy)
    const off = distance - radius
    left += off * off
    const row = [-dx / distance, -dy / distance, -1]
    for (let i = 0; i < 3; i++) {
      right[i] = nth(right, i) - nth(row, i) * off
      const line = nth(normal, i)
      for (let j = 0; j < 3; j++) line[j] = nth(line, j) + nth(row, i) * nth(row, j)
    }
  }
  const inverse = inverse3(normal)
  if (!inverse) return null
  const step = inverse.map((row) => row.reduce((sum, v, j) => sum + v * nth(right, j), 0))
  const scatter = Math.sqrt(left / (path.length - 3))
  return {
    a: nth(step, 0),
    b: nth(step, 1),
    radius: nth(step, 2),
    radiusError: scatter * Math.sqrt(nth(nth(inverse, 2), 2)),
  }
}

function inverse3(m: number[][]): number[][] | null {
  const at = (i: number, j: number) => nth(nth(m, i % 3), j % 3)
  const minor = (i: number, j: number) => at(i + 1, j + 1) * at(i + 2, j + 2) - at(i + 1, j + 2) * at(i + 2, j + 1)
  const determinant = [0, 1, 2].reduce((sum, j) => sum + at(0, j) * minor(0, j), 0)
  if (!(Math.abs(determinant) > 1e-18)) return null
  return [0, 1, 2].map((i) => [0, 1, 2].map((j) => minor(j, i) / determinant))
}
