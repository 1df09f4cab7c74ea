import { nth } from '../check/nth.ts'
import { FieldError, requirePositive } from '../check/require.ts'
import { locate } from './locate.ts'
import { distanceMm, type Point } from './point.ts'

/** A place on a photo, pixels from its upper left corner: x to the right, y down. */
export interface Pixel {
  x: number
  y: number
}

/** A 3×3 matrix by rows that takes a place on the photo to one on the plate, the last one 1. */
export type Trueing = [number, number, number, number, number, number, number, number, number]

/**
 * The trueing of a photo taken square on, from two points and their distance: turned nowhere, the first of them at 0,0.
 *
 * @throws FieldError for two points in one place
 */
export function trueByDistance(a: Pixel, b: Pixel, apartMm: number): Trueing {
  requirePositive('distanceMm', apartMm)
  const pixels = Math.hypot(b.x - a.x, b.y - a.y)
  if (pixels < 1) throw new FieldError('points', pixels, 'the two points must be apart from each other')
  const scale = apartMm / pixels
  return [scale, 0, -scale * a.x, 0, -scale, scale * a.y, 0, 0, 1]
}

/**
 * The trueing of a photo taken from anywhere, from four points of the plate whose places are known, mm: the perspective
 * of a plane, solved exactly.
 *
 * @throws FieldError where three of the four stand in one line
 */
export function trueByPoints(seen: Pixel[], known: Point[]): Trueing {
  if (seen.length !== 4 || known.length !== 4) throw new FieldError('points', seen.length, 'give four points')
  const rows = seen.flatMap(({ x, y }, i) => {
    const { xMm, yMm } = known[i] as Point
    return [
      [x, y, 1, 0, 0, 0, -x * xMm, -y * xMm, xMm],
      [0, 0, 0, x, y, 1, -x * yMm, -y * yMm, yMm],
    ]
  })
  const solved = solve(rows)
  if (!solved || inLine(seen) || inLine(known.map((p) => ({ x: p.xMm, y: p.yMm }))))
    throw new FieldError('points', seen.length, 'no three of the four points may stand in one line')
  return [...solved, 1] as Trueing
}

/** The corners of a rectangle on the plate, mm, from its lower left one clockwise as tapped: 0,0 is lower left. */
export function rectangle(widthMm: number, heightMm: number): Point[] {
  requirePositive('widthMm', widthMm)
  requirePositive('heightMm', heightMm)
  return [
    { xMm: 0, yMm: 0 },
    { xMm: 0, yMm: heightMm },
    { xMm: widthMm, yMm: heightMm },
    { xMm: widthMm, yMm: 0 },
  ]
}

/**
 * Four places from five distances, mm: round the four, and the diagonal from the first to the third. The first is at
 * 0,0 and the second straight up from it; the others lie to the right, as tapped clockwise from lower left.
 *
 * @throws FieldError where the distances can't close
 */
export function fourByDistances(around: [number, number, number, number], diagonalMm: number): Point[] {
  const a = { xMm: 0, yMm: 0 }
  const b = { xMm: 0, yMm: around[0] }
  around.forEach((mm, i) => requirePositive(`around[${i}]`, mm))
  const right = (from: Point, fromMm: number, to: Point, toMm: number, away: Point | null): Point => {
    const both = locate([
      { ...from, distanceMm: fromMm },
      { ...to, distanceMm: toMm },
    ])
    const [first = a, second = a] = both
    if (!away) return second.xMm >= first.xMm ? second : first
    return distanceMm(first, away) > distanceMm(second, away) ? first : second
  }
  const c = right(a, diagonalMm, b, around[1], null)
  const d = right(a, around[3], c, around[2], b)
  return [a, b, c, d].map(({ xMm, yMm }) => ({ xMm, yMm }))
}

/** Where a place on the photo is on the plate, mm. */
export function trued(trueing: Trueing, { x, y }: Pixel): Point {
  const [a, b, c, d, e, f, g, h, i] = trueing
  const w = g * x + h * y + i
  return { xMm: (a * x + b * y + c) / w, yMm: (d * x + e * y + f) / w }
}

/** The trueing followed by another change of the plane, both as matrices by rows. */
export function thenBy(trueing: Trueing, next: Trueing): Trueing {
  return Array.from({ length: 9 }, (_, at) => {
    const row = 3 * Math.floor(at / 3)
    const column = at % 3
    return [0, 1, 2].reduce((sum, k) => sum + nth(next, row + k) * nth(trueing, 3 * k + column), 0)
  }) as Trueing
}

/** Elimination with the largest pivot; null where the rows don't tell. */
function solve(rows: number[][]): number[] | null {
  const m = rows.map((r) => [...r])
  const n = m.length
  for (let col = 0; col < n; col++) {
    const pivot = m.slice(col).reduce((best, row, i) => {
      return Math.abs(nth(row, col)) > Math.abs(m[best]?.[col] as number) ? col + i : best
    }, col)
    const top = nth(m, pivot)
    if (Math.abs(nth(top, col)) < 1e-12) return null
    m[pivot] = nth(m, col)
    m[col] = top
    for (let r = 0; r < n; r++) {
      if (r === col) continue
      const row = nth(m, r)
      const factor = nth(row, col) / nth(top, col)
      for (let k = col; k <= n; k++) row[k] = nth(row, k) - factor * nth(top, k)
    }
  }
  return m.map((row, i) => nth(row, n) / nth(row, i))
}

function inLine(points: Pixel[]): boolean {
  const span = Math.max(...points.map((p) => Math.hypot(p.x - (points[0]?.x ?? 0), p.y - (points[0]?.y ?? 0))))
  return points.some((_, skip) => {
    const [a, b, c] = points.filter((_p, i) => i !== skip) as [Pixel, Pixel, Pixel]
    return Math.abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)) < 1e-6 * span * span
  })
}
