import type { GreyFrame, Place } from './frame.ts'

/** Where a marked thing stands in a frame, and how like it is to what was marked. */
export interface Followed extends Place {
  atS: number
  /** −1 to 1 */
  likeness: number
}

/** The thing is lost when what is found is less like it. */
export const LEAST_LIKENESS = 0.55
/** It is looked for so far from where it is expected, in shares of its own size, and at least px; lost, farther. */
const REACH_SHARE = 0.3
const LEAST_REACH = 8
const LOST_REACHES = 5
/** So many points across are enough to find it by; the last step takes all. */
const COARSE_ACROSS = 24

/**
 * Follows one thing through a film: the bob, or a bright mark stuck on it.
 *
 * What is seen about the place that was pointed at is its likeness; in each frame the place is found where the picture
 * is most like it (normalised correlation, so that light may change). The fraction of a pixel is solved for: what the
 * softened patch differs from the softened likeness, along the mean of both their slopes, by least squares. The two
 * frames before say where to look.
 *
 * @see Benhimane & Malis 2004, Real-time image-based tracking of planes using efficient second-order minimization
 */
export class MarkFollower {
  readonly #half: number
  readonly #stride: number
  readonly #whole: Float64Array
  readonly #coarse: Float64Array
  readonly #soft: Float64Array
  /** what was pointed at is not a whole pixel: by so much its likeness stands beside it */
  readonly #beside: Place
  #last: Followed | null = null
  #before: Followed | null = null

  /** @param half - half the side of the square that is followed, px */
  constructor(frame: GreyFrame, at: Place, half: number) {
    this.#half = Math.max(4, Math.round(half))
    this.#stride = Math.max(1, Math.floor((2 * this.#half) / COARSE_ACROSS))
    const middle = { x: Math.round(at.x), y: Math.round(at.y) }
    this.#beside = { x: at.x - middle.x, y: at.y - middle.y }
    this.#whole = normalised(patch(frame, middle.x, middle.y, this.#half, 1))
    this.#coarse = normalised(patch(frame, middle.x, middle.y, this.#half, this.#stride))
    this.#soft = normalised(softened(patch(frame, middle.x, middle.y, this.#half, 1), 2 * this.#half + 1))
    this.#last = { ...middle, atS: frame.atS, likeness: 1 }
  }

  /** Where it is in the next frame; null where it is not seen. */
  next(frame: GreyFrame): Followed | null {
    const guess = this.#guess(frame.atS)
    const reach = Math.max(LEAST_REACH, Math.round(REACH_SHARE * this.#half))
    let found = this.#search(frame, guess, reach, 2)
    // Lost: anywhere along the swing it may turn up again.
    if (found.likeness < LEAST_LIKENESS) found = this.#search(frame, guess, LOST_REACHES * reach, 4)
    if (found.likeness < LEAST_LIKENESS) return null
    const exact = this.#exact(frame, found)
    this.#before = this.#last
    this.#last = exact
    return { ...exact, x: exact.x + this.#beside.x, y: exact.y + this.#beside.y }
  }

  #guess(atS: number): Place {
    const [last, before] = [this.#last, this.#before]
    if (!last) return { x: 0, y: 0 }
    if (!before || last.atS === before.atS) return last
    const share = (atS - last.atS) / (last.atS - before.atS)
    return { x: last.x + (last.x - before.x) * share, y: last.y + (last.y - before.y) * share }
  }

  #search(frame: GreyFrame, guess: Place, reach: number, stride: number): Followed {
    const [x0, y0] = [Math.round(guess.x), Math.round(guess.y)]
    let best = { x: x0, y: y0, likeness: -2 }
    const look = (template: Float64Array, step: number, x: number, y: number) => {
      const likeness = this.#likeness(frame, template, step, x, y)
      if (likeness > best.likeness) best = { x, y, likeness }
    }
    for (let y = y0 - reach; y <= y0 + reach; y += stride)
      for (let x = x0 - reach; x <= x0 + reach; x += stride) look(this.#coarse, this.#stride, x, y)
    const around = best
    best = { ...around, likeness: -2 }
    for (let dy = -stride; dy <= stride; dy++)
      for (let dx = -stride; dx <= stride; dx++) look(this.#coarse, this.#stride, around.x + dx, around.y + dy)
    return { ...best, likeness: this.#likeness(frame, this.#whole, 1, best.x, best.y), atS: frame.atS }
  }

  #likeness(frame: GreyFrame, template: Float64Array, step: number, x: number, y: number): number {
    const half = this.#half
    const { width, height, grey } = frame
    if (x - half < 0 || y - half < 0 || x + half >= width || y + half >= height) return -2
    let sum = 0
    let squares = 0
    let product = 0
    let i = 0
    for (let row = y - half; row <= y + half; row += step)
      for (let at = row * width + x - half; at <= row * width + x + half; at += step) {
        const value = grey[at]!
        sum += value
        squares += value * value
        product += value * template[i++]!
      }
    const spread = squares - (sum * sum) / i
    return spread > 0 ? product / Math.sqrt(spread) : -1
  }

  /** The place to a fraction of a pixel, from the whole one. */
  #exact(frame: GreyFrame, found: Followed): Followed {
    const side = 2 * this.#half + 1
    const here = normalised(softened(patch(frame, found.x, found.y, this.#half, 1), side))
    let [xx, xy, yy, xz, yz] = [0, 0, 0, 0, 0]
    for (let row = 2; row < side - 2; row++)
      for (let at = row * side + 2; at < row * side + side - 2; at++) {
        const gx = (here[at + 1]! - here[at - 1]! + this.#soft[at + 1]! - this.#soft[at - 1]!) / 4
        const gy = (here[at + side]! - here[at - side]! + this.#soft[at + side]! - this.#soft[at - side]!) / 4
        const z = this.#soft[at]! - here[at]!
        xx += gx * gx
        xy += gx * gy
        yy += gy * gy
        xz += gx * z
        yz += gy * z
      }
    const determinant = xx * yy - xy * xy
    if (!(determinant > 1e-12 * xx * yy)) return found
    const dx = (yy * xz - xy * yz) / determinant
    const dy = (xx * yz - xy * xz) / determinant
    return { ...found, x: found.x + within(dx), y: found.y + within(dy) }
  }
}

/** A whole place is right to a pixel. */
function within(step: number): number {
  return Math.max(-1, Math.min(1, step))
}

function patch({ width, height, grey }: GreyFrame, x: number, y: number, half: number, stride: number): Float64Array {
  const side = Math.floor((2 * half) / stride) + 1
  return Float64Array.from({ length: side * side }, (_, i) => {
    const column = Math.max(0, Math.min(width - 1, x - half + (i % side) * stride))
    const row = Math.max(0, Math.min(height - 1, y - half + Math.floor(i / side) * stride))
    return grey[row * width + column]!
  })
}

/** Twice the mean of neighbours 1:2:1 both ways: noise falls, and slopes are those of a smooth picture. */
function softened(values: Float64Array, side: number): Float64Array {
  let now = values
  for (const step of [1, side, 1, side])
    now = now.map((v, i) => (2 * v + (now[i - step] ?? v) + (now[i + step] ?? v)) / 4)
  return now
}

/** Less its mean, of length 1: a product with it is a likeness. */
function normalised(values: Float64Array): Float64Array {
  const mean = values.reduce((a, b) => a + b, 0) / values.length
  const length = Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0)) || 1
  return values.map((v) => (v - mean) / length)
}
