import { requireCount, requireWithin } from '../check/require.ts'

/** From new moon to new moon, days, in the mean. Source: Astronomical Almanac; it differs by up to 0.3 from one to the next. */
export const SYNODIC_MONTH = 29.530589
/** Of a disc with two moons and 118 teeth, moved twice a day: 59 for each. */
export const CLICKS_PER_LUNATION = 59

/**
 * Clicks that a moon disc is moved forward, from the age it shows to the true one; 0 up to one lunation less one.
 *
 * @param trueAgeDays - the moon's age, 0 to 30
 * @param showsAgeDays - what the disc shows, 0 to 30
 * @param clicksPerLunation - of its wheel for one moon, 20 to 200; 59 is the usual
 */
export function moonClicks(
  trueAgeDays: number,
  showsAgeDays: number,
  clicksPerLunation: number = CLICKS_PER_LUNATION,
): number {
  requireWithin('trueAgeDays', trueAgeDays, 0, 30)
  requireWithin('showsAgeDays', showsAgeDays, 0, 30)
  requireCount('clicksPerLunation', clicksPerLunation, 20, 200)
  const share = (trueAgeDays - showsAgeDays) / SYNODIC_MONTH
  return Math.round((share - Math.floor(share)) * clicksPerLunation) % clicksPerLunation
}
