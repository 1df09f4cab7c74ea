import { asc, getTableColumns, inArray } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import {
  clocks,
  gateOverrides,
  holes,
  jobs,
  listenings,
  owners,
  powerOffs,
  rateEvents,
  readings,
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
  const byJob = {
    powerOffs: grouped(
      await queries.select().from(powerOffs).where(inArray(powerOffs.jobId, ids)).orderBy(asc(powerOffs.at)),
    ),
    overrides: grouped(
      await queries
        .select()
        .from(gateOverrides)
        .where(inArray(gateOverrides.jobId, ids))
        .orderBy(asc(gateOverrides.at)),
    ),
    holes: grouped(await queries.select().from(holes).where(inArray(holes.jobId, ids)).orderBy(asc(holes.id))),
    listenings: grouped(
      await queries
        .select(listeningColumns)
        .from(listenings)
        .where(inArray(listenings.jobId, ids))
        .orderBy(asc(listenings.at)),
    ),
    readings: grouped(
      await queries.select().from(readings).where(inArray(readings.jobId, ids)).orderBy(asc(readings.at)),
    ),
    events: grouped(
      await queries.select().from(rateEvents).where(inArray(rateEvents.jobId, ids)).orderBy(asc(rateEvents.at)),
    ),
  }
  return found.flatMap((job) => {
    const clock = theirClocks.find((c) => c.id === job.clockId)
    const owner = theirOwners.find((o) => o.id === clock?.ownerId)
    if (!clock || !owner) return []
    return [
      {
        job,
        clock,
        owner,
        powerOffs: byJob.powerOffs(job.id),
        overrides: byJob.overrides(job.id),
        holes: byJob.holes(job.id),
        listenings: byJob.listenings(job.id),
        readings: byJob.readings(job.id),
        events: byJob.events(job.id),
      },
    ]
  })
}

function grouped<T extends { jobId: string }>(rows: T[]): (jobId: string) => T[] {
  const groups = new Map<string, T[]>()
  for (const row of rows) groups.set(row.jobId, [...(groups.get(row.jobId) ?? []), row])
  return (jobId) => groups.get(jobId) ?? []
}
