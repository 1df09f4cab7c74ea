import { median } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import { bestFit } from './bestFit.ts'
import type { BeatFit } from './fit.ts'
import { nameDrop, type NamedDrop } from './knocks.ts'
import { shapeAt, soundAlike, type Shape } from './shape.ts'
import { robustSpread } from './spread.ts'
import { sideOf, type TrackedBeat } from './track.ts'

export interface Retimed {
  beats: TrackedBeat[]
  /** what the two sides' rises leave unknown of the beat, s */
  referenceErrorS: number
  /** whether tick and tock sound the same */
  sidesAlike: boolean
}

/** The drop's own sound is looked at from so long before its rise till so long after. */
const LONGEST_BEFORE_S = 2e-3
const LONGEST_AFTER_S = 4e-3
const SHORTEST_S = 8e-4
/** How far from its expected time a beat's drop is looked for: scatters of the clock, and at least and at most s. */
const REACH_SPREADS = 4
const LEAST_REACH_S = 6e-4
const MOST_REACH_S = 4e-3
/** Beats over which a clock's slow wander is followed. */
const WANDER_BEATS = 101
/** Beats over which a wheel's wobble is followed, and how much steadier the beats must then be. */
const WOBBLE_BEATS = 11
const WOBBLES = 0.6
const LEAST_LIKENESS = 0.5
const QUIETEST = 0.15
/** A beat off its time must look so much more like the others there than on time. */
const CLEARLY = 0.15
/** What the reference point itself leaves unknown, s. */
const REFERENCE_BIAS_S = 6.2e-5

interface Side {
  drop: NamedDrop
  shape: Shape
  whole: Shape
  reachS: number
}

/**
 * The same beats, each timed by the drop alone.
 *
 * A tick is several knocks, and which is loudest changes; timed by its whole shape, a beat jumps from one to another.
 * Here the fit of all beats says when each is due; about those times each side's drop is named by all its beats
 * together, and timed in every beat by the drop's own short shape, near where it is due. A beat that was found well
 * off its time stays there only if its whole shape is there too: a bent tooth, not another knock.
 */
export function retime(amplitude: Float32Array, binS: number, tracked: TrackedBeat[], fit: BeatFit): Retimed | null {
  const { due, left } = dueTimes(tracked, fit)
  const spreadS = robustSpread(left.filter((_, i) => fit.healthy[i]))
  const sides = ([0, 1] as const).map((side) => {
    const expected = tracked.flatMap((b, i) => (sideOf(b.index) === side ? [nth(due, i) / binS] : []))
    return learnSide(amplitude, binS, expected, spreadS)
  })
  const [first, second] = sides
  if (!first || !second) return null
  const beats = tracked.flatMap((beat, i) => {
    const side = sideOf(beat.index) === 0 ? first : second
    const found = timeOne(amplitude, binS, side, nth(due, i), nth(left, i))
    return found ? [{ index: beat.index, ...found }] : []
  })
  const naming = Math.hypot(first.drop.doubtS, second.drop.doubtS) / 2
  return {
    beats,
    referenceErrorS: Math.hypot(REFERENCE_BIAS_S, 0.3 * (first.shape.riseS - second.shape.riseS), naming),
    sidesAlike: soundAlike(first.whole, second.whole),
  }
}

/**
 * When each beat is due, and how late it still is against that: a long recording's slow wander is left in, and the
 * wobble of a wheel where following it makes the beats clearly steadier.
 */
function dueTimes(beats: TrackedBeat[], fit: BeatFit): { due: number[]; left: number[] } {
  const slow = follow(fit.lateS, WANDER_BEATS)
  const quick = follow(fit.lateS, WOBBLE_BEATS)
  const spread = (course: number[]) => robustSpread(fit.lateS.map((late, i) => late - nth(course, i)))
  const course = spread(quick) < WOBBLES * spread(slow) ? quick : slow
  return {
    due: beats.map((beat, i) => beat.atS - nth(fit.lateS, i) + nth(course, i)),
    left: fit.lateS.map((late, i) => late - nth(course, i)),
  }
}

/** The running median of so many beats; nothing where there are no more than those. */
function follow(late: number[], beats: number): number[] {
  if (late.length <= beats) return late.map(() => 0)
  const half = (beats - 1) / 2
  return late.map((_, i) => median(late.slice(Math.max(0, i - half), i + half + 1)))
}

function learnSide(amplitude: Float32Array, binS: number, expected: number[], spreadS: number): Side | null {
  const drop = nameDrop(amplitude, binS, expected)
  if (!drop) return null
  const beforeS = within(drop.quietBeforeS - 7e-4, SHORTEST_S, LONGEST_BEFORE_S)
  const afterS = within(drop.quietAfterS - 7e-4, 1.5 * SHORTEST_S, LONGEST_AFTER_S)
  const apartS = Math.min(drop.quietBeforeS, drop.quietAfterS)
  const reachS = Math.min(within(REACH_SPREADS * spreadS, LEAST_REACH_S, MOST_REACH_S), 0.6 * apartS)
  let marks = expected.map((at) => at + drop.atS / binS)
  const centres = marks
  let shape = shapeAt(amplitude, binS, marks, beforeS, afterS)
  for (let round = 0; round < 3; round++) {
    marks = centres.map((at) => bestFit(amplitude, shape, at, Math.round(reachS / binS), binS).mark)
    shape = shapeAt(amplitude, binS, marks, beforeS, afterS)
  }
  return { drop, shape, whole: shapeAt(amplitude, binS, marks), reachS }
}

function timeOne(amplitude: Float32Array, binS: number, side: Side, dueS: number, lateS: number) {
  const { shape, whole, drop } = side
  const centre = (dueS + drop.atS) / binS
  const reach = Math.round(side.reachS / binS)
  const onTime = bestFit(amplitude, shape, centre, reach, binS)
  let found = onTime
  if (Math.abs(lateS) > side.reachS) {
    const offTime = bestFit(amplitude, shape, centre + lateS / binS, reach, binS)
    const likeness = (mark: number) => bestFit(amplitude, whole, mark, 2, binS).likeness
    if (likeness(offTime.mark) > likeness(onTime.mark) + CLEARLY) found = offTime
  }
  if (found.likeness < LEAST_LIKENESS || found.amplitude < QUIETEST * shape.amplitude) return null
  return { atS: found.mark * binS + shape.referenceS, likeness: found.likeness }
}

function within(value: number, low: number, high: number): number {
  return Math.max(low, Math.min(high, value))
}
