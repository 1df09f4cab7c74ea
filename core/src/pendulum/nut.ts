import { FieldError, requireFinite, requirePositive, requireWithin } from '../check/require.ts'

const HALF_DAY_S = 43_200

/**
 * Seconds a day gained by one whole turn of the rating nut that raises the bob.
 *
 * 43200·p/L × share, from T ∝ √L. One thread in a bob of real size does a little less or more: the log teaches it.
 *
 * @param lengthMm - length of the equivalent simple pendulum, mm
 * @param pitchMm - rise of the bob for one turn, mm
 * @param share - how much the centre of oscillation follows the bob, 0 to 1.5; 1 for a heavy bob on a light rod
 * @example secondsPerDayPerTurn(994, 0.8) // 34.8
 */
export function secondsPerDayPerTurn(lengthMm: number, pitchMm: number, share = 1): number {
  requirePositive('lengthMm', lengthMm)
  requirePositive('pitchMm', pitchMm)
  if (pitchMm >= lengthMm) throw new FieldError('pitchMm', pitchMm, `it must be below lengthMm (${lengthMm})`)
  requireWithin('share', share, 0.01, 1.5)
  return ((HALF_DAY_S * pitchMm) / lengthMm) * share
}

export type NutMove = 'raise' | 'lower'

export interface NutTurn {
  /** whole and part turns, ≥ 0 */
  turns: number
  /** which way the bob must go; null when no turn is needed */
  move: NutMove | null
}

/** The turn of the nut that takes away `rateSecondsPerDay` (+ gains) at `perTurn` s/day a turn. Lower is slower. */
export function nutTurnFor(rateSecondsPerDay: number, perTurn: number): NutTurn {
  requireFinite('rateSecondsPerDay', rateSecondsPerDay)
  requirePositive('perTurn', perTurn)
  const turns = Math.abs(rateSecondsPerDay) / perTurn
  if (turns === 0) return { turns: 0, move: null }
  return { turns, move: rateSecondsPerDay > 0 ? 'lower' : 'raise' }
}
