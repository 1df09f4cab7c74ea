import { randomUUID } from 'node:crypto'
import type { FootingChange, JobPage, WatchChange, WatchMark, WatchMinuteKept, WatchPage } from '@treadle/contract'
import { rateBookOf } from '@treadle/core'
import { beforeEach, describe, expect, test } from 'vitest'
import { useWorkshop } from './workshop.ts'

let now = new Date('2026-06-02T08:00:00Z')
const shop = useWorkshop({ now: () => now })
let page: JobPage
let watch: WatchChange

const path = () => `/api/jobs/${page.job.id}/watches/${watch.id}`
const again = async () => (await shop.request.get(`/api/jobs/${page.job.id}`).expect(200)).body as JobPage
const told = async () => (await shop.request.get(`/api/watches/${watch.id}`).expect(200)).body as WatchPage
const journal = async () =>
  ((await shop.request.get(`/api/jobs/${page.job.id}/journal`).expect(200)).body as { text: string }[]).map(
    (e) => e.text,
  )

beforeEach(async () => {
  now = new Date('2026-06-02T08:00:00Z')
  page = await shop.takeIn()
  const settings = (await shop.request.get('/api/settings').expect(200)).body as Record<string, unknown>
  await shop.request
    .put('/api/settings')
    .send({ ...settings, timeZone: 'UTC' })
    .expect(200)
  watch = {
    id: randomUUID(),
    version: 0,
    beganAt: '2026-06-01T20:00:00Z',
    endedAt: '2026-06-02T06:00:00Z',
    device: 'the bench',
    pickup: 'microphone',
    beatsPerHour: 7200,
    ticks: 'every beat',
    ppm: 0,
    ppmError: 2,
  }
  await shop.request.put(path()).send(watch).expect(201)
})

describe('how warm it is beside a watch', () => {
  const put = (temperatures: unknown) => shop.request.put(`${path()}/temperatures`).send({ temperatures })
  const logger = async (text: string) =>
    (await shop.request.post(`${path()}/logger`).send({ text }).expect(200)).body as {
      read: number
      kept: number
      wrong: { line: number; message: string }[]
    }

  test('is typed, shown with the watch and not on the page of the job, and taken away', async () => {
    await put([{ at: '2026-06-01T21:00:00Z', celsius: 18.5 }]).expect(204)
    expect((await told()).watch.temperatures).toEqual([{ at: '2026-06-01T21:00:00Z', celsius: 18.5 }])
    expect((await again()).watches[0]).not.toHaveProperty('temperatures')
    await put([{ at: '2026-06-01T21:00:00Z', celsius: 18.5 }]).expect(204)
    expect((await journal()).filter((t) => t.startsWith('Beside the watch'))).toHaveLength(1)
    // Told by another device meanwhile: both stay, in order of time.
    await put([{ at: '2026-06-01T20:30:00Z', celsius: 19 }]).expect(204)
    expect((await told()).watch.temperatures.map((t) => t.celsius)).toEqual([19, 18.5])
    await shop.request.delete(`${path()}/temperatures`).expect(204)
    expect((await told()).watch.temperatures).toEqual([])
  })

  test.each([
    [[{ at: '2026-06-01T21:00:00Z', celsius: 300 }], 'Temperature'],
    [[{ at: 'in the evening', celsius: 20 }], 'temperatures[0].at'],
    [[{ at: '2026-06-01T21:00:00Z', celsius: 20, humidity: 60 }], 'temperatures[0]'],
    ['warm', 'temperatures'],
  ])('that can’t be is refused by its field: %j', async (body, field) => {
    const answer = await put(body).expect(400)
    expect(JSON.stringify(answer.body)).toContain(field)
    expect((await told()).watch.temperatures).toEqual([])
  })

  test('comes from a logger’s sheet: its columns by their heading, only what lies in the time of the watch', async () => {
    const answer = await logger(
      [
        'No.;Date;Time;Temperature (°C);Humidity',
        '1;2026-06-01;21:00;19,5;50',
        '2;2026-06-02;03:00;16,25;55',
        '3;2026-06-09;03:00;15;55',
        '4;2026-06-02;04:00;warm;55',
        '5;soon;;15;55',
      ].join('\n'),
    )
    expect(answer).toMatchObject({ read: 3, kept: 2 })
    expect(answer.wrong.map((w) => w.line)).toEqual([5, 6])
    expect((await told()).watch.temperatures).toEqual([
      { at: '2026-06-01T21:00:00.000Z', celsius: 19.5 },
      { at: '2026-06-02T03:00:00.000Z', celsius: 16.25 },
    ])
    // Read twice it is there once; in Fahrenheit by its heading; without a heading the first two columns.
    await logger('time,temp °F\n2026-06-01 21:00,67.1\n2026-06-01 22:00,50')
    await logger('2026-06-01 23:00,12')
    expect((await told()).watch.temperatures.map((t) => Math.round(10 * t.celsius) / 10)).toEqual([19.5, 10, 12, 16.3])
  })

  test('a long record is thinned by means of neighbours, an unreadable one says so', async () => {
    const lines = Array.from({ length: 9000 }, (_, i) => {
      const at = new Date(Date.parse('2026-06-01T20:00:00Z') + 4000 * i).toISOString().slice(0, 19)
      return `${at},${(15 + (i % 3)).toFixed(1)}`
    })
    expect(await logger(lines.join('\n'))).toMatchObject({ kept: 1000 })
    const { temperatures } = (await told()).watch
    expect(temperatures).toHaveLength(1000)
    expect(temperatures.every((t) => Math.abs(t.celsius - 16) < 1e-9)).toBe(true)
    expect(await logger('a letter, of some length')).toMatchObject({ kept: 0, wrong: [{ line: 1 }] })
  })
})

describe('what a watch gives the rate book', () => {
  const minutes = (hours: number): WatchMinuteKept[] =>
    Array.from({ length: hours * 60 }, (_, n) => ({
      minute: n,
      fromS: 60 * n,
      seconds: 60,
      beatsHeard: 120,
      beatsExpected: 120,
      rateSecondsPerDay: -8 + (n % 2),
      rateStandardError: 0.2,
      outOfBeatMs: 1,
      outOfBeatStandardError: 0.1,
      scatterMs: 0.2,
      firstDb: -20,
      secondDb: -22,
      aheadS: (-7.5 * n) / 1440,
      sinceS: 0,
    }))
  const tell = (rows: WatchMinuteKept[], marks: WatchMark[] = []) =>
    shop.request.put(`${path()}/told`).send({ minutes: rows, marks }).expect(204)

  test('is the rate of its longest stretch, told anew with every minute, and part of the book', async () => {
    await tell(minutes(1))
    expect((await again()).watches[0]!.run).toBeNull()
    await tell(minutes(6))
    const job = await again()
    expect(job.watches[0]!.run).toMatchObject({ fromS: 0, toS: 21_600 })
    expect(job.watches[0]!.run!.secondsPerDay).toBeCloseTo(-7.5, 6)
    const aims = {
      pendulum: { pitchMm: null, lengthMm: null },
      settings: { rateToleranceSecondsPerDay: 10, rateGoalSecondsPerDay: 1 },
    }
    const book = rateBookOf({ readings: job.readings, events: job.events, watches: job.watches }, aims)
    expect(book!.rateSecondsPerDay).toBeCloseTo(-7.5, 0)
  })

  const struck = (fromS: number, blows: number, part: Partial<WatchMark> = {}): WatchMark => ({
    id: randomUUID(),
    kind: 'strike',
    fromS,
    toS: null,
    blows,
    bird: false,
    note: '',
    ...part,
  })
  const read = () => shop.request.put(`${path()}/strikes-read`)

  test('its hours become readings once, halves and birds do not, and all are taken back at once', async () => {
    expect(JSON.stringify((await read().expect(409)).body)).toContain('How it strikes is not written down')
    const { clock } = page
    const { version, name, kind, marks, trains, pendulum, work } = clock
    const strike = { kind: 'rack', halves: 'one', pinArbor: null, pins: null, lockingArbor: null }
    await shop.request
      .patch(`/api/clocks/${clock.id}`)
      .send({ version, name, kind, marks, trains, pendulum, work: { ...work, strike } })
      .expect(200)
    await tell(
      [],
      [struck(3612.5, 9), struck(5410, 1), struck(7188, 10), struck(3612, 9, { bird: true }), struck(9000, 7)],
    )
    expect((await read().expect(200)).body).toEqual({ kept: 2 })
    expect((await read().expect(200)).body).toEqual({ kept: 0 })
    expect((await again()).readings).toMatchObject([
      { at: '2026-06-01T21:00:12.500Z', errorSeconds: -12.5, way: 'strike', sigmaSeconds: 4 },
      { at: '2026-06-01T21:59:48.000Z', errorSeconds: 12, way: 'strike' },
    ])
    await shop.request.delete(`${path()}/strikes-read`).expect(204)
    expect((await again()).readings).toEqual([])
    expect(await journal()).toContain('Taken back: 2 readings by the strike.')
    // With a watch that is taken back what was read of it goes too.
    expect((await read().expect(200)).body).toEqual({ kept: 2 })
    await shop.request.delete(path()).expect(204)
    expect((await again()).readings).toEqual([])
  })
})

describe('where it stands in beat', () => {
  const footing: FootingChange = {
    id: randomUUID(),
    version: 0,
    way: 'sensor',
    stoodAtDeg: 0.1,
    evenAtDeg: -0.42,
    standardError: 0.03,
    msPerDeg: 14,
    swings: 80,
  }
  const put = (part: Partial<FootingChange> = {}) =>
    shop.request.put(`/api/jobs/${page.job.id}/footings/${footing.id}`).send({ ...footing, ...part })

  test('is kept with the visit, and taken back', async () => {
    await put().expect(201)
    expect((await again()).footings).toMatchObject([{ id: footing.id, evenAtDeg: -0.42, way: 'sensor' }])
    expect(await journal()).toContain(
      'Rocked: in beat at 0.42° to the left (± 0.03°); it stood at 0.10° to the right; by the tilt sensor of the device on its case.',
    )
    await shop.request.delete(`/api/jobs/${page.job.id}/footings/${footing.id}`).expect(204)
    expect((await again()).footings).toEqual([])
  })

  test.each([
    [{ way: 'eye' as 'level' }, 'How'],
    [{ stoodAtDeg: 90 }, 'It stood at'],
    [{ swings: 1.5 }, 'swings'],
  ])('is refused by its field: %j', async (part, field) => {
    expect(JSON.stringify((await put(part).expect(400)).body)).toContain(field)
    expect((await again()).footings).toEqual([])
  })
})
