import { FieldError, requirePositive } from '../check/require.ts'

export interface RepivotSizes {
  /** hole drilled into the arbor, mm */
  drillMm: number
  depthMm: number
  /** pivot steel to be turned down, left to fit the drilled hole, mm */
  plugMm: number
  /** wall of the arbor about the plug, mm */
  wallMm: number
}

/** Least wall about a plug, mm; rule of thumb. */
const LEAST_WALL_MM = 0.3

/**
 * Sizes for a new pivot let into its arbor: drilled as wide as the pivot and its shoulder can bear, three times as deep.
 *
 * Plug = drill + 0.01 mm, driven in; a taper of a hundredth holds it. The wall about it is the least of 0.3 mm and more.
 *
 * @param pivotMm - the pivot wanted, mm
 * @param arborMm - the arbor where it is drilled, mm
 * @throws FieldError when the arbor can't hold it
 */
export function repivotSizes(pivotMm: number, arborMm: number): RepivotSizes {
  requirePositive('pivotMm', pivotMm)
  requirePositive('arborMm', arborMm)
  const drillMm = Math.max(pivotMm, Math.min(1.25 * pivotMm, arborMm - 2 * LEAST_WALL_MM))
  const wallMm = (arborMm - drillMm) / 2
  if (wallMm < LEAST_WALL_MM - 1e-9)
    throw new FieldError(
      'arborMm',
      arborMm,
      `a pivot of ${pivotMm} mm leaves a wall of ${wallMm.toFixed(2)} mm; ${LEAST_WALL_MM} is the least, so a new arbor is turned`,
    )
  return { drillMm, depthMm: 3 * drillMm, plugMm: drillMm + 0.01, wallMm }
}
