import { standingOf } from '@treadle/core'
import { desc, isNull } from 'drizzle-orm'
import type { Database } from '../db/connect.ts'
import { jobs } from '../db/schema.ts'
import { readSettings } from '../settings/store.ts'
import { readHoleRules } from '../stock/store.ts'
import { gatherJobs } from './gather.ts'

/** Every open job with what is owed to it at `now`. */
export async function benchOf(db: Database, now: Date) {
  const open = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(isNull(jobs.closedAt))
    .orderBy(desc(jobs.receivedAt))
    .limit(200)
  const settings = await readSettings(db)
  const rules = await readHoleRules(db, settings)
  const gathered = await gatherJobs(
    db,
    open.map((j) => j.id),
  )
  return {
    at: now.toISOString(),
    tags: gathered.map((rows) => ({
      job: rows.job,
      clock: rows.clock,
      owner: rows.owner,
      owed: standingOf(rows, settings, rules, now.getTime() / 1000).owed,
    })),
  }
}
