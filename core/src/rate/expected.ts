import { rateBook, type RateBookInput } from './book.ts'
import { GRAM_SPREAD } from './fit.ts'

const DAY_S = 86_400
/** A reading further off than so many standard deviations was not expected. */
const OUTSIDE = 2

/** What was to be expected after the last change whose effect was known beforehand. */
export interface Expected {
  /** moment of the change */
  fromS: number
  /** of the clock then, by the readings before, s */
  errorS: number
  rateSecondsPerDay: number
  rateStandardError: number
  /** standard deviation of what it shows just after the change, s */
  begunSpreadS: number
  /** how its error walks by itself, s per √day */
  walk: number
  /** readings since, and how many of them lie outside two standard deviations */
  readings: number
  outside: number
}

/**
 * What a turn of the nut or a weight on the tray was expected to do, from what was known before it, and how the readings
 * since agree; null where nothing was known before, or hands or another change came after.
 *
 * The spread grows with time by the rate's own error and by how the clock walks by itself.
 */
export function expectedAfter(book: RateBookInput): Expected | null {
  const events = [...book.events].sort((a, b) => a.atS - b.atS)
  const last = events.at(-1)
  if (!last || (last.kind !== 'nut' && last.kind !== 'known')) return null
  // Hands set as the nut was turned shift where it begins: nothing is told of the error then, only of the rate.
  const before = book.readings.filter((r) => r.atS <= last.atS)
  const since = book.readings.filter((r) => r.atS > last.atS)
  if (before.length < 2) return null
  const known = rateBook({
    ...book,
    readings: before,
    events: events.slice(0, -1),
    runs: (book.runs ?? []).filter((r) => r.toS <= last.atS),
  })
  const { rateSecondsPerDay: rate, standardError, walk } = known
  if (rate === null || standardError === null) return null
  if (last.kind === 'nut' && (known.secondsPerDayPerTurn === null || known.perTurnStandardError === null)) return null
  const gains = last.kind === 'nut' ? last.turns * known.secondsPerDayPerTurn! : last.secondsPerDay
  const unsure = last.kind === 'nut' ? last.turns * known.perTurnStandardError! : GRAM_SPREAD * last.secondsPerDay
  const latest = before.reduce((a, b) => (b.atS > a.atS ? b : a))
  const restDays = (last.atS - latest.atS) / DAY_S
  const errorS = latest.errorS + rate * restDays
  const rateStandardError = Math.hypot(standardError, unsure)
  const begun = Math.hypot(latest.sigmaS ?? 1, standardError * restDays, walk * Math.sqrt(restDays), 1)
  const expected = rate + gains
  const told = {
    fromS: last.atS,
    errorS,
    rateSecondsPerDay: expected,
    rateStandardError,
    begunSpreadS: begun,
    walk,
    readings: since.length,
  }
  return {
    ...told,
    outside: since.filter((r) => {
      const days = (r.atS - last.atS) / DAY_S
      const spread = Math.hypot(expectedSpreadS(told, days), r.sigmaS ?? 1)
      return Math.abs(r.errorS - errorS - expected * days) > OUTSIDE * spread
    }).length,
  }
}

/** Standard deviation of what the clock shows so many days after the change, s: it grows with what was not known then. */
export function expectedSpreadS(
  { begunSpreadS, rateStandardError, walk }: Pick<Expected, 'begunSpreadS' | 'rateStandardError' | 'walk'>,
  days: number,
): number {
  return Math.hypot(begunSpreadS, rateStandardError * days, walk * Math.sqrt(days))
}
