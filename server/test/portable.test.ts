import { randomUUID } from 'node:crypto'
import type { ArchiveTold, JobPage, Problem } from '@treadle/contract'
import { encodeWav } from '@treadle/core'
import sharp from 'sharp'
import { beforeAll, describe, expect, test } from 'vitest'
import { bring, bytesAt, contents, rowsOf, sealed, withRows, zipped } from './archives.ts'
import { newHole, newListening, useWorkshop, type Workshop } from './workshop.ts'

const here = useWorkshop()
const there = useWorkshop()
let taken: JobPage
let soundId = ''

beforeAll(async () => {
  taken = await here.takeIn({ cameWith: [] })
  const at = `/api/jobs/${taken.job.id}`
  const hole = newHole()
  await here.request.put(`${at}/holes/${hole.id}`).send(hole).expect(201)
  const heard = { ...newListening(), hasSound: true }
  soundId = heard.id
  await here.request.put(`${at}/listenings/${heard.id}`).send(heard).expect(201)
  const sound = Float32Array.from({ length: 8000 }, (_, i) => Math.sin(i / 9) * 0.3)
  await here.request
    .put(`/api/listenings/${heard.id}/sound`)
    .set('Content-Type', 'audio/wav')
    .send(Buffer.from(encodeWav(sound, 8000)))
    .expect((r) => expect(r.status).toBeLessThan(300))
  const picture = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#b8954a' } })
    .jpeg()
    .toBuffer()
  await here.request
    .put(`${at}/photos/${randomUUID()}?caption=As+it+came`)
    .set('Content-Type', 'image/jpeg')
    .send(picture)
    .expect((r) => expect(r.status).toBeLessThan(300))
  await here.request
    .post(`${at}/notes`)
    .send({ id: randomUUID(), text: 'Its key hangs inside the door.', corrects: null })
  // Another clock, that is none of its history.
  await here.takeIn({ complaint: 'Another clock altogether.' })
})

const told = async (shop: Workshop, zip: Buffer, query = '') =>
  (await bring(shop, zip, query).expect(200)).body as ArchiveTold

/** An archive of which one table was rewritten by a careful hand: its digest is right. */
async function rewritten(
  zip: Buffer,
  table: string,
  change: (row: Record<string, unknown>) => object,
): Promise<Buffer> {
  const all = await contents(zip)
  return sealed(withRows(all, table, rowsOf(all, table).map(change)))
}

/** Entries of a journal without the mark of the archive that brought them. */
const unmarked = (rows: Buffer) =>
  Buffer.from(
    rows
      .toString()
      .trimEnd()
      .split('\n')
      .map((row) => `${JSON.stringify({ ...(JSON.parse(row) as object), brought: null })}\n`)
      .join(''),
  )

const isEmpty = async (shop: Workshop) => ((await shop.request.get('/api/clocks')).body as unknown[]).length === 0

describe('a clock’s whole history', () => {
  test('holds its rows, its picture and its sound, with their schema, and nothing of another clock', async () => {
    const all = await contents(await bytesAt(here, `/api/clocks/${taken.clock.id}/archive.zip`))
    const rows = (table: string) => all.get(`tables/${table}.jsonl`)!.toString().trim().split('\n').filter(Boolean)
    expect(rows('clocks').length).toBe(1)
    expect(rows('jobs').length).toBe(1)
    expect(rows('owners').length).toBe(1)
    expect(rows('holes').length).toBe(1)
    expect(all.get('tables/jobs.jsonl')!.toString()).not.toContain('Another clock altogether')
    expect([...all.keys()].filter((name) => /^files\/.*\.(jpg|webp)$/.test(name)).length).toBeGreaterThanOrEqual(2)
    expect([...all.keys()].filter((name) => name.endsWith('.wav')).length).toBe(1)
    const schema = JSON.parse(all.get('schema.json')!.toString()) as { $defs: Record<string, { required: string[] }> }
    expect(schema.$defs.clocks?.required).toContain('name')
  })

  test('comes in on another Treadle with nothing lost, and a second time with nothing twice', async () => {
    const zip = await bytesAt(here, `/api/clocks/${taken.clock.id}/archive.zip`)
    const looked = await told(there, zip)
    expect([looked.kept, looked.of, looked.clashes]).toEqual([false, 'clock', []])
    expect(await isEmpty(there)).toBe(true)
    const done = await told(there, zip, '?keep=true')
    expect(done.fresh).toEqual(looked.fresh)
    const both = await Promise.all([here, there].map((s) => bytesAt(s, `/api/clocks/${taken.clock.id}/archive.zip`)))
    const [ours, theirs] = await Promise.all(both.map(contents))
    for (const [name, bytes] of ours!) {
      if (name === 'treadle.json') continue
      // What was written elsewhere says so here, and nothing else of it differs.
      const here = name === 'tables/journal.jsonl' ? unmarked(theirs!.get(name)!) : theirs!.get(name)
      expect([name, here?.equals(bytes)]).toEqual([name, true])
    }
    expect(theirs!.get('tables/journal.jsonl')!.toString()).toMatch(
      /"brought":\{"at":"[^"]+","by":"somebody","from":"The workshop","writtenOn":/,
    )
    expect(new Set(theirs!.keys())).toEqual(new Set(ours!.keys()))
    // The sound is heard there as it was here.
    const sounds = await Promise.all([here, there].map((s) => bytesAt(s, `/api/listenings/${soundId}/sound`)))
    expect(sounds[0]!.equals(sounds[1]!)).toBe(true)

    const again = await told(there, zip, '?keep=true')
    expect([again.fresh, again.freshFiles, again.clashes]).toEqual([[], 0, []])
    expect(((await there.request.get('/api/clocks')).body as unknown[]).length).toBe(1)
    // The next clock that is taken in there has a number of its own.
    const next = await there.takeIn()
    expect(next.job.number).not.toBe(taken.job.number)
  })

  test('what stands here otherwise is shown, stays, and is taken only where it is said', async () => {
    const zip = await bytesAt(here, `/api/clocks/${taken.clock.id}/archive.zip`)
    const { clock } = (await there.request.get(`/api/jobs/${taken.job.id}`)).body as JobPage
    const { id: _, ownerId: _o, ...known } = clock
    await there.request
      .patch(`/api/clocks/${clock.id}`)
      .send({ ...known, marks: 'A number inside the door.' })
      .expect(200)
    const looked = await told(there, zip, '?keep=true')
    expect(looked.clashes).toMatchObject([
      { table: 'clocks', mayTake: true, fields: [{ name: 'marks', here: 'A number inside the door.', there: '' }] },
    ])
    const marks = async () => ((await there.request.get(`/api/jobs/${taken.job.id}`)).body as JobPage).clock.marks
    expect(await marks()).toBe('A number inside the door.')
    const { table, key } = looked.clashes[0]!
    const over = await told(there, zip, `?keep=true&take=${table}~${key}`)
    expect(await marks()).toBe('')
    // It is no clash any more, and what stood here before is in the workshop’s journal.
    expect([over.clashes, over.taken.map((t) => t.table)]).toEqual([[], ['clocks']])
    const { rows } = await there.connection.pool.query<{ figures: object }>(
      "select figures from journal where about = 'archive' order by at desc limit 1",
    )
    expect(JSON.stringify(rows[0]?.figures)).toContain('A number inside the door.')
    expect((await told(there, zip)).clashes).toEqual([])
  })

  test('a visit whose number is another’s there gets one of its own', async () => {
    const own = await here.takeIn()
    const zip = await bytesAt(here, `/api/clocks/${own.clock.id}/archive.zip`)
    const taken = await rewritten(zip, 'jobs', (row) => ({ ...row, number: 1 }))
    const done = await told(there, taken, '?keep=true')
    expect(done.renumbered).toMatchObject([{ was: 1 }])
    const page = (await there.request.get(`/api/jobs/${own.job.id}`)).body as JobPage
    expect(page.job.number).toBe(done.renumbered[0]!.now)
  })
})

describe('the whole workshop', () => {
  test('goes out and comes in with a difference of nothing', async () => {
    const empty = await bytesAt(here, '/api/archive.zip')
    const all = await contents(empty)
    expect(all.get('tables/jobs.jsonl')!.toString()).toContain('Another clock altogether')
    // The secret of the calendar’s address stays on its machine.
    expect([...all.keys()].join()).not.toMatch(/calendar_keys|file_chunks/)
    const looked = await told(here, empty)
    expect([looked.fresh, looked.freshFiles, looked.clashes]).toEqual([[], 0, []])
    expect(looked.same).toBeGreaterThan(20)
  })
})

describe('an archive is refused, and nothing of it comes in', () => {
  const refused = async (zip: Buffer, words: RegExp, shop = there) => {
    const before = await contents(await bytesAt(shop, '/api/archive.zip'))
    for (const query of ['', '?keep=true']) {
      const answer = await bring(shop, zip, query)
      expect([answer.status, (answer.body as Problem).title]).toEqual([422, expect.stringMatching(words)])
    }
    const after = await contents(await bytesAt(shop, '/api/archive.zip'))
    for (const [name, bytes] of before)
      if (name !== 'treadle.json') expect([name, after.get(name)?.equals(bytes)]).toEqual([name, true])
  }
  const good = () => bytesAt(here, `/api/clocks/${taken.clock.id}/archive.zip`)

  test('where a row was changed after it was written', async () => {
    const all = await contents(await good())
    const rows = all.get('tables/owners.jsonl')!
    all.set('tables/owners.jsonl', Buffer.from(rows.toString().replace('Gull Row', 'Gull Raw')))
    await refused(await zipped(all), /owners\.jsonl was changed/)
  })

  test('where it was cut short, or is none', async () => {
    const zip = await good()
    await refused(zip.subarray(0, zip.length - 400), /cut short|can’t be read|damaged/)
    await refused(Buffer.from('treadle'), /no zip file/)
    await refused(await zipped(new Map([['about.txt', Buffer.from('x')]])), /no Treadle archive/)
  })

  test('where it holds what no archive holds', async () => {
    const all = await contents(await good())
    await refused(
      await zipped(new Map([...all, ['files/index.html', Buffer.from('<script>')]])),
      /no part of an archive/,
    )
    const more = new Map([...all, ['files/00000000-0000-4000-8000-000000000000.jpg', Buffer.from('x')]])
    await refused(await zipped(more), /of which it says nothing/)
  })

  test('where it would be far too large once unpacked', async () => {
    const all = await contents(await good())
    all.set('tables/journal.jsonl', Buffer.alloc(40_000_000, 32))
    await refused(await zipped(all), /far too large/)
  })

  test('where a picture is none', async () => {
    const all = await contents(await good())
    const name = [...all.keys()].find((n) => n.endsWith('.jpg'))!
    all.set(name, Buffer.from('<html><script>alert(1)</script></html>'))
    await refused(await sealed(all), /is not what its name says/)
  })

  test.each([
    ['holes', { longAxisMm: 'wide' }, /holes, line 1: longAxisMm/],
    ['holes', { plate: 'side' }, /holes, line 1: .*late/],
    ['jobs', { receivedAt: 'yesterday' }, /jobs, line 1: receivedAt/],
    ['jobs', { bay: 'attic' }, /jobs, line 1: Bay/],
    ['jobs', { waitsFor: 'rain' }, /jobs, line 1: Waits for/],
    ['jobs', { scope: 'one-train', scopeReason: 'So agreed.' }, /jobs, line 1: Which train/],
    ['jobs', { cameWith: [{ name: 'Key' }] }, /jobs, line 1: cameWith/],
    ['clocks', { pendulum: { beatsPerHour: 3600 } }, /clocks, line 1/],
    ['clocks', { secret: 1 }, /clocks, line 1: it has a field “secret”/],
    ['owners', { name: null }, /owners, line 1: it lacks name/],
    ['jobs', { clockId: randomUUID() }, /points at one that is not in it/],
  ])('where a row of %s is not what it must be: %j', async (table, part, words) => {
    const shop = there
    // Nothing of it is there yet: each row would be new.
    const other = await here.takeIn()
    const at = `/api/jobs/${other.job.id}`
    const hole = newHole()
    await here.request.put(`${at}/holes/${hole.id}`).send(hole).expect(201)
    const zip = await bytesAt(here, `/api/clocks/${other.clock.id}/archive.zip`)
    const bad = await rewritten(zip, table, (row) => ({ ...row, ...part }))
    if (/points at/.test(String(words))) {
      const answer = await bring(shop, bad, '?keep=true')
      expect([answer.status, (answer.body as Problem).title]).toEqual([422, expect.stringMatching(words)])
      expect((await shop.request.get(at)).status).toBe(404)
    } else await refused(bad, words, shop)
  })

  test('where what the workshop decided, or what was heard, could not have been kept here', async () => {
    const settings = (await here.request.get('/api/settings').expect(200)).body as object
    await here.request
      .put('/api/settings')
      .send({ ...settings, workshop: 'The shed' })
      .expect(200)
    const prices = (await here.request.get('/api/tables/prices')).body as { values: object }
    await here.request.put('/api/tables/prices').send({ version: 0, values: prices.values }).expect(200)
    const watch = {
      ...{ id: randomUUID(), version: 0, beganAt: '2026-06-01T20:00:00.000Z', endedAt: null, device: 'd' },
      ...{ pickup: 'microphone', beatsPerHour: 7200, ticks: 'every beat', ppm: 0, ppmError: null },
    }
    const at = `/api/jobs/${taken.job.id}/watches/${watch.id}`
    await here.request.put(at).send(watch).expect(201)
    const minute = {
      ...{ minute: 0, fromS: 0, seconds: 60, beatsHeard: 120, beatsExpected: 120, sinceS: 0, aheadS: null },
      ...{ rateSecondsPerDay: null, rateStandardError: null, outOfBeatMs: null, outOfBeatStandardError: null },
      ...{ scatterMs: null, firstDb: null, secondDb: null },
    }
    await here.request
      .put(`${at}/told`)
      .send({ minutes: [minute], marks: [] })
      .expect(204)
    const whole = await bytesAt(here, '/api/archive.zip')
    expect((await told(there, whole)).fresh.map((f) => f.table)).toEqual(expect.arrayContaining(['watch_minutes']))
    const values = (part: object) => (row: Record<string, unknown>) => ({
      ...row,
      values: { ...(row.values as object), ...part },
    })
    for (const [table, change, words] of [
      ['settings', values({ timeZone: 'Mars/Base' }), /settings, line 1: .*[Tt]ime zone/],
      ['settings', values({ trialDays: 'seven' }), /settings, line 1: /],
      ['workshop_tables', values({ lines: 'many' }), /workshop_tables, line 1: /],
      ['workshop_tables', (row: object) => ({ ...row, name: 'recipes' }), /there is no table “recipes”/],
      ['listenings', (row: object) => ({ ...row, confidence: 2 }), /listenings, line 1: confidence/],
      ['watch_minutes', (row: object) => ({ ...row, beatsHeard: -4 }), /watch_minutes, line 1: beatsHeard/],
    ] as const)
      await refused(await rewritten(whole, table, change), words)
  })

  test('where it is of a newer Treadle', async () => {
    const all = await contents(await good())
    const manifest = JSON.parse(all.get('treadle.json')!.toString()) as object
    all.set('treadle.json', Buffer.from(JSON.stringify({ ...manifest, version: 3, more: true })))
    await refused(await zipped(all), /newer Treadle/)
  })
})

test('a clock that nobody knows has no history', async () => {
  await here.request.get(`/api/clocks/${randomUUID()}/archive.zip`).expect(404)
})
