import type { OilDoubt } from '../oil/doubt.ts'

/** How long oil is trusted: the schools disagree, so the workshop chooses. */
export const OIL_SCHOOLS = {
  default: { title: 'Oil check at 3 years, service at 5', checkYears: 3, serviceYears: 5 },
  short: { title: 'Short: check every year, service at 3', checkYears: 1, serviceYears: 3 },
  middle: { title: 'Middle: check at 4 years, service at 6', checkYears: 4, serviceYears: 6 },
  further: { title: 'Six to eight: check at 6 years, service at 8', checkYears: 6, serviceYears: 8 },
  long: { title: 'Long, modern synthetic oil: check at 7, service at 10', checkYears: 7, serviceYears: 10 },
} as const

export type OilSchool = keyof typeof OIL_SCHOOLS

/** Fresh oil on old, put on in place without taking the clock apart: a rule of thumb. */
const STOP_GAP = { checkYears: 1, serviceYears: 2 }

/** Oil that is doubted from the first day is looked at again after so many years. */
const DOUBTED_YEARS = 1

/** Oil as it was put in. */
export interface OiledAs {
  /** in place, over old oil: a stop-gap, looked at sooner whatever the school */
  stopGap?: boolean
  /** why it is looked at sooner; null: it is not doubted */
  doubt?: OilDoubt | null
}

/** The days, ISO, on which the oil falls due for a look and for a service, from the day it was oiled (ISO). */
export function oilDue(
  oiledOn: string,
  school: OilSchool,
  { stopGap = false, doubt = null }: OiledAs = {},
): { checkOn: string; serviceOn: string } {
  const { checkYears, serviceYears } = stopGap ? STOP_GAP : OIL_SCHOOLS[school]
  const soon = doubt === null ? checkYears : Math.min(DOUBTED_YEARS, checkYears)
  return { checkOn: yearsAfter(oiledOn, soon), serviceOn: yearsAfter(oiledOn, serviceYears) }
}

function yearsAfter(day: string, years: number): string {
  const date = new Date(`${day.slice(0, 10)}T00:00:00Z`)
  const month = date.getUTCMonth()
  date.setUTCFullYear(date.getUTCFullYear() + years)
  // 29 February becomes the last of the month, not the first of March.
  if (date.getUTCMonth() !== month) date.setUTCDate(0)
  return date.toISOString().slice(0, 10)
}
