import { turnFraction } from '../pendulum/fraction.ts'
import type { RateBook } from './book.ts'

/** "gains 9.2 ± 1.1 s a day" */
export function rateInWords(secondsPerDay: number, standardError: number): string {
  const digits = standardError >= 3 ? 0 : standardError >= 0.3 ? 1 : 2
  const size = Math.abs(secondsPerDay).toFixed(digits)
  const sign = secondsPerDay >= 0 ? 'gains' : 'loses'
  return `${sign} ${size} ± ${standardError.toFixed(digits)} s a day`
}

/** What to do with the nut, or null when nothing is to be done: "Raise the nut by ¼ turn". */
export function turnInWords(book: Pick<RateBook, 'advice' | 'move' | 'suggestedTurns'>): string | null {
  if (book.advice !== 'turn' || book.move === null) return null
  const fraction = turnFraction(book.suggestedTurns)
  const plural = book.suggestedTurns > 1.06 ? 'turns' : 'turn'
  return `${book.move === 'raise' ? 'Raise' : 'Lower'} the nut by ${fraction} ${fraction.startsWith('less') ? 'of a turn' : plural}`
}
