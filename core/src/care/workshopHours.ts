import { timeThere, whenThere } from './workshopTime.ts'

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
  const today = timeThere(atS, timeZone).slice(0, 10)
  if (atS < whenThere(today, openFrom, timeZone)) return whenThere(today, openFrom, timeZone)
  if (atS <= whenThere(today, openUntil, timeZone)) return atS
  const noon = whenThere(today, 12, timeZone)
  return whenThere(timeThere(noon + DAY_S, timeZone).slice(0, 10), openFrom, timeZone)
}
