import type { RateBook } from './book.ts'

/** The smallest step a hand gives a nut, turns, and a set of small weights has, g. */
const NUT_STEP = 1 / 8
const WEIGHT_STEP = 0.1
/** More than this is no small weight, g. */
const MOST_ON_TRAY = 10
/** A rate worth acting on stands this many standard errors from 0. */
const SUPPORT = 2

/** The least disturbing thing that brings a clock to time. */
export type NextMove =
  | { what: 'nothing' }
  | { what: 'nut'; turns: number; leavesSecondsPerDay: number }
  | { what: 'weight'; grams: number; leavesSecondsPerDay: number }

/**
 * What to do next: a small weight laid on the tray or taken off, which does not stop the pendulum, where one is enough
 * and the rate is told well enough from nought; else the nut, in eighths of a turn (+ raises).
 *
 * @param perGram - what a gram on the tray does, s/day; null: there is no tray
 */
export function nextMove(book: RateBook, perGram: number | null): NextMove {
  const { rateSecondsPerDay: rate, standardError } = book
  if (rate === null || standardError === null || book.suspects.length > 0) return { what: 'nothing' }
  if (perGram !== null && perGram > 0 && Math.abs(rate) >= SUPPORT * standardError) {
    const grams = Math.round(-rate / perGram / WEIGHT_STEP) * WEIGHT_STEP
    if (grams !== 0 && Math.abs(grams) <= MOST_ON_TRAY)
      return { what: 'weight', grams: Math.round(grams * 10) / 10, leavesSecondsPerDay: rate + grams * perGram }
  }
  if (book.advice !== 'turn' || book.secondsPerDayPerTurn === null) return { what: 'nothing' }
  const exact = (book.move === 'raise' ? 1 : -1) * book.suggestedTurns
  const turns = Math.round(exact / NUT_STEP) * NUT_STEP
  if (turns === 0) return { what: 'nut', turns: exact, leavesSecondsPerDay: 0 }
  return { what: 'nut', turns, leavesSecondsPerDay: rate + turns * book.secondsPerDayPerTurn }
}
