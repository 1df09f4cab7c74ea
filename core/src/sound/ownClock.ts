import { linearRegression, mean } from 'simple-statistics'
import { nth } from '../check/nth.ts'

/** How much sound there was when the computer's clock showed so much, both s, of any beginning. */
export interface ClockPoint {
  soundS: number
  computerS: number
}

export interface OwnClock {
  /** how much too fast the recorder's own clock runs, parts per million; + it gives too many samples */
  ppm: number
  standardError: number
  /** over how long it was compared, s */
  seconds: number
}

/** The most punctual block of so long stands for it, s. */
const BIN_S = 5
const LEAST_BINS = 8
/** The computer's clock was set when it leaps by so much, s. */
const LEAP_S = 0.05
/** What one point can't be better than, s: blocks come every hundredth of a second. */
const LEAST_SCATTER_S = 3e-4
const MILLION = 1e6

/** One part per million is so much a day, s. */
export const SECONDS_PER_PPM = 0.0864

/**
 * How much too fast a recorder's own clock runs against the computer's, from when its blocks came.
 *
 * A block comes late and never early: of every five seconds only the most punctual counts, and a straight line runs
 * through those. Its error is that of the line, neighbours' scatter taken as it is, and no less than blocks allow. Null
 * with less than forty seconds. After a leap of the computer's clock only what came since counts.
 *
 * @param points - in order of time
 */
export function ownClock(points: ClockPoint[]): OwnClock | null {
  const bins: { atS: number; aheadS: number }[] = []
  let end = -Infinity
  for (const { soundS, computerS } of points) {
    const aheadS = soundS - computerS
    const bin = bins.at(-1)
    if (!bin || computerS >= end) {
      bins.push({ atS: computerS, aheadS })
      end = computerS + BIN_S
    } else if (aheadS > bin.aheadS) bins[bins.length - 1] = { atS: computerS, aheadS }
  }
  let from = 0
  for (let i = 1; i < bins.length; i++) if (Math.abs(nth(bins, i).aheadS - nth(bins, i - 1).aheadS) > LEAP_S) from = i
  // The last one may not be over: a late block would stand for it.
  const used = bins.slice(from, -1)
  if (used.length < LEAST_BINS) return null
  const middle = mean(used.map((b) => b.atS))
  const line = linearRegression(used.map((b) => [b.atS - middle, b.aheadS]))
  const left = used.reduce((sum, b) => sum + (b.aheadS - line.b - line.m * (b.atS - middle)) ** 2, 0)
  const scatter = Math.max(LEAST_SCATTER_S, Math.sqrt(left / (used.length - 2)))
  const spread = Math.sqrt(used.reduce((sum, b) => sum + (b.atS - middle) ** 2, 0))
  return {
    ppm: MILLION * line.m,
    standardError: (MILLION * scatter) / spread,
    seconds: nth(used, used.length - 1).atS - nth(used, 0).atS,
  }
}

/** A rate with how far it is known, s/day, + gains. */
export interface KnownRate {
  secondsPerDay: number
  standardError: number
}

/**
 * How much too fast a recorder's own clock runs, by a clock of a known rate that was heard with it uncorrected: a
 * recorder that gives too many samples makes every beat seem longer, and the clock slow. A time signal is a clock of one
 * pip a second that neither gains nor loses.
 *
 * @param seconds - how long it was heard
 */
export function ownClockByRate(heard: KnownRate, known: KnownRate, seconds: number): OwnClock {
  return {
    ppm: (known.secondsPerDay - heard.secondsPerDay) / SECONDS_PER_PPM,
    standardError: Math.hypot(known.standardError, heard.standardError) / SECONDS_PER_PPM,
    seconds,
  }
}
