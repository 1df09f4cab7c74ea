export interface RateReading {
  /** seconds on any one scale (Unix time will do) */
  atS: number
  /** clock minus true time, s; + ahead */
  errorS: number
  sigmaS?: number | undefined
}

/**
 * What happened between readings.
 *
 * `nut` turns the nut (+ raises); `hands` shifts the error and not the rate; `change` is anything else that may give
 * the clock a new rate (weight, arc, move, beat, oil, stop).
 */
export type RateEvent =
  { atS: number; kind: 'nut'; turns: number } | { atS: number; kind: 'hands' } | { atS: number; kind: 'change' }
