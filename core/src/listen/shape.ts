import { median } from 'simple-statistics'

/** Window about a release that its shape is taken from, s. */
export const BEFORE_S = 0.01
export const AFTER_S = 0.016

/** Share of the first rise's power at which it is timed: low, so that the colour of the sound hardly moves the time. */
const REFERENCE_SHARE = 0.06
const SMOOTH_S = 4e-4
const STEEP_SHARE = 0.6
const RISE_S = 5e-4
const MOST_BEATS = 300
const ALIKE = 0.97
/** Natural logarithm: a decibel and a half. */
const ALIKE_LOUDNESS = 0.17

/** What one side's release sounds like. */
export interface Shape {
  /** from the window's beginning to its mark, bins */
  before: number
  /** amplitude, zero mean and unit length, from BEFORE_S before its mark to AFTER_S after it */
  template: Float64Array
  /** usual amplitude at the peak */
  amplitude: number
  /** from the template's mark to the common reference point on the rise, s */
  referenceS: number
  /** from 15 to 40 per cent of the peak, s: how slow the rise is */
  riseS: number
}

/** Amplitude over time, smoothed over the half-waves of the sound, in the bins of `power`. */
export function amplitudeTrack(power: Float32Array, binS: number): Float32Array {
  const half = Math.max(1, Math.round(SMOOTH_S / 2 / binS))
  const { length } = power
  const out = new Float32Array(length)
  const share = 1 / (2 * half + 1)
  let sum = 0
  for (let i = 0; i < Math.min(half, length); i++) sum += power[i]!
  // Ten minutes are six million bins: where the window lies within, nothing is asked.
  const from = Math.min(half + 1, length)
  const until = Math.max(from, length - half)
  for (let i = 0; i < from; i++) {
    if (i + half < length) sum += power[i + half]!
    out[i] = Math.sqrt(Math.max(0, sum) * share)
  }
  for (let i = from; i < until; i++) {
    sum += power[i + half]! - power[i - half - 1]!
    out[i] = Math.sqrt(Math.max(0, sum) * share)
  }
  for (let i = until; i < length; i++) {
    sum -= power[i - half - 1]!
    out[i] = Math.sqrt(Math.max(0, sum) * share)
  }
  return out
}

/**
 * The shape common to the windows about `marks` (bins, may be fractional): a median, so knocks leave no trace.
 *
 * @param beforeS, afterS - how far the window reaches before and after each mark
 */
export function shapeAt(
  amplitude: Float32Array,
  binS: number,
  marks: number[],
  beforeS = BEFORE_S,
  afterS = AFTER_S,
): Shape {
  const before = Math.round(beforeS / binS)
  const length = before + Math.round(afterS / binS)
  const stride = Math.max(1, Math.floor(marks.length / MOST_BEATS))
  const used = marks.filter(
    (mark, i) => i % stride === 0 && mark - before >= 0 && mark - before + length + 1 < amplitude.length,
  )
  const middle = new Float64Array(length)
  const column = new Array<number>(used.length)
  for (let i = 0; i < length; i++) {
    used.forEach((mark, j) => {
      const at = mark - before + i
      const low = Math.floor(at)
      const a = amplitude[low]!
      column[j] = a + (at - low) * (amplitude[low + 1]! - a)
    })
    middle[i] = used.length > 0 ? median(column) : 0
  }
  const peak = Math.max(...middle)
  return { before, template: normalised(middle), amplitude: peak, ...reference(middle, before, binS) }
}

/** Whether two sides have one shape and one loudness: two releases of a clock nearly always differ. */
export function soundAlike(one: Shape, other: Shape): boolean {
  const likeness = one.template.reduce((sum, v, i) => sum + v * (other.template[i] ?? 0), 0)
  return likeness > ALIKE && Math.abs(Math.log(one.amplitude / other.amplitude)) < ALIKE_LOUDNESS
}

/** Values less their mean, divided by their length as a vector. */
function normalised(values: Float64Array): Float64Array {
  const mean = values.reduce((a, b) => a + b, 0) / values.length
  const length = Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0)) || 1
  return values.map((v) => (v - mean) / length)
}

/**
 * Where the sound's first steep rise stands, from the template's mark, and how long that rise takes.
 *
 * The rise is judged by itself: from the quiet just before the steepest point to the level just after it. A later
 * peak, made by modes that beat with one another, differs from side to side and must not move the time.
 */
function reference(middle: Float64Array, before: number, binS: number): { referenceS: number; riseS: number } {
  const span = Math.max(1, Math.round(SMOOTH_S / binS))
  const slope = (i: number) => (middle[i] ?? 0) - (middle[i - span] ?? 0)
  let steepest = span
  for (let i = span; i < middle.length; i++) if (slope(i) > slope(steepest)) steepest = i
  // The first rise that is nearly as steep is the drop; what follows is the ringing.
  const first = middle.findIndex((_, i) => i >= span && i <= steepest && slope(i) >= STEEP_SHARE * slope(steepest))
  let at = first
  while (slope(at + 1) > slope(at)) at++
  const reach = Math.round(RISE_S / binS)
  const around = (from: number, to: number) => Array.from(middle.subarray(Math.max(0, from), to), (a) => a * a)
  const low = Math.min(...around(at - span - reach, at))
  const high = Math.max(...around(at - span, at + reach))
  const crossing = (share: number) => {
    const level = low + share * (high - low)
    let i = at + reach
    while (i > 0 && (middle[i - 1] ?? 0) ** 2 > level) i--
    while (i < middle.length - 1 && (middle[i] ?? 0) ** 2 < level) i++
    const a = (middle[i - 1] ?? 0) ** 2
    const b = (middle[i] ?? 0) ** 2
    return (i - 1 + (level - a) / (b - a || 1) - before) * binS
  }
  return { referenceS: crossing(REFERENCE_SHARE), riseS: crossing(0.4) - crossing(0.15) }
}
