import { standingOf } from '@treadle/core'
import { asc, eq, getTableColumns } from 'drizzle-orm'
import type { Database } from '../db/connect.ts'
import { photos } from '../db/schema.ts'
import { Refused } from '../http/refusals.ts'
import { readSettings } from '../settings/store.ts'
import { readHoleRules } from '../stock/store.ts'
import { bushedBefore } from './bushedBefore.ts'
import { gatherJob } from './gather.ts'

/** Everything a job's pages show. */
export async function jobPage(db: Database, id: string, now: Date) {
  const { originalId: _o, screenId: _s, thumbId: _t, digest: _d, ...photoColumns } = getTableColumns(photos)
  const [rows, settings] = await Promise.all([gatherJob(db, id), readSettings(db)])
  if (!rows) throw new Refused('no-such-job')
  const [rules, pictures, before] = await Promise.all([
    readHoleRules(db, settings),
    db.select(photoColumns).from(photos).where(eq(photos.jobId, id)).orderBy(asc(photos.takenAt)),
    bushedBefore(db, rows.clock.id, id),
  ])
  const { nowMarks: _n, ...shown } = rows
  return {
    ...shown,
    listenings: rows.listenings.map(({ soundId, ...l }) => ({ ...l, soundStored: soundId !== null })),
    photos: pictures,
    bushedBefore: before,
    ...standingOf(rows, settings, rules, now.getTime() / 1000),
  }
}
