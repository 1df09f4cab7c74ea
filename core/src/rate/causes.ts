import type { RateBook } from './book.ts'
import type { Figure } from './solve.ts'

/** Something beside the nut that a clock's rate follows, in words; `told`: it stands out from its own error. */
export interface Cause {
  what: 'warmth' | 'arc' | 'air' | 'winding'
  words: string
  told: boolean
}

/** Standard errors by which a figure must stand out to be told. */
const STANDS_OUT = 2

/**
 * What the readings say a clock follows, each with its error and against what its pendulum says beforehand.
 *
 * @param beforehand - what its pendulum should do with a degree, s/day; null: not laid out
 */
export function causesOf(book: RateBook, beforehand: Figure | null): Cause[] {
  const causes: Cause[] = []
  const add = (what: Cause['what'], value: number | null, error: number | null, words: (f: Figure) => string) => {
    if (value === null || error === null) return
    causes.push({ what, words: words({ value, standardError: error }), told: Math.abs(value) > STANDS_OUT * error })
  }
  add('warmth', book.secondsPerDayPerC, book.perCStandardError, (f) => {
    const says = beforehand === null ? '' : `; its pendulum says ${sized(beforehand.value, f.standardError)}`
    return told(f)
      ? `It ${verb(f.value)} ${plusMinus(f)} s a day for each degree warmer${says}.`
      : `Warmth does nothing to it that its readings could tell: ${signed(f.value, f.standardError)} ± ${size(f.standardError, f.standardError)} s a day for a degree${says}.`
  })
  add('arc', book.arcShare, book.arcShareStandardError, (f) =>
    Math.abs(f.value - 1) <= STANDS_OUT * f.standardError
      ? `As its arc changes it follows its circular error, as a free pendulum does (${plusMinus(f)} of it).`
      : `As its arc changes it follows ${plusMinus(f)} of its circular error: its suspension or its escapement ${f.value < 1 ? 'takes the rest away' : 'adds to it'}.`,
  )
  add('air', book.secondsPerDayPerHpa, book.perHpaStandardError, (f) => {
    const ten = { value: 10 * f.value, standardError: 10 * f.standardError }
    return told(f)
      ? `It ${verb(f.value)} ${plusMinus(ten)} s a day when the air is 10 hPa heavier.`
      : 'The weight of the air does nothing to it that its readings could tell.'
  })
  add('winding', book.windingSecondsPerDay, book.windingStandardError, (f) =>
    told(f)
      ? `Run down it ${verb(f.value)} ${plusMinus(f)} s a day against just wound; the rate above is that of a whole run.`
      : 'It keeps the same rate wound and run down, as far as its readings can tell.',
  )
  return causes
}

function told({ value, standardError }: Figure): boolean {
  return Math.abs(value) > STANDS_OUT * standardError
}

function verb(value: number): string {
  return value >= 0 ? 'gains' : 'loses'
}

function places(error: number): number {
  return error >= 3 ? 0 : error >= 0.3 ? 1 : error >= 0.03 ? 2 : 3
}

function size(value: number, error: number): string {
  return Math.abs(value).toFixed(places(error))
}

function plusMinus({ value, standardError }: Figure): string {
  return `${size(value, standardError)} ± ${size(standardError, standardError)}`
}

function signed(value: number, error: number): string {
  return `${value < 0 ? '−' : '+'}${size(value, error)}`
}

/** What a pendulum says of a degree, beside a figure so well known: "0.07", or "it gains 0.07" where the sign is another. */
function sized(value: number, error: number): string {
  return `${value < 0 ? 'a loss of' : 'a gain of'} ${size(value, Math.max(error, 0.01))}`
}
