import { requirePositive } from '../check/require.ts'

export interface DriveMargin {
  /** what is to spare, % of what is fitted; below 0 when more than that is needed */
  marginPercent: number
  verdict: 'good' | 'watch' | 'poor'
}

/** Rules of thumb: a good train has a third to spare; with less than a tenth it will stop on a cold day. */
export const DRIVE_GOOD_PERCENT = 30
export const DRIVE_POOR_PERCENT = 10

/**
 * What the clock has to spare: the fitted weight (or turns) against the least that keeps it going.
 *
 * @param fitted - kg, or turns of the spring; above 0
 * @param least - the same unit; above 0
 */
export function driveMargin(fitted: number, least: number, names = ['fittedKg', 'leastKg'] as const): DriveMargin {
  requirePositive(names[0], fitted)
  requirePositive(names[1], least)
  const marginPercent = (100 * (fitted - least)) / fitted
  return {
    marginPercent,
    verdict: reaches(marginPercent, DRIVE_GOOD_PERCENT)
      ? 'good'
      : reaches(marginPercent, DRIVE_POOR_PERCENT)
        ? 'watch'
        : 'poor',
  }
}

/** Weights are typed as decimals and reckoned as binary fractions: a limit met to within rounding is met. */
function reaches(percent: number, limit: number): boolean {
  return percent >= limit - 1e-9
}
