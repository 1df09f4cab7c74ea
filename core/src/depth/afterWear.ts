import { requireCount, requireFinite, requirePositive } from '../check/require.ts'

export interface DepthAfterWear {
  moduleMm: number
  /** along the line of centres, + apart, mm */
  depthShiftMm: number
  /** the same as a share of the module, % */
  percentOfModule: number
}

/** The module of a pair, mm: 2·C / (N + n). */
export function moduleOf(wheelTeeth: number, pinionLeaves: number, centreDistanceMm: number): number {
  requireCount('wheelTeeth', wheelTeeth, 3, 1000)
  requireCount('pinionLeaves', pinionLeaves, 3, 1000)
  requirePositive('centreDistanceMm', centreDistanceMm)
  return (2 * centreDistanceMm) / (wheelTeeth + pinionLeaves)
}

/** How far apart the centres of a pair belong, mm: module × (N + n) / 2. */
export function centreDistanceOf(wheelTeeth: number, pinionLeaves: number, moduleMm: number): number {
  requireCount('wheelTeeth', wheelTeeth, 3, 1000)
  requireCount('pinionLeaves', pinionLeaves, 3, 1000)
  requirePositive('moduleMm', moduleMm)
  return (moduleMm * (wheelTeeth + pinionLeaves)) / 2
}

/** The module, mm, from a wheel measured across its tips: about outside / (N + 2.7) for cycloidal clock teeth. */
export function moduleFromWheel(outsideMm: number, wheelTeeth: number): number {
  requirePositive('outsideMm', outsideMm)
  requireCount('wheelTeeth', wheelTeeth, 3, 1000)
  return outsideMm / (wheelTeeth + 2.7)
}

/**
 * What a shift of one centre does to the depth of its gearing: the part of it along the line of centres, mm.
 *
 * @param shiftClockAngleDeg - which way the centre has moved, degrees clockwise from 12
 * @param lineClockAngleDeg - from the partner to this hole, likewise
 * @throws FieldError for figures that can't be
 */
export function depthAfterWear(
  wheelTeeth: number,
  pinionLeaves: number,
  centreDistanceMm: number,
  shiftMm: number,
  shiftClockAngleDeg: number,
  lineClockAngleDeg: number,
): DepthAfterWear {
  const moduleMm = moduleOf(wheelTeeth, pinionLeaves, centreDistanceMm)
  requireFinite('shiftMm', shiftMm)
  requireFinite('shiftClockAngleDeg', shiftClockAngleDeg)
  requireFinite('lineClockAngleDeg', lineClockAngleDeg)
  const depthShiftMm = shiftMm * Math.cos(((shiftClockAngleDeg - lineClockAngleDeg) * Math.PI) / 180)
  return { moduleMm, depthShiftMm, percentOfModule: (100 * depthShiftMm) / moduleMm }
}
