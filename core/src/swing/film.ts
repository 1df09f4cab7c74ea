import { linearRegression, median } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import { FieldError } from '../check/require.ts'
import { robustSpread } from '../listen/spread.ts'
import { MarkFollower, type Followed } from './follow.ts'
import type { GreyFrame, Place } from './frame.ts'
import { strips } from './rod.ts'
import { angleFrom, suspensionByAngles, suspensionByPath } from './scale.ts'
import { fitSwing, type AngleAt, type Swing } from './swing.ts'

/** How the angle was told: by the line of the rod, by the arc the bob moves on, or from a suspension that was given. */
export type AngleBy = 'rod' | 'path' | 'suspension'

export interface FilmSwing extends Swing {
  by: AngleBy
  /** where it hangs in the picture, perhaps outside of it: from there any place of the bob is an angle */
  suspension: Place
  framesFollowed: number
  /** half the side of the square that was followed, px */
  halfPx: number
  /** where the mark was in each frame; null where it was not seen */
  path: (Followed | null)[]
}

export interface KnownOfFilm {
  suspension?: Place | undefined
  /** half: half the side of the square that is followed, px */
  mark?: (Place & { half: number; atS: number }) | undefined
}

const LEAST_FRAMES = 12
/** A pixel that changes less than this between the ends of the swing is the background, of 255. */
const LEAST_CHANGE = 12
/** A swing runs through its angles; where they lie farther about it, share of the arc, their times or places are wrong. */
const MOST_SCATTER = 0.1
/** Of the places on a path so many must lie on one circle, within so many spreads and never less than px. */
const ON_CIRCLE = 0.8
const OFF_CIRCLE = 4
const LEAST_OFF_PX = 0.5
/** So many strips of the rod, at least, make a line. */
const LEAST_STRIPS = 3
/** What is not known of the bend of an arc, px. */
const BEND_PX = 0.012
/** A template's own grid pulls its places by so much at most, px; it stays in the stated error. */
const GRID_PX = 0.03

/**
 * The swing in a film of a pendulum, unaided: what moves is found, followed, and its angle taken.
 *
 * The two frames in which the picture differs most are the ends of the swing; what differs there, lowest and broadest,
 * is the bob. It is followed through all frames. Where the rod is seen above it, strips of it are followed too, and the
 * line through them is the angle, whatever the lens or the distance; where it is not, the middle of the
 * circle on which the bob moves is the suspension. The picture's own vertical stands for plumb: the camera stands level.
 *
 * @param known - what a person pointed at: where the pendulum hangs (it may lie outside of the picture), and the mark that
 *   is to be followed, in the frame of a moment
 * @throws FieldError where nothing swings, or it can't be followed
 */
export function swingInFilm(frames: GreyFrame[], { suspension, mark }: KnownOfFilm = {}): FilmSwing {
  const first = frames[0]
  if (!first || frames.length < LEAST_FRAMES)
    throw new FieldError('film', `${frames.length} frames`, `it takes at least ${LEAST_FRAMES}`)
  if (frames.some((f) => f.width !== first.width || f.height !== first.height))
    throw new FieldError('film', 'frames of several sizes', 'all frames must be of one size')
  const ends = farthestFrames(frames)
  const bob = mark ?? findBob(frames[ends[0]]!, frames[ends[1]]!)
  const places = followBoth(frames, mark ? nearestFrame(frames, mark.atS) : ends[0], bob)
  const seen = places.flatMap((p) => (p ? [p] : []))
  if (seen.length < Math.max(LEAST_FRAMES, 0.5 * frames.length))
    throw new FieldError(
      'film',
      `${seen.length} of ${frames.length} frames`,
      'the bob could not be followed in the others',
    )
  const told = suspension
    ? { by: 'suspension' as const, angles: anglesFrom(suspension, seen), shareError: 0, suspension }
    : (byRod(frames, ends, places, bob.half) ?? byPath(seen))
  const swing = fitSwing(told.angles)
  if (swing.scatterDeg > MOST_SCATTER * swing.semiArcDeg)
    throw new FieldError(
      'film',
      `${swing.scatterDeg.toFixed(2)}° about a swing of ${swing.semiArcDeg.toFixed(2)}°`,
      'its pictures come too unevenly or the bob is lost in some; stop other programs, or use a film',
    )
  const radius = told.by === 'rod' ? Infinity : Math.abs(told.suspension.y - median(seen.map((p) => p.y)))
  const grid = Number.isFinite(radius) ? (GRID_PX / radius) * (180 / Math.PI) : 0
  return {
    ...swing,
    path: places,
    standardError: Math.hypot(swing.standardError, swing.semiArcDeg * told.shareError, grid),
    by: told.by,
    suspension: told.suspension,
    framesFollowed: seen.length,
    halfPx: bob.half,
  }
}

function anglesFrom(suspension: Place, seen: Followed[]): AngleAt[] {
  return seen.map((p) => ({ atS: p.atS, deg: angleFrom(suspension, p) }))
}

function byPath(seen: Followed[]) {
  // What was followed astray for some frames would bend the circle.
  const first = suspensionByPath(seen)
  const offs = seen.map((p) => Math.hypot(p.x - first.suspension.x, p.y - first.suspension.y) - first.radius)
  const most = Math.max(LEAST_OFF_PX, OFF_CIRCLE * robustSpread(offs))
  const kept = seen.filter((_, i) => Math.abs(offs[i]!) <= most)
  if (kept.length < ON_CIRCLE * seen.length)
    throw new FieldError('film', `${kept.length} of ${seen.length} places`, 'the bob must be seen on one arc')
  const { suspension, radius, radiusError } = suspensionByPath(kept)
  const angles = anglesFrom(suspension, kept)
  // The arc is told by how far it bends: of that a hundredth of a pixel is not known, whatever the noise.
  const half = (Math.max(...angles.map((a) => a.deg)) - Math.min(...angles.map((a) => a.deg))) / 2
  const bendPx = (radius * (half * (Math.PI / 180)) ** 2) / 4
  return { by: 'path' as const, angles, shareError: Math.hypot(radiusError / radius, BEND_PX / bendPx), suspension }
}

/** Angles by the line through the rod's strips and the bob; null where no rod is seen. */
function byRod(frames: GreyFrame[], ends: [number, number], places: (Followed | null)[], half: number) {
  const rod = strips(frames[ends[0]]!, frames[ends[1]]!, places[ends[0]]!, places[ends[1]]!, half)
  if (rod.length < LEAST_STRIPS) return null
  const bobs: Place[] = []
  const angles = frames.flatMap((frame, i) => {
    const bob = places[i]
    if (!bob) return []
    const points = rod.flatMap((strip) => {
      const x = strip.follow(frame, bob)
      return x === null ? [] : [{ x, y: strip.y }]
    })
    const line = points.length >= LEAST_STRIPS ? lineThrough(points) : null
    if (line === null) return []
    bobs.push(bob)
    return [{ atS: frame.atS, deg: (180 / Math.PI) * Math.atan(line) }]
  })
  if (angles.length < 0.5 * frames.length) return null
  const suspension = suspensionByAngles(
    bobs,
    angles.map((a) => a.deg),
  )
  return suspension && { by: 'rod' as const, angles, shareError: 1e-3, suspension }
}

/** dx/dy of the line through points, by least squares in x. */
function lineThrough(points: Place[]): number | null {
  const { m } = linearRegression(points.map((p) => [p.y, p.x]))
  return Number.isFinite(m) ? m : null
}

function nearestFrame(frames: GreyFrame[], atS: number): number {
  let best = 0
  frames.forEach((frame, i) => {
    if (Math.abs(frame.atS - atS) < Math.abs(frames[best]!.atS - atS)) best = i
  })
  return best
}

/** Numbers of the two frames that differ most: the swing's ends. */
function farthestFrames(frames: GreyFrame[]): [number, number] {
  const small = frames.map(thumbnail)
  const from = small[0]!
  const away = (a: Float32Array, b: Float32Array) => a.reduce((sum, v, i) => sum + Math.abs(v - b[i]!), 0)
  let one = 0
  small.forEach((s, i) => {
    if (away(s, from) > away(small[one]!, from)) one = i
  })
  let other = 0
  small.forEach((s, i) => {
    if (away(s, small[one]!) > away(small[other]!, small[one]!)) other = i
  })
  return one < other ? [one, other] : [other, one]
}

/** Means of squares of the picture, some forty across: enough to see what moves, little enough for every frame. */
function thumbnail({ width, height, grey }: GreyFrame): Float32Array {
  const step = Math.max(1, Math.floor(width / 40))
  const [across, down] = [Math.floor(width / step), Math.floor(height / step)]
  const out = new Float32Array(across * down)
  for (let y = 0; y < down * step; y++)
    for (let x = 0; x < across * step; x++) {
      const at = Math.floor(y / step) * across + Math.floor(x / step)
      out[at]! += grey[y * width + x]! / (step * step)
    }
  return out
}

interface Found extends Place {
  half: number
}

/** The bob in the first of two frames: of what differs between them, the lowest broad part on its side. */
function findBob(one: GreyFrame, other: GreyFrame): Found {
  const { width, height } = one
  const change = smoothChange(one, other)
  let noise = 0
  for (const v of change) noise += v / change.length
  const limit = Math.max(LEAST_CHANGE, 4 * noise)
  const columns = new Float32Array(width)
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if (change[y * width + x]! > limit) columns[x]! += 1
  const total = columns.reduce((a, b) => a + b, 0)
  if (total < 30) throw new FieldError('film', 'hardly any motion', 'a swinging bob must be seen in it')
  // The bob is there twice: where it is in the one frame, and where in the other. The left half is one of them.
  let sum = 0
  let middle = 0
  while (middle < width && sum < total / 2) sum += columns[middle++]!
  const left = box(change, width, height, limit, 0, middle)
  const right = box(change, width, height, limit, middle, width)
  // Which of the two stands in this frame: the one that the other frame shows as background there.
  const here = [left, right].filter((b) => b !== null)
  const best = here.sort((a, b) => edges(one, b) - edges(other, b) - (edges(one, a) - edges(other, a)))[0]
  if (!best) throw new FieldError('film', 'no bob', 'a swinging bob must be seen in it')
  return centred(one, centred(one, best))
}

/** The same about the middle of what stands off its surroundings there: where ends of a swing overlap only edges change. */
function centred({ width, height, grey }: GreyFrame, { x, y, half }: Found): Found {
  const reach = Math.round(1.3 * half)
  const rows = range(Math.max(0, Math.round(y) - reach), Math.min(height - 1, Math.round(y) + reach))
  const columns = range(Math.max(0, Math.round(x) - reach), Math.min(width - 1, Math.round(x) + reach))
  const at = (px: number, py: number) => grey[py * width + px]!
  const edge = [
    ...rows.flatMap((py) => [at(columns[0]!, py), at(columns[columns.length - 1]!, py)]),
    ...columns.map((px) => at(px, rows[rows.length - 1]!)),
  ]
  const ground = median(edge)
  const most = Math.max(...rows.flatMap((py) => columns.map((px) => Math.abs(at(px, py) - ground))))
  const off = (px: number, py: number) => Math.abs(at(px, py) - ground) > most / 2
  // Rows as broad as half the bob: the rod above is thinner.
  const counts = rows.map((py) => columns.filter((px) => off(px, py)).length)
  const broad = rows.filter((_, i) => counts[i]! >= 0.3 * Math.max(...counts))
  let [sx, sy, count] = [0, 0, 0]
  for (const py of broad)
    for (const px of columns)
      if (off(px, py)) {
        sx += px
        sy += py
        count++
      }
  return count === 0 ? { x, y, half } : { x: sx / count, y: sy / count, half }
}

function range(from: number, to: number): number[] {
  return Array.from({ length: to - from + 1 }, (_, i) => from + i)
}

function smoothChange(one: GreyFrame, other: GreyFrame): Float32Array {
  const { width, height } = one
  const out = new Float32Array(width * height)
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      let sum = 0
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const at = (y + dy) * width + x + dx
          sum += one.grey[at]! - other.grey[at]!
        }
      out[y * width + x] = Math.abs(sum) / 9
    }
  return out
}

/** The broad part of what changed between two columns: its middle and half its size. */
function box(
  change: Float32Array,
  width: number,
  height: number,
  limit: number,
  from: number,
  to: number,
): Found | null {
  const rows = Array.from({ length: height }, (_, y) => {
    let count = 0
    for (let x = from; x < to; x++) if (change[y * width + x]! > limit) count++
    return count
  })
  const broadest = Math.max(...rows)
  if (broadest < 4) return null
  // Rows at least half as broad as the broadest, in one run about it: the rod above is thinner.
  const peak = rows.indexOf(broadest)
  let top = peak
  let bottom = peak
  while (top > 0 && rows[top - 1]! >= 0.4 * broadest) top--
  while (bottom < height - 1 && rows[bottom + 1]! >= 0.4 * broadest) bottom++
  let [sum, count, least, most] = [0, 0, width, 0]
  for (let y = top; y <= bottom; y++)
    for (let x = from; x < to; x++)
      if (change[y * width + x]! > limit) {
        sum += x
        count++
        least = Math.min(least, x)
        most = Math.max(most, x)
      }
  const half = Math.max(6, Math.min(80, Math.max(bottom - top, most - least) / 2 + 4))
  return { x: sum / count, y: (top + bottom) / 2, half }
}

/** How much a place is marked off from its surroundings in a frame: sums of differences to the picture's middle grey. */
function edges({ width, height, grey }: GreyFrame, { x, y, half }: Found): number {
  const at = (px: number, py: number) =>
    nth(
      grey,
      Math.max(0, Math.min(height - 1, Math.round(py))) * width + Math.max(0, Math.min(width - 1, Math.round(px))),
    )
  const ring = Array.from({ length: 24 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 24
    return at(x + 1.25 * half * Math.cos(angle), y + 1.25 * half * Math.sin(angle))
  })
  const inside = Array.from({ length: 24 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 24
    return at(x + 0.4 * half * Math.cos(angle), y + 0.4 * half * Math.sin(angle))
  })
  return Math.abs(median(inside) - median(ring))
}

/** Places in every frame, followed from one frame both ways. */
function followBoth(frames: GreyFrame[], start: number, bob: Found): (Followed | null)[] {
  const places: (Followed | null)[] = frames.map(() => null)
  for (const direction of [1, -1]) {
    const follower = new MarkFollower(frames[start]!, bob, bob.half)
    for (let i = start; i >= 0 && i < frames.length; i += direction) places[i] = follower.next(frames[i]!)
  }
  return places
}
