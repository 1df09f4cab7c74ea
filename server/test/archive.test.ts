import { randomUUID } from 'node:crypto'
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { encodeWav } from '@treadle/core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { readArchive, TABLES, writeArchive } from '../../scripts/lib/archive.mjs'
import { newHole, newListening, runSql, useWorkshop, withClientAt } from './workshop.ts'

const full = useWorkshop()
const empty = useWorkshop()
const none = useWorkshop()
const large = useWorkshop()
const roomy = useWorkshop()
const ROOT = join(import.meta.dirname, '..', '..')
const folder = mkdtempSync(join(tmpdir(), 'treadle-'))
afterAll(() => rmSync(folder, { recursive: true }))

/** Of each table: how many rows, and a digest of all of them; but for what the database notes by itself as they are put in. */
async function digests(url: string): Promise<Record<string, { count: number; digest: string }>> {
  return withClientAt(url, async (client) => {
    const all = await client.query<{ name: string }>(
      "select tablename as name from pg_tables where schemaname = 'public' and tablename <> 'last_changes'",
    )
    const found: Record<string, { count: number; digest: string }> = {}
    for (const { name } of all.rows) {
      const { rows } = await client.query<{ count: number; digest: string }>(
        `select count(*)::int as count, md5(coalesce(string_agg(md5(t::text), '' order by md5(t::text)), '')) as digest from ${name} t`,
      )
      found[name] = rows[0]!
    }
    return found
  })
}

test('a backup leaves no table out', async () => {
  expect(Object.keys(await digests(full.adminUrl)).sort()).toEqual([...TABLES].sort())
})

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
    notBack: '',
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
  await withClientAt(full.adminUrl, (client) => writeArchive(client, file))
  // That somebody looked at the calendar's address there leaves it as empty as it was.
  await empty.request.get('/api/calendar').expect(200)
  const rows = await withClientAt(empty.adminUrl, (client) => readArchive(client, file))
  expect(rows).toBe(Object.values(await digests(full.adminUrl)).reduce((sum, t) => sum + t.count, 0))
  // Table by table, to the last letter.
  expect(await digests(empty.adminUrl)).toEqual(await digests(full.adminUrl))

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

describe('what is no whole backup is refused before a row is written', () => {
  const file = join(folder, 'whole.jsonl.gz')
  const lines = () => gunzipSync(readFileSync(file)).toString().trimEnd().split('\n')
  const packed = (all: string[], end = '\n') => gzipSync(all.join('\n') + end)
  beforeAll(() => withClientAt(full.adminUrl, (client) => writeArchive(client, file)))

  const cases: [what: string, bytes: () => Buffer, says: RegExp][] = [
    ['a foreign file', () => Buffer.from('not gzip at all'), /can’t be unpacked/],
    ['another program’s', () => gzipSync('{"format":"other"}\n'), /not a Treadle backup/],
    ['an empty one', () => gzipSync(''), /empty/],
    ['half of its bytes', () => readFileSync(file).subarray(0, 2000), /cut short/],
    ['all but the last byte', () => readFileSync(file).subarray(0, -1), /cut short/],
    ['all lines but the closing one', () => packed(lines().slice(0, -1)), /closing line is missing/],
    ['half of its lines', () => packed(lines().slice(0, 20)), /closing line is missing/],
    ['a closing line without its end', () => packed(lines(), ''), /no end/],
    ['one row left out', () => packed(lines().toSpliced(5, 1)), /tells of \d+ rows and holds \d+/],
    [
      'one letter of the journal changed',
      () => packed(lines().map((l) => l.replace('Took in', 'Gave back'))),
      /digest does not fit/,
    ],
    ['a row added behind', () => packed([...lines(), lines()[4]!]), /follows the closing line/],
    ['two closing lines', () => packed([...lines(), lines().at(-1)!]), /follows the closing line/],
    [
      'one that says it is older, to be taken on trust',
      () => packed(lines().map((l) => l.replace('backup-2', 'backup-1'))),
      /--older/,
    ],
    [
      'a newer Treadle’s',
      () => packed(lines().map((l) => l.replace(/"migrations":\d+/, '"migrations":9000'))),
      /newer Treadle/,
    ],
  ]
  test.each(cases)('%s', async (_what, bytes, says) => {
    const bad = join(folder, 'bad.gz')
    writeFileSync(bad, bytes())
    const before = await digests(none.adminUrl)
    await withClientAt(none.adminUrl, (client) => expect(readArchive(client, bad)).rejects.toThrow(says))
    expect(await digests(none.adminUrl)).toEqual(before)
  })

  test('nor is one put over a workshop that is in use', async () => {
    await withClientAt(full.adminUrl, (client) => expect(readArchive(client, file)).rejects.toThrow(/not empty/))
  })
})

test('a backup that fails leaves the one before as it was', async () => {
  const file = join(folder, 'kept.jsonl.gz')
  writeFileSync(file, 'the one before')
  await withClientAt(full.adminUrl, async (client) => {
    const broken = new Proxy(client, {
      get: (target, key) =>
        key === 'query'
          ? (sql: string) =>
              sql.includes('from journal') ? Promise.reject(new Error('The disk is full.')) : target.query(sql)
          : (Reflect.get(target, key) as unknown),
    })
    await expect(writeArchive(broken, file)).rejects.toThrow('The disk is full.')
  })
  expect(readFileSync(file, 'utf8')).toBe('the one before')
  expect(readdirSync(folder)).not.toContain('kept.jsonl.gz.part')
})

test('a workshop many times larger than the memory comes back', async () => {
  // Eighty megabytes of pictures, through a process that may hold a fraction of that.
  const file = join(folder, 'large.jsonl.gz')
  await runSql(
    large.adminUrl,
    `insert into files select gen_random_uuid(), 'image/jpeg', 83886080;
     insert into file_chunks select f.id, n, decode(repeat(md5(n::text), 32768), 'hex') from files f, generate_series(0, 79) n`,
  )
  const restore = `
    import pg from 'pg'
    import { readArchive, TABLES, writeArchive } from ${JSON.stringify(join(ROOT, 'scripts/lib/archive.mjs'))}
    const client = new pg.Client({ connectionString: process.env.TO })
    await client.connect()
    await (process.env.WAY === 'out' ? writeArchive : readArchive)(client, process.env.FILE)
    await client.end()`
  for (const [WAY, TO] of [
    ['out', large.adminUrl],
    ['in', roomy.adminUrl],
  ]) {
    const done = spawnSync(process.execPath, ['--max-old-space-size=48', '--input-type=module', '-e', restore], {
      cwd: ROOT,
      encoding: 'utf8',
      env: { ...process.env, WAY, TO, FILE: file },
    })
    expect(done.stderr).toBe('')
    expect(done.status).toBe(0)
  }
  expect(await digests(roomy.adminUrl)).toEqual(await digests(large.adminUrl))
})
