import { whenThere } from '@treadle/core'

const MOMENT =
  /^(\d{4}-\d{2}-\d{2}|\d{1,2}\.\d{1,2}\.\d{4})[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*(Z|[+-]\d{2}:?\d{2})?$/

/** A moment as it is written on a sheet, or what is wrong with it; a day that is none, or could be two, is refused. */
export function momentOf(said: string, timeZone: string): Date | string {
  const [, date = '', hour = '', minute = '', second = '0', zone] = MOMENT.exec(said) ?? []
  const wrong = `When: “${said.slice(0, 40)}” must be such as 2026-11-27 09:05`
  if (date === '' || Number(hour) > 23 || Number(minute) > 59 || Number(second) > 59) return wrong
  const [day, month, year] = date.split('.')
  const iso = year === undefined ? date : `${year}-${month?.padStart(2, '0')}-${day?.padStart(2, '0')}`
  const midnight = new Date(`${iso}T00:00:00Z`)
  if (Number.isNaN(midnight.getTime()) || midnight.toISOString().slice(0, 10) !== iso) return `When: ${date} is no day`
  if (zone !== undefined) return new Date(`${iso}T${hour.padStart(2, '0')}:${minute}:${second.padStart(2, '0')}${zone}`)
  const hours = Number(hour) + Number(minute) / 60 + Number(second) / 3600
  return new Date(Math.round(whenThere(iso, hours, timeZone)) * 1000)
}
