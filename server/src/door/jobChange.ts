import { eq } from 'drizzle-orm'
import type { Request } from 'express'
import type { Database, Queries } from '../db/connect.ts'
import { clocks, jobs } from '../db/schema.ts'
import { nowOf } from '../http/now.ts'
import type { Doer } from '../http/person.ts'
import { Refused } from '../http/refusals.ts'
import type { JobRecord } from '../jobs/find.ts'
import { writeJournal } from '../journal/write.ts'
import { inTransaction } from './transaction.ts'

/** A change of a job while it is made: nobody else changes that job until it is kept or undone. */
export interface JobDoing {
  tx: Queries
  job: JobRecord
  person: Doer
  at: Date
  /** a line in the job's journal, kept or undone with the change */
  write: (text: string, figures?: Record<string, unknown>) => Promise<void>
}

interface JobChangeKind {
  /** the journal's word for it */
  kind: string
  /** also of a job that is closed */
  closedToo?: boolean
}

/**
 * The one door for changes of a job: the job held, the person, the moment, the journal, all in one transaction. Whether a
 * thing may be done is asked in the work itself: the job being held, the answer still stands when it is done, and what is
 * thrown undoes all. Whoever comes meanwhile waits, and then sees what was done. Things are held in this order: the job, its
 * clock, the drawers; so no two changes wait for each other.
 */
export function jobChange<T>(
  db: Database,
  req: Request,
  jobId: string,
  { kind, closedToo = false }: JobChangeKind,
  work: (doing: JobDoing) => Promise<T>,
): Promise<T> {
  const { person } = req
  const at = nowOf(req)
  return inTransaction(db, async (tx) => {
    const [job] = await tx.select().from(jobs).where(eq(jobs.id, jobId)).for('no key update')
    if (!job) throw new Refused('no-such-job')
    if (job.closedAt && !closedToo) throw new Refused('closed')
    const write: JobDoing['write'] = (text, figures) =>
      writeJournal(tx, { jobId: job.id, at, ...person, kind, text, figures })
    return work({ tx, job, person, at, write })
  })
}

/** Holds the job's clock too, for what is the clock's whatever visit it was measured on. */
export async function holdClock({ tx, job }: JobDoing): Promise<void> {
  await tx.select({ id: clocks.id }).from(clocks).where(eq(clocks.id, job.clockId)).for('no key update')
}
