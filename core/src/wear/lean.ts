import { requirePositive, requireWithin } from '../check/require.ts'

/**
 * The hole and play, mm, of an arbor that leans in it so far, the other plate off: a cylinder tilted till it touches
 * both rims. hole = pivot / cos φ + plate · tan φ.
 *
 * Seen from the side the pivot is a strip tilted by φ between two rims; its section through the plate is an ellipse that
 * touches the round rim at its far end only, so the strip is the whole of it.
 *
 * @param leanDeg - from upright to where it stops on one side, above 0 to 30
 * @throws FieldError for figures that can't be
 */
export function fromLean(leanDeg: number, pivotMm: number, plateMm: number): { holeMm: number; playMm: number } {
  requireWithin('leanDeg', leanDeg, 0, 30)
  requirePositive('pivotMm', pivotMm)
  requirePositive('plateMm', plateMm)
  const lean = (leanDeg * Math.PI) / 180
  const holeMm = pivotMm / Math.cos(lean) + plateMm * Math.tan(lean)
  return { holeMm, playMm: holeMm - pivotMm }
}

/**
 * The lean, degrees from upright, of an arbor whose far end shakes so far to one side: what a scale beside it shows.
 *
 * @param shakeMm - of the far end, from the middle to one side
 * @param arborMm - from the hole to where it is read
 */
export function leanOfShake(shakeMm: number, arborMm: number): number {
  requirePositive('arborMm', arborMm)
  requireWithin('shakeMm', shakeMm, 0, arborMm / 2)
  return (Math.atan(shakeMm / arborMm) * 180) / Math.PI
}
