import { FieldError, requirePositive, requireWithin } from '../check/require.ts'

export const SINK_SHAPES = ['cup', 'cone'] as const
export type SinkShape = (typeof SINK_SHAPES)[number]

/** So much of a sink is filled: half to two thirds is the rule. */
export const SINK_FILL = 0.6

/**
 * What an oil sink holds, and the drop to put in it, microlitres (mm³).
 *
 * A cup is the part of a sphere that is cut off by the plate: π·h·(3a² + h²)/6 for the radius a at the plate and the depth
 * h, no deeper than a; a cone is π·a²·h/3. The pivot that stands in it is not taken off. Source: geometry.
 *
 * @param fill - the share to fill, above 0 up to 1
 */
export function oilSink(
  acrossMm: number,
  depthMm: number,
  shape: SinkShape = 'cup',
  fill: number = SINK_FILL,
): { fullMicrolitres: number; microlitres: number } {
  requirePositive('acrossMm', acrossMm)
  requirePositive('depthMm', depthMm)
  if (fill === 0) throw new FieldError('fill', fill, 'it must be a number above 0 and up to 1')
  requireWithin('fill', fill, 0, 1)
  const a = acrossMm / 2
  if (shape === 'cup' && depthMm > a)
    throw new FieldError('depthMm', depthMm, `a cup is no deeper than its radius, ${a} mm`)
  const fullMicrolitres =
    shape === 'cup' ? (Math.PI * depthMm * (3 * a * a + depthMm * depthMm)) / 6 : (Math.PI * a * a * depthMm) / 3
  return { fullMicrolitres, microlitres: fill * fullMicrolitres }
}

/**
 * How high, above its deepest place, a sink stands that is filled so, mm.
 *
 * A cup by bisection of its volume, to a millionth of its depth; a cone as the cube root of the share.
 */
export function sinkFilledToMm(
  acrossMm: number,
  depthMm: number,
  shape: SinkShape = 'cup',
  fill: number = SINK_FILL,
): number {
  const { fullMicrolitres } = oilSink(acrossMm, depthMm, shape, fill)
  if (shape === 'cone') return depthMm * Math.cbrt(fill)
  const a = acrossMm / 2
  const ball = (a * a + depthMm * depthMm) / (2 * depthMm)
  const below = (high: number) => (Math.PI * high * high * (3 * ball - high)) / 3
  let [low, top] = [0, depthMm]
  while (top - low > 1e-6 * depthMm) {
    const middle = (low + top) / 2
    if (below(middle) < fill * fullMicrolitres) low = middle
    else top = middle
  }
  return (low + top) / 2
}

/** How wide a round drop of so many microlitres is, mm: what a needle or dip oiler has to carry. */
export function dropAcrossMm(microlitres: number): number {
  return Math.cbrt((6 * microlitres) / Math.PI)
}
