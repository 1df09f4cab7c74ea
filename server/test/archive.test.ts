import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { encodeWav } from '@treadle/core'
import type pg from 'pg'
import sharp from 'sharp'
import { afterAll, expect, test } from 'vitest'
import { readArchive, writeArchive } from '../../scripts/lib/archive.mjs'
import { newHole, newListening, useWorkshop } from './workshop.ts'

const full = useWorkshop()
const empty = useWorkshop()
const folder = mkdtempSync(join(tmpdir(), 'treadle-'))
afterAll(() => rmSync(folder, { recursive: true }))

async function withClient<T>(pool: pg.Pool, work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await pool.connect()
  try {
    return await work(client)
  } finally {
    client.release()
  }
}

test('the whole workshop goes into one file and comes back, rows, photos and sounds', async () => {
  const { job } = await full.takeIn()
  const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1 })
  await full.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(201)
  const listening = newListening()
  await full.request.put(`/api/jobs/${job.id}/listenings/${listening.id}`).send(listening).expect(201)
  const sound = Buffer.from(
    encodeWav(
      new Float32Array(800_000).map((_, i) => Math.sin(i)),
      48_000,
    ),
  )
  await full.request
    .put(`/api/listenings/${listening.id}/sound`)
    .set('Content-Type', 'audio/wav')
    .send(sound)
    .expect(204)
  const photo = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'red' } })
    .png()
    .toBuffer()
  const photoId = randomUUID()
  await full.request
    .put(`/api/jobs/${job.id}/photos/${photoId}`)
    .set('Content-Type', 'image/png')
    .send(photo)
    .expect(201)

  // One row of every kind that an arrival and a strip leave behind.
  const put = async (path: string, row: object) => {
    const id = randomUUID()
    await full.request
      .put(`/api/jobs/${job.id}/${path}/${id}`)
      .send({ id, version: 0, ...row })
      .expect(201)
  }
  const [begun, ends] = [new Date(Date.UTC(2026, 2, 1)), new Date(Date.UTC(2026, 2, 1, 1))].map((d) => d.toISOString())
  await put('observations', { key: 'hands', answer: 'sound', figure: 1.5, second: null, note: 'free', photoId })
  await put('conditions', { kind: 'part', name: 'Hand', class: 'later', note: '', photoId, x: 0.25, y: 0.75 })
  await put('causes', { cause: 'dirt', note: '' })
  await put('strip-marks', { key: 'nut', state: 'waived', note: 'The nut is lost.' })
  await put('strip-steps', {
    position: 1.5,
    part: 'Dial',
    tray: 'case',
    screws: '2 long',
    marks: '',
    remark: '',
    count: 4,
    photoId,
    back: false,
  })
  await put('clean-parts', { name: 'Dial', material: 'brass', finish: 'silvered', done: false })
  await put('timers', { title: 'Bath', startedAt: begun, endsAt: ends, stopped: false, bath: 'spirit', step: 0 })
  await put('trains', {
    train: 'going',
    arbors: [
      { name: 'Great', pinion: null, wheel: 96 },
      { name: 'Centre', pinion: 8, wheel: null },
    ],
    hourly: 1,
    escape: false,
    greatTurns: 16,
    motion: null,
    faultPeriodS: null,
  })
  await put('estimates', {
    revision: 1,
    state: 'accepted',
    lines: [],
    choices: [],
    chosen: '',
    currency: '€',
    taxPercent: '21',
    depositPercent: '0',
    note: '',
    sentAt: begun,
    answer: { how: 'signed', by: 'Miss Tarn', at: begun, note: '', strokes: [[[1, 2]]] },
  })
  const prices = (await full.request.get('/api/tables/prices')).body as { values: { lines: object[] } }
  prices.values.lines.length = 1
  await full.request.put('/api/tables/prices').send({ version: 0, values: prices.values }).expect(200)
  await full.request
    .put(`/api/jobs/${job.id}/now`)
    .send({ kind: 'promise', subject: '', state: 'done', dueS: null, untilS: null })
    .expect(200)
  const calendar = (await full.request.get('/api/calendar')).body as { secret: string }

  const file = join(folder, 'workshop.jsonl.gz')
  await withClient(full.connection.pool, (client) => writeArchive(client, file))
  const rows = await withClient(empty.connection.pool, (client) => readArchive(client, file))
  expect(rows).toBeGreaterThan(10)

  const [before, after] = [
    await full.request.get(`/api/jobs/${job.id}`),
    await empty.request.get(`/api/jobs/${job.id}`),
  ]
  expect(after.body).toEqual(before.body)
  expect((await empty.request.get('/api/tables/prices')).body).toMatchObject({ version: 1, values: prices.values })
  expect((await empty.request.get('/api/calendar')).body).toEqual(calendar)
  const journals = [
    await full.request.get(`/api/jobs/${job.id}/journal`),
    await empty.request.get(`/api/jobs/${job.id}/journal`),
  ]
  expect(journals[1]?.body).toEqual(journals[0]?.body)
  const kept = await empty.request.get(`/api/photos/${photoId}/original`)
  expect(Buffer.compare(kept.body as Buffer, photo)).toBe(0)
  const heard = await empty.request
    .get(`/api/listenings/${listening.id}/sound`)
    .buffer()
    .parse((res, done) => {
      const chunks: Buffer[] = []
      res.on('data', (chunk: Buffer) => chunks.push(chunk))
      res.on('end', () => done(null, Buffer.concat(chunks)))
    })
  expect(Buffer.compare(heard.body as Buffer, sound)).toBe(0)
  // Numbers go on where they were.
  expect((await empty.takeIn()).job.number).toBe(job.number + 1)
})

test('a backup is not put over a workshop that is in use, and a foreign file is refused whole', async () => {
  const file = join(folder, 'again.jsonl.gz')
  await withClient(full.connection.pool, (client) => writeArchive(client, file))
  await expect(withClient(full.connection.pool, (client) => readArchive(client, file))).rejects.toThrow(/not empty/)
  const foreign = join(folder, 'foreign.gz')
  writeFileSync(foreign, 'not gzip')
  await expect(withClient(empty.connection.pool, (client) => readArchive(client, foreign))).rejects.toThrow()
})
