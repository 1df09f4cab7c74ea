import type { GreyFrame, Place } from './frame.ts'

/** A strip across the rod at one height, which finds the rod in any frame by where the bob is. */
export interface Strip {
  y: number
  /** where the rod crosses it, px from the left; null where it is not seen */
  follow(frame: GreyFrame, bob: Place): number | null
}

const HEIGHT = 9
const MOST_STRIPS = 10
/** What differs less between the swing's ends is the background, of 255. */
const LEAST_CHANGE = 5
/** Strips in which the rod moves less than this are too near to the suspension, px. */
const LEAST_MOTION = 8
/** Half the width that is compared, and how far from its expected place the rod is looked for, px. */
const HALF = 8
const REACH = 4
const LEAST_LIKENESS = 0.5

/** Strips of the rod above a bob, from its places at both ends of the swing; none where no rod is seen. */
export function strips(
  one: GreyFrame,
  other: GreyFrame,
  bobAt: Place | null,
  bobThen: Place | null,
  bobHalf: number,
): Strip[] {
  if (!bobAt || !bobThen) return []
  const until = Math.min(bobAt.y, bobThen.y) - bobHalf - HEIGHT
  const step = Math.max(HEIGHT + 1, until / MOST_STRIPS)
  const out: Strip[] = []
  for (let y = HEIGHT; y < until; y += step) {
    const strip = stripAt(one, other, Math.round(y), bobAt, bobThen)
    if (strip) out.push(strip)
  }
  return out
}

function stripAt(one: GreyFrame, other: GreyFrame, y: number, bobAt: Place, bobThen: Place): Strip | null {
  const [here, there] = [profile(one, y), profile(other, y)]
  const change = here.map((v, i) => v - there[i]!)
  // The rod stands where it is in the one frame and not in the other, and the other way round: opposite signs.
  const [a, b] = twoPeaks(change)
  if (a === null || b === null || Math.abs(a - b) < LEAST_MOTION) return null
  // The rod is on the bob's own side.
  const side = Math.sign(bobAt.x - bobThen.x)
  const [mine, theirs] = Math.sign(a - b) === side ? [a, b] : [b, a]
  const share = (mine - theirs) / (bobAt.x - bobThen.x)
  if (!(share > 0 && share < 1)) return null
  const template = normalised(cut(here, Math.round(mine)))
  if (!template) return null
  const off = mine - Math.round(mine)
  return {
    y,
    follow: (frame, bob) => {
      const expected = Math.round(mine) + share * (bob.x - bobAt.x)
      const found = locate(profile(frame, y), template, expected)
      return found === null ? null : found + off
    },
  }
}

/** Mean grey of each column over the strip's height. */
function profile({ width, height, grey }: GreyFrame, y: number): Float64Array {
  const out = new Float64Array(width)
  const half = (HEIGHT - 1) / 2
  let rows = 0
  for (let row = Math.max(0, y - half); row <= Math.min(height - 1, y + half); row++) {
    rows++
    for (let x = 0; x < width; x++) out[x]! += grey[row * width + x]!
  }
  return out.map((v) => v / rows)
}

/** Middles of the greatest rise and of the greatest fall against the other frame. */
function twoPeaks(change: Float64Array): [number | null, number | null] {
  return [centre(change, 1), centre(change, -1)]
}

function centre(change: Float64Array, sign: 1 | -1): number | null {
  let best = 0
  for (let x = 0; x < change.length; x++) if (sign * change[x]! > sign * change[best]!) best = x
  const top = sign * change[best]!
  if (top < LEAST_CHANGE) return null
  let [sum, weight] = [0, 0]
  for (let x = Math.max(0, best - HALF); x <= Math.min(change.length - 1, best + HALF); x++) {
    const value = sign * change[x]!
    if (value < 0.3 * top) continue
    sum += value * x
    weight += value
  }
  return sum / weight
}

function cut(row: Float64Array, middle: number): Float64Array | null {
  if (middle - HALF < 0 || middle + HALF >= row.length) return null
  return row.slice(middle - HALF, middle + HALF + 1)
}

function normalised(row: Float64Array | null): Float64Array | null {
  if (!row) return null
  const mean = row.reduce((a, b) => a + b, 0) / row.length
  const length = Math.sqrt(row.reduce((sum, v) => sum + (v - mean) ** 2, 0))
  return length > 1 ? row.map((v) => (v - mean) / length) : null
}

function locate(row: Float64Array, template: Float64Array, expected: number): number | null {
  const likeness = (x: number) => {
    const part = normalised(cut(row, x))
    return part ? part.reduce((sum, v, i) => sum + v * template[i]!, 0) : -1
  }
  let best = Math.round(expected)
  for (let x = Math.round(expected) - REACH; x <= Math.round(expected) + REACH; x++)
    if (likeness(x) > likeness(best)) best = x
  const top = likeness(best)
  if (top < LEAST_LIKENESS) return null
  const [low, high] = [likeness(best - 1), likeness(best + 1)]
  const bend = low - 2 * top + high
  return best + (bend < 0 ? Math.max(-0.5, Math.min(0.5, (low - high) / (2 * bend))) : 0)
}
