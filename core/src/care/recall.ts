import { oilDue, type OilSchool } from './oilDue.ts'
import { whenThere } from './workshopTime.ts'
import type { Owed } from './now.ts'

/** So long before it falls due a clock at home is thought of, days. */
const AHEAD_DAYS = 30
const DAY_S = 86_400
const HOUR = 9

/**
 * What is owed to a clock that went home: its oil looked at, or its service, by the oil's own age; null while neither is
 * near.
 *
 * @param oiledOn - the day it was oiled last, ISO 8601
 */
export function recallOf(
  { oiledOn, stopGap }: { oiledOn: string; stopGap: boolean },
  school: OilSchool,
  timeZone: string,
  nowS: number,
): Owed | null {
  const { checkOn, serviceOn } = oilDue(oiledOn, school, stopGap)
  const [check, service] = [checkOn, serviceOn].map((day) => whenThere(day, HOUR, timeZone)) as [number, number]
  const [dueS, what] = service - nowS <= AHEAD_DAYS * DAY_S ? [service, 'service'] : [check, 'oil']
  if (dueS - nowS > AHEAD_DAYS * DAY_S) return null
  return {
    kind: 'recall',
    dueS,
    weight: dueS <= nowS ? 'watch' : 'sound',
    title: what === 'service' ? 'Due for service: ask its owner' : 'Its oil is due for a look: ask its owner',
    why: `Oiled ${oiledOn.slice(0, 7)}${stopGap ? ', in place' : ''}; it is at home.`,
    subject: '',
  }
}
