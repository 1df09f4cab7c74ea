import { median, quantile } from 'simple-statistics'

/** How suddenly the sound rises, step by step: 0 in noise, hum and steady ringing; up to 15 at the start of a tick. */
export interface OnsetStrength {
  /** dB of rise above what noise itself does, clipped at 15 */
  values: Float32Array
  /** level of the next 3 ms, dB */
  levels: Float32Array
  stepS: number
}

const CLIP_DB = 15
const BACKGROUND_S = 0.25
const RISE_MS = 3
const BEFORE_FROM_MS = 25
const BEFORE_TO_MS = 2

/**
 * Onset strength in steps of about 1 ms: the level of the next 3 ms over that of the 23 ms before and over the
 * background, in dB, less what the noise's own scatter makes.
 *
 * In dB, so that a side 10 dB down counts nearly as much as the loud one; clipped, so that a knock counts no more.
 *
 * @param bins - power bins of `binS` seconds
 * @param noiseSpreads - how far out of the noise an onset must stand, in its standard deviations
 */
export function onsetStrength(bins: Float32Array, binS: number, noiseSpreads = 2.5): OnsetStrength {
  const perStep = Math.max(1, Math.round(1e-3 / binS))
  const stepS = perStep * binS
  const steps = Math.floor(bins.length / perStep)
  const sums = new Float64Array(steps + 1)
  let peak = 0
  for (let k = 0; k < steps; k++) {
    let power = 0
    for (let i = k * perStep; i < (k + 1) * perStep; i++) power += bins[i]!
    power /= perStep
    if (power > peak) peak = power
    sums[k + 1] = sums[k]! + power
  }
  // 60 dB below the loudest is silence enough: pauses of digital zero must not make every crumb an onset.
  const floor = peak * 1e-6 + 1e-14
  const level = (from: number, to: number) => {
    const a = Math.max(0, from)
    const b = Math.min(steps, Math.max(a + 1, to))
    return 10 * Math.log10((sums[b]! - sums[a]!) / (b - a) + floor)
  }
  const ms = (value: number) => Math.round(value / 1000 / stepS)
  const background = backgroundLevels(level, steps, Math.round(BACKGROUND_S / stepS))
  const rise = new Float32Array(steps)
  for (let k = 0; k < steps; k++) rise[k] = level(k, k + ms(RISE_MS))
  const noise = noiseSpread(rise, Math.round(BACKGROUND_S / stepS))
  const values = new Float32Array(steps)
  for (let k = ms(BEFORE_FROM_MS); k < steps - ms(RISE_MS); k++) {
    const now = rise[k]!
    const quiet = background.at(k)
    if (now <= quiet + noiseSpreads * noise) continue
    const before = Math.max(quiet, level(k - ms(BEFORE_FROM_MS), k - ms(BEFORE_TO_MS)))
    values[k] = Math.min(CLIP_DB, Math.max(0, now - before - noiseSpreads * noise))
  }
  return { values, levels: rise, stepS }
}

function backgroundLevels(level: (a: number, b: number) => number, steps: number, perBlock: number) {
  const blocks: number[] = []
  const inside: number[] = []
  for (let start = 0; start < steps; start += perBlock) {
    inside.length = 0
    for (let k = start; k < Math.min(steps, start + perBlock); k += 2) inside.push(level(k, k + 1))
    blocks.push(median(inside))
  }
  const smooth = blocks.map((_, i) => median(blocks.slice(Math.max(0, i - 2), i + 3)))
  return { at: (k: number) => smooth[Math.min(smooth.length - 1, Math.floor(k / perBlock))] ?? 0 }
}

/** Scatter of the noise's own level: blockwise, so that a strike's long ringing is not taken for noise. */
function noiseSpread(rise: Float32Array, perBlock: number): number {
  const spreads: number[] = []
  const inside = new Array<number>(perBlock).fill(0)
  for (let start = 0; start + perBlock <= rise.length; start += perBlock) {
    for (let i = 0; i < perBlock; i++) inside[i] = rise[start + i]!
    // The lower half only: ticks and knocks all lie above the middle.
    const [low, middle] = quantile(inside, [0.16, 0.5]) as [number, number]
    spreads.push(middle - low)
  }
  return spreads.length === 0 ? 0.3 : Math.max(0.3, median(spreads))
}
