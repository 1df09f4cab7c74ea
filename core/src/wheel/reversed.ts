import { requireCount, requirePositive, requireWithin, requireFinite } from '../check/require.ts'
import type { PlateHole } from '../plate/clearance.ts'
import { clockAngleOf, distanceMm } from '../plate/point.ts'

/** A hole of a wheel, mm from its centre: x to the right, y up, as seen from the side it is drawn from. */
export type WheelHole = PlateHole

export interface Reversed {
  /** where the holes have to be drilled for the parts that move to the other side */
  holes: WheelHole[]
  /** new against old: where less metal than wanted is left between their rims; below 0 they cut into each other */
  conflicts: { between: [string, string]; leftMm: number }[]
}

/** Where a wheel's arms stand, and how wide one is where the click is riveted, mm. */
export interface Arms {
  /** of the arm that carries the click, degrees clockwise from 12 */
  clockAngleDeg: number
  count: number
  widthMm: number
}

/** What is left between a hole's rim and the nearer edge of the arm it falls on, mm; below 0 it runs over the edge. */
export function leftOnArm(hole: WheelHole, { clockAngleDeg, count, widthMm }: Arms): number {
  const at = clockAngleOf(hole.xMm, hole.yMm)
  const space = 360 / count
  const off = ((((at - clockAngleDeg) % space) + 1.5 * space) % space) - space / 2
  const across = Math.hypot(hole.xMm, hole.yMm) * Math.sin((off * Math.PI) / 180)
  return widthMm / 2 - Math.abs(across) - hole.diameterMm / 2
}

/**
 * The lines to mirror about that bring one arm onto another, degrees clockwise from 12: the arm with the click comes to
 * each other arm in turn, so a hole in the middle of an arm falls in the middle of the next.
 */
export function mirrorLines(clickDeg: number, arms: number): number[] {
  requireCount('arms', arms, 2, 24)
  return Array.from({ length: arms - 1 }, (_, k) => (clickDeg + ((k + 1) * 180) / arms) % 180)
}

/** Metal that is left between an old hole and a new one, mm: a workshop rule, at least one rivet’s width where larger. */
export const LEAVE_MM = 0.8
/** Holes nearer than this are one hole. */
const SAME_MM = 1e-6

/**
 * The holes of a wheel mirrored about a line through its centre, mm, and where too little metal is left to the old ones.
 *
 * A wheel that is reversed on its arbor carries its click work on the other side: seen from the same side as before,
 * each hole stands mirrored. The line is chosen so that the new ones fall on sound metal, on a crossing. A hole that is
 * its own image (the bore, or one on the line) is there already and no conflict.
 *
 * @param aboutClockAngleDeg - of the line, degrees clockwise from 12 as drawn
 * @throws FieldError for figures that can’t be
 */
export function wheelReversed(holes: WheelHole[], aboutClockAngleDeg: number, leaveMm = LEAVE_MM): Reversed {
  requireFinite('aboutClockAngleDeg', aboutClockAngleDeg)
  requireWithin('leaveMm', leaveMm, 0, 50)
  holes.forEach((h, i) => {
    requireFinite(`holes[${i}].xMm`, h.xMm)
    requireFinite(`holes[${i}].yMm`, h.yMm)
    requirePositive(`holes[${i}].diameterMm`, h.diameterMm)
  })
  const a = (2 * aboutClockAngleDeg * Math.PI) / 180
  const mirrored = holes.map((h) => ({
    ...h,
    // The line stands at 90° − clock angle to the x axis; a mirror about an angle t turns (x, y) by the matrix of 2t.
    xMm: -h.xMm * Math.cos(a) + h.yMm * Math.sin(a),
    yMm: h.xMm * Math.sin(a) + h.yMm * Math.cos(a),
  }))
  const conflicts = mirrored.flatMap((made) =>
    holes.flatMap((old) => {
      const apart = distanceMm(made, old)
      if (apart < SAME_MM && Math.abs(made.diameterMm - old.diameterMm) < SAME_MM) return []
      const leftMm = apart - (made.diameterMm + old.diameterMm) / 2
      return leftMm < leaveMm ? [{ between: [made.name, old.name] as [string, string], leftMm }] : []
    }),
  )
  return { holes: mirrored, conflicts: conflicts.sort((p, q) => p.leftMm - q.leftMm) }
}
