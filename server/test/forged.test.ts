import { randomUUID } from 'node:crypto'
import type { ArchiveTold, JobPage, Problem } from '@treadle/contract'
import { encodeWav } from '@treadle/core'
import fc from 'fast-check'
import sharp from 'sharp'
import { getTableConfig, type PgTable } from 'drizzle-orm/pg-core'
import { beforeAll, describe, expect, test } from 'vitest'
import * as schema from '../src/db/schema.ts'
import { bring, bytesAt, contents, rowsOf, sealed, withRows, zipped, type Entries, type Row } from './archives.ts'
import { anew, forgeriesOf, HTML, type Theirs } from './forgeries.ts'
import { newHole, newListening, powerOff, runSql, useWorkshop } from './workshop.ts'

// Archives are letters from strangers: a thousand of them, forged from the tables' own description by a hand that knows
// the format and gets every digest right.

const from = useWorkshop()
const shop = useWorkshop({ uploads: { perMinute: 1_000_000 } })
const FORGED = 1000
const AT = '2026-03-01T09:30:00.000Z'

let clockZip: Entries
let workshopZip: Entries
/** Of the workshop that is written to. */
let theirs: Theirs

const put = (shopOf: typeof shop, path: string, row: { id: string; [field: string]: unknown }) =>
  shopOf.request
    .put(`/api${path}/${row.id}`)
    .send({ version: 0, ...row })
    .expect((r) => expect(r.status, r.text).toBeLessThan(300))

/** A visit with a row of most kinds, a picture and a sound. */
async function rich(shopOf: typeof shop): Promise<JobPage> {
  const page = await shopOf.takeIn({ cameWith: [] })
  const at = `/jobs/${page.job.id}`
  const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1 })
  await put(shopOf, `${at}/holes`, hole)
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#b8954a' } })
    .jpeg()
    .toBuffer()
  const photoId = randomUUID()
  const sent = shopOf.request.put(`/api${at}/photos/${photoId}`).type('image/jpeg').send(picture)
  await sent.expect((r) => expect(r.status).toBeLessThan(300))
  const heard = newListening()
  await shopOf.request.put(`/api${at}/listenings/${heard.id}`).send(heard).expect(201)
  const wav = Buffer.from(
    encodeWav(
      Float32Array.from({ length: 400 }, (_, i) => Math.sin(i / 9)),
      8000,
    ),
  )
  await shopOf.request.put(`/api/listenings/${heard.id}/sound`).type('audio/wav').send(wav)
  const plain = { figure: null, second: null, note: '', photoId }
  await put(shopOf, `${at}/observations`, { id: randomUUID(), key: 'hands', answer: 'sound', ...plain })
  await put(shopOf, `${at}/conditions`, {
    ...{ id: randomUUID(), kind: 'part', name: 'Hand', class: 'later', note: '', photoId, x: null, y: null },
  })
  await put(shopOf, `${at}/readings`, {
    ...{ id: randomUUID(), at: AT, errorSeconds: 1, sigmaSeconds: 1, way: 'eye' },
  })
  await put(shopOf, `${at}/events`, {
    id: randomUUID(),
    at: AT,
    kind: 'moved',
    turns: null,
    showed: '',
    note: '',
  })
  await put(shopOf, `${at}/strip-steps`, {
    ...{ id: randomUUID(), position: 1, part: 'Dial', tray: 'case', screws: '', marks: '', remark: '', count: 1 },
    ...{ photoId, back: false, notBack: '' },
  })
  await shopOf.request.post(`/api${at}/power`).send(powerOff('going')).expect(201)
  const override = { id: randomUUID(), gate: 'trial', reason: 'It was proved at the house.' }
  await shopOf.request.post(`/api${at}/overrides`).send(override).expect(201)
  return page
}

beforeAll(async () => {
  const [{ job, clock }, there] = [await rich(from), await rich(shop)]
  clockZip = await contents(await bytesAt(from, `/api/clocks/${clock.id}/archive.zip`))
  for (const one of [from, shop]) {
    const person = { id: randomUUID(), name: 'Ida Vos', initials: 'IV', active: true }
    await put(one, '/people', person)
    const settings = (await one.request.get('/api/settings')).body as object
    await one.request.put('/api/settings').send({ ...settings, workshop: one === from ? 'Elsewhere' : 'Here' })
  }
  workshopZip = await contents(await bytesAt(from, '/api/archive.zip'))
  expect(job.number).toBe(1)
  const theirPage = (await shop.request.get(`/api/jobs/${there.job.id}`)).body as JobPage
  const file = await shop.connection.pool.query<{ id: string }>('select original_id as id from photos')
  theirs = {
    ...{ job: there.job.id, clock: there.clock.id, owner: there.owner.id },
    ...{ hole: theirPage.holes[0]!.id, photo: theirPage.photos[0]!.id, file: file.rows[0]!.id },
  }
})

/** Of every table, a digest of those rows that were there before anything was forged. */
async function digestOfOld(before: Map<string, string[]>): Promise<Record<string, string>> {
  const found: Record<string, string> = {}
  for (const [table, rows] of before) {
    const { rows: now } = await shop.connection.pool.query<{ row: string }>(
      `select t::text as row from ${table} t where md5(t::text) = any($1)`,
      [rows],
    )
    found[table] = String(now.length)
  }
  return found
}

async function oldRows(): Promise<Map<string, string[]>> {
  const tables = Object.values(schema as unknown as Record<string, PgTable>).filter((t) => {
    try {
      return getTableConfig(t).name !== ''
    } catch {
      return false
    }
  })
  const all = new Map<string, string[]>()
  for (const table of tables) {
    const { name } = getTableConfig(table)
    const { rows } = await shop.connection.pool.query<{ d: string }>(`select md5(t::text) as d from ${name} t`)
    all.set(
      name,
      rows.map((r) => r.d),
    )
  }
  return all
}

test('a thousand of them harm no row that was here, and none is a fault of the server', async () => {
  const old = await oldRows()
  const before = await digestOfOld(old)
  const forgeries = forgeriesOf(theirs)
  const names = Object.keys(forgeries)
  const random = fc.sample(fc.array(fc.nat(1_000_000), { minLength: 12, maxLength: 12 }), { numRuns: FORGED, seed: 27 })
  const answers = new Map<number, number>()
  for (const [i, numbers] of random.entries()) {
    let drawn = 0
    const pick = (n: number) => (numbers[drawn++ % numbers.length] ?? 0) % n
    const name = names[i % names.length]!
    const entries = forgeries[name]!(anew(i % 5 === 4 ? workshopZip : clockZip, i + 1), pick)
    const zip = await sealed(entries)
    const answer = await bring(shop, zip, `?keep=true&take=all`)
    const said = `${i}, ${name}: ${answer.status} ${answer.text.slice(0, 300)}`
    expect([200, 400, 409, 422], said).toContain(answer.status)
    if (answer.status !== 200) expect((answer.body as Problem).title, said).toMatch(/\.$/)
    answers.set(answer.status, (answers.get(answer.status) ?? 0) + 1)
    if (i % 100 === 99) expect(await digestOfOld(old), `up to ${said}`).toEqual(before)
  }
  expect(await digestOfOld(old)).toEqual(before)
  // Most are refused; what is taken is what an archive may hold.
  expect(answers.get(422)).toBeGreaterThan(FORGED / 2)
  expect(answers.get(200)).toBeGreaterThan(20)
  expect((await shop.connection.pool.query('select 1 from files where staged')).rowCount).toBe(0)
  expect((await shop.connection.pool.query('select 1 from gate_overrides where brought is null')).rowCount).toBe(1)
  // Every page of what came in can be read.
  for (const path of ['/api/bench', '/api/clocks', '/api/now.ics', '/api/year', '/api/care?months=12', '/api/journal'])
    await shop.request.get(path).expect(200)
  const jobs = await shop.connection.pool.query<{ id: string; number: number }>(
    'select id, number from jobs order by number',
  )
  for (const { id } of jobs.rows) {
    const page = (await shop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
    expect([id, page.unreadable]).toEqual([id, []])
    if (id !== theirs.job) expect(page.gates.every((g) => g.overriddenBecause === null)).toBe(true)
  }
  // And every file is a picture or a sound, sent as one, in which nothing can run.
  const files = await shop.connection.pool.query<{ id: string; photo: string }>(
    'select f.type as id, p.id as photo from photos p join files f on f.id = p.original_id',
  )
  for (const { photo } of files.rows) {
    const { headers } = await shop.request.get(`/api/photos/${photo}/original`).expect(200)
    expect(headers['content-type']).toMatch(/^image\/(jpeg|png|webp)$/)
    expect(headers['content-security-policy']).toBe("default-src 'none'; sandbox")
    expect(headers['x-content-type-options']).toBe('nosniff')
  }
  // The numbers of visits have no gap: what was refused has used none.
  const next = await shop.takeIn()
  expect([...jobs.rows.map((j) => j.number), next.job.number]).toEqual(
    Array.from({ length: jobs.rows.length + 1 }, (_, i) => i + 1),
  )
}, 900_000)

describe('what a clock’s archive may not bring is refused in words', () => {
  const told = async (entries: Entries, head: object = {}) => {
    const answer = await bring(shop, await sealed(entries, head), '?keep=true')
    return `${answer.status} ${(answer.body as Problem).title} ${(answer.body as Problem).detail ?? ''}`
  }
  const fresh = () => anew(clockZip, Math.floor(Math.random() * 0x7fffffff))

  test('settings, people, drawers, another clock or owner', async () => {
    const person = { id: randomUUID(), name: 'A stranger', initials: 'AS', active: true, version: 1 }
    expect(await told(withRows(fresh(), 'people', [person]))).toMatch(/^422 A clock’s archive holds that clock.*people/)
    expect(await told(withRows(fresh(), 'settings', [{ id: 1, values: {}, version: 1 }]))).toMatch(/^422 .*settings/)
    const two = fresh()
    const [clock] = rowsOf(two, 'clocks')
    expect(await told(withRows(two, 'clocks', [clock!, { ...clock, id: randomUUID() }]))).toMatch(/another clock/)
    const [owner] = rowsOf(two, 'owners')
    expect(await told(withRows(two, 'owners', [owner!, { ...owner, id: randomUUID() }]))).toMatch(/another owner/)
    const strange = withRows(fresh(), 'journal', [
      { ...rowsOf(clockZip, 'journal')[0], jobId: null, about: 'settings' },
    ])
    expect(await told(strange)).toMatch(/^422 A clock’s archive holds that clock: journal, line 1/)
  })

  test('of the first kind, what its rows point at of the shop is left out, and the rows come in without it', async () => {
    const person = { id: randomUUID(), name: 'Nils', initials: 'N', active: true, version: 1 }
    const entries = withRows(fresh(), 'people', [person])
    const rows = rowsOf(entries, 'holes').map((row): Row => ({ ...row, whoId: person.id }))
    const answer = await bring(shop, await sealed(withRows(entries, 'holes', rows), { version: 1 }), '?keep=true')
    expect((answer.body as ArchiveTold).leftOut).toEqual([{ table: 'people', rows: 1 }])
    const { rows: kept } = await shop.connection.pool.query('select who_id from holes where id = $1', [rows[0]!.id])
    expect(kept).toEqual([{ who_id: null }])
    expect((await shop.connection.pool.query('select 1 from people where id = $1', [person.id])).rowCount).toBe(0)
  })

  test('a row that is another’s here, and a file under another’s name', async () => {
    const hole = withRows(
      fresh(),
      'holes',
      rowsOf(clockZip, 'holes').map((r) => ({ ...r, id: theirs.hole })),
    )
    const jobId = rowsOf(hole, 'jobs')[0]!.id
    const mine = withRows(
      hole,
      'holes',
      rowsOf(hole, 'holes').map((r) => ({ ...r, jobId })),
    )
    expect(await told(mine)).toMatch(/^422 holes, .* is another’s here, and stays with it/)
    const taking = fresh()
    const name = [...taking.keys()].find((n) => n.endsWith('.jpg'))!
    const id = name.slice(6, -4)
    const swapped: Entries = new Map(
      [...taking].map(([n, bytes]) => [
        n.replace(id, theirs.file),
        n.startsWith('tables/') ? Buffer.from(bytes.toString().replaceAll(id, theirs.file)) : bytes,
      ]),
    )
    swapped.set(
      `files/${theirs.file}.jpg`,
      await sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } })
        .jpeg()
        .toBuffer(),
    )
    expect(await told(swapped)).toMatch(/^422 .* is another’s here, under the same name/)
  })
})

describe('a workshop’s archive, where there is a workshop already', () => {
  test('asks of each kind of the shop’s own, and brings only what is asked for', async () => {
    const entries = anew(workshopZip, 0x1234_5678)
    const zip = await sealed(entries)
    const looked = (await bring(shop, zip).expect(200)).body as ArchiveTold
    expect(looked.shop.map((s) => [s.table, s.fresh, s.otherwise])).toEqual([
      ['people', 1, 0],
      ['settings', 0, 1],
    ])
    expect(looked.shop[1]?.rows[0]?.fields).toMatchObject([{ name: 'values' }])
    const settings = async () => ((await shop.request.get('/api/settings')).body as { workshop: string }).workshop
    const done = (await bring(shop, zip, '?keep=true').expect(200)).body as ArchiveTold
    expect([await settings(), done.shop.length]).toEqual(['Here', 2])
    expect((await shop.connection.pool.query("select 1 from people where name = 'Ida Vos'")).rowCount).toBe(1)
    await bring(shop, zip, '?keep=true&kinds=people,settings').expect(200)
    expect(await settings()).toBe('Elsewhere')
    expect((await shop.connection.pool.query("select 1 from people where name = 'Ida Vos'")).rowCount).toBe(2)
    await bring(shop, zip, '?keep=true&kinds=jobs').expect(400)
  })
})

describe('an archive is bounded work', () => {
  test('entries are distinct, and what it says of itself has a bound', async () => {
    const manifest = JSON.parse(clockZip.get('treadle.json')!.toString()) as { entries: object[] }
    const twice = { ...manifest, entries: [...manifest.entries, manifest.entries[0]] }
    const answer = await bring(
      shop,
      await zipped(new Map(clockZip).set('treadle.json', Buffer.from(JSON.stringify(twice)))),
    )
    expect([answer.status, (answer.body as Problem).title]).toEqual([422, expect.stringMatching(/twice/)])
    const long = Buffer.alloc(70_000_000, 32)
    const bomb = await bring(shop, await zipped(new Map(clockZip).set('treadle.json', long)))
    expect(bomb.status).toBe(422)
    const more = await bring(shop, await zipped([...clockZip, ['about.txt', Buffer.from('again')]]))
    expect([more.status, (more.body as Problem).title]).toEqual([422, expect.stringMatching(/twice/)])
  })

  test('one at a time; and what one that died has left is cleared away', async () => {
    const zip = await sealed(anew(clockZip, 0x7777_0001))
    await shop.connection.pool.query(
      "insert into files (id, type, size, staged) values (gen_random_uuid(), 'image/jpeg', 1, true)",
    )
    const holder = await shop.connection.pool.connect()
    await holder.query('select pg_advisory_lock(7262338)')
    expect((await bring(shop, zip, '?keep=true').expect(409)).text).toContain('Another archive is being taken in')
    await holder.query('select pg_advisory_unlock(7262338)')
    holder.release()
    await bring(shop, zip, '?keep=true').expect(200)
    expect((await shop.connection.pool.query('select 1 from files where staged')).rowCount).toBe(0)
  })

  test('how far it has come is told as lines, and whoever hangs up stops it', async () => {
    const zip = await sealed(anew(clockZip, 0x7777_0002))
    const answer = await bring(shop, zip, '?keep=true').set('Accept', 'application/x-ndjson').buffer(true)
    const lines = answer.text
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as { progress?: { step: string }; told?: ArchiveTold })
    expect(lines.flatMap((l) => l.progress?.step ?? [])).toEqual(
      expect.arrayContaining(['read', 'compare', 'files', 'rows']),
    )
    expect(lines.at(-1)?.told?.kept).toBe(true)
    const bad = await bring(shop, Buffer.from('no zip')).set('Accept', 'application/x-ndjson').buffer(true)
    expect(JSON.parse(bad.text.trim().split('\n').at(-1)!)).toMatchObject({ problem: { status: 422 } })
  })
})

describe('old rows of another kind', () => {
  test('are sent as bytes to be saved, and left out of what is sent out', async () => {
    const { job, clock } = await shop.takeIn()
    const [page, photo] = [randomUUID(), randomUUID()]
    await runSql(
      shop.adminUrl,
      `insert into files (id, type, size) values ('${page}', 'text/html', ${HTML.length});
       insert into file_chunks (file_id, part, bytes) values ('${page}', 0, decode('${HTML.toString('hex')}', 'hex'));
       insert into photos (id, job_id, caption, width, height, taken_at, original_id, screen_id)
         values ('${photo}', '${job.id}', '', 4, 3, now(), '${page}', '${page}');
       insert into observations (id, job_id, key, answer, note, photo_id, at, who)
         values (gen_random_uuid(), '${job.id}', 'dial', 'sound', '', '${photo}', now(), 'Ida')`,
    )
    for (const size of ['screen', 'original', 'thumb']) {
      const { headers } = await shop.request.get(`/api/photos/${photo}/${size}`).expect(200)
      expect(headers['content-type']).toBe('application/octet-stream')
      expect(headers['content-disposition']).toMatch(/^attachment/)
      expect(headers['content-security-policy']).toBe("default-src 'none'; sandbox")
    }
    const sent = await bytesAt(shop, `/api/clocks/${clock.id}/archive.zip`)
    const all = await contents(sent)
    expect([rowsOf(all, 'files'), rowsOf(all, 'photos')]).toEqual([[], []])
    expect(rowsOf(all, 'observations')).toMatchObject([{ key: 'dial', photoId: null }])
    await bring(from, sent, '?keep=true').expect(200)
  })
})
