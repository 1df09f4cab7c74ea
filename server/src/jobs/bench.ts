import { heedMarks, OIL_SCHOOLS, recallOf, standingOf } from '@treadle/core'
import { and, desc, eq, inArray, isNotNull, isNull, lt, max, ne, notExists, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { Database } from '../db/connect.ts'
import { clocks, jobs, journal, nowMarks, observations, oils, oilSheets, owners, rateEvents } from '../db/schema.ts'
import { readSettings } from '../settings/store.ts'
import { readHoleRules } from '../stock/store.ts'
import { gatherJobs } from './gather.ts'

/** Every open job with what is owed to it at `now`. */
export async function benchOf(db: Database, now: Date) {
  const open = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(isNull(jobs.closedAt))
    .orderBy(desc(jobs.receivedAt))
    .limit(200)
  const settings = await readSettings(db)
  const rules = await readHoleRules(db, settings)
  const gathered = await gatherJobs(
    db,
    open.map((j) => j.id),
  )
  const ids = open.map((j) => j.id)
  const last =
    ids.length === 0
      ? []
      : await db
          .selectDistinctOn([journal.jobId], { jobId: journal.jobId, who: journal.who })
          .from(journal)
          .where(inArray(journal.jobId, ids))
          .orderBy(journal.jobId, desc(journal.at))
  return {
    at: now.toISOString(),
    recalls: await recallsOf(db, settings, now),
    tags: gathered.map((rows) => ({
      job: rows.job,
      clock: rows.clock,
      owner: rows.owner,
      owed: standingOf(rows, settings, rules, now.getTime() / 1000).owed,
      by: last.find((l) => l.jobId === rows.job.id)?.who ?? '',
    })),
  }
}

type Ways = Awaited<ReturnType<typeof readSettings>>
const YEAR_MS = 365.25 * 86_400_000
/** The soonest that any oil is looked at again: a stop-gap, after a year; with a month to spare. */
const SOONEST_YEARS = Math.min(1, ...Object.values(OIL_SCHOOLS).map((s) => s.checkYears)) - 0.1
const MOST_RECALLS = 300

/** Clocks that are at home and whose oil is due for a look, by when it was put on; each by the visit that oiled it. */
async function recallsOf(db: Database, settings: Ways, now: Date) {
  const here = alias(jobs, 'here')
  const oiled = db
    .select({ clockId: jobs.clockId, at: max(rateEvents.at).as('oiled_at') })
    .from(rateEvents)
    .innerJoin(jobs, eq(jobs.id, rateEvents.jobId))
    .where(and(eq(rateEvents.kind, 'oiled'), isNotNull(jobs.closedAt), ne(jobs.ending, 'called-off')))
    .groupBy(jobs.clockId)
    .as('oiled')
  const due = await db
    .select({ job: jobs, clock: clocks, owner: owners, at: rateEvents.at, school: oils.school })
    .from(oiled)
    .innerJoin(clocks, eq(clocks.id, oiled.clockId))
    .innerJoin(owners, eq(owners.id, clocks.ownerId))
    .innerJoin(jobs, eq(jobs.clockId, clocks.id))
    .innerJoin(
      rateEvents,
      and(eq(rateEvents.jobId, jobs.id), eq(rateEvents.kind, 'oiled'), sql`${rateEvents.at} = ${oiled.at}`),
    )
    .leftJoin(oilSheets, eq(oilSheets.jobId, jobs.id))
    .leftJoin(oils, eq(oils.id, oilSheets.pivotOilId))
    .where(
      and(
        lt(oiled.at, new Date(now.getTime() - SOONEST_YEARS * YEAR_MS)),
        notExists(
          db
            .select({ id: here.id })
            .from(here)
            .where(and(eq(here.clockId, clocks.id), isNull(here.closedAt))),
        ),
      ),
    )
    .orderBy(oiled.at)
    .limit(MOST_RECALLS)
  const ids = due.map((d) => d.job.id)
  if (ids.length === 0) return []
  const [inPlace, marks] = await Promise.all([
    db
      .select({ jobId: observations.jobId })
      .from(observations)
      .where(and(inArray(observations.jobId, ids), eq(observations.key, 'in-place'), eq(observations.answer, 'done'))),
    db.select().from(nowMarks).where(inArray(nowMarks.jobId, ids)),
  ])
  const nowS = now.getTime() / 1000
  return due.flatMap(({ job, clock, owner, at, school }) => {
    const stopGap = inPlace.some((o) => o.jobId === job.id)
    const owed = recallOf({ oiledOn: at.toISOString(), stopGap }, school || settings.oilSchool, settings.timeZone, nowS)
    const heeded = owed
      ? heedMarks(
          [owed],
          marks.filter((m) => m.jobId === job.id),
          nowS,
        )
      : []
    return heeded.length > 0 ? [{ job, clock, owner, owed: heeded }] : []
  })
}
