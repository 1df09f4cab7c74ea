import { randomUUID } from 'node:crypto'
import {
  blankDryRun,
  blankOil,
  blankOilSheet,
  newEvent,
  type BenchPage,
  type DryRunChange,
  type JobPage,
  type MadePartChange,
  type OilChange,
  type OilSheetChange,
  type RateEventChange,
  type StrikeCountChange,
  type StrikeWork,
  type WitnessChange,
  type WitnessListed,
} from '@treadle/contract'
import { oilMapOf, PART_SIZES, stopKey, strikesRight, type StrikeKind } from '@treadle/core'
import sharp from 'sharp'
import { beforeEach, describe, expect, test } from 'vitest'
import { markMeshes, powerOff, useWorkshop } from './workshop.ts'

const DAY_MS = 86_400_000
let now = new Date('2026-06-01T09:00:00Z')
const shop = useWorkshop({ now: () => now })
let page: JobPage

const again = async (id = page.job.id) => (await shop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const gate = async (name: string) => (await again()).gates.find((g) => g.name === name)!
const owed = async () => (await again()).owed.map((o) => `${o.kind}: ${o.title}`)
const put = <B extends { id: string }>(path: string, body: B, job = page.job.id) =>
  shop.request.put(`/api/jobs/${job}/${path}/${body.id}`).set('X-Bench', 'Ida').send(body)
const journal = async () =>
  ((await shop.request.get(`/api/jobs/${page.job.id}/journal`).expect(200)).body as { text: string }[]).map(
    (e) => e.text,
  )
const happened = (kind: RateEventChange['kind'], part: Partial<RateEventChange> = {}) =>
  put('events', { ...newEvent(randomUUID(), kind, now.toISOString()), ...part })
const title = (answer: { body: unknown }) => (answer.body as { title: string; detail?: string }).title

async function partIt(job = page.job.id): Promise<void> {
  for (const train of ['going', 'strike'])
    await shop.request.post(`/api/jobs/${job}/power`).send(powerOff(train)).expect(201)
  await markMeshes(shop.request, job)
  await shop.request.post(`/api/jobs/${job}/part`).send({}).expect(200)
}
const run = (train: DryRunChange['train'], part: Partial<DryRunChange> = {}): DryRunChange => ({
  ...blankDryRun(randomUUID(), { train, power: 'spring' }, now.toISOString()),
  ...part,
})
const FREE: Partial<DryRunChange> = { amount: 0.25, backsOff: 'yes', verdict: 'free' }
async function runDry(): Promise<void> {
  for (const train of ['going', 'strike'] as const) await put('dry-runs', run(train, FREE)).expect(201)
}
const toSet = async () => {
  const { version, bay: _, ...job } = (await again()).job
  const { complaint, runs, cameWith, promisedOn, standsAt, movedLately, lastServiced } = job
  await shop.request
    .patch(`/api/jobs/${page.job.id}`)
    .send({ version, bay: 'set', complaint, runs, cameWith, promisedOn, standsAt, movedLately, lastServiced })
    .expect(200)
}
async function strikesSo(kind: StrikeKind, halves: StrikeWork['halves'] = 'none'): Promise<void> {
  const { clock } = await again()
  const { version, name, kind: what, marks, trains, pendulum, work } = clock
  const strike = { kind, halves, pinArbor: null, pins: null, lockingArbor: null }
  await shop.request
    .patch(`/api/clocks/${clock.id}`)
    .send({ version, name, kind: what, marks, trains, pendulum, work: { ...work, strike } })
    .expect(200)
}

beforeEach(async () => {
  now = new Date('2026-06-01T09:00:00Z')
  page = await shop.takeIn()
})

describe('the dry run of each train', () => {
  test('is judged free only when what moved it is known and it backs off', async () => {
    for (const part of [{ verdict: 'free' }, { ...FREE, amount: null }, { ...FREE, backsOff: 'no' }] as const) {
      const answer = await put('dry-runs', run('going', part)).expect(400)
      expect(JSON.stringify(answer.body)).toMatch(/what moved it is known, and it backs off/)
    }
    await put('dry-runs', run('going', FREE)).expect(201)
    expect(await journal()).toContain('Run dry, going train: moved by 0.25 turns, backs off at the end, judged free.')
  })

  test('opens the gate when every train ran free, and none before', async () => {
    await partIt()
    expect((await gate('dry')).reason).toBe('Not run dry and judged yet: the going and strike train.')
    await put('dry-runs', run('going', FREE)).expect(201)
    expect((await gate('dry')).reason).toBe('Not run dry and judged yet: the strike train.')
    const tight = run('strike', { amount: 2, backsOff: 'no', verdict: 'tight' })
    await put('dry-runs', tight).expect(201)
    expect((await gate('dry')).reason).toBe('Tight when it was run dry: the strike train.')
    await put('dry-runs', { ...tight, version: 1, ...FREE }).expect(200)
    expect((await gate('dry')).passed).toBe(true)
  })

  test('a train has one: a second is laid beside the first', async () => {
    await put('dry-runs', run('going', { amount: 0.5 })).expect(201)
    const second = await put('dry-runs', run('going', { amount: 0.25 })).expect(409)
    expect(second.body).toMatchObject({ current: { amount: 0.5 } })
  })

  test('with one train only the others are not asked for', async () => {
    await partIt()
    const { version } = (await again()).job
    const visit = { version, scope: 'one-train', scopeTrain: 'going', scopeReason: 'Its strike was done last year.' }
    await shop.request
      .put(`/api/jobs/${page.job.id}/visit`)
      .send({ ...visit, waitsFor: '', waitsNote: '', waitsUntil: null })
      .expect(200)
    await put('dry-runs', run('going', FREE)).expect(201)
    expect((await gate('dry')).passed).toBe(true)
  })
})

describe('no oil before it ran dry', () => {
  const sheet = (part: Partial<OilSheetChange> = {}): OilSheetChange => ({ ...blankOilSheet(randomUUID()), ...part })

  test('a point is not ticked off, nor is it said to be oiled, nor read from a sheet', async () => {
    await partIt()
    const refused = await put('oil-sheets', sheet({ done: ['pallet faces'] })).expect(422)
    expect(title(refused)).toBe('Run it dry first: oil hides a tight train.')
    await happened('oiled').expect(422)
    const text = 'when,event\n2026-05-30 09:00,oiled'
    await shop.request.post(`/api/jobs/${page.job.id}/log`).send({ text, keep: true }).expect(422)
    expect((await again()).events).toEqual([])
    // What it will be oiled with may be chosen before.
    await put('oil-sheets', sheet({ note: 'Pale oil for the escapement.' })).expect(201)
  })

  test('it may be overridden in writing', async () => {
    await partIt()
    const override = { id: randomUUID(), gate: 'dry', reason: 'A tower clock: its trains were tried in the frame.' }
    await shop.request.post(`/api/jobs/${page.job.id}/overrides`).send(override).expect(201)
    await happened('oiled').expect(201)
  })

  test('a movement that was never apart is oiled in its place as it is', async () => {
    await happened('oiled').expect(201)
  })

  test('once begun, every point of its map is ticked off or left out before its gate opens', async () => {
    await partIt()
    await runDry()
    now = new Date(now.getTime() + 60_000)
    const first = sheet({ done: ['pallet faces'] })
    await put('oil-sheets', first).expect(201)
    await happened('oiled').expect(201)
    expect((await gate('oil')).reason).toMatch(/^Not ticked off on its oil map: /)
    const data = await again()
    const { trains, work, pendulum } = data.clock
    const keys = oilMapOf(first, { ...data, trains, work, pendulum, scopeTrain: '' }).map((p) => p.key)
    const [last, ...rest] = keys.toReversed()
    await put('oil-sheets', { ...first, version: 1, done: rest, left: [last!] }).expect(200)
    expect((await gate('oil')).passed).toBe(true)
    expect(await journal()).toContain('Oil map, ticked off: pallet faces.')
  })

  test('oiled after a tight train was put right is in order; a note written later changes nothing', async () => {
    await partIt()
    await runDry()
    now = new Date(now.getTime() + 60_000)
    await happened('oiled').expect(201)
    const going = (await again()).dryRuns.find((r) => r.train === 'going')!
    const { jobId: _j, at: _a, who: _w, whoId: _i, ...body } = going
    now = new Date(now.getTime() + 60_000)
    await put('dry-runs', { ...body, note: 'Quick and quiet.' }).expect(200)
    expect((await gate('dry')).passed).toBe(true)
  })
})

describe('oils and what pictures tell of them', () => {
  const oil = (part: Partial<OilChange> = {}): OilChange => ({
    ...blankOil(randomUUID(), 'pivot oil'),
    name: 'Pale oil',
    ...part,
  })
  const keep = (row: OilChange) => shop.request.put(`/api/oils/${row.id}`).send(row)
  const jpeg = () =>
    sharp({ create: { width: 40, height: 30, channels: 3, background: '#b98f3e' } })
      .jpeg()
      .toBuffer()
  const picture = async (job: string) => {
    const id = randomUUID()
    await shop.request
      .put(`/api/jobs/${job}/photos/${id}?caption=Sinks`)
      .set('Content-Type', 'image/jpeg')
      .send(await jpeg())
      .expect(201)
    return id
  }
  const witness = (part: Partial<WitnessChange> & { photoId: string }): WitnessChange => ({
    ...{ id: randomUUID(), version: 0, moment: 'oiled', side: 'front', state: '', note: '' },
    ...part,
  })

  test('are put in, changed, and taken out unless a clock has them', async () => {
    const row = oil({ openedOn: '2026-01-10', school: 'long' })
    await keep(row).expect(201)
    await keep({ ...row, version: 1, drawer: 'O1' }).expect(200)
    await keep({ ...row, version: 1, drawer: 'O2' }).expect(409)
    await put('oil-sheets', { ...blankOilSheet(randomUUID()), pivotOilId: row.id }).expect(201)
    const refused = await shop.request.delete(`/api/oils/${row.id}`).expect(409)
    expect(title(refused)).toMatch(/^Pale oil stays: it is in 1 clock/)
    const other = oil({ name: 'Never used' })
    await keep(other).expect(201)
    await shop.request.delete(`/api/oils/${other.id}`).expect(204)
    await keep(oil({ name: '' })).expect(400)
    await keep(oil({ keepsYears: 0 })).expect(400)
  })

  test('a picture of a clock that comes back bears witness of the oil of the visit before', async () => {
    const row = oil()
    await keep(row).expect(201)
    await put('oil-sheets', { ...blankOilSheet(randomUUID()), pivotOilId: row.id }).expect(201)
    await happened('oiled').expect(201)
    await put('witnesses', witness({ photoId: await picture(page.job.id), state: 'stays' })).expect(201)
    const first = now
    await shop.request.post(`/api/jobs/${page.job.id}/call-off`).send({ reason: 'in the way of the test' }).expect(200)
    now = new Date(now.getTime() + 3 * 365.25 * DAY_MS)
    const { ownerId: _o, version: _v, ...known } = page.clock
    const back = await shop.takeIn({ clock: known, owner: page.owner })
    await put(
      'witnesses',
      witness({ moment: 'visit', photoId: await picture(back.job.id), state: 'spread' }),
      back.job.id,
    ).expect(201)
    const seen = (await shop.request.get(`/api/clocks/${page.clock.id}/witnesses`).expect(200)).body as WitnessListed[]
    expect(seen.map((w) => [w.moment, w.oilId, w.oiledAt])).toEqual([
      ['oiled', row.id, first.toISOString()],
      ['visit', row.id, first.toISOString()],
    ])
    const all = (await shop.request.get('/api/oils/seen').expect(200)).body as WitnessListed[]
    expect(all.filter((w) => w.oilId === row.id).map((w) => w.state)).toEqual(['stays', 'spread'])
  })

  test('a picture of another job is refused', async () => {
    const { job } = await shop.takeIn()
    await put('witnesses', witness({ photoId: await picture(job.id) })).expect(400)
  })

  test('the clock is recalled when its own oil is due, not by the workshop’s school', async () => {
    const row = oil({ school: 'short' })
    await keep(row).expect(201)
    await put('oil-sheets', { ...blankOilSheet(randomUUID()), pivotOilId: row.id }).expect(201)
    await happened('oiled').expect(201)
    for (const g of (await again()).gates.filter((one) => !one.passed))
      await shop.request
        .post(`/api/jobs/${page.job.id}/overrides`)
        .send({ id: randomUUID(), gate: g.name, reason: 'Not what this test is of.' })
        .expect(201)
    await shop.request.post(`/api/jobs/${page.job.id}/close`).send({}).expect(200)
    // A year on: the short school’s check; the workshop’s own is at three years.
    now = new Date(now.getTime() + 360 * DAY_MS)
    const { recalls } = (await shop.request.get('/api/bench').expect(200)).body as BenchPage
    expect(recalls.filter((r) => r.job.id === page.job.id)).toHaveLength(1)
  })
})

describe('parts out are parts in, or there is a reason', () => {
  test('a part that does not go back says why, and the gate and the book say it', async () => {
    const step = {
      ...{ id: randomUUID(), version: 0, position: 1, part: 'Old mainspring', tray: 'going', screws: '', marks: '' },
      ...{ remark: '', count: 1, photoId: null, back: false, notBack: '' },
    }
    await put('strip-steps', step).expect(201)
    expect((await gate('parts')).reason).toMatch(/Left over .*Old mainspring/)
    await put('strip-steps', { ...step, version: 1, notBack: 'Set and rusted: a new one is in.' }).expect(200)
    expect((await gate('parts')).reason).not.toMatch(/Left over/)
    expect(await journal()).toContain('Does not go back: Old mainspring. Set and rusted: a new one is in.')
  })
})

describe('the strike counted round', () => {
  const count = (part: Partial<StrikeCountChange>): StrikeCountChange => ({
    ...{ id: randomUUID(), version: 0, hour: 1, quarter: 0, quarters: null, blows: 1, way: 'hand' },
    heardAt: now.toISOString(),
    ...part,
  })

  test('one time has one count; what it was before stays in the book', async () => {
    const wrong = count({ hour: 4, blows: 5 })
    await put('strike-counts', wrong).expect(201)
    await put('strike-counts', count({ hour: 4, blows: 4 })).expect(409)
    await put('strike-counts', { ...wrong, version: 1, blows: 4 }).expect(200)
    expect(await journal()).toContain('Struck at 4 o’clock: 4 blows; it was 5 before.')
  })

  test.each([{ hour: 13 }, { hour: 0 }, { quarter: 4 }, { blows: -1 }, { blows: 2.5 }, { blows: null }])(
    'refuses %j and changes nothing',
    async (part) => {
      await put('strike-counts', count(part)).expect(400)
      expect((await again()).strikeCounts).toEqual([])
    },
  )

  test('what a clock of its kind can’t strike at the half is refused', async () => {
    const { clock } = await again()
    const { version, name, kind, marks, trains, pendulum, work } = clock
    const strike = { kind: 'chime', halves: 'one', pinArbor: null, pins: null, lockingArbor: null }
    const answer = await shop.request
      .patch(`/api/clocks/${clock.id}`)
      .send({ version, name, kind, marks, trains, pendulum, work: { ...work, strike } })
      .expect(400)
    expect(JSON.stringify(answer.body)).toMatch(/a clock that strikes so can’t do that/)
  })

  test('a lost count wheel is drawn to cut, at its true size', async () => {
    const part: MadePartChange = {
      ...{ id: randomUUID(), version: 0, part: 'count wheel', name: 'drum clock', done: [] },
      sizes: Object.fromEntries(PART_SIZES['count wheel'].map((s) => [s.key, s.startMm])),
    }
    await put('made-parts', part).expect(201)
    const svg = String((await shop.request.get(`/api/jobs/${page.job.id}/made-parts/${part.id}.svg`).expect(200)).body)
    expect(svg).toMatch(/across: 50\.00; bore: Ø 5\.00/)
    expect(svg).toMatch(/<circle [^>]*r="2\.5"/)
    const dxf = String((await shop.request.get(`/api/jobs/${page.job.id}/made-parts/${part.id}.dxf`).expect(200)).body)
    expect(dxf).toMatch(/CIRCLE/)
    // The rim’s farthest points are 25 mm from the middle.
    const rim = dxf.slice(dxf.indexOf('LWPOLYLINE'), dxf.indexOf('CIRCLE'))
    const xs = [...rim.matchAll(/\n\s*10\n\s*(-?[\d.]+)/g)].map((m) => Math.abs(Number(m[1])))
    expect(Math.max(...xs)).toBeGreaterThan(24.9)
    expect(Math.max(...xs)).toBeLessThanOrEqual(25)
    await put('made-parts', { ...part, id: randomUUID(), sizes: { ...part.sizes, slotWideMm: 4 } }).expect(400)
  })
})

describe('a trial', () => {
  async function ready(): Promise<void> {
    await partIt()
    await runDry()
    now = new Date(now.getTime() + 60_000)
    await happened('oiled').expect(201)
    await toSet()
    await strikesSo('rack', 'one')
  }
  const strikeAt = async (hour: number, quarter: number, blows: number) => {
    const there = (await again()).strikeCounts.find((c) => c.hour === hour && c.quarter === quarter)
    const body = { id: there?.id ?? randomUUID(), version: there?.version ?? 0, hour, quarter, quarters: null, blows }
    await put('strike-counts', { ...body, way: 'hand', heardAt: now.toISOString() }).expect(there ? 200 : 201)
  }
  const later = (days: number) => (now = new Date(now.getTime() + days * DAY_MS))

  test('wants its days, a winding and its hours; a stop is asked about at once and begins it anew', async () => {
    await ready()
    expect(await owed()).toContain('strike: Count its strike round the dial')
    expect((await gate('trial')).reason).toBe('Its trial has not begun.')
    await happened('trial').expect(201)
    later(2)
    expect((await gate('trial')).reason).toBe(
      'Day 3 of 7. Still wanted: 5 days more without a change; a full winding since it counts; struck round the dial: 0 of 24 heard.',
    )
    // It stops, is found at its dial’s 3:47, and is started again.
    await happened('stopped', { showed: '3:47' }).expect(201)
    const stop = (await again()).events.find((e) => e.kind === 'stopped')!
    expect((await owed())[0]).toBe('stop: It stopped at 3:47: find out why')
    expect((await gate('trial')).reason).toMatch(/^Day 1 of 7/)
    const answer = { id: randomUUID(), version: 0, key: stopKey(stop.id), answer: 'found', figure: null, second: null }
    await put('observations', { ...answer, note: 'The rack was held.', photoId: null }).expect(201)
    expect((await owed()).join()).not.toMatch(/find out why/)
    later(1)
    for (const { hour, quarter, blows } of strikesRight('rack', 'one'))
      await strikeAt(hour, quarter, hour === 4 && quarter === 0 ? 5 : blows)
    await happened('winding').expect(201)
    later(6.5)
    expect((await gate('trial')).reason).toBe('Its days are up. Still wanted: its strike put right: 5 at 4 o’clock.')
    await strikeAt(4, 0, 4)
    expect((await gate('trial')).passed).toBe(true)
    expect(await owed()).toContain('trial: Its trial is over')
    // What was heard before a change has to be heard again.
    later(0.01)
    await happened('nut', { turns: 0.25 }).expect(201)
    expect((await gate('trial')).reason).toMatch(/struck round the dial: 0 of 24 heard/)
  })

  test('the hands set, and what is only noted, begin nothing anew', async () => {
    await ready()
    await happened('trial').expect(201)
    later(3)
    await happened('hands').expect(201)
    await happened('moon').expect(201)
    expect((await gate('trial')).reason).toMatch(/^Day 4 of 7/)
  })

  test('takes two weeks of a clock with a moon, which has to be seen to move', async () => {
    await ready()
    const { clock } = await again()
    const { version, name, kind, marks, trains, pendulum, work } = clock
    await shop.request
      .patch(`/api/clocks/${clock.id}`)
      .send({ version, name, kind, marks, trains, pendulum, work: { ...work, moon: true } })
      .expect(200)
    await happened('trial').expect(201)
    later(1)
    expect((await gate('trial')).reason).toMatch(/^Day 2 of 14\. .*its moon seen to move on\.$/)
    await happened('moon').expect(201)
    expect((await gate('trial')).reason).not.toMatch(/moon/)
  })

  test('a dial’s time that is none, or of what is no stop, is refused', async () => {
    await happened('stopped', { showed: '13:10' }).expect(400)
    await happened('stopped', { showed: '3.47' }).expect(400)
    await happened('winding', { showed: '3:47' }).expect(400)
  })

  test('its end stands in the calendar with what is still wanted', async () => {
    await ready()
    await happened('trial').expect(201)
    later(1)
    const entry = (await again()).owed.find((o) => o.kind === 'trial')!
    expect(entry).toMatchObject({ title: 'Trial, day 2 of 7', dueS: Date.parse('2026-06-08T09:01:00Z') / 1000 })
    expect(entry.why).toMatch(/a full winding/)
  })
})
