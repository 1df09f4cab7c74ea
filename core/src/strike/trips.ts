import { requireCount } from '../check/require.ts'
import type { Halves } from './blows.ts'

/**
 * How often a count wheel that is out of step is tripped by hand, and the blows that are struck on the way.
 *
 * One trip strikes what the wheel has next, whatever the hands show: with a blow at the half every other trip is one.
 *
 * @param willStrike - the hour that it has next, 1 to 12
 * @param shouldStrike - the hour that it should have next, 1 to 12
 * @throws FieldError naming the hour that can’t be
 */
export function strikeTrips(
  willStrike: number,
  shouldStrike: number,
  halves: Exclude<Halves, 'hour'>,
): { trips: number; blows: number } {
  requireCount('willStrike', willStrike, 1, 12)
  requireCount('shouldStrike', shouldStrike, 1, 12)
  const hours = (shouldStrike - willStrike + 12) % 12
  let blows = halves === 'one' ? hours : 0
  for (let i = 0; i < hours; i++) blows += ((willStrike - 1 + i) % 12) + 1
  return { trips: halves === 'one' ? 2 * hours : hours, blows }
}
