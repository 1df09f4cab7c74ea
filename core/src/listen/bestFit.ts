import type { Shape } from './shape.ts'

/** The mark within `reach` bins of `middle` where the sound is most like the shape: coarse search, then fine. */
export function bestFit(amplitude: Float32Array, shape: Shape, middle: number, reach: number, binS: number) {
  const coarse = Math.max(1, Math.round(4e-4 / binS))
  const centre = Math.round(middle)
  let best = centre
  let bestScore = -Infinity
  for (let mark = centre - reach; mark <= centre + reach; mark += coarse) {
    const fit = compare(amplitude, shape, mark, coarse)
    // Loudness counts up to the usual, nearness a little: an unlocking or a crumb of noise must not win by its shape.
    const loud = Math.min(1, Math.sqrt(fit.amplitude / (shape.amplitude || 1)))
    const score = fit.likeness * loud - (0.25 * Math.abs(mark - centre)) / Math.max(reach, 0.02 / binS)
    if (score > bestScore) {
      bestScore = score
      best = mark
    }
  }
  const likeness = (mark: number) => compare(amplitude, shape, mark, 1).likeness
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
  return { mark: fine + part, likeness: top, amplitude: compare(amplitude, shape, fine, 1).amplitude }
}

function compare(amplitude: Float32Array, shape: Shape, mark: number, stride: number) {
  const from = mark - shape.before
  const { template } = shape
  const { length } = template
  if (from < 0 || from + length > amplitude.length) return { likeness: -1, amplitude: 0 }
  let sum = 0
  let squares = 0
  let product = 0
  let peak = 0
  for (let i = 0; i < length; i += stride) {
    const a = amplitude[from + i]!
    sum += a
    squares += a * a
    product += a * template[i]!
    if (a > peak) peak = a
  }
  const weight = weightOf(template, stride)
  const spread = squares - (sum * sum) / Math.ceil(length / stride)
  const likeness = spread > 0 && weight > 0 ? product / Math.sqrt(spread * weight) : 0
  return { likeness, amplitude: peak }
}

const weights = new WeakMap<Float64Array, Map<number, number>>()

/** The template's own squares at a stride: the same wherever it is laid. */
function weightOf(template: Float64Array, stride: number): number {
  let known = weights.get(template)
  if (!known) weights.set(template, (known = new Map<number, number>()))
  let weight = known.get(stride)
  if (weight === undefined) {
    weight = 0
    for (let i = 0; i < template.length; i += stride) weight += template[i]! * template[i]!
    known.set(stride, weight)
  }
  return weight
}
