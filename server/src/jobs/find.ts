import { eq } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { jobs } from '../db/schema.ts'
import { Refused } from '../http/problem.ts'

export type JobRecord = typeof jobs.$inferSelect

/** The job, or a refusal: 404 when there is none, 409 when it is closed and must not be changed. */
export async function openJob(queries: Queries, id: string, { closedToo = false } = {}): Promise<JobRecord> {
  const found = await queries.select().from(jobs).where(eq(jobs.id, id))
  const job = found[0]
  if (!job) throw new Refused(404, 'not-found', 'There is no such job.')
  if (job.closedAt && !closedToo) throw new Refused(409, 'closed', 'This job is closed; reopen it to change it.')
  return job
}
