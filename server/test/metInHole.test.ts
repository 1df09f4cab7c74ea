import { randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { blankBushing, type HoleChange, type JobPage } from '@treadle/contract'
import { afterAll, describe, expect, test } from 'vitest'
import { readArchive, writeArchive } from '../../scripts/lib/archive.mjs'
import { withOlder } from './olderDatabase.ts'
import { newHole, runSql, useWorkshop, withClientAt } from './workshop.ts'

const folder = mkdtempSync(join(tmpdir(), 'treadle-'))
afterAll(() => rmSync(folder, { recursive: true }))

const shop = useWorkshop()
const restored = useWorkshop()

const put = (jobId: string, hole: HoleChange) => shop.request.put(`/api/jobs/${jobId}/holes/${hole.id}`).send(hole)

describe('what stands in a hole', () => {
  test('is kept with the hole; a hole smaller than the one within it is refused by name', async () => {
    const { job } = await shop.takeIn()
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1, old: 'screwed', oldHoleMm: 2.96, sinkMm: 3.4 })
    expect((await put(job.id, hole).expect(201)).body).toMatchObject({ old: 'screwed', oldHoleMm: 2.96, sinkMm: 3.4 })
    for (const [part, words] of [
      [{ oldHoleMm: 1.05 }, /Hole the old bush leaves: it must be larger/],
      [{ sinkMm: 0.9 }, /Oil sink: it must be larger/],
      [{ old: 'glued' as 'none' }, /Met in the hole/],
    ] as const) {
      const answer = await put(job.id, { ...hole, version: 1, ...part }).expect(400)
      expect(JSON.stringify(answer.body)).toMatch(words)
    }
    const page = (await shop.request.get(`/api/jobs/${job.id}`)).body as JobPage
    expect(page.holes).toMatchObject([{ oldHoleMm: 2.96, version: 1 }])
  })

  test('a backup that told it of the work tells it of the hole', async () => {
    const { job } = await shop.takeIn()
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1 })
    await put(job.id, hole).expect(201)
    const work = { ...blankBushing(randomUUID(), hole.id), done: ['mark'] }
    await shop.request.put(`/api/jobs/${job.id}/bushings/${work.id}`).send(work).expect(201)
    const today = join(folder, 'today.backup')
    const older = join(folder, 'older.backup')
    await withClientAt(shop.adminUrl, (client) => writeArchive(client, today))
    // As it was written when the work on a hole still said what was met there.
    const lines = gunzipSync(readFileSync(today)).toString().trim().split('\n')
    const then = lines.slice(0, -1).map((line) => {
      const entry = JSON.parse(line) as {
        format?: string
        migrations?: number
        table?: string
        row?: Record<string, unknown>
      }
      if (entry.migrations !== undefined) Object.assign(entry, { format: 'treadle-backup-1', migrations: 6 })
      if (entry.table === 'bushings') entry.row = { ...entry.row, old: 'pressed' }
      if (entry.table === 'holes') {
        delete entry.row?.old_hole_mm
        delete entry.row?.sink_mm
      }
      return JSON.stringify(entry)
    })
    writeFileSync(older, gzipSync(`${then.join('\n')}\n`))
    await withClientAt(restored.adminUrl, (client) => readArchive(client, older, { older: true }))
    const page = (await restored.request.get(`/api/jobs/${job.id}`).expect(200)).body as JobPage
    expect(page.holes).toMatchObject([{ id: hole.id, old: 'pressed', oldHoleMm: null, sinkMm: null }])
    expect(page.bushings).toMatchObject([{ holeId: hole.id, done: ['mark'] }])
  })
})

test('a workshop brought up to date says it of the hole too', async () => {
  await withOlder(6, async ({ url, connection, bringUpToDate }) => {
    await runSql(url, workshopBefore())
    await bringUpToDate()
    const { rows } = await connection.pool.query('select arbor, old, old_hole_mm, sink_mm from holes order by arbor')
    expect(rows).toEqual([
      { arbor: 'Centre', old: 'none', old_hole_mm: null, sink_mm: null },
      { arbor: 'Third', old: 'screwed', old_hole_mm: null, sink_mm: null },
    ])
    expect((await connection.pool.query('select done from bushings')).rows).toHaveLength(2)
  })
})

/** Two holes of one job, work begun on both, a screwed bush met in one. */
function workshopBefore(): string {
  const [owner, clock, job] = [randomUUID(), randomUUID(), randomUUID()]
  const hole = (arbor: string, old: string) => {
    const id = randomUUID()
    return `
      insert into holes (id, job_id, train, arbor, arbor_index, plate, role, typed, override_reason, bushed, flagged, measured_by)
      values ('${id}', '${job}', 'going', '${arbor}', 2, 'back', 'other', '{}', '', false, false, '');
      insert into bushings (id, job_id, hole_id, method, old, spoilt, source, done, note, at, who)
      values ('${randomUUID()}', '${job}', '${id}', 'hand', '${old}', false, 'turned', '["mark"]', '', now(), '');`
  }
  return `
    insert into owners (id, name, phone, address) values ('${owner}', 'Gull Row', '', '');
    insert into clocks (id, owner_id, name, kind, marks, trains, pendulum)
    values ('${clock}', '${owner}', 'Kitchen clock', 'wall', '', '[]', '{}');
    insert into jobs (id, clock_id, bay, complaint, runs, came_with, received_at)
    values ('${job}', '${clock}', 'received', '', 'no', '[]', now());
    ${hole('Centre', 'none')} ${hole('Third', 'screwed')}`
}
