import { requireWithin } from '../check/require.ts'
import { DIAL_MINUTES } from '../hands/dialTime.ts'
import { SYNODIC_MONTH } from './set.ts'

/**
 * Where the moon of a disc stands over its arch, degrees: 0 on the right edge, 90 at the top, 180 on the left.
 *
 * A disc has two moons half a turn apart: one lunation is half a turn, new behind the one hump, full at the top, and away
 * behind the other. Northern discs go from left to right, southern ones from right to left, as the moon does in their sky.
 *
 * @param ageDays - since the last new moon, 0 to 30
 */
export function discAngleDeg(ageDays: number, southern = false): number {
  requireWithin('ageDays', ageDays, 0, 30)
  const turned = 180 * Math.min(1, ageDays / SYNODIC_MONTH)
  return southern ? turned : 180 - turned
}

/**
 * High water by a tide ring, minutes past twelve: it goes round the clock once in a lunation, from what it is at new moon.
 *
 * The dial's own rule and no tide table: true tides stray from it by an hour and more with sun, wind and coast.
 *
 * @param atNewMinutes - high water at new and full moon, minutes past twelve, 0 to 719
 */
export function tideMinutes(ageDays: number, atNewMinutes: number): number {
  requireWithin('ageDays', ageDays, 0, 30)
  requireWithin('atNew', atNewMinutes, 0, DIAL_MINUTES - 1)
  const late = (2 * DIAL_MINUTES * ageDays) / SYNODIC_MONTH
  return Math.round(atNewMinutes + late) % DIAL_MINUTES
}
