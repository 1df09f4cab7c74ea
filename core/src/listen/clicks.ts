import { onsetStrength } from './strength.ts'

/** An onset of at least so much, dB, is a click; nothing rises so in noise or as a sleeve is moved. */
const LEAST_DB = 9
/** What follows within this belongs to the same click, s. */
const APART_S = 0.15
/** A click begins where it first rises to this share of its strongest onset. */
const BEGINS_SHARE = 0.5

/**
 * Single clicks in a sound where nothing beats, s from its beginning: the drop of a tooth as a bob is moved by hand.
 *
 * Good to a few ms; what comes within the last 30 ms is not told yet.
 *
 * @param bins - power above 900 Hz in bins of `binS` seconds
 */
export function clicksIn(bins: Float32Array, binS: number): number[] {
  const { values, stepS } = onsetStrength(bins, binS)
  const clicks: number[] = []
  for (let k = 0; k < values.length; k++) {
    if (values[k]! < LEAST_DB) continue
    const until = Math.min(values.length, k + Math.round(APART_S / stepS))
    let top = k
    for (let i = k; i < until; i++) if (values[i]! > values[top]!) top = i
    let first = k
    while (values[first]! < BEGINS_SHARE * values[top]!) first++
    clicks.push((first + 1.5) * stepS)
    k = until
  }
  return clicks
}
