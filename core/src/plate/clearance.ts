import { FieldError, requirePositive, requireWithin } from '../check/require.ts'
import { distanceMm, requirePoint, type Point } from './point.ts'

/** A round hole in a plate: mm, as seen from the front. */
export interface PlateHole extends Point {
  name: string
  diameterMm: number
}

export interface Conflict {
  /** the names of two holes, or of one and "edge" */
  between: [string, string]
  /** plate left between them, mm; below 0 they run into each other */
  leftMm: number
}

/**
 * Where less than `wallMm` of plate is left between holes, or to the edge: nearest first, mm.
 *
 * @param edge - the corners of the plate in order, three or more; a hole whose centre is outside is over the edge by
 * its whole distance and its radius
 * @throws FieldError for figures that no plate has, or a name given twice
 */
export function clearance(holes: PlateHole[], wallMm = 0.8, edge?: Point[]): Conflict[] {
  requireWithin('wallMm', wallMm, 0, 50)
  checkHoles(holes)
  const conflicts: Conflict[] = []
  holes.forEach((a, i) => {
    for (const b of holes.slice(i + 1)) {
      const leftMm = distanceMm(a, b) - (a.diameterMm + b.diameterMm) / 2
      conflicts.push({ between: [a.name, b.name], leftMm })
    }
    if (edge) conflicts.push({ between: [a.name, 'edge'], leftMm: fromEdgeMm(a, edge) - a.diameterMm / 2 })
  })
  // A micrometre of grace is not wanted here, only that of binary fractions.
  return conflicts.filter((c) => c.leftMm < wallMm - 1e-9).sort((a, b) => a.leftMm - b.leftMm)
}

/** @throws FieldError for a hole without a size or place, or a name given twice */
export function checkHoles(holes: PlateHole[]): void {
  holes.forEach((hole, i) => {
    requirePoint(`holes[${i}]`, hole)
    requirePositive(`holes[${i}].diameterMm`, hole.diameterMm)
    if (holes.findIndex((h) => h.name === hole.name) !== i)
      throw new FieldError(`holes[${i}].name`, hole.name, 'each hole needs a name of its own')
  })
}

/** How far a place is within the edge, mm; below 0 outside it. */
export function fromEdgeMm(point: Point, edge: Point[]): number {
  if (edge.length < 3) throw new FieldError('edge', edge.length, 'give three corners or more')
  let nearest = Infinity
  let inside = false
  edge.forEach((a, i) => {
    requirePoint(`edge[${i}]`, a)
    const b = edge[(i + 1) % edge.length] ?? a
    nearest = Math.min(nearest, fromSideMm(point, a, b))
    const crosses = a.yMm > point.yMm !== b.yMm > point.yMm
    if (crosses && point.xMm < ((b.xMm - a.xMm) * (point.yMm - a.yMm)) / (b.yMm - a.yMm) + a.xMm) inside = !inside
  })
  return inside ? nearest : -nearest
}

function fromSideMm(p: Point, a: Point, b: Point): number {
  const dx = b.xMm - a.xMm
  const dy = b.yMm - a.yMm
  const length2 = dx * dx + dy * dy
  const t = length2 === 0 ? 0 : ((p.xMm - a.xMm) * dx + (p.yMm - a.yMm) * dy) / length2
  const at = Math.min(1, Math.max(0, t))
  return distanceMm(p, { xMm: a.xMm + at * dx, yMm: a.yMm + at * dy })
}
