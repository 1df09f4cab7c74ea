/** What a clock strikes at the half hour: nothing, one blow, or the hour once more. */
export const HALVES = ['none', 'one', 'hour'] as const
export type Halves = (typeof HALVES)[number]

/** Blows of the twelve hours, one after another: 1 + 2 + … + 12. */
const HOURS = 78

/**
 * The blows of one round of the dial, and of a day of two.
 *
 * Source: the sum of the hours, 78; twelve halves of one blow, 90; each hour once more at its half, 156.
 */
export function strikeBlows(halves: Halves): { inTwelveHours: number; aDay: number } {
  const inTwelveHours = halves === 'none' ? HOURS : halves === 'one' ? HOURS + 12 : 2 * HOURS
  return { inTwelveHours, aDay: 2 * inTwelveHours }
}
