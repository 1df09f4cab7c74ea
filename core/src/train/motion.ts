import { requireCount } from '../check/require.ts'

/**
 * Turns of the minute hand for one of the hour hand: (minute wheel / cannon pinion) × (hour wheel / minute pinion).
 *
 * `right` is exact: whole counts are multiplied, nothing is divided.
 *
 * @example motionWork(12, 36, 10, 40) // 12, right
 */
export function motionWork(
  cannonPinion: number,
  minuteWheel: number,
  minutePinion: number,
  hourWheel: number,
): { ratio: number; right: boolean } {
  for (const [name, count] of Object.entries({ cannonPinion, minuteWheel, minutePinion, hourWheel }))
    requireCount(name, count, 4, 500)
  const driven = minuteWheel * hourWheel
  const driving = cannonPinion * minutePinion
  return { ratio: driven / driving, right: driven === 12 * driving }
}
