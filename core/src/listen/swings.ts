import { asTicks, type ListenOptions, type NothingHeard } from './hearing.ts'
import { findPeriod } from './period.ts'
import { amplitudeTrack } from './shape.ts'
import { onsetStrength } from './strength.ts'
import { followSides, REACH_S } from './track.ts'

/** One swing's release, of a clock whose split need not stay as it is. */
export interface HeardSwing {
  /** running number; even ones are of one side */
  index: number
  atS: number
}

/** So long a case must stand still at first, s: its beat and both sides’ shapes are learnt then. */
export const STILL_S = 8

/**
 * Every release of a clock whose case is leant over while it is heard: found while it stands still at first, then each
 * side followed on its own, as the two go different ways.
 *
 * Nothing is fitted through them, so nothing is thrown out because the split changes.
 *
 * @param bins - power above 900 Hz in bins of `binS` seconds, from the beginning of the recording
 */
export function hearSwings(
  bins: Float32Array,
  binS: number,
  options: Pick<ListenOptions, 'beatsPerHour' | 'ticks'> = {},
): HeardSwing[] | NothingHeard {
  if (options.ticks === 'once a period')
    return {
      heard: false,
      reason: 'no-clock',
      sentence: 'This clock ticks once a period: its split can’t be heard, and so no even footing.',
    }
  const still = bins.subarray(0, Math.round(STILL_S / binS))
  if (still.length * binS < STILL_S - binS)
    return { heard: false, reason: 'too-short', sentence: `Let it stand still for ${STILL_S} s first.` }
  const { beatsPerHour } = asTicks(options)
  const strength = onsetStrength(still, binS)
  const found = findPeriod(strength, beatsPerHour === undefined ? undefined : 7200 / beatsPerHour)
  if (!found)
    return {
      heard: false,
      reason: 'no-clock',
      sentence: 'No clock was heard while it stood still: come nearer, and begin again.',
    }
  return followSides(amplitudeTrack(bins, binS), binS, strength, found, REACH_S)
}
