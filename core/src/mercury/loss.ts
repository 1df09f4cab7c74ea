import { requireWithin } from '../check/require.ts'

/** Of mercury at 20 °C, g/ml. Source: CRC Handbook of Chemistry and Physics. */
export const MERCURY_G_PER_ML = 13.546

export interface MercuryLoss {
  /** what left the jar and did not come into the bottles, g; negative: more came than left */
  lostG: number
  lostMl: number
  /** two standard errors of it, by the scale, g */
  errorG: number
  /** it can’t be the scale: look for it */
  missing: boolean
}

const MOST_G = 50_000

/**
 * What was lost in decanting: the jar before, less the jar after, less what came into the bottles.
 *
 * @param jarBeforeG - jar with its mercury and cap, 0 to 50 000 g
 * @param jarAfterG - the same jar, decanted
 * @param bottlesG - mercury in the bottles, without their own weight
 * @param scaleG - the scale's step or error in one weighing, g; three weighings enter
 * @throws FieldError naming the weight that is out of range, or a jar heavier after than before
 */
export function mercuryLoss(jarBeforeG: number, jarAfterG: number, bottlesG: number, scaleG: number): MercuryLoss {
  requireWithin('jarBefore', jarBeforeG, 0, MOST_G)
  requireWithin('jarAfter', jarAfterG, 0, jarBeforeG)
  requireWithin('bottles', bottlesG, 0, MOST_G)
  requireWithin('scale', scaleG, 0.001, 50)
  const lostG = jarBeforeG - jarAfterG - bottlesG
  const errorG = 2 * scaleG * Math.sqrt(3)
  return { lostG, lostMl: lostG / MERCURY_G_PER_ML, errorG, missing: lostG > errorG }
}
