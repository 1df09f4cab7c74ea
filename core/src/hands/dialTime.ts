import { FieldError } from '../check/require.ts'

/** Minutes in one round of a dial of twelve hours. */
export const DIAL_MINUTES = 720

const TIME = /^(\d{1,2}):([0-5]\d)$/

/** Reads a time on the dial, such as 3:47, as minutes past twelve; null where it is none. */
export function dialMinutes(showed: string): number | null {
  const [, hour, minute] = /^(1[0-2]|[1-9]):([0-5]\d)$/.exec(showed) ?? []
  return hour === undefined ? null : (Number(hour) % 12) * 60 + Number(minute)
}

/**
 * Minutes past twelve of what a dial is said to show, as H:MM; also 0:10 and 03:47, as a script may write them.
 *
 * @throws FieldError naming the field
 */
export function shownMinutes(field: string, time: string): number {
  return minutesOf(field, time, 12, 'a time of a twelve-hour dial, such as 10:50') % DIAL_MINUTES
}

/**
 * Minutes since midnight, 0 to 1439, of a time of day as HH:MM.
 *
 * @throws FieldError naming the field
 */
export function dayMinutes(field: string, time: string): number {
  return minutesOf(field, time, 23, 'a time of day, such as 13:04')
}

function minutesOf(field: string, time: string, lastHour: number, what: string): number {
  const [, hour = '', minute = ''] = TIME.exec(time.trim()) ?? []
  if (hour === '' || Number(hour) > lastHour) throw new FieldError(field, time, `it must be ${what}`)
  return 60 * Number(hour) + Number(minute)
}

/** A time of a twelve-hour dial as it is written, from minutes past twelve. */
export function dialTime(minutes: number): string {
  const onDial = ((Math.floor(minutes) % DIAL_MINUTES) + DIAL_MINUTES) % DIAL_MINUTES
  return `${Math.floor(onDial / 60) || 12}:${String(onDial % 60).padStart(2, '0')}`
}
