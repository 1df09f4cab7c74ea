import { asc, getTableColumns, inArray } from 'drizzle-orm'
import type { AnyPgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Queries } from '../db/connect.ts'
import {
  arborTests,
  bushings,
  cleanParts,
  clocks,
  estimates,
  gateOverrides,
  holes,
  jobs,
  listenings,
  nowMarks,
  owners,
  pivots,
  plateMaps,
  powerOffs,
  rateEvents,
  readings,
  reservations,
  stripMarks,
  stripSteps,
  timers,
  trainSheets,
} from '../db/schema.ts'
import type { JobRows } from './standing.ts'

export type GatheredJob = JobRows & { owner: typeof owners.$inferSelect }

/** All rows of the jobs named, in a fixed number of queries however many they are. */
export async function gatherJobs(queries: Queries, ids: string[]): Promise<GatheredJob[]> {
  if (ids.length === 0) return []
  const { beatTimesS: _, ...listeningColumns } = getTableColumns(listenings)
  const found = await queries.select().from(jobs).where(inArray(jobs.id, ids)).orderBy(asc(jobs.number))
  const theirClocks = await queries
    .select()
    .from(clocks)
    .where(
      inArray(
        clocks.id,
        found.map((j) => j.clockId),
      ),
    )
  const theirOwners = await queries
    .select()
    .from(owners)
    .where(
      inArray(
        owners.id,
        theirClocks.map((c) => c.ownerId),
      ),
    )
  const clockIds = theirClocks.map((c) => c.id)
  const maps = await queries.select().from(plateMaps).where(inArray(plateMaps.clockId, clockIds))
  const sheets = await queries.select().from(trainSheets).where(inArray(trainSheets.clockId, clockIds))
  const ofJobs = async <T extends JobTable>(table: T, order: AnyPgColumn): Promise<(jobId: string) => Row<T>[]> => {
    const plain: JobTable = table
    return grouped(
      (await queries.select().from(plain).where(inArray(plain.jobId, ids)).orderBy(asc(order))) as Row<T>[],
    )
  }
  const theirs = {
    powerOffs: await ofJobs(powerOffs, powerOffs.at),
    overrides: await ofJobs(gateOverrides, gateOverrides.at),
    holes: await ofJobs(holes, holes.id),
    arborTests: await ofJobs(arborTests, arborTests.at),
    pivots: await ofJobs(pivots, pivots.id),
    bushings: await ofJobs(bushings, bushings.at),
    reservations: await ofJobs(reservations, reservations.at),
    listenings: grouped(
      await queries
        .select(listeningColumns)
        .from(listenings)
        .where(inArray(listenings.jobId, ids))
        .orderBy(asc(listenings.at)),
    ),
    readings: await ofJobs(readings, readings.at),
    events: await ofJobs(rateEvents, rateEvents.at),
    estimates: await ofJobs(estimates, estimates.revision),
    stripMarks: await ofJobs(stripMarks, stripMarks.at),
    stripSteps: await ofJobs(stripSteps, stripSteps.position),
    cleanParts: await ofJobs(cleanParts, cleanParts.at),
    timers: await ofJobs(timers, timers.endsAt),
    nowMarks: await ofJobs(nowMarks, nowMarks.kind),
  }
  return found.flatMap((job) => {
    const clock = theirClocks.find((c) => c.id === job.clockId)
    const owner = theirOwners.find((o) => o.id === clock?.ownerId)
    if (!clock || !owner) return []
    const rows = Object.fromEntries(Object.entries(theirs).map(([name, of]) => [name, of(job.id)]))
    const plateMap = maps.find((m) => m.clockId === clock.id) ?? null
    return [
      {
        job,
        clock,
        owner,
        plateMap,
        trainSheets: sheets.filter((t) => t.clockId === clock.id),
        ...rows,
      } as GatheredJob,
    ]
  })
}

type JobTable = PgTable & { jobId: AnyPgColumn }
type Row<T extends PgTable> = T['$inferSelect'] & { jobId: string }

function grouped<T extends { jobId: string }>(rows: T[]): (jobId: string) => T[] {
  const groups = new Map<string, T[]>()
  for (const row of rows) groups.set(row.jobId, [...(groups.get(row.jobId) ?? []), row])
  return (jobId) => groups.get(jobId) ?? []
}
