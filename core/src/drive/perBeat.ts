import { requirePositive, requireWithin } from '../check/require.ts'
import { STANDARD_GRAVITY } from '../pendulum/gravity.ts'

export interface DriveBeat {
  microJPerBeat: number
  /** what reaches the pendulum of it; null where its loss is not given */
  efficiencyPercent: number | null
}

/**
 * What a weight gives each beat, and how much of it the pendulum takes: m·g·fall over the beats of the going time.
 *
 * A healthy clock passes on a tenth to two thirds of it; what is missing stays in the train and the escapement. The
 * weight of the line and of a pulley's friction count as the train's.
 *
 * @param fallMm - how far the weight itself sinks in `hours`
 * @param lossPerBeatMicroJ - what a beat costs the pendulum at its working arc
 * @throws FieldError naming the figure
 */
export function drivePerBeat(
  weightKg: number,
  fallMm: number,
  hours: number,
  beatsPerHour: number,
  lossPerBeatMicroJ?: number,
): DriveBeat {
  requirePositive('weightKg', weightKg)
  requirePositive('fallMm', fallMm)
  requirePositive('hours', hours)
  requireWithin('beatsPerHour', beatsPerHour, 600, 40_000)
  if (lossPerBeatMicroJ !== undefined) requirePositive('lossPerBeatMicroJ', lossPerBeatMicroJ)
  const microJPerBeat = (weightKg * STANDARD_GRAVITY * fallMm * 1000) / (hours * beatsPerHour)
  return {
    microJPerBeat,
    efficiencyPercent: lossPerBeatMicroJ === undefined ? null : (100 * lossPerBeatMicroJ) / microJPerBeat,
  }
}
