import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { createServer, request, type ClientRequest, type IncomingMessage, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { JobPage, Problem } from '@treadle/contract'
import { encodeWav } from '@treadle/core'
import sharp, { type Metadata } from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { newListening, useWorkshop } from './workshop.ts'

const folder = mkdtempSync(join(tmpdir(), 'treadle-uploads-'))
// What stands still for a third of a second is given up, so that a test need not wait for longer.
const shop = useWorkshop({ bodyMs: 600, uploads: { folder, windowMs: 300, leastBytes: 100 } })
const nearlyFull = useWorkshop({ uploads: { folder, leastFreeBytes: 1e15 } })
const busy = useWorkshop({ uploads: { folder, perMinute: 3 } })
let server: Server

beforeAll(async () => {
  server = createServer(shop.app).listen(0, '127.0.0.1')
  await once(server, 'listening')
})
afterAll(() => {
  server.close()
  rmSync(folder, { recursive: true })
})

const page = async (id: string) => (await shop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const rows = async (sql: string) =>
  Number((await shop.connection.pool.query<{ n: string }>(`select count(*) as n from ${sql}`)).rows[0]?.n)
const picture = () => sharp({ create: { width: 400, height: 300, channels: 3, background: '#804020' } })

/** Begins to send and sends no more. */
function idle(path: string, type: string, bytes: string): ClientRequest {
  const { port } = server.address() as AddressInfo
  const sending = request({
    port,
    host: '127.0.0.1',
    method: 'PUT',
    path,
    headers: { 'Content-Type': type, 'Content-Length': 1_000_000 },
  })
  sending.on('error', () => undefined)
  sending.write(bytes)
  return sending
}

async function answerTo(sending: ClientRequest): Promise<{ status: number; problem: Problem }> {
  const [answer] = (await once(sending, 'response')) as [IncomingMessage]
  let text = ''
  for await (const chunk of answer) text += String(chunk)
  return { status: answer.statusCode ?? 0, problem: JSON.parse(text) as Problem }
}

describe('idle senders', () => {
  test('stop nobody else, and are not waited for', async () => {
    const { job } = await shop.takeIn()
    const listening = newListening()
    await shop.request.put(`/api/jobs/${job.id}/listenings/${listening.id}`).send(listening).expect(201)
    const senders = Array.from({ length: 24 }, (_, i) =>
      i % 2 === 0
        ? idle(`/api/listenings/${listening.id}/sound`, 'audio/wav', 'RIFF0000WAVE')
        : idle(`/api/jobs/${job.id}/photos/${randomUUID()}`, 'image/jpeg', '\xff\xd8\xff\xe0\0\0\0\0'),
    )
    const answers = senders.map(answerTo)
    // All of them are under way, and the workshop goes on as ever: it reads, and it writes.
    await shop.request.get('/api/bench').expect(200)
    await shop.takeIn()
    for (const { status, problem } of await Promise.all(answers)) {
      expect(status).toBe(408)
      expect(problem.title).toContain('too slowly')
    }
    expect((await page(job.id)).photos).toEqual([])
    expect(await rows('files')).toBe(0)
    expect(readdirSync(folder)).toEqual([])
  })

  test('of JSON are answered too', async () => {
    const { job } = await shop.takeIn()
    const { status } = await answerTo(idle(`/api/jobs/${job.id}/holes/${randomUUID()}`, 'application/json', '{"id":'))
    expect(status).toBe(408)
  })

  test('one that hangs up in the middle leaves nothing behind', async () => {
    const { job } = await shop.takeIn()
    const sending = idle(`/api/jobs/${job.id}/photos/${randomUUID()}`, 'image/jpeg', '\xff\xd8\xff')
    await expect.poll(() => readdirSync(folder)).not.toEqual([])
    sending.destroy()
    await expect.poll(() => readdirSync(folder)).toEqual([])
  })
})

describe('limits', () => {
  test('a disk that is nearly full takes no pictures, and all else goes on', async () => {
    const { job } = await nearlyFull.takeIn()
    const answer = await nearlyFull.request
      .put(`/api/jobs/${job.id}/photos/${randomUUID()}`)
      .type('image/png')
      .send(await picture().png().toBuffer())
    expect(answer.status).toBe(507)
    expect((answer.body as Problem).title).toContain('disk is nearly full')
    await nearlyFull.takeIn()
  })

  test('more in a minute than a hand can make', async () => {
    const { job } = await busy.takeIn()
    const bytes = await picture().png().toBuffer()
    const one = () => busy.request.put(`/api/jobs/${job.id}/photos/${randomUUID()}`).type('image/png').send(bytes)
    for (let i = 0; i < 3; i++) await one().expect(201)
    expect(((await one().expect(429)).body as Problem).title).toMatch(/Wait a little/)
    await busy.takeIn()
  })
})

describe('photos', () => {
  const put = (jobId: string, id: string, bytes: Buffer, caption = 'Dial') =>
    shop.request.put(`/api/jobs/${jobId}/photos/${id}?caption=${caption}`).type('image/jpeg').send(bytes)
  const original = async (id: string) =>
    (await shop.request.get(`/api/photos/${id}/original`).expect(200)).body as Buffer
  const points = (bytes: Buffer) => sharp(bytes).raw().toBuffer()
  /** As a telephone writes it: its place, its maker, its words. */
  const WITH_PLACE = {
    exif: {
      IFD0: { Make: 'A maker', Model: 'A model', ImageDescription: 'Secret words' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1', GPSLongitudeRef: 'W', GPSLongitude: '0/1 7/1 0/1' },
    },
  }
  const ways: [string, () => Promise<Buffer>][] = [
    ['JPEG', () => picture().withExif(WITH_PLACE.exif).withMetadata({ orientation: 6 }).jpeg().toBuffer()],
    ['progressive JPEG', () => picture().withExif(WITH_PLACE.exif).jpeg({ progressive: true }).toBuffer()],
    ['WebP', () => picture().withExif(WITH_PLACE.exif).webp().toBuffer()],
    ['WebP without loss', () => picture().withExif(WITH_PLACE.exif).webp({ lossless: true }).toBuffer()],
    ['PNG', () => picture().withExif(WITH_PLACE.exif).png().toBuffer()],
  ]

  test.each(ways)('%s is kept point for point, without place, maker and words', async (kind, make) => {
    const { job } = await shop.takeIn()
    const taken = await make()
    const before: Metadata = await sharp(taken).metadata()
    expect(before.exif?.includes('A maker')).toBe(true)
    const id = randomUUID()
    // A second picture hidden behind the first, as some telephones write one.
    await put(job.id, id, kind.includes('JPEG') ? Buffer.concat([taken, taken]) : taken).expect(201)
    const kept = await original(id)
    expect((await points(kept)).equals(await points(taken))).toBe(true)
    for (const words of ['A maker', 'A model', 'Secret words', 'GPS']) expect(kept.includes(words), words).toBe(false)
    const after = await sharp(kept).metadata()
    expect(after.orientation ?? 1).toBe(before.orientation ?? 1)
    expect(kept.length).toBeLessThan(taken.length)
  })

  test('a colour profile stays, and a PNG held sideways is turned', async () => {
    const { job } = await shop.takeIn()
    const [profiled, sideways] = [randomUUID(), randomUUID()]
    const wide = await picture().withIccProfile('p3').jpeg().toBuffer()
    await put(job.id, profiled, wide).expect(201)
    const icc = (await sharp(wide).metadata()).icc
    expect((await sharp(await original(profiled)).metadata()).icc?.equals(icc!)).toBe(true)
    await put(job.id, sideways, await picture().withMetadata({ orientation: 8 }).png().toBuffer()).expect(201)
    expect(await sharp(await original(sideways)).metadata()).toMatchObject({ width: 300, height: 400 })
  })

  test('a workshop that chooses so keeps it byte for byte', async () => {
    const settings = (await shop.request.get('/api/settings')).body as object
    await shop.request
      .put('/api/settings')
      .send({ ...settings, keepPhotoData: true })
      .expect(200)
    const { job } = await shop.takeIn()
    const id = randomUUID()
    const taken = await ways[0]![1]()
    await put(job.id, id, taken).expect(201)
    expect((await original(id)).equals(taken)).toBe(true)
    const now = (await shop.request.get('/api/settings')).body as object
    await shop.request
      .put('/api/settings')
      .send({ ...now, keepPhotoData: false })
      .expect(200)
  })

  test('one sent twice at once is one, and leaves no file behind; another under its id is refused', async () => {
    const [{ job }, { job: other }] = [await shop.takeIn(), await shop.takeIn()]
    const bytes = await picture().jpeg().toBuffer()
    const before = await rows('files')
    const id = randomUUID()
    const answers = await Promise.all([1, 2, 3].map(async () => (await put(job.id, id, bytes)).status))
    expect(answers.sort()).toEqual([200, 200, 201])
    await put(job.id, id, bytes).expect(200)
    for (const [j, b, caption] of [
      [other.id, bytes, 'Dial'],
      [job.id, await picture().negate().jpeg().toBuffer(), 'Dial'],
      [job.id, bytes, 'Movement'],
    ] as const) {
      const refused = (await put(j, id, b, caption).expect(409)).body as Problem
      expect(refused.current).toMatchObject({ id, jobId: job.id, caption: 'Dial' })
    }
    expect((await page(job.id)).photos).toHaveLength(1)
    expect(await rows('files')).toBe(before + 3)
  })

  test('a picture that is broken in the middle is refused, and nothing of it kept', async () => {
    const { job } = await shop.takeIn()
    const before = await rows('files')
    const bytes = await picture().jpeg().toBuffer()
    const broken = Buffer.from(bytes)
    broken.writeUInt16BE(0xffff, 4)
    for (const b of [broken, bytes.subarray(0, bytes.length - 40)]) await put(job.id, randomUUID(), b).expect(415)
    expect(await rows('files')).toBe(before)
  })
})

describe('sounds', () => {
  const wav = encodeWav(
    Float32Array.from({ length: 9000 }, (_, i) => Math.sin(i / 5)),
    22_050,
  )
  const begun = async () => {
    const { job } = await shop.takeIn()
    const listening = newListening()
    await shop.request.put(`/api/jobs/${job.id}/listenings/${listening.id}`).send(listening).expect(201)
    const put = (bytes: Uint8Array) =>
      shop.request.put(`/api/listenings/${listening.id}/sound`).type('audio/wav').send(Buffer.from(bytes))
    return { job, listening, put }
  }

  test('what begins as a WAV and is none is refused with the reason', async () => {
    const { put } = await begun()
    const six = Uint8Array.from(wav)
    new DataView(six.buffer).setUint16(22, 6, true)
    for (const [bytes, says] of [
      [Buffer.from('RIFF0000WAVEand then a letter about a clock, which is no sound at all'), /no sound/],
      [wav.subarray(0, 44), /no sound/],
      [six, /6 channels/],
    ] as const)
      expect(((await put(bytes).expect(415)).body as Problem).title).toMatch(says)
    await put(wav).expect(204)
  })

  test('the same again is no change, another is refused; taken back, the listening takes its sound along', async () => {
    const before = await rows('files')
    const { job, listening, put } = await begun()
    await put(wav).expect(204)
    await put(wav).expect(204)
    await put(encodeWav(new Float32Array(900), 22_050)).expect(409)
    expect(await rows('files')).toBe(before + 1)
    await shop.request.delete(`/api/jobs/${job.id}/listenings/${listening.id}`).expect(204)
    expect(await rows('files')).toBe(before)
    expect(await rows(`file_chunks c where not exists (select 1 from files f where f.id = c.file_id)`)).toBe(0)
  })
})
