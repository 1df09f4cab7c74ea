import { standingOf } from '@treadle/core'
import { asc, eq, getTableColumns } from 'drizzle-orm'
import type { Database } from '../db/connect.ts'
import { readableRows } from '../db/readable.ts'
import { conditions, confirmedCauses, invoices, photos } from '../db/schema.ts'
import { Refused } from '../http/problem.ts'
import { readSettings } from '../settings/store.ts'
import { readHoleRules } from '../stock/store.ts'
import { bushedBefore } from './bushedBefore.ts'
import { gatherJobs } from './gather.ts'

type JobTable = typeof conditions | typeof confirmedCauses | typeof invoices

/** Everything a job's pages show. */
export async function jobPage(db: Database, id: string, now: Date) {
  const { originalId: _o, screenId: _s, thumbId: _t, digest: _d, ...photoColumns } = getTableColumns(photos)
  const ofJob = (table: JobTable) => db.select().from(table).where(eq(table.jobId, id)).orderBy(asc(table.at))
  const [gathered, settings] = await Promise.all([gatherJobs(db, [id]), readSettings(db)])
  const rows = gathered[0]
  if (!rows) throw new Refused(404, 'not-found', 'There is no such job.')
  const [rules, pictures, condition, causes, bills, before] = await Promise.all([
    readHoleRules(db, settings),
    db.select(photoColumns).from(photos).where(eq(photos.jobId, id)).orderBy(asc(photos.takenAt)),
    ofJob(conditions),
    ofJob(confirmedCauses),
    ofJob(invoices),
    bushedBefore(db, rows.clock.id, id),
  ])
  const { nowMarks: _n, unreadable, ...shown } = rows
  return {
    ...shown,
    listenings: rows.listenings.map(({ soundId, ...l }) => ({ ...l, soundStored: soundId !== null })),
    photos: pictures,
    conditions: readableRows('conditions', conditions, condition, unreadable),
    confirmedCauses: readableRows('confirmed_causes', confirmedCauses, causes, unreadable),
    invoices: readableRows('invoices', invoices, bills, unreadable),
    unreadable,
    bushedBefore: before,
    ...standingOf(rows, settings, rules, now.getTime() / 1000),
  }
}
