import { dayThere, whenThere } from './workshopTime.ts'

/** From and until when somebody is at the bench, hours of the day. */
export interface WorkshopHours {
  openFrom: number
  openUntil: number
  timeZone: string
}

const DAY_S = 86_400

/**
 * The first moment from `atS` on at which somebody is at the bench, Unix s: the moment itself within the hours, else when
 * they next begin.
 */
export function whenOpen(atS: number, { openFrom, openUntil, timeZone }: WorkshopHours): number {
  if (openUntil <= openFrom) return atS
  const today = dayThere(atS, timeZone)
  if (atS < whenThere(today, openFrom, timeZone)) return whenThere(today, openFrom, timeZone)
  if (atS <= whenThere(today, openUntil, timeZone)) return atS
  const noon = whenThere(today, 12, timeZone)
  return whenThere(dayThere(noon + DAY_S, timeZone), openFrom, timeZone)
}
