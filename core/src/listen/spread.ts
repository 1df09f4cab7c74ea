import { medianAbsoluteDeviation } from 'simple-statistics'

/** Robust standard deviation about the median: 1.4826 × the median absolute deviation, as for a normal scatter. */
export function robustSpread(values: number[]): number {
  return values.length === 0 ? 0 : 1.4826 * medianAbsoluteDeviation(values)
}
