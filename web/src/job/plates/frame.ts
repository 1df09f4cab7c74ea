import type { PlateMapChange } from '@treadle/contract'
import type { Point } from '@treadle/core'

/** What of the plates is shown, in mm of the drawing: x to the right, y down. */
export interface Frame {
  left: number
  top: number
  width: number
  height: number
}

/** Everything that has its place, with a margin; room for a hand's breadth while nothing has. */
export function frameOf(map: Pick<PlateMapChange, 'arbors' | 'fixtures' | 'edge'>, mirrored: boolean): Frame {
  const points: Point[] = [
    ...map.edge,
    ...map.fixtures,
    ...map.arbors.flatMap((a) => (a.xMm === null || a.yMm === null ? [] : [{ xMm: a.xMm, yMm: a.yMm }])),
  ]
  if (points.length === 0) return { left: -60, top: -60, width: 120, height: 120 }
  const xs = points.map((p) => (mirrored ? -p.xMm : p.xMm))
  const ys = points.map((p) => -p.yMm)
  const span = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 30)
  const margin = 0.03 * span + (map.edge.length > 0 ? 0 : 0.16 * span)
  return {
    left: Math.min(...xs) - margin,
    top: Math.min(...ys) - margin,
    width: Math.max(...xs) - Math.min(...xs) + 2 * margin,
    height: Math.max(...ys) - Math.min(...ys) + 2 * margin,
  }
}
