import { requireFinite } from '../check/require.ts'

/** A place on a plate, mm, as seen from the front: x to the right, y up. */
export interface Point {
  xMm: number
  yMm: number
}

/** How far two places are from each other, mm. */
export function distanceMm(a: Point, b: Point): number {
  return Math.hypot(b.xMm - a.xMm, b.yMm - a.yMm)
}

/** The direction of a vector, degrees clockwise from 12, from 0 up to 360; 0 for no vector at all. */
export function clockAngleOf(xMm: number, yMm: number): number {
  const deg = (Math.atan2(xMm, yMm) * 180) / Math.PI
  return deg < 0 ? deg + 360 : deg
}

/** The direction from one place to another, degrees clockwise from 12. */
export function clockAngleBetween(from: Point, to: Point): number {
  return clockAngleOf(to.xMm - from.xMm, to.yMm - from.yMm)
}

/** The place so many mm from another in a direction, degrees clockwise from 12. */
export function pointAt(from: Point, clockDeg: number, mm: number): Point {
  const angle = (clockDeg * Math.PI) / 180
  return { xMm: from.xMm + mm * Math.sin(angle), yMm: from.yMm + mm * Math.cos(angle) }
}

/** The least angle between two directions, degrees, 0 to 180. */
export function angleApartDeg(a: number, b: number): number {
  const apart = Math.abs(a - b) % 360
  return apart > 180 ? 360 - apart : apart
}

/** @throws FieldError unless both coordinates are finite numbers */
export function requirePoint(field: string, { xMm, yMm }: Point): void {
  requireFinite(`${field}.xMm`, xMm)
  requireFinite(`${field}.yMm`, yMm)
}
