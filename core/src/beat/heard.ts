import { FieldError } from '../check/require.ts'
import { beatOffset, type BeatOffset } from './offset.ts'
import { beatRemedy, type RemedyLengths, type Side } from './remedy.ts'
import { gradeBeat, type BeatGrade, type BeatTolerance } from './tolerance.ts'
import { twoReadings } from './twoReadings.ts'

/** The two intervals of a beat, ms, and which end of the swing the first side is; null: not told. */
export interface HeardIntervals {
  firstToSecondMs: number
  secondToFirstMs: number
  firstSide: Side | null
}

type Unsided = Pick<HeardIntervals, 'firstToSecondMs' | 'secondToFirstMs'>

/** How far it is out of beat, ms: half of what the two intervals differ by. */
export function outOfBeatMs({ firstToSecondMs, secondToFirstMs }: Unsided): number {
  return Math.abs(firstToSecondMs - secondToFirstMs) / 2
}

/** Whether a kept listening tells the beat at all: of a clock that ticks once a period it can't, and is wholly unsure. */
export function splitTold(l: Unsided & { outOfBeatStandardError: number }): boolean {
  return l.outOfBeatStandardError < (l.firstToSecondMs + l.secondToFirstMs) / 8
}

/** The longer interval as a share of both, %; 50 is even. */
export function splitPercent({ firstToSecondMs, secondToFirstMs }: Unsided): number {
  return (100 * Math.max(firstToSecondMs, secondToFirstMs)) / (firstToSecondMs + secondToFirstMs)
}

/** How even a listening is by the workshop’s own limit. */
export function gradeHeard(intervals: Unsided, tolerance: BeatTolerance): BeatGrade {
  return gradeBeat(splitPercent(intervals), outOfBeatMs(intervals), tolerance)
}

/** Right to left and left to right, once the sides are told. */
export function sided({
  firstToSecondMs,
  secondToFirstMs,
  firstSide,
}: HeardIntervals): { rightToLeftMs: number; leftToRightMs: number } | null {
  if (firstSide === null) return null
  return firstSide === 'right'
    ? { rightToLeftMs: firstToSecondMs, leftToRightMs: secondToFirstMs }
    : { rightToLeftMs: secondToFirstMs, leftToRightMs: firstToSecondMs }
}

/** Milliseconds out with a sign, + when it must swing too far to the right before it drops; null while the sides are not told. */
export function signedMs(intervals: HeardIntervals): number | null {
  const both = sided(intervals)
  return both && (both.leftToRightMs - both.rightToLeftMs) / 2
}

export type OffsetFinding = { ok: true; offset: BeatOffset } | { ok: false; sentence: string }

/** Where the escapement stands, when arc and release are known. */
export function offsetOf(
  intervals: HeardIntervals,
  semiArcDeg: number | null,
  releaseDeg: number | null,
): OffsetFinding | null {
  if (semiArcDeg === null || releaseDeg === null) return null
  // While the sides are not told only the size is meant.
  const both = sided(intervals) ?? {
    rightToLeftMs: Math.min(intervals.firstToSecondMs, intervals.secondToFirstMs),
    leftToRightMs: Math.max(intervals.firstToSecondMs, intervals.secondToFirstMs),
  }
  try {
    return { ok: true, offset: beatOffset(both, semiArcDeg, releaseDeg) }
  } catch (error) {
    if (!(error instanceof FieldError)) throw error
    return {
      ok: false,
      sentence:
        error.field === 'releaseDeg'
          ? `The release angle, ${releaseDeg}°, must be below the semi-arc, ${semiArcDeg}°.`
          : `With an arc of ${semiArcDeg}° and a release at ${releaseDeg}° no clock can be so far out and still go: measure both again.`,
    }
  }
}

/** Release angles that clocks have, as shares of the semi-arc; an escapement's is between them. */
const RELEASE_SHARES = [0.25, 0.6]

/** Between what angles from plumb the escapement stands where the arc is known and the release is not, degrees; else null. */
export function offsetRange(
  intervals: HeardIntervals,
  semiArcDeg: number | null,
): [least: number, most: number] | null {
  if (semiArcDeg === null) return null
  const found = RELEASE_SHARES.flatMap((share) => {
    const one = offsetOf(intervals, semiArcDeg, share * semiArcDeg)
    return one?.ok ? [Math.abs(one.offset.offsetDeg)] : []
  })
  return found.length === RELEASE_SHARES.length ? [Math.min(...found), Math.max(...found)] : null
}

/** Below what semi-arc it stops, degrees: the escapement's offset beyond its release. */
export function stopsBelowDeg(offset: BeatOffset, releaseDeg: number): number {
  return releaseDeg + Math.abs(offset.offsetDeg)
}

export type BeatSchool = 'size' | 'pack' | 'crutch' | 'adjuster'

export interface Remedy {
  key: 'crutch' | 'pack' | 'seat' | 'swing'
  mm: number
  side: Side
}

/**
 * What puts it in beat, this workshop's first choice first: bending the crutch, packing
 * the case or the seat board in it, or swinging it on its hook.
 *
 * @param school - by size: packs up to `packUpToMs` and bends beyond it
 */
export function remediesOf(
  offsetDeg: number,
  outMs: number,
  lengths: RemedyLengths,
  { school, packUpToMs }: { school: BeatSchool; packUpToMs: number },
): { remedies: Remedy[]; packs: boolean } {
  const sizes = beatRemedy(offsetDeg, lengths)
  const all: [Remedy['key'], number | undefined, Side | null | undefined][] = [
    ['crutch', sizes.crutchBendMm, sizes.crutchBendToward],
    ['pack', sizes.packMm, sizes.packUnder],
    ['seat', sizes.seatPackMm, sizes.seatPackUnder],
    ['swing', sizes.swingBottomMm, sizes.swingBottomToward],
  ]
  const remedies = all.flatMap(([key, mm, side]): Remedy[] => (mm !== undefined && side ? [{ key, mm, side }] : []))
  const packs = school === 'pack' || (school === 'size' && outMs <= packUpToMs)
  if (packs) remedies.sort((a, b) => Number(a.key === 'crutch') - Number(b.key === 'crutch'))
  return { remedies, packs }
}

export type ZeroByTwo = { moved: true; fromNowMm: number; sameWay: boolean } | { moved: false }

/**
 * Where the zero lies by the last two listenings, with a known change between them; null where there are none, their
 * sides are not told, or the change is not known.
 */
export function zeroByTwo(listenings: (HeardIntervals & { changeMm: number | null })[]): ZeroByTwo | null {
  const after = listenings.at(-1)
  const before = listenings.at(-2)
  if (!before || after?.changeMm == null) return null
  const [first, second] = [signedMs(before), signedMs(after)]
  if (first === null || second === null) return null
  try {
    const { fromNowMm } = twoReadings(first, second, after.changeMm)
    return { moved: true, fromNowMm, sameWay: Math.sign(fromNowMm) === Math.sign(after.changeMm) }
  } catch (error) {
    if (error instanceof FieldError) return { moved: false }
    throw error
  }
}
