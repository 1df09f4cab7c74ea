import { randomUUID } from 'node:crypto'
import { encodeWav } from '@treadle/core'
import type { Hole, JobPage } from '@treadle/contract'
import sharp from 'sharp'
import { describe, expect, test } from 'vitest'
import { newHole, newListening, useWorkshop } from './workshop.ts'

const workshop = useWorkshop()
const page = async (id: string) => (await workshop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage

describe('holes', () => {
  test('a hole is listed, measured, bushed; each step in the journal', async () => {
    const { job } = await workshop.takeIn()
    const hole = newHole()
    const url = `/api/jobs/${job.id}/holes/${hole.id}`
    await workshop.request.put(url).send(hole).expect(201)
    const measured = { ...hole, version: 1, longAxisMm: 1.32, shortAxisMm: 1.1, wearDeg: 55, pivotMm: 1, plateMm: 2.4 }
    await workshop.request.put(url).send(measured).expect(200)
    const bushed = await workshop.request
      .put(url)
      .send({ ...measured, version: 2, bushed: true })
      .expect(200)
    expect(bushed.body).toMatchObject({ version: 3, bushed: true })
    const entries = (await workshop.request.get(`/api/jobs/${job.id}/journal`)).body as { text: string }[]
    expect(entries.map((e) => e.text).slice(0, 3)).toEqual([
      'Bushed: Third arbor, back plate: 1.32 by 1.10 mm, pivot 1.00.',
      'Measured Third arbor, back plate: 1.32 by 1.10 mm, pivot 1.00.',
      'On the list: Third arbor, back plate.',
    ])
  })

  test('impossible figures are refused at their field', async () => {
    const { job } = await workshop.takeIn()
    const hole = newHole({ longAxisMm: 1.1, shortAxisMm: 1.3, pivotMm: 1, plateMm: 2, wearDeg: 0 })
    const answer = await workshop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(400)
    expect((answer.body as { errors: { field: string }[] }).errors[0]?.field).toBe('shortAxisMm')
  })

  test('two tabs at one hole: the later one is shown both', async () => {
    const { job } = await workshop.takeIn()
    const hole = newHole()
    const url = `/api/jobs/${job.id}/holes/${hole.id}`
    await workshop.request.put(url).send(hole).expect(201)
    await workshop.request
      .put(url)
      .send({ ...hole, version: 1, longAxisMm: 1.3 })
      .expect(200)
    const late = await workshop.request
      .put(url)
      .send({ ...hole, version: 1, longAxisMm: 1.4 })
      .expect(409)
    expect((late.body as { current: Hole }).current).toMatchObject({ longAxisMm: 1.3, version: 2 })
  })

  test('a hole of one job can’t be written through another', async () => {
    const [one, two] = [await workshop.takeIn(), await workshop.takeIn()]
    const hole = newHole()
    await workshop.request.put(`/api/jobs/${one.job.id}/holes/${hole.id}`).send(hole).expect(201)
    await workshop.request
      .put(`/api/jobs/${two.job.id}/holes/${hole.id}`)
      .send({ ...hole, version: 1, arbor: 'Stolen' })
      .expect(404)
    expect((await page(one.job.id)).holes[0]?.arbor).toBe('Third arbor')
  })

  test('an override of the verdict needs its reason', async () => {
    const { job } = await workshop.takeIn()
    const hole = newHole({ verdictOverride: 'leave' })
    await workshop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(400)
  })
})

describe('readings', () => {
  const reading = (day: number, errorSeconds: number) => ({
    id: randomUUID(),
    version: 0,
    at: new Date(Date.UTC(2026, 1, day, 9)).toISOString(),
    errorSeconds,
    sigmaSeconds: 0.5,
    way: 'pedal',
  })

  test('readings and turns make the rate that the bench goes by', async () => {
    const { job } = await workshop.takeIn()
    for (const [day, error] of [
      [1, 0],
      [2, -20],
      [3, -40],
    ] as const) {
      const body = reading(day, error)
      await workshop.request.put(`/api/jobs/${job.id}/readings/${body.id}`).send(body).expect(201)
    }
    const { gates } = await page(job.id)
    expect(gates.find((g) => g.name === 'rate')?.reason).toMatch(/loses 20/i)
  })

  test('one taken back is gone from the book, and its entry stays in the journal', async () => {
    const { job } = await workshop.takeIn()
    const body = reading(1, -3.25)
    await workshop.request.put(`/api/jobs/${job.id}/readings/${body.id}`).send(body).expect(201)
    await workshop.request.delete(`/api/jobs/${job.id}/readings/${body.id}`).expect(204)
    await workshop.request.delete(`/api/jobs/${job.id}/readings/${body.id}`).expect(204)
    expect((await page(job.id)).readings).toHaveLength(0)
    const entries = (await workshop.request.get(`/api/jobs/${job.id}/journal?q=Taken`)).body as unknown[]
    expect(entries).toHaveLength(1)
  })

  test('a turn of the nut must say how far, and a reading when', async () => {
    const { job } = await workshop.takeIn()
    const event = {
      id: randomUUID(),
      version: 0,
      at: '2026-02-01T09:00:00Z',
      kind: 'nut',
      turns: null,
      showed: '',
      note: '',
    }
    await workshop.request.put(`/api/jobs/${job.id}/events/${event.id}`).send(event).expect(400)
    const body = { ...reading(1, 0), at: '2026-02-31 noon' }
    await workshop.request.put(`/api/jobs/${job.id}/readings/${body.id}`).send(body).expect(400)
  })
})

describe('listenings', () => {
  const sound = Buffer.from(
    encodeWav(
      Float32Array.from({ length: 700_000 }, (_, i) => Math.sin(i / 7)),
      48_000,
    ),
  )

  test('a listening is kept with its beats and its sound, byte for byte', async () => {
    const { job } = await workshop.takeIn()
    const listening = newListening()
    await workshop.request.put(`/api/jobs/${job.id}/listenings/${listening.id}`).send(listening).expect(201)
    await workshop.request
      .put(`/api/listenings/${listening.id}/sound`)
      .set('Content-Type', 'audio/wav')
      .send(sound)
      .expect(204)
    const back = await workshop.request
      .get(`/api/listenings/${listening.id}/sound`)
      .buffer()
      .parse((res, done) => {
        const chunks: Buffer[] = []
        res.on('data', (chunk: Buffer) => chunks.push(chunk))
        res.on('end', () => done(null, Buffer.concat(chunks)))
      })
    expect(Buffer.compare(back.body as Buffer, sound)).toBe(0)
    const whole = await workshop.request.get(`/api/listenings/${listening.id}`).expect(200)
    expect((whole.body as { beatTimesS: number[] }).beatTimesS).toEqual([0.1, 0.6, 1.1])
    expect((await page(job.id)).listenings[0]).toMatchObject({ soundStored: true, analyserVersion: '1' })
  })

  test('what is no WAV is refused by its content, whatever it calls itself, and leaves nothing behind', async () => {
    const { job } = await workshop.takeIn()
    const listening = newListening()
    await workshop.request.put(`/api/jobs/${job.id}/listenings/${listening.id}`).send(listening).expect(201)
    const url = `/api/listenings/${listening.id}/sound`
    await workshop.request
      .put(url)
      .set('Content-Type', 'audio/wav')
      .send(Buffer.from('<html>not a sound at all</html>'))
      .expect(415)
    await workshop.request.put(url).set('Content-Type', 'audio/mpeg').send(sound).expect(415)
    expect((await page(job.id)).listenings[0]?.soundStored).toBe(false)
  })

  test('a sound above 80 MB is refused as it streams', async () => {
    const { job } = await workshop.takeIn()
    const listening = newListening()
    await workshop.request.put(`/api/jobs/${job.id}/listenings/${listening.id}`).send(listening).expect(201)
    const large = Buffer.concat([sound.subarray(0, 44), Buffer.alloc(80_000_100)])
    const before = await workshop.connection.pool.query<{ n: string }>('select count(*) n from file_chunks')
    await workshop.request
      .put(`/api/listenings/${listening.id}/sound`)
      .set('Content-Type', 'audio/wav')
      .send(large)
      .expect(413)
    const after = await workshop.connection.pool.query<{ n: string }>('select count(*) n from file_chunks')
    expect(after.rows[0]?.n).toBe(before.rows[0]?.n)
  })
})

describe('photos', () => {
  const picture = () => sharp({ create: { width: 2400, height: 1200, channels: 3, background: '#804020' } })
  const put = (jobId: string, bytes: Buffer) =>
    workshop.request
      .put(`/api/jobs/${jobId}/photos/${randomUUID()}?caption=Dial`)
      .set('Content-Type', 'image/jpeg')
      .send(bytes)

  test('a photo is turned upright and made small for the screen; the original is kept', async () => {
    const { job } = await workshop.takeIn()
    // Orientation 6: the camera was held on its side.
    const original = await picture().jpeg().withMetadata({ orientation: 6 }).toBuffer()
    const id = ((await put(job.id, original).expect(201)).body as { id: string }).id
    const [photo] = (await page(job.id)).photos
    expect(photo).toMatchObject({ width: 800, height: 1600, caption: 'Dial' })
    // The picture itself is kept point for point, and which way is up with it.
    const kept = (await workshop.request.get(`/api/photos/${id}/original`).expect(200)).body as Buffer
    const points = (bytes: Buffer) => sharp(bytes).raw().toBuffer()
    expect((await points(kept)).equals(await points(original))).toBe(true)
    expect((await sharp(kept).metadata()).orientation).toBe(6)
    const screen = await workshop.request.get(`/api/photos/${id}/screen`).expect('Content-Type', 'image/webp')
    expect((await sharp(screen.body as Buffer).metadata()).exif).toBeUndefined()
  })

  test('PNG and WebP are taken; other files and broken pictures are not', async () => {
    const { job } = await workshop.takeIn()
    await put(job.id, await picture().png().toBuffer()).expect(201)
    await put(job.id, await picture().webp().toBuffer()).expect(201)
    await put(job.id, await picture().gif().toBuffer()).expect(415)
    await put(job.id, Buffer.from('%PDF-1.7 no picture')).expect(415)
    await put(job.id, (await picture().jpeg().toBuffer()).subarray(0, 300)).expect(415)
    expect((await page(job.id)).photos).toHaveLength(2)
  })
})
