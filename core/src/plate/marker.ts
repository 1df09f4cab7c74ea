import { FieldError, requirePositive, requireWithin } from '../check/require.ts'
import { checkHoles, fromEdgeMm, type PlateHole } from './clearance.ts'
import { distanceMm, pointAt, type Point } from './point.ts'

export interface MarkerPlace {
  /** of the middle between the two outer points, seen from the hole, degrees clockwise from 12 */
  clockAngleDeg: number
  points: [Point, Point]
  /** least distance of the two points from the rim of any other hole, or from the edge; null: nothing is near at all */
  clearMm: number | null
}

/**
 * How to lay a three-pointed marker so that its two outer points fall on brass, as far as can be from every other
 * hole and from the edge.
 *
 * The middle point stands in the hole; the outer ones are `reachMm` from it and `spreadDeg` apart. The best place is
 * found by bounding: along a turn of the marker no distance can change faster than the points move, so whole ranges
 * that can't hold the best are left out until the rest is narrower than a millionth of a degree.
 *
 * @throws FieldError for figures that can't be, or where the points would fall in a hole or off the plate however it is
 * laid
 */
export function markerPlace(
  holes: PlateHole[],
  hole: string,
  reachMm: number,
  spreadDeg = 60,
  edge?: Point[],
): MarkerPlace {
  checkHoles(holes)
  requirePositive('reachMm', reachMm)
  requireWithin('spreadDeg', spreadDeg, 1, 180)
  const middle = holes.find((h) => h.name === hole)
  if (!middle) throw new FieldError('hole', hole, `it must be one of ${holes.map((h) => h.name).join(', ')}`)
  const others = holes.filter((h) => h !== middle)
  const pointsAt = (deg: number): [Point, Point] => [
    pointAt(middle, deg - spreadDeg / 2, reachMm),
    pointAt(middle, deg + spreadDeg / 2, reachMm),
  ]
  if (reachMm <= middle.diameterMm / 2)
    throw new FieldError('reachMm', reachMm, `it must reach beyond the hole itself, ${middle.diameterMm / 2} mm`)
  if (others.length === 0 && !edge) return { clockAngleDeg: 0, points: pointsAt(0), clearMm: null }
  const clearAt = (deg: number) =>
    Math.min(
      ...pointsAt(deg).map((p) =>
        Math.min(...others.map((h) => distanceMm(p, h) - h.diameterMm / 2), edge ? fromEdgeMm(p, edge) : Infinity),
      ),
    )
  const { deg, clearMm } = greatest(clearAt, (reachMm * Math.PI) / 180)
  if (clearMm <= 0)
    throw new FieldError('reachMm', reachMm, 'however the marker is laid, a point falls in a hole or off the plate')
  return { clockAngleDeg: deg, points: pointsAt(deg), clearMm }
}

/** The greatest value over a full turn of a function that changes by no more than `slope` a degree. */
function greatest(of: (deg: number) => number, slope: number): { deg: number; clearMm: number } {
  const STEPS = 720
  let width = 360 / STEPS
  // Nothing between a start and its end can be above the middle's value and half a width of slope.
  let starts = Array.from({ length: STEPS }, (_, i) => i * width)
  let best = { deg: 0, clearMm: -Infinity }
  const see = (deg: number) => {
    const clearMm = of(deg)
    if (clearMm > best.clearMm + 1e-12) best = { deg, clearMm }
    return clearMm
  }
  starts.forEach(see)
  while (width > 1e-6) {
    const half = width / 2
    const seen = starts.map((start) => ({ start, most: see(start + half) + slope * half }))
    // Where all is alike, as about a lone round neighbour, the most promising thousand are enough.
    starts = seen
      .filter(({ most }) => most > best.clearMm)
      .sort((x, y) => y.most - x.most)
      .slice(0, 1000)
      .flatMap(({ start }) => [start, start + half])
    width = half
  }
  return best
}
