import { BUSH_SOURCE_TITLES } from '@treadle/contract'
import {
  AGAIN_YEARS,
  dayThere,
  groupedBy,
  isTimeZone,
  timeThere,
  yearOf,
  type YearTold,
  type YearVisit,
} from '@treadle/core'
import { stringify } from 'csv-stringify/sync'
import { asc, eq } from 'drizzle-orm'
import type { Router, Request } from 'express'
import type { Database } from '../db/connect.ts'
import { bushings, clocks, confirmedCauses, holes, jobs, oils, oilSheets, stock } from '../db/schema.ts'
import { nowOf } from '../http/now.ts'
import { badField } from '../http/problem.ts'
import { apiRouter } from '../http/router.ts'
import { readSettings } from '../settings/store.ts'
import { readTable } from '../tables/store.ts'

/** The year of the workshop: told, and as a list of its visits. */
export function yearRoutes(db: Database): Router {
  return apiRouter()
    .get('/year', async (req, res) => {
      res.json((await yearAsked(db, req)).told)
    })
    .get('/year.csv', async (req, res) => {
      const { told, visits, timeZone } = await yearAsked(db, req)
      const again = new Map(told.again.map((a) => [a.jobId, a.days]))
      const months = new Set(told.months.map((m) => m.month))
      const day = (s: number | null) => (s === null ? '' : dayThere(s, timeZone))
      const rows = visits.filter((v) => !v.calledOff && months.has(day(v.cameS).slice(0, 7)))
      res
        .type('text/csv')
        .set('Content-Disposition', 'attachment; filename="treadle-year.csv"')
        .send(
          stringify(
            rows.map((v) => ({
              number: v.number,
              clock: v.clock,
              came: day(v.cameS),
              left: day(v.leftS),
              cause: v.causes.join('; '),
              oil: v.oil ?? '',
              bushes: v.bushes.map((b) => `${b.hole}: ${b.kind}`).join('; '),
              [`days since it left, if under ${AGAIN_YEARS} years`]: again.get(v.jobId) ?? '',
            })),
            { header: true, escape_formulas: true },
          ),
        )
    })
}

async function yearAsked(
  db: Database,
  req: Request,
): Promise<{ told: YearTold; visits: YearVisit[]; timeZone: string }> {
  const now = nowOf(req)
  const { timeZone: said } = await readSettings(db)
  const timeZone = isTimeZone(said) ? said : 'UTC'
  const nowS = now.getTime() / 1000
  const until = typeof req.query.until === 'string' ? req.query.until : timeThere(nowS, timeZone).slice(0, 7)
  if (!/^(19|20|21)\d{2}-(0[1-9]|1[0-2])$/.test(until)) throw badField('until', 'Until: a month such as 2026-11')
  const visits = await visitsOf(db)
  return { told: yearOf(visits, until, timeZone, nowS), visits, timeZone }
}

async function visitsOf(db: Database): Promise<YearVisit[]> {
  const [all, causes, bushed, trouble] = await Promise.all([
    db
      .select({
        jobId: jobs.id,
        number: jobs.number,
        clockId: clocks.id,
        clock: clocks.name,
        came: jobs.receivedAt,
        left: jobs.closedAt,
        ending: jobs.ending,
        oil: oils.name,
      })
      .from(jobs)
      .innerJoin(clocks, eq(clocks.id, jobs.clockId))
      .leftJoin(oilSheets, eq(oilSheets.jobId, jobs.id))
      .leftJoin(oils, eq(oils.id, oilSheets.pivotOilId))
      .orderBy(asc(jobs.receivedAt)),
    db.select({ jobId: confirmedCauses.jobId, cause: confirmedCauses.cause }).from(confirmedCauses),
    db
      .select({
        jobId: holes.jobId,
        train: holes.train,
        arbor: holes.arbor,
        plate: holes.plate,
        source: bushings.source,
        material: stock.material,
      })
      .from(holes)
      .leftJoin(bushings, eq(bushings.holeId, holes.id))
      .leftJoin(stock, eq(stock.id, bushings.stockId))
      .where(eq(holes.bushed, true)),
    readTable(db, 'trouble'),
  ])
  const ofJob = <T extends { jobId: string }>(rows: T[]) => groupedBy(rows, (r) => r.jobId)
  const titles = new Map(trouble.values.causes.map((c) => [c.key, c.title]))
  const [causesOf, bushedOf] = [ofJob(causes), ofJob(bushed)]
  return all.map(({ came, left, ending, ...rest }) => ({
    ...rest,
    cameS: came.getTime() / 1000,
    leftS: left === null ? null : left.getTime() / 1000,
    calledOff: ending === 'called-off',
    causes: (causesOf.get(rest.jobId) ?? []).map((c) => titles.get(c.cause) ?? c.cause),
    bushes: (bushedOf.get(rest.jobId) ?? []).map(({ train, arbor, plate, source, material }) => ({
      hole: `${train}, ${arbor.toLowerCase()}, ${plate}`,
      kind: source === null ? 'not said' : [BUSH_SOURCE_TITLES[source], material].filter(Boolean).join(', '),
    })),
  }))
}
