import type { Shape } from './shape.ts'

/** The mark within `reach` bins of `middle` where the sound is most like the shape: coarse search, then fine. */
export function bestFit(amplitude: Float32Array, shape: Shape, middle: number, reach: number, binS: number) {
  const coarse = Math.max(1, Math.round(4e-4 / binS))
  const best = roughly(amplitude, shape, Math.round(middle), reach, binS, coarse)
  const weight = weightOf(shape.template, 1)
  const likeness = (mark: number) => compare(amplitude, shape, mark, weight).likeness
  let fine = best
  let top = likeness(best)
  for (let mark = best - coarse; mark <= best + coarse; mark++) {
    const value = likeness(mark)
    if (value > top) {
      top = value
      fine = mark
    }
  }
  const a = likeness(fine - 1)
  const c = likeness(fine + 1)
  const bend = a - 2 * top + c
  const part = bend < 0 ? Math.max(-0.5, Math.min(0.5, (a - c) / (2 * bend))) : 0
  return { mark: fine + part, likeness: top, amplitude: compare(amplitude, shape, fine, weight).amplitude }
}

/**
 * The mark, in steps of `step`, that the shape fits best when both are looked at in those steps only.
 *
 * All places that are tried then stand on one lattice of samples: they are laid side by side once, and what any window
 * holds in all is a difference of two sums.
 */
function roughly(amplitude: Float32Array, shape: Shape, centre: number, reach: number, binS: number, step: number) {
  const { template, before } = shape
  const first = centre - reach - before
  const places = Math.floor((2 * reach) / step) + 1
  const taken = everyOf(template, 0, step, Math.ceil(template.length / step))
  const taps = taken.length
  const samples = everyOf(amplitude, first, step, places + taps - 1)
  const sums = runningSums(samples, 1)
  const squares = runningSums(samples, 2)
  const weight = weightOf(template, step)
  const nearness = 0.25 / Math.max(reach, 0.02 / binS)
  let best = centre
  let bestScore = -Infinity
  for (let place = 0; place < places; place++) {
    const from = first + place * step
    const far = nearness * Math.abs(place * step - reach)
    const sum = sums[place + taps]! - sums[place]!
    const spread = squares[place + taps]! - squares[place]! - (sum * sum) / taps
    const isWithin = from >= 0 && from + template.length <= amplitude.length
    const likeness =
      isWithin && spread > 0 && weight > 0 ? productOf(samples, place, taken) / Math.sqrt(spread * weight) : 0
    // Loudness can only take from it.
    if (Math.max(0, likeness) - far <= bestScore) continue
    // Loudness counts up to the usual, nearness a little: an unlocking or a crumb of noise must not win by its shape.
    const loud = Math.min(1, Math.sqrt(peakOf(samples, place, taps) / (shape.amplitude || 1)))
    const score = likeness * loud - far
    if (score > bestScore) {
      bestScore = score
      best = from + before
    }
  }
  return best
}

/** So many values from one on, every so manieth; 0 where there are none. */
function everyOf(values: Float32Array | Float64Array, first: number, step: number, count: number): Float64Array {
  const taken = new Float64Array(count)
  for (let i = 0; i < count; i++) taken[i] = values[first + i * step] ?? 0
  return taken
}

/** Sums of all values before each, of themselves or of their squares. */
function runningSums(values: Float64Array, power: 1 | 2): Float64Array {
  const sums = new Float64Array(values.length + 1)
  let sum = 0
  for (let i = 0; i < values.length; i++) {
    const a = values[i]!
    sum += power === 1 ? a : a * a
    sums[i + 1] = sum
  }
  return sums
}

// Each loop is a function of its own: within a larger one the runtime makes it several times as slow.
function productOf(samples: Float64Array, from: number, template: Float64Array): number {
  let product = 0
  for (let i = 0; i < template.length; i++) product += samples[from + i]! * template[i]!
  return product
}

function peakOf(samples: Float64Array, from: number, count: number): number {
  let peak = 0
  for (let i = from; i < from + count; i++) if (samples[i]! > peak) peak = samples[i]!
  return peak
}

/** @param weight - the template’s own squares, which are the same wherever it is laid */
function compare(amplitude: Float32Array, shape: Shape, mark: number, weight: number) {
  const from = mark - shape.before
  const { template } = shape
  const { length } = template
  if (from < 0 || from + length > amplitude.length) return { likeness: -1, amplitude: 0 }
  let sum = 0
  let squares = 0
  let product = 0
  let peak = 0
  for (let i = 0; i < length; i++) {
    const a = amplitude[from + i]!
    sum += a
    squares += a * a
    product += a * template[i]!
    if (a > peak) peak = a
  }
  const spread = squares - (sum * sum) / length
  const likeness = spread > 0 && weight > 0 ? product / Math.sqrt(spread * weight) : 0
  return { likeness, amplitude: peak }
}

function weightOf(template: Float64Array, stride: number): number {
  let weight = 0
  for (let i = 0; i < template.length; i += stride) weight += template[i]! * template[i]!
  return weight
}
