import { secondsOf, type Moment } from '../care/moment.ts'
import { whenOpen, type WorkshopHours } from '../care/workshopHours.ts'
import { rateBook, type RateBook, type RateBookInput } from './book.ts'
import type { RateEvent } from './log.ts'

export const READING_WAYS = ['eye', 'ear', 'pedal', 'listening'] as const
export type ReadingWay = (typeof READING_WAYS)[number]
/** How good each way of reading is, s. */
export const READING_SIGMAS: Record<ReadingWay, number> = {
  eye: 1,
  ear: 0.5,
  pedal: 0.5,
  listening: 0.1,
}

export const EVENT_KINDS = [
  'nut',
  'hands',
  'winding',
  'weight',
  'arc',
  'moved',
  'beat',
  'oiled',
  'stopped',
  'trial',
  'moon',
] as const
export type RateEventKind = (typeof EVENT_KINDS)[number]

/** A job’s log: what the clock showed, and what was done to it between. */
export interface RateLog {
  readings: { at: Moment; errorSeconds: number; sigmaSeconds: number }[]
  events: { at: Moment; kind: RateEventKind; turns: number | null }[]
}

/** What else the rate book asks for: of the pendulum, and how well the workshop wants to know the rate. */
export interface RateAims {
  pendulum: { pitchMm: number | null; lengthMm: number | null }
  settings: { rateToleranceSecondsPerDay: number; rateGoalSecondsPerDay: number } & Partial<WorkshopHours>
}

/** What is noted of a clock and changes nothing of it: it is wound, its trial begins, its moon is seen to move. */
const CHANGES_NOTHING = new Set<RateEventKind>(['winding', 'trial', 'moon'])

/** Whether what was done to a clock begins its rate anew: not what is only noted of it. */
export function isChange(kind: RateEventKind): boolean {
  return !CHANGES_NOTHING.has(kind)
}

/** A job’s log as the rate book reckons with it. */
function rateBookInput({ readings, events }: RateLog, { pendulum, settings }: RateAims): RateBookInput {
  return {
    pitchMm: pendulum.pitchMm ?? undefined,
    lengthMm: pendulum.lengthMm ?? undefined,
    toleranceSecondsPerDay: settings.rateToleranceSecondsPerDay,
    goalSecondsPerDay: settings.rateGoalSecondsPerDay,
    readings: readings.map((r) => ({ atS: secondsOf(r.at), errorS: r.errorSeconds, sigmaS: r.sigmaSeconds })),
    events: events.flatMap((e): RateEvent[] => {
      const atS = secondsOf(e.at)
      if (!isChange(e.kind)) return []
      if (e.kind === 'nut') return [{ atS, kind: 'nut', turns: e.turns ?? 0 }]
      return [{ atS, kind: e.kind === 'hands' ? 'hands' : 'change' }]
    }),
  }
}

/** So many books are remembered: the bench asks for those of all its clocks each time it is looked at. */
const REMEMBERED = 300
const books = new Map<string, RateBook>()

/** A book is what its readings and events make it, so that it is reckoned once for as long as they stay as they are. */
function remembered(input: RateBookInput): RateBook {
  const key = JSON.stringify(input)
  const known = books.get(key)
  const book = known ?? rateBook(input)
  // Asked for last, forgotten last.
  books.delete(key)
  books.set(key, book)
  const oldest = books.keys().next()
  if (books.size > REMEMBERED && !oldest.done) books.delete(oldest.value)
  return book
}

/** The rate book of a job’s log, its next reading while somebody is at the bench; null without readings. */
export function rateBookOf(log: RateLog, aims: RateAims): RateBook | null {
  if (log.readings.length === 0) return null
  const book = remembered(rateBookInput(log, aims))
  const { openFrom, openUntil, timeZone } = aims.settings
  if (book.nextReadingAtS === null || openFrom === undefined || openUntil === undefined || timeZone === undefined)
    return book
  return { ...book, nextReadingAtS: whenOpen(book.nextReadingAtS, { openFrom, openUntil, timeZone }) }
}
