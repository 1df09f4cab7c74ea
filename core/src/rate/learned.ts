import { secondsOf, type Moment } from '../care/moment.ts'
import { rateBookOf, type RateAims, type RateLog } from './fromLog.ts'

interface Visit extends RateLog {
  job: { receivedAt: Moment }
  clock: { pendulum: RateAims['pendulum'] }
}

export interface Learned {
  /** what a whole turn of the nut does, s a day, by readings; null: no visit has taught it */
  secondsPerDayPerTurn: number | null
  perTurnStandardError: number | null
  /** what a degree does, s a day, by the latest visit whose readings tell it; null: none does */
  secondsPerDayPerC: number | null
  perCStandardError: number | null
  /** ISO 8601 */
  lastOiledAt: string | null
}

/** What readings and turns of earlier visits taught of the nut and of warmth, by the latest that tells, and when it was last oiled. */
export function learnedOf(visits: Visit[], settings: RateAims['settings']): Learned {
  const newestFirst = [...visits].sort((a, b) => secondsOf(b.job.receivedAt) - secondsOf(a.job.receivedAt))
  const warmed = newestFirst
    .filter((v) => (v.thermometers ?? []).length > 0 || v.readings.some((r) => r.temperatureC != null))
    .map((v) => rateBookOf(v, { pendulum: v.clock.pendulum, settings }))
    .find((book) => book?.secondsPerDayPerC != null)
  const taught = newestFirst
    .filter((v) => v.events.some((e) => e.kind === 'nut'))
    .map((v) => rateBookOf(v, { pendulum: v.clock.pendulum, settings }))
    .find((book) => book?.secondsPerDayPerTurn != null)
  const oiled = visits.flatMap((v) => v.events.filter((e) => e.kind === 'oiled').map((e) => secondsOf(e.at)))
  return {
    secondsPerDayPerTurn: taught?.secondsPerDayPerTurn ?? null,
    perTurnStandardError: taught?.perTurnStandardError ?? null,
    secondsPerDayPerC: warmed?.secondsPerDayPerC ?? null,
    perCStandardError: warmed?.perCStandardError ?? null,
    lastOiledAt: oiled.length === 0 ? null : new Date(1000 * Math.max(...oiled)).toISOString(),
  }
}
