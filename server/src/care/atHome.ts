import type { Settings } from '@treadle/contract'
import { bottleStands, OIL_SCHOOLS, type CareFacts, type OilSchool } from '@treadle/core'
import { and, asc, eq, gt, inArray, isNotNull, isNull, lt, max, ne, notExists, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { Database } from '../db/connect.ts'
import { clocks, jobs, nowMarks, observations, oils, oilSheets, owners, rateEvents, witnesses } from '../db/schema.ts'

const YEAR_MS = 365.25 * 86_400_000

/** How soon after it was oiled anything of a clock falls due at all, years. */
function soonestYears({ guaranteeMonths }: Pick<Settings, 'guaranteeMonths'>): number {
  const schools = Object.values(OIL_SCHOOLS).map((s) => s.checkYears)
  return Math.min(1, ...schools, ...(guaranteeMonths > 0 ? [guaranteeMonths / 12] : []))
}

export interface AtHome {
  job: typeof jobs.$inferSelect
  clock: typeof clocks.$inferSelect
  owner: typeof owners.$inferSelect
  facts: CareFacts
  school: OilSchool
  marks: (typeof nowMarks.$inferSelect)[]
}

/** Clocks that are at home and were oiled within a time, the longest ago first; each by the visit that oiled it. */
export async function clocksAtHome(
  db: Database,
  settings: Settings,
  { from, to }: { from: Date; to: Date },
  most: number,
): Promise<AtHome[]> {
  const here = alias(jobs, 'here')
  const oiled = db
    .select({ clockId: jobs.clockId, at: max(rateEvents.at).as('oiled_at') })
    .from(rateEvents)
    .innerJoin(jobs, eq(jobs.id, rateEvents.jobId))
    .where(and(eq(rateEvents.kind, 'oiled'), isNotNull(jobs.closedAt), ne(jobs.ending, 'called-off')))
    .groupBy(jobs.clockId)
    .as('oiled')
  const due = await db
    .select({ job: jobs, clock: clocks, owner: owners, at: rateEvents.at, oil: oils })
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
        gt(oiled.at, from),
        lt(oiled.at, to),
        notExists(
          db
            .select({ id: here.id })
            .from(here)
            .where(and(eq(here.clockId, clocks.id), isNull(here.closedAt))),
        ),
      ),
    )
    .orderBy(oiled.at)
    .limit(most)
  const ids = due.map((d) => d.job.id)
  if (ids.length === 0) return []
  const [inPlace, marks, seen] = await Promise.all([
    db
      .select({ jobId: observations.jobId })
      .from(observations)
      .where(and(inArray(observations.jobId, ids), eq(observations.key, 'in-place'), eq(observations.answer, 'done'))),
    db.select().from(nowMarks).where(inArray(nowMarks.jobId, ids)),
    db
      .select({ jobId: witnesses.jobId, state: witnesses.state })
      .from(witnesses)
      .where(and(inArray(witnesses.jobId, ids), ne(witnesses.moment, 'visit')))
      .orderBy(asc(witnesses.at)),
  ])
  return due.map(({ job, clock, owner, at, oil }) => ({
    job,
    clock,
    owner,
    school: oil?.school || settings.oilSchool,
    marks: marks.filter((m) => m.jobId === job.id),
    facts: {
      oiledOn: at.toISOString().slice(0, 10),
      closedOn: (job.closedAt ?? at).toISOString().slice(0, 10),
      stopGap: inPlace.some((o) => o.jobId === job.id),
      bottleOver: oil !== null && bottleStands(oil, at.getTime() / 1000)?.stands === 'over',
      ranOut: ['spread', 'dry'].includes(seen.findLast((w) => w.jobId === job.id)?.state ?? ''),
      mercury: clock.work.mercury,
      chimes: clock.trains.some((t) => t.train === 'chime'),
      weights: clock.trains.some((t) => t.power === 'weight'),
      moon: clock.work.moon || clock.work.calendar,
    },
  }))
}

/** What fell due so long ago and was not answered is shown no more, months. */
export const PAST_MONTHS = 36
const LONGEST_YEARS = Math.max(...Object.values(OIL_SCHOOLS).map((s) => s.serviceYears)) + PAST_MONTHS / 12

/** When a clock was oiled of which anything is due by a moment, or was not long ago. */
export function oiledWithin(settings: Settings, by: Date): { from: Date; to: Date } {
  return {
    from: new Date(by.getTime() - LONGEST_YEARS * YEAR_MS),
    to: new Date(by.getTime() - soonestYears(settings) * YEAR_MS),
  }
}
