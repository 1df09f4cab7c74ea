import { asc, eq, sql, type SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { Database } from '../db/connect.ts'
import { clocks, jobs, lastChanges } from '../db/schema.ts'

/**
 * Which changes of these visits, their clocks and their owners were the last, by number. What is read after this was asked
 * is never older than it says, so it may be kept under it.
 */
export function lastChangesOf(db: Database, which: SQL): Promise<{ id: string; change: string }[]> {
  const [ofJob, ofClock, ofOwner] = [
    alias(lastChanges, 'of_job'),
    alias(lastChanges, 'of_clock'),
    alias(lastChanges, 'of_owner'),
  ]
  return db
    .select({
      id: jobs.id,
      change: sql<string>`concat(${ofJob.change}, ' ', ${ofClock.change}, ' ', ${ofOwner.change})`,
    })
    .from(jobs)
    .innerJoin(clocks, eq(clocks.id, jobs.clockId))
    .leftJoin(ofJob, eq(ofJob.of, jobs.id))
    .leftJoin(ofClock, eq(ofClock.of, clocks.id))
    .leftJoin(ofOwner, eq(ofOwner.of, clocks.ownerId))
    .where(which)
    .orderBy(asc(jobs.number))
}
