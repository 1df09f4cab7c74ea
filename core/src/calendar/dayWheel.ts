import { FieldError, requireCount } from '../check/require.ts'

export interface CalendarSetting {
  /** days that it is moved forward now, 0 to 30 */
  clicksForward: number
  /** the next day on which it needs a hand, as YYYY-MM-DD, and how many clicks then */
  nextByHand: { date: string; clicks: number }
}

const DATE = /^(\d{4})-(\d{2})-(\d{2})$/
/** Days on the wheel. */
const WHEEL = 31

/**
 * Clicks of a calendar of 31 days from the day that it shows to the date, and when it next needs a hand: on the first of
 * the month after a short one, when it has gone on to the 29th, 30th or 31st.
 *
 * @param showsDay - 1 to 31
 * @param date - YYYY-MM-DD, Gregorian
 * @throws FieldError naming the day or the date that can’t be
 */
export function calendarSetting(showsDay: number, date: string): CalendarSetting {
  requireCount('showsDay', showsDay, 1, WHEEL)
  const { year, month, day } = dateOf(date)
  let short = month
  while (daysIn(year, short) === WHEEL) short++
  const next = new Date(Date.UTC(year, short, 1))
  return {
    clicksForward: (day - showsDay + WHEEL) % WHEEL,
    nextByHand: { date: next.toISOString().slice(0, 10), clicks: WHEEL - daysIn(year, short) },
  }
}

function dateOf(date: string): { year: number; month: number; day: number } {
  const [year = 0, month = 0, day = 0] = (DATE.exec(date) ?? []).slice(1).map(Number)
  if (year < 1600 || month < 1 || month > 12 || day < 1 || day > daysIn(year, month))
    throw new FieldError('date', date, 'it must be a date of the calendar, such as 2026-03-01')
  return { year, month, day }
}

/** Days in a month; the thirteenth is the next year's first. */
function daysIn(year: number, month: number): number {
  return new Date(Date.UTC(year, month, 0)).getUTCDate()
}
