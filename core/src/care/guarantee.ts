/**
 * The last day of a guarantee, ISO 8601, from the day of hand-over on; null: none is given.
 *
 * The day before the same date so many months on: one of a year from 15 March ends on 14 March.
 *
 * @param from - day of hand-over, ISO 8601
 * @param months - whole months, 0 to 120
 */
export function guaranteeUntil(from: string, months: number): string | null {
  if (months <= 0) return null
  const date = new Date(`${from.slice(0, 10)}T00:00:00Z`)
  const day = date.getUTCDate()
  date.setUTCDate(1)
  date.setUTCMonth(date.getUTCMonth() + months)
  const last = new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1, 0)).getUTCDate()
  // From the 31st on into a short month it runs to that month's end.
  if (day > last) date.setUTCDate(last)
  else date.setUTCDate(day - 1)
  return date.toISOString().slice(0, 10)
}
