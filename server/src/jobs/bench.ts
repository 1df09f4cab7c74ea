import type { Settings, UnreadableRow } from '@treadle/contract'
import { heedMarks, recallsOf, standingOf, type Owed } from '@treadle/core'
import { desc, inArray, isNull } from 'drizzle-orm'
import { clocksAtHome } from '../care/atHome.ts'
import type { Database } from '../db/connect.ts'
import { jobs, journal } from '../db/schema.ts'
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
  const ids = open.map((j) => j.id)
  const last =
    ids.length === 0
      ? []
      : await db
          .selectDistinctOn([journal.jobId], { jobId: journal.jobId, who: journal.who })
          .from(journal)
          .where(inArray(journal.jobId, ids))
          .orderBy(journal.jobId, desc(journal.at))
  return {
    at: now.toISOString(),
    recalls: await recalled(db, settings, now),
    tags: gathered.map((rows) => ({
      job: rows.job,
      clock: rows.clock,
      owner: rows.owner,
      owed: [...unreadableOwed(rows.unreadable), ...standingOf(rows, settings, rules, now.getTime() / 1000).owed],
      by: last.find((l) => l.jobId === rows.job.id)?.who ?? '',
    })),
  }
}

/** A row that can't be read keeps its job from being told whole: it comes first. */
function unreadableOwed(rows: UnreadableRow[]): Owed[] {
  const [first] = rows
  if (!first) return []
  return [
    {
      ...{ kind: 'unreadable', dueS: null, weight: 'must', subject: '' },
      title: rows.length === 1 ? 'See to a row that can’t be read' : `See to ${rows.length} rows that can’t be read`,
      why: `${first.table.replaceAll('_', ' ')}${first.title === '' ? '' : `, ${first.title}`}: ${first.field}. It is left out of all else.`,
    },
  ]
}

/** So long before anything falls due it is thought of. */
const AHEAD_MS = 31 * 86_400_000
const MOST_RECALLS = 300

/** Clocks that are at home and to which something is owed now, the longest without oil first. */
async function recalled(db: Database, settings: Settings, now: Date) {
  const by = new Date(now.getTime() + AHEAD_MS)
  const homes = await clocksAtHome(db, settings, { now, by }, MOST_RECALLS)
  const nowS = now.getTime() / 1000
  return homes.flatMap(({ job, clock, owner, dues, marks }) => {
    const owed = heedMarks(recallsOf(dues, settings.timeZone, nowS), marks, nowS)
    return owed.length > 0 ? [{ job, clock, owner, owed }] : []
  })
}
