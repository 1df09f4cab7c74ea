import { requirePositive, requireWithin } from '../check/require.ts'
import { STANDARD_GRAVITY } from './gravity.ts'

/**
 * Length of the simple pendulum that makes `beatsPerHour` beats, mm: suspension to centre of oscillation.
 *
 * A beat is one swing, half a period: L = g·(3600/bph)²/π². Valid for small swings; a real rod and bob
 * differ in length from the simple pendulum that keeps their time.
 *
 * @param beatsPerHour - 600 to 40,000
 * @param gravity - local gravity, m/s², 9.7 to 9.9
 * @throws FieldError naming the argument
 * @see Landau & Lifshitz, Mechanics, §11, problem 1
 * @example pendulumLengthMm(3600) // 993.62…, the seconds pendulum
 */
export function pendulumLengthMm(beatsPerHour: number, gravity = STANDARD_GRAVITY): number {
  requireWithin('beatsPerHour', beatsPerHour, 600, 40_000)
  requireWithin('gravity', gravity, 9.7, 9.9)
  const beatS = 3600 / beatsPerHour
  return (1000 * gravity * beatS ** 2) / Math.PI ** 2
}

/** Beats an hour of a simple pendulum `lengthMm` long: the inverse of pendulumLengthMm. */
export function pendulumBeatsPerHour(lengthMm: number, gravity = STANDARD_GRAVITY): number {
  requirePositive('lengthMm', lengthMm)
  requireWithin('gravity', gravity, 9.7, 9.9)
  return (3600 / Math.PI) * Math.sqrt((1000 * gravity) / lengthMm)
}
