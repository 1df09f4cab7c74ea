import type { Settings } from '@treadle/contract'
import { standingOver, type HoleRules, type JobStanding } from '@treadle/core'
import { asc, eq, getTableColumns } from 'drizzle-orm'
import type { Database } from '../db/connect.ts'
import { jobs, photos } from '../db/schema.ts'
import { Refused } from '../http/refusals.ts'
import { readSettings } from '../settings/store.ts'
import { readHoleRules } from '../stock/store.ts'
import { bushedBefore } from './bushedBefore.ts'
import { gatherJob } from './gather.ts'
import { lastChangesOf } from './lastChanges.ts'

interface Kept {
  /** which changes of it, its clock and its owner were the last */
  change: string
  /** the workshop's ways that its standing was reckoned by */
  ways: string
  shown: Shown
  standingAt: (nowS: number) => JobStanding
}

/** So many jobs are at hand: those that a workshop has on its benches at one time. */
const MOST_KEPT = 40
const KEPT = new WeakMap<Database, Map<string, Kept>>()

/** Everything a job's pages show. */
export async function jobPage(db: Database, id: string, now: Date) {
  const [[last], settings] = await Promise.all([lastChangesOf(db, eq(jobs.id, id)), readSettings(db)])
  if (!last) throw new Refused('no-such-job')
  const rules = await readHoleRules(db, settings)
  const { shown, standingAt } = await kept(db, last, settings, rules)
  const before = await bushedBefore(db, shown.clock.id, id)
  return { ...shown, bushedBefore: before, ...standingAt(now.getTime() / 1000) }
}

/** A job as it was last read and reckoned, as long as nothing of it was changed, nor of the workshop's ways. */
async function kept(
  db: Database,
  { id, change }: { id: string; change: string },
  settings: Settings,
  rules: HoleRules,
): Promise<Kept> {
  const all = KEPT.get(db) ?? new Map<string, Kept>()
  KEPT.set(db, all)
  const ways = JSON.stringify([settings, rules])
  const there = all.get(id)
  const same = there?.change === change && there.ways === ways
  const now = same ? there : { change, ways, ...(await read(db, id, settings, rules)) }
  // The one that was asked for longest ago comes first, and goes first.
  all.delete(id)
  all.set(id, now)
  const [oldest] = all.keys()
  if (oldest !== undefined && all.size > MOST_KEPT) all.delete(oldest)
  return now
}

type Shown = Awaited<ReturnType<typeof read>>['shown']

async function read(db: Database, id: string, settings: Settings, rules: HoleRules) {
  const { originalId: _o, screenId: _s, thumbId: _t, digest: _d, ...photoColumns } = getTableColumns(photos)
  const [rows, pictures] = await Promise.all([
    gatherJob(db, id),
    db.select(photoColumns).from(photos).where(eq(photos.jobId, id)).orderBy(asc(photos.takenAt)),
  ])
  if (!rows) throw new Refused('no-such-job')
  const { nowMarks: _n, ...page } = rows
  return {
    shown: {
      ...page,
      listenings: rows.listenings.map(({ soundId, ...l }) => ({ ...l, soundStored: soundId !== null })),
      photos: pictures,
    },
    standingAt: standingOver(rows, settings, rules),
  }
}
