import { beatOffset, FieldError, type BeatOffset, type Side } from '@treadle/core'

/** Intervals of a listening, first side to second and back, and which end the first side is. */
export interface Intervals {
  firstToSecondMs: number
  secondToFirstMs: number
  firstSide: Side | null
}

/** Right to left and left to right, once the sides are told. */
export function sided({
  firstToSecondMs,
  secondToFirstMs,
  firstSide,
}: Intervals): { rightToLeftMs: number; leftToRightMs: number } | null {
  if (firstSide === null) return null
  return firstSide === 'right'
    ? { rightToLeftMs: firstToSecondMs, leftToRightMs: secondToFirstMs }
    : { rightToLeftMs: secondToFirstMs, leftToRightMs: firstToSecondMs }
}

/** Milliseconds out with a sign, + when it must swing too far to the right before it drops; null while the sides are not told. */
export function signedMs(intervals: Intervals): number | null {
  const both = sided(intervals)
  return both && (both.leftToRightMs - both.rightToLeftMs) / 2
}

export type OffsetFinding = { ok: true; offset: BeatOffset } | { ok: false; sentence: string }

/** Where the escapement stands, when arc and release are known. */
export function offsetOf(
  intervals: Intervals,
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
