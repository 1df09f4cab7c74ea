import { FieldError } from '@treadle/core'

/** A moment of one time zone: a date, a time to the minute at least, and Z or an offset. */
const MOMENT = /^(\d{4})-(\d{2})-(\d{2})T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d+)?)?(Z|[+-]\d{2}:?\d{2})$/

/**
 * Unix seconds of a moment that was typed with its zone.
 *
 * @throws FieldError naming the field
 */
export function secondsOf(field: string, iso: string): number {
  const parts = MOMENT.exec(iso)
  const [year = 0, month = 0, day = 0] = (parts ?? []).slice(1, 4).map(Number)
  const ms = parts && isDay(year, month, day) ? Date.parse(iso) : Number.NaN
  if (Number.isNaN(ms))
    throw new FieldError(field, iso, 'it must be a moment with its zone, such as 2026-03-01T09:30:00Z')
  return ms / 1000
}

function isDay(year: number, month: number, day: number): boolean {
  const date = new Date(Date.UTC(year, month - 1, day))
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day
}

/** A moment in Unix seconds as it is told. */
export function isoOf(seconds: number): string {
  return new Date(Math.round(seconds * 1000)).toISOString()
}
