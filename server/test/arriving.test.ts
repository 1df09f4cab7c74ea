import { randomUUID } from 'node:crypto'
import { crc32, deflateSync } from 'node:zlib'
import { describe, expect, test } from 'vitest'
import type { ConditionItem, Found, JobPage, Observation, TrainSheetChange } from '@treadle/contract'
import sharp from 'sharp'
import { newJob, useWorkshop } from './workshop.ts'

const workshop = useWorkshop()
const page = async (id: string) => (await workshop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const find = async (words: string) =>
  (await workshop.request.get('/api/find').query({ q: words }).expect(200)).body as Found[]

const observation = (part: Partial<Observation> = {}): Observation => ({
  id: randomUUID(),
  version: 0,
  key: 'arc',
  answer: '',
  figure: 2.1,
  second: null,
  note: '',
  photoId: null,
  ...part,
})

async function sendPhoto(jobId: string): Promise<string> {
  const id = randomUUID()
  const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: 'tan' } })
    .jpeg()
    .toBuffer()
  await workshop.request
    .put(`/api/jobs/${jobId}/photos/${id}`)
    .set('Content-Type', 'image/jpeg')
    .send(bytes)
    .expect(201)
  return id
}

describe('finding as one types', () => {
  test('by part of a name, by a mark, by the owner, by the number', async () => {
    const base = newJob()
    const { job } = await workshop.takeIn({
      owner: { ...base.owner, name: 'Widow Kestrel' },
      clock: { ...base.clock, name: 'Heron bracket', marks: 'Scratched: 4711 under the bell' },
    })
    expect((await find('heron')).map((f) => f.title)).toEqual(['Heron bracket'])
    expect((await find('4711 UND')).map((f) => f.title)).toEqual(['Heron bracket'])
    expect((await find('estre')).map((f) => [f.kind, f.title, f.detail])).toEqual([
      ['owner', 'Widow Kestrel', 'Heron bracket'],
    ])
    expect((await find(String(job.number)))[0]).toMatchObject({ kind: 'job', id: job.id, open: true })
    expect((await find(`#${job.number}`))[0]).toMatchObject({ kind: 'job', id: job.id })
  })

  test('one letter finds what begins with it; those that begin so come first', async () => {
    const base = newJob()
    await workshop.takeIn({ clock: { ...base.clock, name: 'Old quail clock' } })
    await workshop.takeIn({ ...newJob(), clock: { ...newJob().clock, name: 'Quail clock' } })
    expect((await find('q')).map((f) => f.title)).toEqual(['Quail clock'])
    expect((await find('quail')).map((f) => f.title)).toEqual(['Quail clock', 'Old quail clock'])
  })

  test('signs that mean something to the database are letters here', async () => {
    expect(await find('100%')).toEqual([])
    expect(await find("'; drop table clocks; --")).toEqual([])
    expect(await find('   ')).toEqual([])
    expect(await find('9'.repeat(40))).toEqual([])
    expect(await find('2147483648')).toEqual([])
  })

  test('the index is what finds it, not a look at every row', async () => {
    const { rows } = await workshop.connection.pool.query(
      "select indexdef from pg_indexes where indexname in ('owners_name_find', 'clocks_name_find', 'clocks_marks_find')",
    )
    expect(rows).toHaveLength(3)
    for (const { indexdef } of rows as { indexdef: string }[]) expect(indexdef).toContain('gin_trgm_ops')
  })
})

describe('what came with it', () => {
  test('a weight keeps where it hung and what it weighs', async () => {
    const { job } = await workshop.takeIn({
      cameWith: [
        { name: 'left weight', state: 'present', returned: false, hung: 'left, chime', massKg: 4.2, photoId: null },
      ],
    })
    expect((await page(job.id)).job.cameWith[0]).toMatchObject({ hung: 'left, chime', massKg: 4.2 })
  })

  test('a weight of nothing is refused by its place', async () => {
    const body = { ...newJob(), cameWith: [{ name: 'weight', state: 'present', returned: false, massKg: -1 }] }
    const refused = await workshop.request.post('/api/jobs').send(body).expect(400)
    expect((refused.body as { errors: { field: string }[] }).errors[0]?.field).toBe('cameWith[0].massKg')
  })

  test('what the owner tells of home is kept, and its change is in the journal', async () => {
    const { job } = await workshop.takeIn({ standsAt: 'On the stove shelf', movedLately: 'yes', lastServiced: 2011 })
    expect(job).toMatchObject({ standsAt: 'On the stove shelf', movedLately: 'yes', lastServiced: 2011 })
  })
})

describe('observations', () => {
  test('are kept with who and when, changed by version, taken back', async () => {
    const { job } = await workshop.takeIn()
    const seen = observation({ note: 'Measured on the paper scale.' })
    const put = (body: Observation) =>
      workshop.request.put(`/api/jobs/${job.id}/observations/${body.id}`).set('X-Bench', 'Ida').send(body)
    await put(seen).expect(201)
    await put(seen).expect(200)
    await put({ ...seen, version: 1, figure: 2.4 }).expect(200)
    await put({ ...seen, version: 1, figure: 9 }).expect(409)
    expect((await page(job.id)).observations).toMatchObject([{ key: 'arc', figure: 2.4, who: 'Ida', version: 2 }])
    await workshop.request.delete(`/api/jobs/${job.id}/observations/${seen.id}`).expect(204)
    expect((await page(job.id)).observations).toEqual([])
    const journal = (await workshop.request.get(`/api/jobs/${job.id}/journal`)).body as { text: string }[]
    expect(journal.map((e) => e.text)).toContain('Arc: 2.4: Measured on the paper scale.')
  })

  test('a note or a picture added later leaves the moment at which it was seen; another figure is seen anew', async () => {
    const { job } = await workshop.takeIn()
    const seen = observation({ note: '' })
    const put = (who: string, part: Partial<Observation>) =>
      workshop.request
        .put(`/api/jobs/${job.id}/observations/${seen.id}`)
        .set('X-Bench', who)
        .send({ ...seen, ...part })
    const row = async () => (await page(job.id)).observations[0]!
    await put('Ida', {}).expect(201)
    const first = await row()
    await put('Jon', { version: 1, note: 'By the paper scale.' }).expect(200)
    await put('Jon', { version: 2, note: 'By the paper scale.', photoId: await sendPhoto(job.id) }).expect(200)
    expect([(await row()).at, (await row()).who]).toEqual([first.at, 'Ida'])
    await put('Jon', { version: 3, figure: 2.6 }).expect(200)
    expect(Date.parse((await row()).at)).toBeGreaterThan(Date.parse(first.at))
    expect((await row()).who).toBe('Jon')
  })

  test('a photo of another job can’t be hung on it', async () => {
    const { job } = await workshop.takeIn()
    const { job: other } = await workshop.takeIn(newJob())
    const photoId = await sendPhoto(other.id)
    const seen = observation({ photoId })
    const refused = await workshop.request.put(`/api/jobs/${job.id}/observations/${seen.id}`).send(seen).expect(400)
    expect((refused.body as { errors: { field: string }[] }).errors[0]?.field).toBe('photoId')
    await workshop.request.put(`/api/jobs/${other.id}/observations/${seen.id}`).send(seen).expect(201)
  })

  test('an observation of one job can’t be changed through another', async () => {
    const { job } = await workshop.takeIn()
    const { job: other } = await workshop.takeIn(newJob())
    const seen = observation()
    await workshop.request.put(`/api/jobs/${job.id}/observations/${seen.id}`).send(seen).expect(201)
    await workshop.request
      .put(`/api/jobs/${other.id}/observations/${seen.id}`)
      .send({ ...seen, version: 1, figure: 1 })
      .expect(404)
    expect((await page(job.id)).observations[0]?.figure).toBe(2.1)
  })
})

describe('the condition record', () => {
  test('each thing has its class, and its point lies on the photo', async () => {
    const { job } = await workshop.takeIn()
    const photoId = await sendPhoto(job.id)
    const item: ConditionItem = {
      id: randomUUID(),
      version: 0,
      kind: 'plugged-hole',
      name: 'Back plate, above the escape cock',
      class: 'old-replacement',
      note: 'Converted escapement?',
      photoId,
      x: 0.4,
      y: 0.7,
    }
    const put = (body: object) => workshop.request.put(`/api/jobs/${job.id}/conditions/${item.id}`).send(body)
    await put({ ...item, x: 1.2 }).expect(400)
    await put({ ...item, class: 'antique' }).expect(400)
    await put(item).expect(201)
    expect((await page(job.id)).conditions).toMatchObject([{ name: item.name, x: 0.4, photoId }])
  })
})

describe('the train sheet', () => {
  const sheet: TrainSheetChange = {
    id: randomUUID(),
    version: 0,
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
  }

  test('belongs to the clock: the next visit finds it', async () => {
    const first = await workshop.takeIn()
    await workshop.request.put(`/api/jobs/${first.job.id}/trains/${sheet.id}`).send(sheet).expect(201)
    const again = await workshop.takeIn({
      owner: first.owner,
      clock: { ...newJob().clock, id: first.clock.id },
    })
    expect(again.trainSheets).toMatchObject([{ train: 'going', greatTurns: 16, clockId: first.clock.id }])
  })

  test('a count that can’t be is refused by its place', async () => {
    const { job } = await workshop.takeIn()
    const bad = { ...sheet, id: randomUUID(), arbors: [sheet.arbors[0], { name: 'Centre', pinion: 2, wheel: 64 }] }
    const refused = await workshop.request.put(`/api/jobs/${job.id}/trains/${bad.id}`).send(bad).expect(400)
    expect((refused.body as { errors: { field: string }[] }).errors[0]?.field).toBe('arbors[1].pinion')
  })
})

describe('the workshop’s own tables', () => {
  test('start as the craft’s, are changed by version, and checked whole', async () => {
    const start = (await workshop.request.get('/api/tables/prices').expect(200)).body as {
      version: number
      values: { lines: object[]; choices: object[] }
    }
    expect(start.version).toBe(0)
    expect(start.values.lines.length).toBeGreaterThan(4)
    const values = { ...start.values, lines: start.values.lines.slice(0, 2) }
    await workshop.request.put('/api/tables/prices').send({ version: 0, values }).expect(200)
    await workshop.request.put('/api/tables/prices').send({ version: 0, values: start.values }).expect(409)
    const bad = { ...values, lines: [{ ...values.lines[0], unitPrice: '12,50' }] }
    const refused = await workshop.request.put('/api/tables/prices').send({ version: 1, values: bad }).expect(400)
    expect((refused.body as { errors: { field: string }[] }).errors[0]?.field).toBe('lines[0].unitPrice')
    const kept = (await workshop.request.get('/api/tables/prices')).body as typeof start
    expect(kept).toMatchObject({ version: 1, values: { lines: values.lines } })
  })

  test('a chance beyond one is refused, and there are no other tables', async () => {
    const { values } = (await workshop.request.get('/api/tables/trouble')).body as {
      values: { checks: { given: Record<string, number[]> }[] }
    }
    values.checks[0]!.given = { 'beat-out': [1.4, -0.4] }
    await workshop.request.put('/api/tables/trouble').send({ version: 0, values }).expect(400)
    await workshop.request.get('/api/tables/__proto__').expect(404)
    await workshop.request.get('/api/tables/constructor').expect(404)
  })

  test('confirmed causes are counted over all jobs', async () => {
    for (const cause of ['suspension', 'suspension', 'oil-dry']) {
      const { job } = await workshop.takeIn(newJob())
      const id = randomUUID()
      await workshop.request
        .put(`/api/jobs/${job.id}/causes/${id}`)
        .send({ id, version: 0, cause, note: '' })
        .expect(201)
    }
    expect((await workshop.request.get('/api/causes/counts')).body).toEqual({ suspension: 2, 'oil-dry': 1 })
  })
})

describe('photos, whatever is sent for one', () => {
  const put = async (bytes: Buffer, name = 'clock.jpg') => {
    const { job } = await workshop.takeIn(newJob())
    const id = randomUUID()
    const answer = await workshop.request
      .put(`/api/jobs/${job.id}/photos/${id}?caption=${name}`)
      .set('Content-Type', 'image/jpeg')
      .send(bytes)
    return { job, id, answer }
  }

  test('twelve megapixels held on its side come upright, and small enough for a list', async () => {
    const original = await sharp({ create: { width: 4000, height: 3000, channels: 3, background: '#345' } })
      .jpeg()
      .withMetadata({ orientation: 8 })
      .toBuffer()
    const { job, id, answer } = await put(original)
    expect(answer.status).toBe(201)
    expect((await page(job.id)).photos[0]).toMatchObject({ width: 1200, height: 1600 })
    const thumb = (await workshop.request.get(`/api/photos/${id}/thumb`).expect('Content-Type', 'image/webp'))
      .body as Buffer
    expect(await sharp(thumb).metadata()).toMatchObject({ width: 240, height: 320 })
    expect(thumb.length).toBeLessThan(20_000)
  })

  test('a PNG under another name is a PNG; words under a picture’s name are no picture', async () => {
    const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: 'red' } })
      .png()
      .toBuffer()
    const kept = await put(png, 'really.jpg')
    expect(kept.answer.status).toBe(201)
    await workshop.request.get(`/api/photos/${kept.id}/original`).expect('Content-Type', 'image/png')
    const text = await put(Buffer.from('This is no picture, whatever its name says.'), 'words.jpg')
    expect(text.answer.status).toBe(415)
    expect((text.answer.body as { title: string }).title).toMatch(/JPEG, PNG or WebP/)
    expect((await page(text.job.id)).photos).toEqual([])
  })

  test('forty megabytes are too much, and said so', async () => {
    const jpeg = await sharp({ create: { width: 8, height: 8, channels: 3, background: 'red' } })
      .jpeg()
      .toBuffer()
    const { answer, job } = await put(Buffer.concat([jpeg, Buffer.alloc(40_000_000)])).catch((error: Error) => ({
      // The server may close the line on one who goes on sending.
      answer: { status: /EPIPE|ECONNRESET|aborted/.test(String(error)) ? 413 : 0 },
      job: null,
    }))
    expect(answer.status).toBe(413)
    if (job) expect((await page(job.id)).photos).toEqual([])
  })

  test('a picture that would unfold to more than memory bears is refused before it is', async () => {
    // 20,000 by 20,000 of one bit each: 400 million pixels in some fifty kilobytes.
    const bomb = blackPng(20_000)
    expect(bomb.length).toBeLessThan(100_000)
    expect(await sharp(bomb, { limitInputPixels: false }).metadata()).toMatchObject({ width: 20_000, height: 20_000 })
    const { answer } = await put(bomb)
    expect(answer.status).toBe(415)
  })
})

/** A square PNG of one bit a pixel, all of them black, written chunk by chunk: no picture is unfolded to make it. */
function blackPng(side: number): Buffer {
  const head = Buffer.alloc(13)
  head.writeUInt32BE(side, 0)
  head.writeUInt32BE(side, 4)
  head[8] = 1
  const rows = deflateSync(Buffer.alloc(side * (1 + Math.ceil(side / 8))))
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
  return Buffer.concat([signature, chunk('IHDR', head), chunk('IDAT', rows), chunk('IEND', Buffer.alloc(0))])
}

function chunk(name: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(name, 'latin1'), data])
  const length = Buffer.alloc(4)
  length.writeUInt32BE(data.length)
  const sum = Buffer.alloc(4)
  sum.writeUInt32BE(crc32(body))
  return Buffer.concat([length, body, sum])
}
