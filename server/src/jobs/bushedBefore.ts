import type { BushedBefore } from '@treadle/contract'
import { and, asc, eq, ne } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { bushings, holes, jobs } from '../db/schema.ts'

/** The holes of a clock that were bushed on its other visits, oldest first. */
export async function bushedBefore(queries: Queries, clockId: string, jobId: string): Promise<BushedBefore[]> {
  const rows = await queries
    .select({
      train: holes.train,
      arbor: holes.arbor,
      plate: holes.plate,
      jobNumber: jobs.number,
      receivedAt: jobs.receivedAt,
      doneAt: bushings.at,
      longAxisMm: holes.longAxisMm,
      shortAxisMm: holes.shortAxisMm,
      wearDeg: holes.wearDeg,
      outsideMm: bushings.outsideMm,
      finishedMm: bushings.finishedMm,
    })
    .from(holes)
    .innerJoin(jobs, eq(holes.jobId, jobs.id))
    .leftJoin(bushings, eq(bushings.holeId, holes.id))
    .where(and(eq(jobs.clockId, clockId), ne(jobs.id, jobId), eq(holes.bushed, true)))
    .orderBy(asc(jobs.receivedAt), asc(holes.id))
  return rows.map(({ receivedAt, doneAt, ...row }) => ({
    ...row,
    at: (doneAt ?? receivedAt).toISOString(),
  }))
}
