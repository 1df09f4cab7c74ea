import { nth } from '../check/nth.ts'
import { median } from 'simple-statistics'
import type { BeatFit } from './fit.ts'
import { robustSpread } from './spread.ts'
import type { TrackedBeat } from './track.ts'

export interface ToothReport {
  /** 1 for the tooth of the first beat heard */
  tooth: number
  pallet: 'first' | 'second'
  /** ms late, + after the healthy beats' time */
  lateMs: number
  standardErrorMs: number
  turnsHeard: number
  bent: boolean
}

const BENT_SPREADS = 5
const LEAST_BENT_MS = 0.3

/**
 * How late each tooth drops, on each pallet: the beats' lateness folded by the turn of the escape wheel.
 *
 * @param teeth - of the escape wheel; one passes each full period
 */
export function toothReports(beats: TrackedBeat[], fit: BeatFit, teeth: number): ToothReport[] {
  const reports: ToothReport[] = []
  for (const [offset, pallet] of [
    [0, 'first'],
    [1, 'second'],
  ] as const)
    for (let tooth = 0; tooth < teeth; tooth++) {
      const late = beats.flatMap((b, i) =>
        b.index % 2 === offset && Math.floor(b.index / 2) % teeth === tooth ? [nth(fit.lateS, i)] : [],
      )
      if (late.length === 0) continue
      const lateMs = 1000 * median(late)
      const standardErrorMs = (1000 * Math.max(fit.scatterS, robustSpread(late))) / Math.sqrt(late.length)
      const bent = Math.abs(lateMs) > Math.max(LEAST_BENT_MS, BENT_SPREADS * standardErrorMs)
      reports.push({ tooth: tooth + 1, pallet, lateMs, standardErrorMs, turnsHeard: late.length, bent })
    }
  return reports
}
