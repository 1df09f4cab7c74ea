import type { Settings } from '@treadle/contract'
import { standingOver, type JobStanding } from '@treadle/core'
import { desc, inArray, isNull } from 'drizzle-orm'
import type { Database } from '../db/connect.ts'
import { jobs, journal } from '../db/schema.ts'
import { readHoleRules } from '../stock/store.ts'
import { gatherJobs } from './gather.ts'
import { lastChangesOf } from './lastChanges.ts'

type Rows = Awaited<ReturnType<typeof gatherJobs>>[number]

/** An open job with all of it that can be read, and how it stands at any moment. */
export interface OpenJob {
  rows: Rows
  /** who wrote in its journal last */
  by: string
  standingAt: (nowS: number) => JobStanding
}

interface Kept extends OpenJob {
  /** which changes of it, its clock and its owner were the last */
  change: string
  /** the workshop's ways that its standing was reckoned by */
  ways: string
}

/** Jobs that are read by one statement; between two, others get their turn. */
const READ_AT_ONCE = 25
const KEPT = new WeakMap<Database, Map<string, Kept>>()

/**
 * Every open job, by number. Each is read and reckoned anew only when something of it was changed, or of the workshop's
 * ways.
 */
export async function openJobs(db: Database, settings: Settings): Promise<OpenJob[]> {
  const [open, rules] = await Promise.all([lastChangesOf(db, isNull(jobs.closedAt)), readHoleRules(db, settings)])
  const ways = JSON.stringify([settings, rules])
  const before = KEPT.get(db)
  const changed = open.filter(({ id, change }) => before?.get(id)?.change !== change)
  const read = await readAll(
    db,
    changed.map((one) => one.id),
  )
  const now = new Map<string, Kept>()
  for (const { id, change } of open) {
    const kept = before?.get(id)
    const anew = read.get(id)
    if (!anew && kept?.ways === ways) {
      now.set(id, kept)
      continue
    }
    const there = anew ?? kept
    if (there) now.set(id, { ...there, change, ways, standingAt: standingOver(there.rows, settings, rules) })
  }
  KEPT.set(db, now)
  return [...now.values()]
}

async function readAll(db: Database, ids: string[]): Promise<Map<string, { rows: Rows; by: string }>> {
  const found = new Map<string, { rows: Rows; by: string }>()
  for (let from = 0; from < ids.length; from += READ_AT_ONCE) {
    const some = ids.slice(from, from + READ_AT_ONCE)
    const [gathered, last] = await Promise.all([
      gatherJobs(db, some),
      db
        .selectDistinctOn([journal.jobId], { jobId: journal.jobId, who: journal.who })
        .from(journal)
        .where(inArray(journal.jobId, some))
        .orderBy(journal.jobId, desc(journal.at)),
    ])
    for (const rows of gathered)
      found.set(rows.job.id, { rows, by: last.find((l) => l.jobId === rows.job.id)?.who ?? '' })
  }
  return found
}
