import { and, eq, exists, isNull } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { jobs, reservations } from '../db/schema.ts'

/** What is kept back for a job: not yet taken, and the job is open. Once a clock has gone home nothing waits for it. */
export const isPromised = (tx: Queries) =>
  and(
    eq(reservations.taken, false),
    exists(
      tx
        .select({ id: jobs.id })
        .from(jobs)
        .where(and(eq(jobs.id, reservations.jobId), isNull(jobs.closedAt))),
    ),
  )
