import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { JobPage } from '@treadle/contract'
import { pino } from 'pino'
import supertest from 'supertest'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { readArchive } from '../../scripts/lib/archive.mjs'
import { connect, makeApp, migrate, type Connection } from '../src/index.ts'
import { runSql, useWorkshop, withClientAt } from './workshop.ts'

// A workshop as it was kept before clocks had works, marks and strip logs: one job, its power, a gate overridden, a hole,
// a reading, a turn of the nut, a photo. Dumped by the database's own tool, and by our backup of the time.
const DUMP = join(import.meta.dirname, 'dumps', 'before_arrive_and_strip.sql')
const BACKUP = join(import.meta.dirname, 'dumps', 'before_arrive_and_strip.backup')
const JOB = '01a20785-1b0b-7624-ae14-949793c6b301'

const admin = process.env.TREADLE_TEST_DATABASE ?? ''
const name = `t_${randomUUID().replaceAll('-', '')}`
let connection: Connection

beforeAll(async () => {
  await runSql(admin, `create database ${name}`)
  const url = admin.replace(/[^/]*$/, name)
  await runSql(url, readFileSync(DUMP, 'utf8'))
  connection = connect(url)
  await migrate(connection, join(import.meta.dirname, '..', 'migrations'))
})
afterAll(async () => {
  await connection.pool.end()
  await runSql(admin, `drop database ${name} with (force)`)
})

function expectKept(page: JobPage): void {
  expect(page.job).toMatchObject({
    number: 1,
    complaint: 'It stops.',
    promisedOn: '2026-12-24',
    standsAt: '',
    movedLately: 'unknown',
    lastServiced: null,
    cameWith: [{ name: 'key' }, { name: 'bell', state: 'missing' }],
  })
  expect(page.job.partedAt).not.toBeNull()
  expect(page.clock).toMatchObject({
    name: 'Kitchen clock',
    trains: [
      { train: 'going', power: 'spring' },
      { train: 'strike', power: 'spring' },
    ],
    work: { strikeWork: null, moon: false, calendar: false, mercury: false },
  })
  expect(page.powerOffs).toMatchObject([{ train: 'going', method: 'let-down', proofs: [] }])
  expect(page.overrides).toMatchObject([{ gate: 'power', reason: 'The strike spring is broken and out.' }])
  expect(page.holes).toMatchObject([{ arbor: 'Third arbor', longAxisMm: 1.32, bushed: true }])
  expect(page.readings).toHaveLength(1)
  expect(page.events).toMatchObject([{ kind: 'nut', turns: 0.5 }])
  expect(page.photos).toMatchObject([{ caption: 'Dial' }])
  expect(page.stripSteps).toEqual([])
}

test('a workshop from before is brought up to date with all it held', async () => {
  const request = supertest(makeApp({ db: connection.db, version: 'test', logger: pino({ level: 'silent' }) }))
  expectKept((await request.get(`/api/jobs/${JOB}`).expect(200)).body as JobPage)
  const journal = (await request.get(`/api/jobs/${JOB}/journal`)).body as { text: string }[]
  expect(journal.length).toBeGreaterThanOrEqual(6)
  // A photo from before small ones were made is shown all the same.
  await request.get('/api/photos/01a20785-1b0b-7624-ae14-949793c6b309/thumb').expect(200)
  // Settings of before have their new fields.
  expect((await request.get('/api/settings')).body).toMatchObject({
    workshop: 'Old workshop',
    currency: '€',
    phone: '',
  })
  // Brought up to date once more, nothing changes.
  await migrate(connection, join(import.meta.dirname, '..', 'migrations'))
  expectKept((await request.get(`/api/jobs/${JOB}`).expect(200)).body as JobPage)
})

const restored = useWorkshop()

test('a backup from before comes back into a workshop of today', async () => {
  await withClientAt(restored.adminUrl, async (client) => {
    await expect(readArchive(client, BACKUP)).rejects.toThrow(/without a closing line.*--older/)
    expect(await readArchive(client, BACKUP, { older: true })).toBeGreaterThan(10)
  })
  expectKept((await restored.request.get(`/api/jobs/${JOB}`).expect(200)).body as JobPage)
})

// A workshop as it was kept while cutters stood among the settings: two holes, counts, an observation, a step of the log.
const MENDED = join(import.meta.dirname, 'dumps', 'before_mending.backup')
const MENDED_JOB = '01a20785-1b0b-7624-ae14-949793c6b401'
const carried = useWorkshop()

test('a backup from before the drawers has its cutters in them, and its holes as they were', async () => {
  await withClientAt(carried.adminUrl, (client) => readArchive(client, MENDED, { older: true }))
  const stock = (await carried.request.get('/api/stock').expect(200)).body as { kind: string; measuredMm: number }[]
  expect(stock.map((s) => [s.kind, s.measuredMm])).toEqual([
    ['cutter', 1.6],
    ['cutter', 2.2],
  ])
  const settings = (await carried.request.get('/api/settings').expect(200)).body as Record<string, unknown>
  expect(settings).toMatchObject({ workshop: 'Shop before', pivotSchool: 'burnish', bushingMethod: 'hand' })
  await carried.request.put('/api/settings').send(settings).expect(200)
  const page = (await carried.request.get(`/api/jobs/${MENDED_JOB}`).expect(200)).body as JobPage
  expect(page.holes).toMatchObject([
    { plate: 'back', bushed: true, old: 'none', waived: '', shakeMm: null },
    { plate: 'front', verdictOverride: 'leave', overrideReason: 'Will be replaced.' },
  ])
  expect(page).toMatchObject({
    plateMap: null,
    pivots: [],
    bushings: [],
    trainSheets: [{ train: 'going' }],
    observations: [{ key: 'hands' }],
    stripSteps: [{ part: 'Minute hand' }],
  })
})
