import type { JobPage, OilRow, Settings } from '@treadle/contract'
import { dayThere, oilDoubt, oilDue, secondsOf } from '@treadle/core'

/**
 * When the oil that this visit put in falls due, as it is asked for later: by its pivot oil's own school, else the
 * workshop's; null: nothing was oiled.
 */
export function oilDueOf(
  { events, observations, oilSheets, witnesses }: JobPage,
  oils: OilRow[],
  { oilSchool, timeZone }: Settings,
): { oiledOn: string; checkOn: string; serviceOn: string; stopGap: boolean } | null {
  const oiled = events.findLast((e) => e.kind === 'oiled')
  if (!oiled) return null
  const oil = oils.find((o) => o.id === oilSheets[0]?.pivotOilId) ?? null
  const stopGap = observations.some((o) => o.key === 'in-place' && o.answer === 'done')
  const oiledOn = dayThere(secondsOf(oiled.at), timeZone)
  const doubt = oilDoubt(oiled.at, oil, witnesses)
  return { oiledOn, ...oilDue(oiledOn, oil?.school || oilSchool, { stopGap, doubt }), stopGap }
}
