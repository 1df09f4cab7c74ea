import { FieldError, requirePositive, requireWithin } from '../check/require.ts'

/** Intervals between releases, ms. */
export interface BeatIntervals {
  rightToLeftMs: number
  leftToRightMs: number
}

export interface BeatOffset {
  /** how far the escapement's middle stands to the right of plumb, degrees; − is left */
  offsetDeg: number
  /** the longer interval's share of the period, ≥ 50 */
  splitPercent: number
  /** half the difference of the two intervals, ms, ≥ 0 */
  outOfBeatMs: number
  /** how much the semi-arc may fall before it stops, degrees */
  marginDeg: number
}

/**
 * Intervals between the releases of a pendulum θ = A·sin(ωt), ms.
 *
 * The right-hand release is at +φ+δ going right, the left-hand one at −φ+δ going left (handbook of the craft:
 * φ is half the angle between the two releases, δ the offset of their middle from plumb).
 *
 * @param offsetDeg - δ, degrees, + right; |δ| below A − φ
 * @throws FieldError naming releaseDeg and semiArcDeg when the pendulum would not reach a release
 * @example beatIntervals(7200, 5, 2, 0.5) // 465.16 and 534.84 ms
 */
export function beatIntervals(
  beatsPerHour: number,
  semiArcDeg: number,
  releaseDeg: number,
  offsetDeg: number,
): BeatIntervals {
  requirePositive('beatsPerHour', beatsPerHour)
  checkReach(semiArcDeg, releaseDeg)
  if (!(Math.abs(offsetDeg) <= semiArcDeg - releaseDeg))
    throw new FieldError(
      'offsetDeg',
      offsetDeg,
      `it must lie within ±(semiArcDeg − releaseDeg), ${semiArcDeg - releaseDeg}`,
    )
  const periodMs = 7.2e6 / beatsPerHour
  const rightToLeftMs = periodMs * rightToLeftShare(semiArcDeg, releaseDeg, offsetDeg)
  return { rightToLeftMs, leftToRightMs: periodMs - rightToLeftMs }
}

/**
 * Where the escapement stands from plumb, from the two intervals heard. Exact for a sinusoidal swing (bisection).
 *
 * @param intervals - ms between releases
 * @param semiArcDeg - A, plumb to the end of the swing, degrees, above φ and up to 45
 * @param releaseDeg - φ, half the angle between the two releases, degrees, above 0
 * @throws FieldError when the release lies beyond the arc (names both), or when no offset gives so uneven a beat
 */
export function beatOffset(intervals: BeatIntervals, semiArcDeg: number, releaseDeg: number): BeatOffset {
  const { rightToLeftMs, leftToRightMs } = intervals
  requirePositive('rightToLeftMs', rightToLeftMs)
  requirePositive('leftToRightMs', leftToRightMs)
  checkReach(semiArcDeg, releaseDeg)
  const periodMs = rightToLeftMs + leftToRightMs
  const share = rightToLeftMs / periodMs
  const most = semiArcDeg - releaseDeg
  // The share falls as the offset grows to the right; at ±most the pendulum only just reaches a release.
  if (share < rightToLeftShare(semiArcDeg, releaseDeg, most) || share > rightToLeftShare(semiArcDeg, releaseDeg, -most))
    throw new FieldError(
      'rightToLeftMs',
      rightToLeftMs,
      `with semiArcDeg ${semiArcDeg} and releaseDeg ${releaseDeg} a period of ${periodMs.toFixed(1)} ms splits no further than ` +
        `${(100 * rightToLeftShare(semiArcDeg, releaseDeg, -most)).toFixed(1)} to ${(100 * rightToLeftShare(semiArcDeg, releaseDeg, most)).toFixed(1)} per cent`,
    )
  let low = -most
  let high = most
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2
    if (rightToLeftShare(semiArcDeg, releaseDeg, middle) > share) low = middle
    else high = middle
  }
  const offsetDeg = (low + high) / 2
  return {
    offsetDeg,
    splitPercent: 100 * Math.max(share, 1 - share),
    outOfBeatMs: Math.abs(rightToLeftMs - leftToRightMs) / 2,
    marginDeg: most - Math.abs(offsetDeg),
  }
}

function checkReach(semiArcDeg: number, releaseDeg: number): void {
  requirePositive('semiArcDeg', semiArcDeg)
  requirePositive('releaseDeg', releaseDeg)
  requireWithin('semiArcDeg', semiArcDeg, 0, 45)
  if (releaseDeg >= semiArcDeg)
    throw new FieldError(
      'releaseDeg',
      releaseDeg,
      `it must be below semiArcDeg (${semiArcDeg}), or the wheel is never released`,
    )
}

function rightToLeftShare(arcDeg: number, releaseDeg: number, offsetDeg: number): number {
  const reach = (deg: number) => Math.asin(Math.min(1, Math.max(-1, deg / arcDeg)))
  return 0.5 - (reach(releaseDeg + offsetDeg) - reach(releaseDeg - offsetDeg)) / (2 * Math.PI)
}
