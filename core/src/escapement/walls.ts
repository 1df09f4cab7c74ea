import type { Point } from '../plate/point.ts'
import type { EscapementGeometry } from './action.ts'

/** Where an outline crosses the circle of the tips: no tip passes there. */
export interface Wall {
  pallet: 'entry' | 'exit'
  /** place on the circle, degrees clockwise from 12 as the wheel turns */
  deg: number
  /** place along the outline, mm from its first point */
  alongMm: number
}

/** Two pieces share their corner: rounding must not let a crossing fall between them. */
const CORNER = 1e-9
const CORNER_MM = 1e-6

/**
 * Every place where an outline crosses the circle of the tips with the pallets turned by so many degrees, + clockwise.
 *
 * A straight piece and a circle: a quadratic, solved exactly. A piece that only touches the circle does not hold a tip.
 */
export function wallsOf(geometry: EscapementGeometry): (palletDeg: number) => Wall[] {
  const { tipRadiusMm, centreDistanceMm } = geometry
  const pieces = [
    ...piecesOf('entry', geometry.palletEntry, tipRadiusMm),
    ...piecesOf('exit', geometry.palletExit, tipRadiusMm),
  ]
  return (palletDeg) => {
    const a = (palletDeg * Math.PI) / 180
    // The pallets turned clockwise are the wheel’s centre turned the other way about their arbor.
    const cx = centreDistanceMm * Math.sin(a)
    const cy = -centreDistanceMm * Math.cos(a)
    const walls: Wall[] = []
    for (const { pallet, from, dx, dy, lengthMm, startMm, near, far } of pieces) {
      const px = from.xMm - cx
      const py = from.yMm - cy
      // Most pieces lie wholly inside or outside of the circle: by their middles.
      const mx = px + dx / 2
      const my = py + dy / 2
      const apart = mx * mx + my * my
      if (apart < near || apart > far) continue
      const qa = dx * dx + dy * dy
      const half = px * dx + py * dy
      const root = half * half - qa * (px * px + py * py - tipRadiusMm * tipRadiusMm)
      if (root <= 0 || qa === 0) continue
      for (const sign of [-1, 1]) {
        const t = (-half + sign * Math.sqrt(root)) / qa
        if (t < -CORNER || t > 1 + CORNER) continue
        const deg = (Math.atan2(px + t * dx, py + t * dy) * 180) / Math.PI + palletDeg
        walls.push({ pallet, deg, alongMm: startMm + t * lengthMm })
      }
    }
    return walls
  }
}

interface Piece {
  pallet: 'entry' | 'exit'
  from: Point
  dx: number
  dy: number
  lengthMm: number
  startMm: number
  /** squares of the least and greatest distance of its middle from the wheel's centre at which it can cross the circle */
  near: number
  far: number
}

function piecesOf(pallet: Piece['pallet'], outline: Point[], tipRadiusMm: number): Piece[] {
  let startMm = 0
  return outline.slice(1).map((to, i) => {
    const from = outline[i] as Point
    const dx = to.xMm - from.xMm
    const dy = to.yMm - from.yMm
    const lengthMm = Math.hypot(dx, dy)
    const half = lengthMm / 2 + CORNER_MM
    const near = Math.max(0, tipRadiusMm - half) ** 2
    const piece = { pallet, from, dx, dy, lengthMm, startMm, near, far: (tipRadiusMm + half) ** 2 }
    startMm += piece.lengthMm
    return piece
  })
}
