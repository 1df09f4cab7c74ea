export interface RateReading {
  /** seconds on any one scale (Unix time will do) */
  atS: number
  /** clock minus true time, s; + ahead */
  errorS: number
  sigmaS?: number | undefined
  /** by the moment of a strike’s first blow: the same clock strikes always as early or late by its own dial */
  byStrike?: boolean | undefined
  /** of the air about it, °C */
  temperatureC?: number | undefined
  semiArcDeg?: number | undefined
  /** of the air, hPa */
  pressureHpa?: number | undefined
  /** how it was read, by any name: readings of one name are told together in what each gives to the answer */
  by?: string | undefined
}

/** A rate that was heard over a stretch of time without a break. */
export interface RateRun {
  fromS: number
  toS: number
  secondsPerDay: number
  /** of the clock alone */
  standardError: number
  /** what listened, by whatever name: its own clock’s error is common to all of its runs */
  device: string
  /** how far that clock is known, s/day */
  deviceError: number
}

/**
 * What happened between readings.
 *
 * `nut` turns the nut (+ raises); `known` changes the rate by a figure that is known (a small weight on the tray);
 * `hands` shifts the error and not the rate; `change` is anything else that may give
 * the clock a new rate (weight, arc, move, beat, oil, stop).
 */
export type RateEvent =
  | { atS: number; kind: 'nut'; turns: number }
  | { atS: number; kind: 'known'; secondsPerDay: number }
  | { atS: number; kind: 'hands' }
  | { atS: number; kind: 'change' }
