import { hear, type ListenOptions } from './hearing.ts'

/** So much sound on either side of a gap is asked, s. */
const ASKED_S = 15
/** The beats must fit so much better one way to say so, share of those expected. */
const CLEARLY = 0.1

/** What became of a stretch of sound that a recorder's time stamps call lost. */
export type Gap = 'lost' | 'went on' | 'not told'

/**
 * Whether a stretch was lost, or the stamps jumped while the sound went on: the beats on both its sides decide.
 *
 * Both ways are heard. Taken the wrong way, what follows is shifted against what was before: a step to be bridged, or
 * beats that don't fit. Not told where both ways fit, or neither.
 *
 * @param bins - power in bins of `binS` seconds, with the stretch in it as silence
 * @param atS - where the stretch begins, seconds from the first bin; `seconds` how long it is
 */
export function whatWasGap(
  bins: Float32Array,
  binS: number,
  atS: number,
  seconds: number,
  options: ListenOptions = {},
): Gap {
  const at = (s: number) => Math.max(0, Math.min(bins.length, Math.round(s / binS)))
  const before = bins.subarray(at(atS - ASKED_S), at(atS))
  const after = bins.subarray(at(atS + seconds), at(atS + seconds + ASKED_S))
  const lost = fit(bins.subarray(at(atS - ASKED_S), at(atS + seconds + ASKED_S)), binS, options)
  const joined = new Float32Array(before.length + after.length)
  joined.set(before)
  joined.set(after, before.length)
  const wentOn = fit(joined, binS, options)
  if (lost === null && wentOn === null) return 'not told'
  // Taken so wrong that no clock is heard any more.
  if (lost === null || wentOn === null) return wentOn === null ? 'lost' : 'went on'
  if (lost.slips !== wentOn.slips) return lost.slips < wentOn.slips ? 'lost' : 'went on'
  if (Math.abs(lost.used - wentOn.used) < CLEARLY) return 'not told'
  return lost.used > wentOn.used ? 'lost' : 'went on'
}

function fit(bins: Float32Array, binS: number, options: ListenOptions) {
  const result = hear(bins, binS, options)
  return result.heard ? { slips: result.slips, used: 1 - result.rejected / result.beatsExpected } : null
}
