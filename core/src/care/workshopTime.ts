import { FieldError } from '../check/require.ts'

const DAY_S = 86_400

/** What tells each zone's time, made once: to make one takes a hundred times as long as to ask it. */
const TELLERS = new Map<string, Intl.DateTimeFormat>()

/** Whether the calendar knows this time zone by its IANA name. */
export function isTimeZone(name: string): boolean {
  try {
    tellerOf(name)
    return true
  } catch {
    return false
  }
}

/** @throws RangeError for a zone that the calendar does not know */
function tellerOf(timeZone: string): Intl.DateTimeFormat {
  const known = TELLERS.get(timeZone)
  if (known) return known
  const teller = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  })
  TELLERS.set(timeZone, teller)
  return teller
}

/**
 * When the workshop’s clock shows a time on a day, Unix s. Where summer time begins at that hour the clock skips it: then
 * the moment an hour later; where it ends, the first of the two.
 *
 * @param day - ISO 8601, such as 2026-03-29
 * @param hour - of the day, 0 to 24
 * @param timeZone - IANA name, such as Europe/Oslo
 * @throws FieldError for a zone that the calendar does not know
 */
export function whenThere(day: string, hour: number, timeZone: string): number {
  if (!isTimeZone(timeZone)) throw new FieldError('timeZone', timeZone, 'the calendar does not know this time zone')
  const asUtcS = Date.parse(`${day}T00:00:00Z`) / 1000 + hour * 3600
  // The offset a day before and a day after holds either side of any change of the clocks; the first that fits is it.
  const fitting = [-DAY_S, DAY_S]
    .map((near) => asUtcS - offsetS(asUtcS + near, timeZone))
    .filter((s) => s + offsetS(s, timeZone) === asUtcS)
  return fitting.length > 0 ? Math.min(...fitting) : asUtcS - offsetS(asUtcS - DAY_S, timeZone)
}

/** What the workshop’s clock shows at a moment: "2026-11-27 17:05", or to the second "2026-11-27 17:05:09". */
export function timeThere(atS: number, timeZone: string, to: 'minute' | 'second' = 'minute'): string {
  const shown = new Date((atS + offsetS(atS, timeZone)) * 1000).toISOString().replace('T', ' ')
  return shown.slice(0, to === 'minute' ? 16 : 19)
}

/** The day of a moment by the workshop’s clock, ISO 8601: what is handed over in the evening may be tomorrow elsewhere. */
export function dayThere(atS: number, timeZone: string): string {
  return timeThere(atS, timeZone).slice(0, 10)
}

/** How far the clocks of a zone are ahead of UTC at a moment, s. */
function offsetS(atS: number, timeZone: string): number {
  const parts = tellerOf(timeZone).formatToParts(new Date(atS * 1000))
  const part = (type: Intl.DateTimeFormatPartTypes) => Number(parts.find((p) => p.type === type)?.value)
  const there = Date.UTC(part('year'), part('month') - 1, part('day'), part('hour'), part('minute'), part('second'))
  return there / 1000 - Math.floor(atS)
}
