import type { Brought } from '@treadle/contract'
import { workshopZone } from '../data/workshopZone.ts'

/** What is said and shown is in the workshop's language; times of day are the workshop's. */
const LANGUAGE = 'en-GB'

const DAY_MS = 86_400_000
const HALF_HOUR_MS = 1_800_000
const numbers = new Map<number, Intl.NumberFormat>()

/** A figure with up to so many places, a true minus sign, and no thousands mark: 43200, −0.25. */
export function figure(value: number, most = 4): string {
  const format =
    numbers.get(most) ?? new Intl.NumberFormat(LANGUAGE, { maximumFractionDigits: most, useGrouping: false })
  numbers.set(most, format)
  return format.format(value).replace(/^-/, '−').replace(/^−0$/, '0')
}

/** A figure to a fixed number of places with its sign: +0.30, −12.0; nought has none. */
export function signed(value: number, places: number): string {
  const size = Math.abs(value).toFixed(places)
  return Number(size) === 0 ? size : `${value < 0 ? '−' : '+'}${size}`
}

/** "1 reading", "3 readings", "1 hole bushed": the count with its word. */
export function count(n: number, one: string, more = `${one}s`): string {
  return `${n} ${plural(n, one, more)}`
}

const rules = new Intl.PluralRules(LANGUAGE)

/** The word for so many. */
function plural(n: number, one: string, more = `${one}s`): string {
  return rules.select(n) === 'one' ? one : more
}

/** "once", "twice", "5 times" */
export function times(n: number): string {
  return n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`
}

/** A length to a hundredth of a millimetre. */
export const mm = (value: number) => `${value.toFixed(2)} mm`

export const yesNo = (value: boolean) => (value ? 'yes' : 'no')

function parts(at: Date, options: Intl.DateTimeFormatOptions, timeZone: string | undefined = workshopZone()): string {
  return tellerOf(options, timeZone).format(at)
}

const tellers = new Map<string, Intl.DateTimeFormat>()

/** Each kept: to make one takes a hundred times as long as to ask it, and a log of hundreds asks for each of its lines. */
function tellerOf(
  options: Intl.DateTimeFormatOptions,
  timeZone: string | undefined,
  language = LANGUAGE,
): Intl.DateTimeFormat {
  const key = `${language} ${timeZone} ${JSON.stringify(options)}`
  const teller = tellers.get(key) ?? new Intl.DateTimeFormat(language, { ...options, timeZone })
  tellers.set(key, teller)
  return teller
}

const HOUR = { hour: 'numeric', minute: '2-digit', hourCycle: 'h23' } as const

/** "Mon 9:05", or with the date when it is more than six days off. */
export function whenShort(iso: string): string {
  const at = new Date(iso)
  const hour = hourOf(at)
  return Math.abs(Date.now() - at.getTime()) >= 6 * DAY_MS
    ? `${parts(at, { day: 'numeric', month: 'short', year: 'numeric' })} ${hour}`
    : `${parts(at, { weekday: 'short' })} ${hour}`
}

/** "Friday, about 9:00" for something to come. */
export function whenAbout(ms: number): string {
  if (ms <= Date.now()) return 'now'
  // The half hour before midnight is about the next day's first hour.
  const at = new Date(ms + HALF_HOUR_MS)
  const days = Math.round((Date.parse(dayOf(at)) - Date.parse(dayOf(new Date()))) / DAY_MS)
  const hour = `${Number(parts(at, { hour: 'numeric', hourCycle: 'h23' }))}:00`
  if (days === 0) return `today, about ${hour}`
  if (days === 1) return `tomorrow, about ${hour}`
  return days < 7 ? `${parts(at, { weekday: 'long' })}, about ${hour}` : parts(at, { day: 'numeric', month: 'long' })
}

/** A day, ISO 8601, as it is said on a tag: "Fri 27 Nov". */
export function dayShort(day: string): string {
  return parts(new Date(`${day}T12:00:00Z`), { weekday: 'short', day: 'numeric', month: 'short' }, 'UTC').replace(
    ',',
    '',
  )
}

const SHAPES = {
  '27 November 2026': { day: 'numeric', month: 'long', year: 'numeric' },
  '27 Nov 2026': { day: 'numeric', month: 'short', year: 'numeric' },
  '27 November': { day: 'numeric', month: 'long' },
  '27 Nov': { day: 'numeric', month: 'short' },
  'November 2026': { month: 'long', year: 'numeric' },
  'Nov 2026': { month: 'short', year: 'numeric' },
  Nov: { month: 'short' },
  'Friday 27 November 2026': { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
  'Fri 27 Nov 2026': { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>

/** A day, or a moment's day by the workshop's clock, in the shape of the one shown; ISO 8601 or ms since 1970. */
export function dayLike(at: string | number, like: keyof typeof SHAPES): string {
  // A day is the same day in every zone.
  const words =
    typeof at === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(at)
      ? parts(new Date(`${at}T12:00:00Z`), SHAPES[like], 'UTC')
      : parts(new Date(at), SHAPES[like])
  return words.replace(',', '')
}

/** Says a day, ISO 8601, in a language: for papers that are not in the workshop’s own. */
export const dayIn =
  (language: string, options: Intl.DateTimeFormatOptions) =>
  (day: string): string =>
    tellerOf(options, 'UTC', language).format(new Date(`${day.slice(0, 10)}T12:00:00Z`))

/** "Fri 27 Nov, 17:05" */
export function dayHour(at: string | number): string {
  return `${parts(new Date(at), { weekday: 'short', day: 'numeric', month: 'short' }).replace(',', '')}, ${hourOf(new Date(at))}`
}

/** "Fri 17:05:09", as a clock on the wall shows it */
export function toTheSecond(ms: number): string {
  return parts(new Date(ms), { weekday: 'short', ...HOUR, hour: '2-digit', second: '2-digit' }).replace(',', '')
}

/** "Friday 27 November, 17:05" */
export function dayAndHour(at: Date): string {
  const day = parts(at, { weekday: 'long', day: 'numeric', month: 'long' }).replace(',', '')
  return `${day}, ${hourOf(at)}`
}

/** "09:05", as a dial is set by */
export function timeOfDay(ms: number): string {
  return parts(new Date(ms), { ...HOUR, hour: '2-digit' })
}

/** "9:05" */
function hourOf(at: Date): string {
  return parts(at, HOUR).replace(/^0(?=\d)/, '')
}

/** "Fri 9:05", or "27 Nov" when it is six days off or more. */
export function whenDue(at: Date, now: Date): string {
  if (dayOf(at) === dayOf(now)) return hourOf(at)
  return at.getTime() - now.getTime() < 6 * DAY_MS
    ? `${parts(at, { weekday: 'short' })} ${hourOf(at)}`
    : parts(at, { day: 'numeric', month: 'short' })
}

/** The day of a moment by the workshop's clock, ISO 8601. */
export function dayOf(at: Date, timeZone = workshopZone()): string {
  return tellerOf({}, timeZone, 'en-CA').format(at)
}

/** Today by the workshop's clock, ISO 8601. */
export function dayToday(): string {
  return dayOf(new Date())
}

/** Words of the journal with the moments in them said by the workshop's clock. */
export function spoken(text: string): string {
  return text.replace(/\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(?:\.\d+)?Z/g, (iso) => whenShort(iso))
}

/** Words of what is due with the days and months in them said: "It went home 31 March 2024", "Oiled December 2021". */
export function daysSpoken(text: string): string {
  return text
    .replace(/\b\d{4}-\d{2}-\d{2}\b(?!T)/g, (day) => dayLike(day, '27 November 2026'))
    .replace(/\b\d{4}-\d{2}\b(?!-)/g, (month) => dayLike(`${month}-15`, 'November 2026'))
}

/** "0.40° to the right" of a case that leans; "0.00°" of one that stands upright. */
export function leaning(deg: number, digits = 2): string {
  const size = Math.abs(deg).toFixed(digits)
  return `${size}°${Number(size) === 0 ? '' : deg > 0 ? ' to the right' : ' to the left'}`
}

/** By which archive a thing was brought, and by whom it was taken in. */
export function broughtWords({ from, writtenOn, at, by }: Brought): string {
  return `From an archive of ${from || 'another workshop'}, written ${dayShort(writtenOn)}, taken in ${whenShort(at)} by ${by || 'somebody'}.`
}

/** A name as the book has it, in words: strip_steps, cameWith[0].name → strip steps, came with 1, name. */
export function spacedOut(name: string): string {
  return name
    .replaceAll('_', ' ')
    .replace(/\[(\d+)\]/g, (_, n: string) => ` ${Number(n) + 1}`)
    .replaceAll('.', ', ')
    .replace(/[a-z][A-Z]/g, (two) => `${two[0] ?? ''} ${(two[1] ?? '').toLowerCase()}`)
}
