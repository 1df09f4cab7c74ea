import { randomUUID } from 'node:crypto'
import {
  newEvent,
  type JobPage,
  type WatchChange,
  type WatchMark,
  type WatchMinuteKept,
  type WatchPage,
} from '@treadle/contract'
import { encodeWav } from '@treadle/core'
import { beforeEach, describe, expect, test } from 'vitest'
import { useWorkshop } from './workshop.ts'

let now = new Date('2026-06-01T21:00:00Z')
const shop = useWorkshop({ now: () => now })
let page: JobPage
let watch: WatchChange

const again = async () => (await shop.request.get(`/api/jobs/${page.job.id}`).expect(200)).body as JobPage
const told = async (after = -1) =>
  (await shop.request.get(`/api/watches/${watch.id}?after=${after}`).expect(200)).body as WatchPage
const put = (body: WatchChange) => shop.request.put(`/api/jobs/${page.job.id}/watches/${body.id}`).send(body)
const tell = (minutes: WatchMinuteKept[], marks: WatchMark[] = []) =>
  shop.request.put(`/api/jobs/${page.job.id}/watches/${watch.id}/told`).send({ minutes, marks })
const journal = async () =>
  ((await shop.request.get(`/api/jobs/${page.job.id}/journal`).expect(200)).body as { text: string }[]).map(
    (e) => e.text,
  )
const minute = (n: number, part: Partial<WatchMinuteKept> = {}): WatchMinuteKept => ({
  minute: n,
  fromS: 60 * n,
  seconds: 60,
  beatsHeard: 120,
  beatsExpected: 120,
  rateSecondsPerDay: 3.5,
  rateStandardError: 0.2,
  outOfBeatMs: 1,
  outOfBeatStandardError: 0.1,
  scatterMs: 0.2,
  firstDb: -20,
  secondDb: -22,
  aheadS: 0.001 * n,
  sinceS: 0,
  ...part,
})
const mark = (part: Partial<WatchMark>): WatchMark => ({
  id: randomUUID(),
  kind: 'strike',
  fromS: 600,
  toS: null,
  blows: 3,
  bird: false,
  note: '',
  ...part,
})
const wav = () => Buffer.from(encodeWav(new Float32Array(8000), 8000))
const soundOf = (m: WatchMark, body: Buffer, type = 'audio/wav') =>
  shop.request
    .put(`/api/jobs/${page.job.id}/watches/${watch.id}/marks/${m.id}/sound`)
    .set('Content-Type', type)
    .send(body)

beforeEach(async () => {
  now = new Date('2026-06-01T21:00:00Z')
  page = await shop.takeIn()
  watch = {
    id: randomUUID(),
    version: 0,
    beganAt: '2026-06-01T20:00:00Z',
    endedAt: null,
    device: 'the bench',
    pickup: 'microphone',
    beatsPerHour: 7200,
    ticks: 'every beat',
    ppm: 0,
    ppmError: null,
  }
  await put(watch).expect(201)
})

describe('a watch', () => {
  test('is seen on the job, goes on and ends, each with its line', async () => {
    expect((await again()).watches).toMatchObject([{ id: watch.id, endedAt: null, device: 'the bench' }])
    await put({ ...watch, version: 1, endedAt: '2026-06-02T06:00:00Z' }).expect(200)
    expect((await again()).watches[0]!.endedAt).toBe('2026-06-02T06:00:00.000Z')
    expect(await journal()).toEqual(
      expect.arrayContaining([
        'A watch begins: by microphone on the bench, at 7200 beats an hour.',
        'The watch is over: by microphone, at 7200 beats an hour.',
      ]),
    )
  })

  test('can’t end before it began', async () => {
    const answer = await put({ ...watch, version: 1, endedAt: '2026-06-01T19:00:00Z' }).expect(400)
    expect(JSON.stringify(answer.body)).toContain('Ended: it must not be before it began')
  })

  test('keeps its minutes once, however often they are told, the last of a number counting', async () => {
    await tell([minute(0), minute(1), minute(1, { beatsHeard: 60 })]).expect(204)
    await tell([minute(1, { beatsHeard: 119 }), minute(2, { rateSecondsPerDay: null, aheadS: null })]).expect(204)
    const { minutes } = await told()
    expect(minutes.map((m) => [m.minute, m.beatsHeard])).toEqual([
      [0, 120],
      [1, 119],
      [2, 120],
    ])
    expect(minutes[2]).toMatchObject({ rateSecondsPerDay: null, aheadS: null, firstDb: -20 })
    expect((await told(1)).minutes.map((m) => m.minute)).toEqual([2])
  })

  test('refuses minutes that can’t be, and keeps none of what came with them', async () => {
    const answer = await tell([minute(0), minute(1, { beatsHeard: -1 })]).expect(400)
    expect(JSON.stringify(answer.body)).toContain('minutes[1].beatsHeard')
    await tell([{ ...minute(0), whose: 'mine' } as WatchMinuteKept]).expect(400)
    expect((await told()).minutes).toEqual([])
  })

  test('gives its rate by each half hour that it lasted, and by all of it once it is over', async () => {
    const toS = async () => (await again()).watches.find((w) => w.id === watch.id)?.run?.toS
    const minutes = (from: number, until: number) => Array.from({ length: until - from }, (_, i) => minute(from + i))
    await tell(minutes(0, 120)).expect(204)
    expect(await toS()).toBe(7200)
    await tell(minutes(120, 149)).expect(204)
    expect(await toS()).toBe(7200)
    await tell(minutes(149, 151)).expect(204)
    expect(await toS()).toBe(60 * 151)
    await tell(minutes(151, 161)).expect(204)
    const { version } = (await again()).watches.find((w) => w.id === watch.id)!
    await put({ ...watch, version, endedAt: '2026-06-01T22:41:00Z' }).expect(200)
    expect(await toS()).toBe(60 * 161)
    // What is still told of one that is over counts at once.
    await tell(minutes(161, 163)).expect(204)
    expect(await toS()).toBe(60 * 163)
  })

  test('of another clock is not told to, nor found under it', async () => {
    const other = await shop.takeIn()
    await shop.request
      .put(`/api/jobs/${other.job.id}/watches/${watch.id}/told`)
      .send({ minutes: [minute(0)], marks: [] })
      .expect(404)
    await shop.request.get(`/api/watches/${randomUUID()}`).expect(404)
    await shop.request.get('/api/watches/none').expect(404)
  })
})

describe('what a watch hears besides the beat', () => {
  test('a silence is written into the journal once, and closed when the clock goes on', async () => {
    const silent = mark({ kind: 'silent', fromS: 1200, blows: null, note: 'not heard' })
    await tell([], [silent]).expect(204)
    await tell([], [{ ...silent, toS: 1320 }]).expect(204)
    expect((await told()).marks).toMatchObject([{ kind: 'silent', toS: 1320, soundStored: false }])
    expect(
      (await journal()).filter((line) => line.startsWith('Watched: silent from 2026-06-01T20:20:00.000Z')),
    ).toHaveLength(1)
  })

  test('its sound is kept once, as WAV only, and goes with the watch', async () => {
    const odd = mark({ kind: 'odd', blows: null })
    await soundOf(odd, wav()).expect(404)
    await tell([], [odd]).expect(204)
    await soundOf(odd, Buffer.from('no sound')).expect(415)
    await soundOf(odd, wav(), 'text/plain').expect(415)
    await soundOf(odd, wav()).expect(204)
    await soundOf(odd, wav()).expect(204)
    expect((await told()).marks[0]!.soundStored).toBe(true)
    await shop.request.get(`/api/watch-marks/${odd.id}/sound`).expect(200).expect('Content-Type', /wav/)
    await shop.request.delete(`/api/jobs/${page.job.id}/watches/${watch.id}`).expect(204)
    expect((await again()).watches).toEqual([])
    await shop.request.get(`/api/watch-marks/${odd.id}/sound`).expect(404)
  })

  test('a mark of another watch can’t be taken over', async () => {
    const one = mark({})
    await tell([], [one]).expect(204)
    const second = { ...watch, id: randomUUID() }
    await put(second).expect(201)
    await shop.request
      .put(`/api/jobs/${page.job.id}/watches/${second.id}/told`)
      .send({ minutes: [], marks: [{ ...one, fromS: 1 }] })
      .expect(409)
    expect((await told()).marks).toMatchObject([{ fromS: 600 }])
  })
})

describe('a strike heard in a trial', () => {
  const strikesByRack = async () => {
    const { clock } = await again()
    const { version, name, kind, marks, trains, pendulum, work } = clock
    const strike = { kind: 'rack', halves: 'none', pinArbor: null, pins: null, lockingArbor: null }
    await shop.request
      .patch(`/api/clocks/${clock.id}`)
      .send({ version, name, kind, marks, trains, pendulum, work: { ...work, strike } })
      .expect(200)
    const settings = (await shop.request.get('/api/settings').expect(200)).body as Record<string, unknown>
    await shop.request
      .put('/api/settings')
      .send({ ...settings, timeZone: 'UTC' })
      .expect(200)
  }
  const beginTrial = async () => {
    const trial = newEvent(randomUUID(), 'trial', '2026-06-01T20:00:00Z')
    await shop.request.put(`/api/jobs/${page.job.id}/events/${trial.id}`).send(trial).expect(201)
  }
  /** 21:00 by the workshop’s clock is an hour after it began. */
  const atNine = (part: Partial<WatchMark> = {}) => mark({ fromS: 3612, blows: 9, ...part })

  test('fills its hour, a later one in its place, an earlier one not', async () => {
    await strikesByRack()
    await beginTrial()
    await tell([], [atNine()]).expect(204)
    expect((await again()).strikeCounts).toMatchObject([{ hour: 9, quarter: 0, blows: 9, way: 'microphone' }])
    await tell([], [atNine({ fromS: 3600 + 12 * 3600, blows: 8 })]).expect(204)
    await tell([], [atNine({ fromS: 3590, blows: 7 })]).expect(204)
    expect((await again()).strikeCounts).toMatchObject([{ hour: 9, blows: 8, version: 2 }])
    expect(await journal()).toContain('Heard by the watch: 9 struck at 9.')
  })

  test('leaves what was counted of the quarters', async () => {
    await strikesByRack()
    await beginTrial()
    const counted = {
      id: randomUUID(),
      version: 0,
      hour: 9,
      quarter: 0,
      quarters: 4,
      blows: 8,
      way: 'pedal',
      heardAt: '2026-06-01T20:30:00Z',
    }
    await shop.request.put(`/api/jobs/${page.job.id}/strike-counts/${counted.id}`).send(counted).expect(201)
    await tell([], [atNine()]).expect(204)
    expect((await again()).strikeCounts).toMatchObject([{ quarters: 4, blows: 9 }])
  })

  test('counts for nothing before the trial, between the hours, or where nobody has said how it strikes', async () => {
    await beginTrial()
    await tell([], [atNine()]).expect(204)
    await strikesByRack()
    await tell([], [mark({ fromS: 1800, blows: 1 }), mark({ fromS: 3600, blows: 16 })]).expect(204)
    expect((await again()).strikeCounts).toEqual([])
  })
})

describe('how a clock sounded before', () => {
  const sides = [0, 1].map(() => ({
    loudnessDb: -20,
    knocks: [{ ms: 0, share: 1 }],
    shape: Array.from({ length: 92 }, () => 0.5),
    rustleDb: 3,
  }))
  const listening = (id: string, at: string, part = {}) => ({
    id,
    at,
    pickup: 'microphone',
    fileName: '',
    purpose: 'beat',
    firstSide: 'left',
    beatsPerHour: 7200,
    nominalBeatsPerHour: 7200,
    rateSecondsPerDay: 0,
    rateStandardError: 0.1,
    firstToSecondMs: 501,
    secondToFirstMs: 499,
    outOfBeatStandardError: 0.1,
    scatterMs: 0.2,
    beatsHeard: 100,
    beatsExpected: 100,
    rejected: 0,
    slips: 0,
    secondsAnalysed: 50,
    confidence: 0.9,
    analyserVersion: '2',
    beatTimesS: [],
    hasSound: false,
    changeMm: null,
    ...part,
  })
  const keep = (body: { id: string }) => shop.request.put(`/api/jobs/${page.job.id}/listenings/${body.id}`).send(body)

  test('is of an earlier visit only; a listening without it is kept too', async () => {
    await keep(listening(randomUUID(), '2026-06-01T20:30:00Z', { sides })).expect(201)
    await keep(listening(randomUUID(), '2026-06-01T20:31:00Z')).expect(201)
    const before = await shop.request.get(`/api/jobs/${page.job.id}/sound-before`).expect(200)
    expect(before.body).toBeNull()
    await keep(listening(randomUUID(), '2020-06-01T20:30:00Z', { sides: [sides[0]] })).expect(400)
  })

  const swings = async (semiArcDeg: number) => {
    const { version, name, kind, marks, trains, pendulum, work } = (await again()).clock
    await shop.request
      .patch(`/api/clocks/${page.clock.id}`)
      .send({ version, name, kind, marks, trains, work, pendulum: { ...pendulum, semiArcDeg } })
      .expect(200)
  }

  test('a clock’s fingerprint is the last that was heard on a visit that is over', async () => {
    const of = async () =>
      (await shop.request.get(`/api/clocks/${page.clock.id}/fingerprint`).expect(200)).body as unknown
    await swings(4.5)
    await keep(listening(randomUUID(), '2026-06-01T20:30:00Z', { sides, scatterMs: 0.5 })).expect(201)
    await keep(listening(randomUUID(), '2026-06-01T20:40:00Z', { sides, scatterMs: 0.25 })).expect(201)
    expect(await of()).toBeNull()
    // Its arc is that of the day, whatever is written of the clock afterwards.
    await swings(1.25)
    await shop.request.post(`/api/jobs/${page.job.id}/call-off`).send({ reason: 'The owner took it home.' }).expect(200)
    expect(await of()).toMatchObject({
      ...{ scatterMs: 0.25, firstToSecondMs: 501, sides: [{ rustleDb: 3 }, {}] },
      semiArcDeg: 4.5,
    })
  })
})
