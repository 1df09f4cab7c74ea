import type { BenchPage, BenchTag, Settings, UnreadableRow } from '@treadle/contract'
import { heedMarks, recallsOf, type Owed } from '@treadle/core'
import { clocksAtHome } from '../care/atHome.ts'
import type { Database } from '../db/connect.ts'
import { readSettings } from '../settings/store.ts'
import { openJobs } from './openJobs.ts'

/** Every open job with what is owed to it at `now`. */
export async function benchOf(db: Database, now: Date): Promise<BenchPage> {
  const nowS = now.getTime() / 1000
  const settings = await readSettings(db)
  const [open, recalls] = await Promise.all([openJobs(db, settings), recalled(db, settings, now)])
  return {
    at: now.toISOString(),
    recalls,
    tags: open.map(({ rows, by, standingAt }) => ({
      ...tagOf(rows),
      owed: [...unreadableOwed(rows.unreadable), ...standingAt(nowS).owed],
      by,
    })),
  }
}

type Shown = Pick<BenchTag, 'job' | 'clock' | 'owner'>

/** Of a visit, what its tag shows. */
function tagOf({ job, clock, owner }: Shown): Shown {
  return {
    job: { id: job.id, number: job.number, bay: job.bay, promisedOn: job.promisedOn, waitsFor: job.waitsFor },
    clock: { id: clock.id, name: clock.name, kind: clock.kind },
    owner: { id: owner.id, name: owner.name, phone: owner.phone },
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
    return owed.length > 0 ? [{ ...tagOf({ job, clock, owner }), owed }] : []
  })
}
