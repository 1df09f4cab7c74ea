import type { MeasuredHole } from './hole.ts'

/** The figure to draw, mm, x right, y down, about the original centre; angles from 12, clockwise. */
export interface HoleOutline {
  /** the two circles of the slot: the original one about 0,0 and the same moved by the wear */
  wornCentre: { x: number; y: number }
  /** the circle to file back to, on the other side */
  filedCentre: { x: number; y: number }
  shortRadiusMm: number
  /** where the pivot runs: lying against the worn end */
  pivotCentre: { x: number; y: number }
  pivotRadiusMm: number
}

/**
 * Where everything of a worn hole stands about its original centre, mm.
 *
 * The slot is the original circle (diameter b) swept along the wear by w = a − b; the crescent to file back is the
 * same sweep to the other side.
 *
 * @param clockDeg - direction of wear on the plate as drawn, degrees clockwise from 12
 */
export function holeOutline(hole: MeasuredHole, clockDeg: number): HoleOutline {
  const wear = hole.longAxisMm - hole.shortAxisMm
  const angle = (clockDeg * Math.PI) / 180
  const x = Math.sin(angle)
  const y = -Math.cos(angle)
  const slack = (hole.shortAxisMm - hole.pivotMm) / 2
  return {
    wornCentre: { x: x * wear, y: y * wear },
    filedCentre: { x: -x * wear, y: -y * wear },
    shortRadiusMm: hole.shortAxisMm / 2,
    pivotCentre: { x: x * (wear + slack), y: y * (wear + slack) },
    pivotRadiusMm: hole.pivotMm / 2,
  }
}
