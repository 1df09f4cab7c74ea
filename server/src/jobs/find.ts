import { eq } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { jobs } from '../db/schema.ts'
import { Refused } from '../http/refusals.ts'

export type JobRecord = typeof jobs.$inferSelect

/** The job, to be read; 404 when there is none. */
export async function findJob(queries: Queries, id: string): Promise<JobRecord> {
  const [job] = await queries.select().from(jobs).where(eq(jobs.id, id))
  if (!job) throw new Refused('no-such-job')
  return job
}

/** The job, if it may be changed: a look before something large is received; the change itself looks once more. */
export async function findOpenJob(queries: Queries, id: string): Promise<JobRecord> {
  const job = await findJob(queries, id)
  if (job.closedAt) throw new Refused('closed')
  return job
}
