import { randomUUID } from 'node:crypto'
import {
  blankPendulumSheet,
  blankRunDown,
  newEvent,
  type JobPage,
  type PendulumSheetChange,
  type RunDownChange,
} from '@treadle/contract'
import { blankPart, rateBookOf } from '@treadle/core'
import { beforeEach, describe, expect, test } from 'vitest'
import { useWorkshop } from './workshop.ts'

const now = new Date('2026-06-20T08:00:00Z')
const shop = useWorkshop({ now: () => now })
let page: JobPage

const job = (path = '') => `/api/jobs/${page.job.id}${path}`
const again = async () => (await shop.request.get(job()).expect(200)).body as JobPage
const journal = async () =>
  ((await shop.request.get(job('/journal')).expect(200)).body as { text: string }[]).map((e) => e.text)

beforeEach(async () => {
  page = await shop.takeIn()
  const settings = (await shop.request.get('/api/settings').expect(200)).body as Record<string, unknown>
  await shop.request
    .put('/api/settings')
    .send({ ...settings, timeZone: 'UTC' })
    .expect(200)
})

const PARTS = [
  { ...blankPart('rod'), atMm: 520, lengthMm: 1010, acrossMm: 7 },
  { ...blankPart('bob'), atMm: 985, acrossMm: 170, massG: 4200 },
  { ...blankPart('tray'), atMm: 490, massG: 9 },
]

describe('a pendulum laid out', () => {
  const put = (sheet: PendulumSheetChange) => shop.request.put(job(`/pendulums/${sheet.id}`)).send(sheet)

  test('is kept, changed by version, told in the journal, and taken back', async () => {
    const sheet = { ...blankPendulumSheet(randomUUID()), parts: PARTS }
    await put(sheet).expect(201)
    const [kept] = (await again()).pendulums
    expect(kept).toMatchObject({ parts: PARTS, threadUpMm: null, version: 1 })
    await put({ ...sheet, version: 1, threadUpMm: 12 }).expect(200)
    await put({ ...sheet, version: 1, threadUpMm: 14 }).expect(409)
    expect((await again()).pendulums[0]!.threadUpMm).toBe(12)
    expect(await journal()).toContain('Pendulum laid out: rod of steel, bob of lead, tray of brass.')
    await shop.request.delete(job(`/pendulums/${sheet.id}`)).expect(204)
    expect((await again()).pendulums).toEqual([])
  })

  test('there is one of a job: who lays out another is shown it', async () => {
    await put({ ...blankPendulumSheet(randomUUID()), parts: PARTS }).expect(201)
    await put({ ...blankPendulumSheet(randomUUID()), parts: [] }).expect(409)
    expect((await again()).pendulums).toHaveLength(1)
  })

  test.each([
    [{ parts: Array.from({ length: 41 }, () => PARTS[0]!) }, /Parts/],
    [{ parts: [{ ...PARTS[0]!, material: 'cheese' }] }, /Made of/],
    [{ parts: [{ ...PARTS[0]!, lengthMm: -4 }] }, /Length/],
    [{ parts: [{ ...PARTS[0]!, pairs: 99 }] }, /Pairs/],
    [{ threadUpMm: 9000 }, /Thread left to raise/],
  ])('%#: what it can’t be is refused by its name, and nothing is written', async (part, message) => {
    const sheet = { ...blankPendulumSheet(randomUUID()), parts: PARTS, ...part } as PendulumSheetChange
    const answer = await put(sheet).expect(400)
    expect(JSON.stringify(answer.body)).toMatch(message)
    expect((await again()).pendulums).toEqual([])
  })
})

describe('a run-down', () => {
  const put = (run: RunDownChange) => shop.request.put(job(`/run-downs/${run.id}`)).send(run)
  const run = (readings: RunDownChange['readings']): RunDownChange => ({
    ...blankRunDown(randomUUID(), 'found', '2026-06-19T10:00:00Z'),
    readings,
  })

  test('is kept arc by arc, before the repair and after it', async () => {
    const found = run([{ atS: 0, semiArcDeg: 2.4 }])
    await put(found).expect(201)
    await put({
      ...found,
      version: 1,
      readings: [...found.readings, { atS: 600, semiArcDeg: 2 }],
    }).expect(200)
    await put({ ...run([]), when: 'after', ranAt: '2026-06-20T07:00:00Z' }).expect(201)
    const { runDowns } = await again()
    expect(runDowns.map((r) => r.when)).toEqual(['found', 'after'])
    expect(await journal()).toContain(
      'Pendulum left to run down, before the repair: 2 arcs from 2.40° to 2.00° in 600 s.',
    )
  })

  test('arcs out of their order are refused in a sentence', async () => {
    const odd = run([
      { atS: 600, semiArcDeg: 2 },
      { atS: 60, semiArcDeg: 2.4 },
    ])
    expect(JSON.stringify((await put(odd).expect(400)).body)).toMatch(/each must be of a later moment/)
    expect((await again()).runDowns).toEqual([])
  })
})

describe('how warm it is beside a clock', () => {
  const put = (temperatures: unknown) => shop.request.put(job('/thermometer')).send({ temperatures })
  const kept = async () => (await again()).thermometers[0]?.temperatures ?? []

  test('is added to, told twice it is there once, and taken away', async () => {
    await put([{ at: '2026-06-19T10:00:00Z', celsius: 18 }]).expect(204)
    await put([
      { at: '2026-06-19T10:00:00Z', celsius: 18 },
      { at: '2026-06-18T10:00:00Z', celsius: 17 },
    ]).expect(204)
    expect((await kept()).map((t) => t.celsius)).toEqual([17, 18])
    await shop.request.delete(job('/thermometer')).expect(204)
    expect(await kept()).toEqual([])
    await shop.request.delete(job('/thermometer')).expect(204)
    expect((await journal()).filter((t) => t.startsWith('Taken away'))).toHaveLength(1)
  })

  test('a logger’s sheet is read since the clock came, thinned, and its odd lines named', async () => {
    const lines = Array.from({ length: 700 }, (_, i) => {
      const at = new Date(Date.parse('2026-06-20T06:00:00Z') + i * 60_000)
      return `${at.toISOString()},${(18 + i / 1000).toFixed(2)}`
    })
    const text = ['time,temperature °C', '2020-01-01T00:00:00Z,5', 'yesterday,7', ...lines].join('\n')
    const { body } = await shop.request.post(job('/thermometer/logger')).send({ text }).expect(200)
    expect(body).toMatchObject({ read: 701, kept: 700 })
    expect((body as { wrong: { line: number }[] }).wrong[0]).toMatchObject({ line: 3 })
    const there = await kept()
    expect(there.length).toBeLessThanOrEqual(400)
    expect(there.every((t) => t.celsius >= 18)).toBe(true)
  })

  test('what is told beside a watch counts for the rate book too', async () => {
    const watch = {
      id: randomUUID(),
      version: 0,
      beganAt: '2026-06-18T20:00:00Z',
      endedAt: '2026-06-19T20:00:00Z',
      device: 'the bench',
      pickup: 'microphone',
      beatsPerHour: 7200,
      ticks: 'every beat',
      ppm: 0,
      ppmError: 2,
    }
    await shop.request
      .put(job(`/watches/${watch.id}`))
      .send(watch)
      .expect(201)
    const temperatures = [{ at: '2026-06-19T10:00:00Z', celsius: 16 }]
    await shop.request
      .put(job(`/watches/${watch.id}/temperatures`))
      .send({ temperatures })
      .expect(204)
    expect(await kept()).toEqual(temperatures)
    // Taken away there, they no longer count here; what was told of another time stays.
    await put([{ at: '2026-06-17T10:00:00Z', celsius: 15 }]).expect(204)
    await shop.request.delete(job(`/watches/${watch.id}/temperatures`)).expect(204)
    expect((await kept()).map((t) => t.celsius)).toEqual([15])
  })
})

describe('readings with what lay beside them', () => {
  const reading = (day: number, more: object = {}) => {
    const id = randomUUID()
    const body = {
      id,
      version: 0,
      at: `2026-06-${String(day).padStart(2, '0')}T10:00:00Z`,
      errorSeconds: -2 * day,
      sigmaSeconds: 0.5,
      way: 'eye',
      ...more,
    }
    return shop.request.put(job(`/readings/${id}`)).send(body)
  }

  test('are kept, told in the journal, and left as they are by who does not name them', async () => {
    await reading(10, { temperatureC: 18.5, semiArcDeg: 2.1, pressureHpa: 1013 }).expect(201)
    const [kept] = (await again()).readings
    expect(kept).toMatchObject({ temperatureC: 18.5, semiArcDeg: 2.1, pressureHpa: 1013 })
    const { id, at, sigmaSeconds, way } = kept!
    await shop.request
      .put(job(`/readings/${id}`))
      .send({ id, version: 1, at, sigmaSeconds, way, errorSeconds: -21 })
      .expect(200)
    expect((await again()).readings[0]).toMatchObject({ errorSeconds: -21, temperatureC: 18.5 })
    expect((await journal()).some((t) => t.includes('at 18.5 °C, semi-arc 2.1°, 1013 hPa'))).toBe(true)
    const refused = await reading(11, { temperatureC: 200 }).expect(400)
    expect(JSON.stringify(refused.body)).toMatch(/Warmth|warmth|temperatureC/)
  })

  test('go out as a sheet and come back; without a heading warmth stands fourth', async () => {
    await reading(10, { temperatureC: 18.5, semiArcDeg: 2.1 }).expect(201)
    const event = { ...newEvent(randomUUID(), 'tray', '2026-06-11T10:00:00Z'), grams: 1.5 }
    await shop.request
      .put(job(`/events/${event.id}`))
      .send(event)
      .expect(201)
    const saved = (await shop.request.get(job('/log.csv')).expect(200)).text
    expect(saved.split('\n')[0]).toMatch(/warmth °C,semi-arc °,pressure hPa,grams/)
    const other = await shop.takeIn()
    const send = (text: string) =>
      shop.request.post(`/api/jobs/${other.job.id}/log`).send({ text, keep: true }).expect(200)
    expect((await send(saved)).body).toMatchObject({ kept: 2, wrong: [] })
    expect((await send('2026-06-12 09:05, -12.5, eye, 19.2')).body).toMatchObject({ kept: 1, wrong: [] })
    const there = (await shop.request.get(`/api/jobs/${other.job.id}`).expect(200)).body as JobPage
    expect(there.readings.map((r) => r.temperatureC)).toEqual([18.5, 19.2])
    expect(there.events[0]).toMatchObject({ kind: 'tray', grams: 1.5 })
  })

  test('a weight on the tray needs its grams, and is known to the rate book by the pendulum', async () => {
    const event = newEvent(randomUUID(), 'tray', '2026-06-14T10:00:00Z')
    const refused = await shop.request
      .put(job(`/events/${event.id}`))
      .send(event)
      .expect(400)
    expect(JSON.stringify(refused.body)).toMatch(/Grams: say what was laid on the tray/)
    await shop.request
      .put(job(`/events/${event.id}`))
      .send({ ...event, grams: 2 })
      .expect(201)
    const sheet = { ...blankPendulumSheet(randomUUID()), parts: PARTS }
    await shop.request
      .put(job(`/pendulums/${sheet.id}`))
      .send(sheet)
      .expect(201)
    for (const day of [10, 11, 12, 13]) await reading(day).expect(201)
    await reading(15).expect(201)
    const told = await again()
    const settings = { rateToleranceSecondsPerDay: 5, rateGoalSecondsPerDay: 1 }
    const aims = { pendulum: told.clock.pendulum, settings }
    expect(rateBookOf(told, aims)!.standardError!).toBeLessThan(
      rateBookOf({ ...told, pendulums: [] }, aims)?.standardError ?? Infinity,
    )
    expect(await journal()).toContain('2 g laid on the tray.')
  })
})

test('where a clock stands at home is kept with it, and bounded', async () => {
  const { version, name, kind, marks, trains, pendulum, work, id } = page.clock
  const change = { version, name, kind, marks, trains, pendulum, work }
  const home = { latitudeDeg: 57.2, altitudeM: 4, winterC: 11, summerC: 21 }
  await shop.request
    .patch(`/api/clocks/${id}`)
    .send({ ...change, home })
    .expect(200)
  expect((await again()).clock.home).toEqual(home)
  await shop.request
    .patch(`/api/clocks/${id}`)
    .send({ ...change, version: version + 1, home: { ...home, latitudeDeg: 95 } })
    .expect(400)
  // Who does not name it leaves it.
  await shop.request
    .patch(`/api/clocks/${id}`)
    .send({ ...change, version: version + 1, name: 'Another name' })
    .expect(200)
  expect((await again()).clock.home).toEqual(home)
})
