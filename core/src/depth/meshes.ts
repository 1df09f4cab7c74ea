import { clockAngleBetween, distanceMm, pointAt, type Point } from '../plate/point.ts'
import { depthAfterWear } from './afterWear.ts'

/** A shift of a hole's centre: so far, in a direction degrees clockwise from 12. */
export interface Shift {
  mm: number
  deg: number
}

/** An arbor as the depth of its gearing asks for it: its right place, and how far each end has moved from it. */
export interface MeshArbor {
  name: string
  at: Point
  front: Shift | null
  back: Shift | null
}

/** A wheel that drives a pinion, and where along the arbors they meet: 0 at the front plate, 1 at the back plate. */
export interface Mesh {
  driver: MeshArbor
  driven: MeshArbor
  wheelTeeth: number
  pinionLeaves: number
  place: number
}

export interface MeshDepth {
  driver: string
  driven: string
  moduleMm: number
  /** + apart */
  depthShiftMm: number
  percentOfModule: number
}

/**
 * How far one mesh has come apart, mm and % of its module, from both holes of both arbors.
 *
 * At the mesh an arbor stands between its two ends, in proportion to where the mesh lies along it. Only what lies along
 * the line of centres counts; a hole without a shift stands where it belongs.
 */
export function meshDepth({ driver, driven, wheelTeeth, pinionLeaves, place }: Mesh): MeshDepth {
  const a = shiftAt(driver, place)
  const b = shiftAt(driven, place)
  const apart = { xMm: b.xMm - a.xMm, yMm: b.yMm - a.yMm }
  const nothing = { xMm: 0, yMm: 0 }
  const { moduleMm, depthShiftMm, percentOfModule } = depthAfterWear(
    wheelTeeth,
    pinionLeaves,
    distanceMm(driver.at, driven.at),
    distanceMm(nothing, apart),
    clockAngleBetween(nothing, apart),
    clockAngleBetween(driver.at, driven.at),
  )
  return { driver: driver.name, driven: driven.name, moduleMm, depthShiftMm, percentOfModule }
}

function shiftAt({ front, back }: MeshArbor, place: number): Point {
  const a = ofShift(front)
  const b = ofShift(back)
  return { xMm: (1 - place) * a.xMm + place * b.xMm, yMm: (1 - place) * a.yMm + place * b.yMm }
}

function ofShift(shift: Shift | null): Point {
  return shift === null ? { xMm: 0, yMm: 0 } : pointAt({ xMm: 0, yMm: 0 }, shift.deg, shift.mm)
}

export const CENTRES = ['worn', 'middle', 'true'] as const
/** where a hole’s centre is: run in its wear, bushed in the middle of its slot, or bushed on the original centre */
export type Centre = (typeof CENTRES)[number]

/** How far a pivot’s centre is from the original one, for a slot worn by `wearMm` in a direction. */
export function shiftOfWear(wearMm: number, wearDeg: number, centre: Centre): Shift | null {
  if (centre === 'true' || wearMm <= 0) return null
  return { mm: centre === 'worn' ? wearMm : wearMm / 2, deg: wearDeg }
}

/** From where a hole is to where its centre distance wants it: along the line from the partner, mm; + away from it. */
export interface Correction {
  computedMm: number
  foundMm: number
  /** how far the hole has to move, + away from the partner */
  moveMm: number
  /** which way that is, degrees clockwise from 12 */
  clockAngleDeg: number
}

/** How far a hole that was bushed off its centre before has to go back, from counts and module, mm. */
export function backToDistance(partner: Point, found: Point, computedMm: number): Correction {
  const foundMm = distanceMm(partner, found)
  const moveMm = computedMm - foundMm
  const out = clockAngleBetween(partner, found)
  return { computedMm, foundMm, moveMm, clockAngleDeg: moveMm >= 0 ? out : (out + 180) % 360 }
}
