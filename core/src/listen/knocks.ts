import { cumulativeStdNormalProbability, median } from 'simple-statistics'
import { robustSpread } from './spread.ts'

/** A tick is two to four knocks; those within these bounds of the beat's expected time are looked at, s. */
const EARLIEST_S = 0.013
const LATEST_S = 0.016
/** A rise is taken over so long, and a knock may come so much early or late against its usual place. */
const RISE_S = 3e-4
const WANDER_S = 6e-4
/** Knocks nearer to one another than this are one. */
const APART_S = 1.5e-3
/** What stays so much under the loudest can't be the drop, dB. */
const FAR_BELOW_DB = 12
/** The loudest on the mean need not be the drop: so many dB are left to the clock's own way of sounding. */
const OWN_WAY_DB = 0.8
/** Less likely than this to be the drop, a knock is left out of account. */
const UNLIKELY = 0.02

/** A knock that is told of stands so far over the noise between, and no farther under the drop, dB. */
const CLEAR_DB = 5
const FAINTEST_DB = 22
/** What rises less out of the ringing is the ringing’s own beating. */
const ABOVE_RINGING_DB = 4
const NEAR_DROP_S = 1e-3

/** Which knock of one side's ticks is the drop. */
export interface NamedDrop {
  /** from the beat's expected time, s */
  atS: number
  /** distance to the nearest other knock before and after it, s; the window's own end where there is none */
  quietBeforeS: number
  quietAfterS: number
  /** how far off the drop is, at most, if it was another knock that can't be told from it, s; 0 where it is sure */
  doubtS: number
}

/**
 * The drop among the knocks of one side, by the evidence of all its beats.
 *
 * Which knock is loudest changes from beat to beat, so no single beat is asked. Each knock's rise is taken in every
 * beat, at its own place against the expected time; the drop is the knock that is loudest by the median of all. The
 * other knocks' chance of being it follows from the scatter of the differences, beat by beat; where one is not
 * unlikely, its distance is the doubt.
 *
 * @param amplitude - amplitude over time in bins of `binS`
 * @param expected - the beats' expected times, bins (may be fractional)
 */
export function nameDrop(amplitude: Float32Array, binS: number, expected: number[]): NamedDrop | null {
  const seen = profileOf(amplitude, binS, expected)
  if (!seen) return null
  const { rises, profile, before } = seen
  const knocks = peaks(profile, Math.round(APART_S / binS), FAR_BELOW_DB)
  const drop = knocks[0]
  if (drop === undefined) return null
  const distances = knocks.slice(1).map((at) => (at - drop) * binS)
  const doubtful = knocks.slice(1).filter((at) => chanceLouder(rises, at, drop) > UNLIKELY)
  return {
    atS: (drop - before) * binS,
    quietBeforeS: Math.min(EARLIEST_S, ...distances.filter((d) => d < 0).map((d) => -d)),
    quietAfterS: Math.min(LATEST_S, ...distances.filter((d) => d > 0)),
    doubtS: Math.max(0, ...doubtful.map((at) => Math.abs(at - drop) * binS)),
  }
}

/** One of the knocks that a side's tick is made of. */
export interface Knock {
  /** after the drop, ms; − before it */
  ms: number
  /** how sudden it is against the drop, 1 as much */
  share: number
}

/**
 * The knocks of one side's ticks in the order of time, the drop among them at 0 ms: unlocking, drop, rebound, crutch.
 *
 * Only what stands clear of the noise between them, by the median of all beats, no more than 22 dB under the loudest.
 *
 * @param drops - times of the drops, bins (may be fractional)
 */
export function knocksOf(amplitude: Float32Array, binS: number, drops: number[]): Knock[] {
  const seen = profileOf(amplitude, binS, drops)
  if (!seen) return []
  const { profile, before } = seen
  const ground = median(profile) + CLEAR_DB
  // The reference point stands on the drop's rise: the knock nearest to it is the drop.
  const near = Math.round(NEAR_DROP_S / binS)
  const dropDb = Math.max(...profile.slice(before - near, before + near + 1))
  const found = peaks(profile, Math.round(APART_S / binS), FAINTEST_DB, ABOVE_RINGING_DB)
    .filter((at) => profile[at]! > ground)
    .map((at) => ({ ms: 1000 * (at - before) * binS, share: 10 ** ((profile[at]! - dropDb) / 20) }))
    .sort((a, b) => a.ms - b.ms)
  const drop = found.reduce<Knock | null>((a, b) => (a && Math.abs(a.ms) <= Math.abs(b.ms) ? a : b), null)
  return drop ? found.map((knock) => ({ ...knock, ms: knock.ms - drop.ms })) : []
}

/** The rises about all of a side's beats, and their medians over the window. */
function profileOf(amplitude: Float32Array, binS: number, at: number[]) {
  const before = Math.round(EARLIEST_S / binS)
  const length = before + Math.round(LATEST_S / binS)
  const inside = at.filter((mark) => mark - before > 8 && mark - before + length + 8 < amplitude.length)
  if (inside.length < 3) return null
  const rises = inside.map((mark) => localRises(amplitude, binS, Math.round(mark) - before, length))
  return { before, rises, profile: Array.from({ length }, (_, i) => median(rises.map((rise) => rise[i]!))) }
}

/** Level of the greatest rise near every bin of a window, dB over the window's own quiet. */
function localRises(amplitude: Float32Array, binS: number, from: number, length: number): Float64Array {
  const half = Math.max(1, Math.round(RISE_S / 2 / binS))
  const wander = Math.round(WANDER_S / binS)
  const rise = new Array<number>(length + 2 * wander).fill(0)
  for (let i = 0; i < rise.length; i++) {
    const at = from - wander + i
    rise[i] = Math.max(0, (amplitude[at + half] ?? 0) - (amplitude[at - half] ?? 0))
  }
  const floor = median(rise) + 1e-9
  const levels = new Float64Array(length)
  let last = -1
  let level = 0
  for (let i = 0; i < length; i++) {
    let most = 0
    for (let k = i; k <= i + 2 * wander; k++) if (rise[k]! > most) most = rise[k]!
    // One rise is the greatest for as long as it is near.
    if (most !== last) level = 20 * Math.log10(most + floor)
    last = most
    levels[i] = level
  }
  return levels
}

/** Places of the peaks, the highest first, none within `apart` of a higher one or `below` under the highest; `above` their surroundings, dB. */
function peaks(profile: number[], apart: number, below: number, above = 1): number[] {
  const order = profile.map((_, i) => i).sort((a, b) => profile[b]! - profile[a]!)
  const top = profile[order[0]!]!
  const found: number[] = []
  for (const i of order) {
    const level = profile[i]!
    if (level < top - below) break
    if (found.some((other) => Math.abs(other - i) < apart)) continue
    // A shoulder of a higher peak is none: it must stand above the ground on both its sides.
    const left = Math.min(...profile.slice(Math.max(0, i - apart), i + 1))
    const right = Math.min(...profile.slice(i, i + apart + 1))
    if (level - Math.max(left, right) < above) continue
    found.push(plateauMiddle(profile, i))
  }
  return found
}

/** The greatest rise near a place is flat about its knock: the middle of that flat is the knock's own place. */
function plateauMiddle(profile: number[], at: number): number {
  const level = profile[at]! - 0.5
  let from = at
  let to = at
  while (from > 0 && profile[from - 1]! >= level) from--
  while (to < profile.length - 1 && profile[to + 1]! >= level) to++
  return Math.round((from + to) / 2)
}

/** The chance that the knock at `one` is louder than that at `other` by the mean of all beats to come. */
function chanceLouder(rises: Float64Array[], one: number, other: number): number {
  const differences = rises.map((rise) => rise[one]! - rise[other]!)
  const middle = median(differences)
  // The median of n normal numbers scatters by 1.25 of their mean's own error.
  const error = (1.25 * robustSpread(differences)) / Math.sqrt(differences.length)
  return cumulativeStdNormalProbability(middle / Math.hypot(error, OWN_WAY_DB))
}
