import type { CareListed } from '@treadle/contract'
import { careDueS, careOwed, careState, type CareDue } from '@treadle/core'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { nowOf } from '../http/now.ts'
import { badField } from '../http/problem.ts'
import { apiRouter } from '../http/router.ts'
import { readSettings } from '../settings/store.ts'
import { clocksAtHome, PAST_MONTHS } from './atHome.ts'

const MONTH_S = 30.44 * 86_400
const MOST = 5000

/** A look at the oil is not asked for any more once the service is due. */
function stillMeant(dues: CareDue[], timeZone: string, nowS: number): CareDue[] {
  const serviceDue = dues.some((d) => d.kind === 'service' && careDueS(d, timeZone) <= nowS)
  return dues.filter((d) => !serviceDue || d.kind !== 'check')
}

/** What falls due of the clocks at home, months ahead, and how each stands. */
export function careRoutes(db: Database): Router {
  return apiRouter().get('/care', async (req, res) => {
    const months = Number(req.query.months ?? 12)
    if (!Number.isInteger(months) || months < 1 || months > 36)
      throw badField('months', 'Months ahead: a whole number from 1 to 36')
    const now = nowOf(req)
    const nowS = now.getTime() / 1000
    const settings = await readSettings(db)
    const untilS = nowS + months * MONTH_S
    const homes = await clocksAtHome(db, settings, { now, by: new Date(untilS * 1000) }, MOST)
    const listed = homes.flatMap(({ job, clock, owner, dues, oiledOn, marks }) =>
      stillMeant(dues, settings.timeZone, nowS).flatMap((due): CareListed[] => {
        const dueS = careDueS(due, settings.timeZone)
        const owed = careOwed(due, settings.timeZone, nowS)
        const state = careState(owed, marks, nowS)
        const over = due.kind === 'guarantee' && dueS < nowS
        if (dueS > untilS || nowS - dueS > PAST_MONTHS * MONTH_S || over) return []
        return [
          {
            ...due,
            owed,
            state,
            jobId: job.id,
            number: job.number,
            oiledOn,
            clock: { id: clock.id, name: clock.name, card: clock.card },
            owner: { name: owner.name, address: owner.address, phone: owner.phone },
          },
        ]
      }),
    )
    res.json(listed.sort((a, b) => a.dueOn.localeCompare(b.dueOn)))
  })
}
