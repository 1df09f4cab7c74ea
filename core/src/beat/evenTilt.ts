import { linearRegression, median } from 'simple-statistics'
import { FieldError } from '../check/require.ts'
import { robustSpread } from '../listen/spread.ts'

/** What tells how a case stands. */
export const FOOTING_WAYS = ['sensor', 'level'] as const
export type FootingWay = (typeof FOOTING_WAYS)[number]

/** How a case stood, and how uneven the beat was just then. */
export interface TiltPoint {
  /** of the case, degrees, + to the right */
  tiltDeg: number
  /** half the difference of the two intervals, ms, of either sign as long as it is the same all through */
  outMs: number
}

export interface EvenTilt {
  /** at this tilt the beat is even, degrees */
  evenAtDeg: number
  standardError: number
  msPerDeg: number
}

const LEAST_POINTS = 12
/** Rocked through less than this nothing follows, degrees. */
const LEAST_RANGE = 0.3
/** The slope must be so many of its errors. */
const CLEAR = 4
const OUTLIER = 4
const ROUNDS = 8

/**
 * The tilt at which a clock is in beat, while its case is rocked gently and it is heard: a straight line through the
 * unevenness of single swings against the tilt they were made at, those far off it left out.
 *
 * Neither the arc, the release nor which tick is which side need be known. The error is that of the line’s zero
 * (Fieller’s first order); it grows where the even point lies outside of what was rocked through.
 *
 * @throws FieldError with too few points, or where the case was not rocked, or the beat does not follow the tilt
 */
export function evenTilt(points: TiltPoint[]): EvenTilt {
  if (points.length < LEAST_POINTS)
    throw new FieldError('points', points.length, `it takes at least ${LEAST_POINTS} swings`)
  const tilts = points.map((p) => p.tiltDeg)
  if (Math.max(...tilts) - Math.min(...tilts) < LEAST_RANGE)
    throw new FieldError('tiltDeg', Math.max(...tilts) - Math.min(...tilts), 'rock the case through at least 0.3°')
  let used = points
  let line = { m: 0, b: 0 }
  for (let round = 0; round < ROUNDS; round++) {
    line = linearRegression(used.map((p) => [p.tiltDeg, p.outMs]))
    const left = points.map((p) => p.outMs - line.b - line.m * p.tiltDeg)
    const middle = median(left)
    const limit = Math.max(1e-6, OUTLIER * robustSpread(left))
    const kept = points.filter((_, i) => Math.abs((left[i] ?? 0) - middle) <= limit)
    if (kept.length === used.length || kept.length < LEAST_POINTS) break
    used = kept
  }
  const n = used.length
  const mean = used.reduce((sum, p) => sum + p.tiltDeg, 0) / n
  const spread = used.reduce((sum, p) => sum + (p.tiltDeg - mean) ** 2, 0)
  const left = used.reduce((sum, p) => sum + (p.outMs - line.b - line.m * p.tiltDeg) ** 2, 0)
  const scatter = Math.sqrt(left / (n - 2))
  if (Math.abs(line.m) < (CLEAR * scatter) / Math.sqrt(spread))
    throw new FieldError('outMs', 'does not follow', 'the beat did not follow the tilt: rock it farther, and slowly')
  const evenAtDeg = -line.b / line.m
  return {
    evenAtDeg,
    standardError: (scatter / Math.abs(line.m)) * Math.sqrt(1 / n + (evenAtDeg - mean) ** 2 / spread),
    msPerDeg: line.m,
  }
}
