import { requireWithin } from '../check/require.ts'

const SECONDS_PER_DAY = 86_400

/**
 * Ratio of a free pendulum's period at semi-arc A to that of an infinitesimal one: (2/π)·K(sin(A/2)).
 *
 * The complete elliptic integral by the arithmetic-geometric mean: K(k) = π / (2·agm(1, √(1−k²))).
 *
 * @param semiArcDeg - plumb to the end of the swing, degrees, 0 to 90
 * @see Abramowitz & Stegun 17.6.3
 */
export function circularPeriodRatio(semiArcDeg: number): number {
  requireWithin('semiArcDeg', semiArcDeg, 0, 90)
  let a = 1
  let b = Math.cos((semiArcDeg * Math.PI) / 360)
  for (let i = 0; i < 8; i++) [a, b] = [(a + b) / 2, Math.sqrt(a * b)]
  return 1 / a
}

/**
 * Seconds a day lost to the circular error at a semi-arc, against an infinitesimal swing; exact, ≥ 0.
 *
 * Holds for a free pendulum on a point or knife; a suspension spring or an escapement changes it.
 *
 * @param semiArcDeg - degrees, 0 to 90
 * @throws FieldError naming the argument
 * @example circularLossSecondsPerDay(2) // 6.58
 */
export function circularLossSecondsPerDay(semiArcDeg: number): number {
  return SECONDS_PER_DAY * (circularPeriodRatio(semiArcDeg) - 1)
}
