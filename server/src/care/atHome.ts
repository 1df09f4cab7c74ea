import type { Settings } from '@treadle/contract'
import {
  careDue,
  dayThere,
  groupedBy,
  guaranteeDue,
  OIL_SCHOOLS,
  oilDoubt,
  secondsOf,
  type CareDue,
  type CareFacts,
} from '@treadle/core'
import { and, asc, eq, gt, inArray, isNotNull, isNull, lt, max, ne, notExists, or, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { Database } from '../db/connect.ts'
import { withBlanks } from '../db/readable.ts'
import { clocks, jobs, nowMarks, observations, oils, oilSheets, owners, rateEvents, witnesses } from '../db/schema.ts'

const DAY_MS = 86_400_000
const YEAR_MS = 365.25 * DAY_MS
/** So many months are not longer, and not shorter, than this, so that no guarantee is missed. */
const MONTHS_MS = (months: number) => ({ longest: 31 * months * DAY_MS, shortest: (30.4 * months - 3) * DAY_MS })

/** What fell due so long ago and was not answered is shown no more, months. */
export const PAST_MONTHS = 36
const SCHOOLS = Object.values(OIL_SCHOOLS)
/** Oil is looked at after a year at the soonest, and its service is shown no longer than this, years. */
const SOONEST_YEARS = Math.min(1, ...SCHOOLS.map((s) => s.checkYears))
const LONGEST_YEARS = Math.max(...SCHOOLS.map((s) => s.serviceYears)) + PAST_MONTHS / 12

/** A clock at home by one of its visits, and what falls due of that. */
export interface AtHome {
  job: typeof jobs.$inferSelect
  clock: typeof clocks.$inferSelect
  owner: typeof owners.$inferSelect
  dues: CareDue[]
  /** the day this visit oiled it, ISO 8601; null: it did not */
  oiledOn: string | null
  marks: (typeof nowMarks.$inferSelect)[]
}

/**
 * Clocks that are at home and of which anything may fall due by a moment: each by the visit that oiled it, the longest ago
 * first, and by its last visit where a guarantee runs.
 */
export async function clocksAtHome(
  db: Database,
  settings: Settings,
  { now, by }: { now: Date; by: Date },
  most: number,
): Promise<AtHome[]> {
  const [oiled, guaranteed] = await Promise.all([
    oiledAtHome(db, settings, by, most),
    guaranteedAtHome(db, settings, { now, by }, most),
  ])
  const homes = [
    ...oiled.map((h) => ({
      ...h,
      dues: [...h.dues, ...guaranteed.flatMap((g) => (g.job.id === h.job.id ? g.dues : []))],
    })),
    ...guaranteed.filter((g) => oiled.every((h) => h.job.id !== g.job.id)),
  ]
  const ids = homes.map((h) => h.job.id)
  const marks = ids.length === 0 ? [] : await db.select().from(nowMarks).where(inArray(nowMarks.jobId, ids))
  const marksOf = groupedBy(marks, (m) => m.jobId)
  return homes.map((home) => ({ ...home, marks: marksOf.get(home.job.id) ?? [] }))
}

type Unmarked = Omit<AtHome, 'marks'>

/** No visit of the clock is open: it is not here. */
function isAtHome(db: Database) {
  const here = alias(jobs, 'here')
  return notExists(
    db
      .select({ id: here.id })
      .from(here)
      .where(and(eq(here.clockId, clocks.id), isNull(here.closedAt))),
  )
}

/** Each by the last visit that did anything to it, where its guarantee ends from now on and by a moment. */
async function guaranteedAtHome(
  db: Database,
  { guaranteeMonths: months, timeZone }: Settings,
  { now, by }: { now: Date; by: Date },
  most: number,
): Promise<Unmarked[]> {
  if (months <= 0) return []
  const { longest, shortest } = MONTHS_MS(months)
  const later = alias(jobs, 'later')
  const didAnything = (visit: typeof jobs | typeof later) =>
    and(ne(visit.ending, 'called-off'), or(ne(visit.scope, 'untouched'), isNotNull(visit.partedAt)))
  const found = await db
    .select({ job: jobs, clock: clocks, owner: owners })
    .from(jobs)
    .innerJoin(clocks, eq(clocks.id, jobs.clockId))
    .innerJoin(owners, eq(owners.id, clocks.ownerId))
    .where(
      and(
        gt(jobs.closedAt, new Date(now.getTime() - longest - DAY_MS)),
        lt(jobs.closedAt, new Date(by.getTime() - shortest + DAY_MS)),
        didAnything(jobs),
        isAtHome(db),
        notExists(
          db
            .select({ id: later.id })
            .from(later)
            .where(and(eq(later.clockId, jobs.clockId), gt(later.closedAt, jobs.closedAt), didAnything(later))),
        ),
      ),
    )
    .orderBy(jobs.closedAt)
    .limit(most)
  return found.map(({ job, clock: kept, owner }) => {
    const clock = withBlanks('clocks', clocks, kept)
    const due = guaranteeDue(dayThere(secondsOf(job.closedAt ?? now), timeZone), months)
    return { job, clock, owner, oiledOn: null, dues: due === null ? [] : [due] }
  })
}

/** Each by the visit that oiled it last. */
async function oiledAtHome(db: Database, settings: Settings, by: Date, most: number): Promise<Unmarked[]> {
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
        gt(oiled.at, new Date(by.getTime() - LONGEST_YEARS * YEAR_MS)),
        lt(oiled.at, new Date(by.getTime() - SOONEST_YEARS * YEAR_MS)),
        isAtHome(db),
      ),
    )
    .orderBy(oiled.at)
    .limit(most)
  const ids = due.map((d) => d.job.id)
  if (ids.length === 0) return []
  const [inPlace, seen] = await Promise.all([
    db
      .select({ jobId: observations.jobId })
      .from(observations)
      .where(and(inArray(observations.jobId, ids), eq(observations.key, 'in-place'), eq(observations.answer, 'done'))),
    db
      .select({ jobId: witnesses.jobId, moment: witnesses.moment, state: witnesses.state, at: witnesses.at })
      .from(witnesses)
      .where(inArray(witnesses.jobId, ids))
      .orderBy(asc(witnesses.at)),
  ])
  return due.map(({ job, clock: kept, owner, at, oil }) => {
    const clock = withBlanks('clocks', clocks, kept)
    const oiledOn = dayThere(secondsOf(at), settings.timeZone)
    const facts: CareFacts = {
      oiledOn,
      stopGap: inPlace.some((o) => o.jobId === job.id),
      doubt: oilDoubt(
        at,
        oil,
        seen.filter((w) => w.jobId === job.id),
      ),
      mercury: clock.work.mercury,
      chimes: clock.trains.some((t) => t.train === 'chime'),
      weights: clock.trains.some((t) => t.power === 'weight'),
      moon: clock.work.moon || clock.work.calendar,
    }
    return { job, clock, owner, oiledOn, dues: careDue(facts, oil?.school || settings.oilSchool) }
  })
}
