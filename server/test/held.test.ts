import { randomUUID } from 'node:crypto'
import {
  blankBushing,
  blankPivot,
  type BushingChange,
  type JobPage,
  type JournalEntry,
  type ReservationChange,
  type StockChange,
  type StockRow,
} from '@treadle/contract'
import pg from 'pg'
import { describe, expect, test, vi } from 'vitest'
import { markMeshes, newHole, newJob, powerOff, useWorkshop } from './workshop.ts'

const shop = useWorkshop()
const ROUNDS = 12

const page = async (id: string) => (await shop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const journal = async (id: string) => (await shop.request.get(`/api/jobs/${id}/journal`)).body as JournalEntry[]

function bush(part: Partial<StockChange> = {}): StockChange {
  return {
    id: randomUUID(),
    version: 0,
    kind: 'bush',
    name: '',
    material: 'bronze',
    outsideMm: 2.02,
    insideMm: 1,
    lengthMm: 3,
    measuredMm: null,
    widthMm: null,
    thickMm: null,
    count: 5,
    lowAt: 0,
    drawer: 'B1',
    ...part,
  }
}

async function stocked(part: Partial<StockChange> = {}): Promise<StockChange> {
  const one = bush(part)
  await shop.request.put(`/api/stock/${one.id}`).send(one).expect(201)
  return one
}

async function countOf(id: string): Promise<{ count: number; reserved: number }> {
  const all = (await shop.request.get('/api/stock')).body as StockRow[]
  const row = all.find((s) => s.id === id)
  return { count: row?.count ?? NaN, reserved: row?.reserved ?? NaN }
}

const reservation = (stockId: string, part: Partial<ReservationChange> = {}): ReservationChange => ({
  id: randomUUID(),
  version: 0,
  stockId,
  holeId: null,
  count: 1,
  taken: false,
  ...part,
})
const put = <R extends { id: string }>(jobId: string, path: string, row: R) =>
  shop.request.put(`/api/jobs/${jobId}/${path}/${row.id}`).send(row)
const back = (jobId: string, path: string, id: string) => shop.request.delete(`/api/jobs/${jobId}/${path}/${id}`)
const statuses = async (asked: PromiseLike<{ status: number }>[]) =>
  (await Promise.all(asked.map(async (one) => (await one).status))).sort()

describe('what is refused changes nothing in the drawer', () => {
  test('a stale change, and one under another job', async () => {
    const { job } = await shop.takeIn()
    const { job: other } = await shop.takeIn()
    const one = await stocked()
    const mine = reservation(one.id)
    await put(job.id, 'reservations', mine).expect(201)
    await put(job.id, 'reservations', { ...mine, version: 1, count: 2 }).expect(200)
    // Made on the version before, it would take one out.
    await put(job.id, 'reservations', { ...mine, version: 1, taken: true }).expect(409)
    expect(await countOf(one.id)).toEqual({ count: 5, reserved: 2 })
    await put(other.id, 'reservations', { ...mine, version: 2, taken: true }).expect(404)
    await put(other.id, 'reservations', { ...mine, taken: true }).expect(409)
    await back(other.id, 'reservations', mine.id).expect(204)
    expect(await countOf(one.id)).toEqual({ count: 5, reserved: 2 })
  })

  test('more than there are, and a promise for another job’s hole', async () => {
    const { job } = await shop.takeIn()
    const { job: other } = await shop.takeIn()
    const theirs = newHole()
    await put(other.id, 'holes', theirs).expect(201)
    const one = await stocked({ count: 2 })
    await put(job.id, 'reservations', reservation(one.id, { count: 3, taken: true })).expect(409)
    const answer = await put(job.id, 'reservations', reservation(one.id, { holeId: theirs.id })).expect(400)
    expect(answer.text).toContain('not one of this job')
    expect(await countOf(one.id)).toEqual({ count: 2, reserved: 0 })
    expect((await journal(job.id)).filter((e) => e.kind === 'stock')).toEqual([])
  })

  test('a count below what is promised, by hand or by a list taken back', async () => {
    const { job } = await shop.takeIn()
    const one = await stocked({ outsideMm: 2.52, count: 4 })
    const list = {
      id: randomUUID(),
      csv: `kind,material,outside mm,inside mm,length mm,count\nbush,bronze,2.52,1,3,9\n`,
    }
    await shop.request
      .post('/api/stock/lists')
      .send({ ...list, keep: true })
      .expect(200)
    await put(job.id, 'reservations', reservation(one.id, { count: 6 })).expect(201)
    const answer = await shop.request
      .put(`/api/stock/${one.id}`)
      .send({ ...one, version: 2, count: 5 })
      .expect(400)
    expect(answer.text).toContain('6 of these are promised')
    await shop.request.post(`/api/stock/lists/${list.id}/undo`).send({}).expect(409)
    expect(await countOf(one.id)).toEqual({ count: 9, reserved: 6 })
  })
})

describe('what is sent twice at once counts once', () => {
  test('taken', async () => {
    const { job } = await shop.takeIn()
    const one = await stocked({ count: 100 })
    for (let round = 0; round < ROUNDS; round++) {
      const mine = reservation(one.id)
      await put(job.id, 'reservations', mine).expect(201)
      const taken = { ...mine, version: 1, taken: true }
      expect(await statuses([put(job.id, 'reservations', taken), put(job.id, 'reservations', taken)])).toEqual([
        200, 200,
      ])
      expect((await countOf(one.id)).count).toBe(99 - round)
    }
  })

  test('put back, three times', async () => {
    const { job } = await shop.takeIn()
    const one = await stocked({ count: 3 })
    for (let round = 0; round < ROUNDS; round++) {
      const mine = reservation(one.id, { taken: true })
      await put(job.id, 'reservations', mine).expect(201)
      expect((await countOf(one.id)).count).toBe(2)
      const thrice = [1, 2, 3].map(() => back(job.id, 'reservations', mine.id))
      expect(await statuses(thrice)).toEqual([204, 204, 204])
      expect(await countOf(one.id)).toEqual({ count: 3, reserved: 0 })
    }
  })

  test('the last one, wanted by two jobs', async () => {
    const { job } = await shop.takeIn()
    const { job: other } = await shop.takeIn()
    for (let round = 0; round < ROUNDS; round++) {
      const one = await stocked({ count: 1 })
      const both = [job, other].map((j) => put(j.id, 'reservations', reservation(one.id, { taken: round % 2 === 0 })))
      expect(await statuses(both)).toEqual([201, 409])
      const { count, reserved } = await countOf(one.id)
      expect(count - reserved).toBe(0)
    }
  })

  test('one id for two jobs: one is taken in, of the other neither owner nor clock is left', async () => {
    for (let round = 0; round < ROUNDS; round++) {
      const id = randomUUID()
      const two = [newJob(), newJob()].map((job) => ({ ...job, id }))
      const answers = await Promise.all(two.map((job) => shop.request.post('/api/jobs').send(job)))
      expect(answers.map((a) => a.status).sort()).toEqual([201, 409])
      const clocks = await Promise.all(two.map((job) => shop.request.get(`/api/clocks/${job.clock.id}`)))
      expect(clocks.map((c) => c.status)).toEqual(answers.map((a) => (a.status === 201 ? 200 : 404)))
    }
  })

  test('one job, sent twice at once: it is taken in once', async () => {
    for (let round = 0; round < ROUNDS; round++) {
      const job = newJob()
      const answers = await Promise.all([1, 2, 3].map(() => shop.request.post('/api/jobs').send(job)))
      expect(answers.map((a) => a.status).sort()).toEqual([200, 200, 201])
    }
  })

  test('one hole put on the list by two people: the second is shown the first', async () => {
    const { job } = await shop.takeIn()
    const [mine, theirs] = [newHole({ pivotMm: 1 }), newHole({ pivotMm: 1.1 })]
    const answers = await Promise.all([put(job.id, 'holes', mine), put(job.id, 'holes', theirs)])
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409])
    const [made, refused] = answers[0].status === 201 ? answers : [answers[1], answers[0]]
    expect((refused.body as { current: object }).current).toMatchObject({ id: (made.body as { id: string }).id })
    expect((await page(job.id)).holes).toHaveLength(1)
  })

  test('one pivot, one train’s counts, one train confirmed off: there is one of each', async () => {
    const { job } = await shop.takeIn()
    const place = { train: 'going', arbor: 'Third arbor', arborIndex: 2, plate: 'back' } as const
    const twice = (path: string, rows: { id: string }[]) => statuses(rows.map((row) => put(job.id, path, row)))
    expect(
      await twice('pivots', [blankPivot(randomUUID(), place), { ...blankPivot(randomUUID(), place), rust: true }]),
    ).toEqual([201, 409])
    const sheet = (wheel: number) => ({
      id: randomUUID(),
      version: 0,
      train: 'going',
      arbors: [
        { name: 'Great', pinion: null, wheel },
        { name: 'Centre', pinion: 8, wheel: null },
      ],
      hourly: 1,
      escape: false,
      greatTurns: null,
      motion: null,
      faultPeriodS: null,
    })
    expect(await twice('trains', [sheet(96), sheet(84)])).toEqual([201, 409])
    const off = [powerOff('going'), powerOff('going', { method: 'clamped' })].map((body) =>
      shop.request.post(`/api/jobs/${job.id}/power`).send(body),
    )
    expect(await statuses(off)).toEqual([201, 409])
    const { pivots, trainSheets, powerOffs } = await page(job.id)
    expect([pivots.length, trainSheets.length, powerOffs.length]).toEqual([1, 1, 1])
  })
})

describe('the bush that a plan used', () => {
  const begun = async (promised: boolean) => {
    const { job } = await shop.takeIn()
    const hole = newHole()
    await put(job.id, 'holes', hole).expect(201)
    const one = await stocked({ count: 2 })
    const promise = reservation(one.id, { holeId: hole.id })
    if (promised) await put(job.id, 'reservations', promise).expect(201)
    const work: BushingChange = { ...blankBushing(randomUUID(), hole.id), source: 'stock', stockId: one.id }
    const done = (version: number, ...steps: string[]) => put(job.id, 'bushings', { ...work, version, done: steps })
    return { job, hole, one, done, work }
  }
  const CUT = ['mark', 'reference', 'mask', 'cut']

  test.each([
    ['promised', true],
    ['not promised', false],
  ])('%s, leaves the drawer when it goes in, and is back when that is taken back', async (_name, promised) => {
    const { job, one, done, work } = await begun(promised)
    await done(0, ...CUT).expect(201)
    expect(await countOf(one.id)).toEqual({ count: 2, reserved: promised ? 1 : 0 })
    await done(1, ...CUT, 'bush').expect(200)
    expect(await countOf(one.id)).toEqual({ count: 1, reserved: 0 })
    // Further steps, and the same sent again, take nothing more.
    await done(2, ...CUT, 'bush', 'press').expect(200)
    await done(2, ...CUT, 'bush', 'press').expect(200)
    expect(await countOf(one.id)).toEqual({ count: 1, reserved: 0 })
    await done(3, ...CUT).expect(200)
    expect(await countOf(one.id)).toEqual({ count: 2, reserved: promised ? 1 : 0 })
    await done(4, ...CUT, 'bush').expect(200)
    await back(job.id, 'bushings', work.id).expect(204)
    expect((await countOf(one.id)).count).toBe(2)
  })

  test('is not taken out of an empty drawer: the step is refused, and nothing of it kept', async () => {
    const { job, one, done } = await begun(false)
    await done(0, ...CUT).expect(201)
    await shop.request
      .put(`/api/stock/${one.id}`)
      .send({ ...one, version: 1, count: 0 })
      .expect(200)
    expect((await done(1, ...CUT, 'bush').expect(409)).text).toContain('no more of these')
    const { bushings, reservations } = await page(job.id)
    expect(bushings).toMatchObject([{ done: CUT, version: 1 }])
    expect(reservations).toEqual([])
  })

  test('stays in the drawers’ list while a plan uses it', async () => {
    const { one, done } = await begun(false)
    await done(0).expect(201)
    expect((await shop.request.delete(`/api/stock/${one.id}`).expect(409)).text).toContain('plan uses this')
  })

  test('can’t be for a hole that has work already', async () => {
    const { job, hole } = await begun(false)
    const other = newHole({ plate: 'front' })
    await put(job.id, 'holes', other).expect(201)
    const [first, second] = [blankBushing(randomUUID(), hole.id), blankBushing(randomUUID(), other.id)]
    await put(job.id, 'bushings', first).expect(201)
    await put(job.id, 'bushings', second).expect(201)
    await put(job.id, 'bushings', { ...second, version: 1, holeId: hole.id }).expect(409)
    const again = await put(job.id, 'bushings', blankBushing(randomUUID(), hole.id)).expect(409)
    expect((again.body as { current: object }).current).toMatchObject({ id: first.id })
  })
})

describe('gates', () => {
  test('a train’s “off” can’t be taken back while another parts the plates', async () => {
    for (let round = 0; round < ROUNDS; round++) {
      const { job } = await shop.takeIn()
      await markMeshes(shop.request, job.id)
      const strike = powerOff('strike')
      await shop.request.post(`/api/jobs/${job.id}/power`).send(powerOff('going')).expect(201)
      await shop.request.post(`/api/jobs/${job.id}/power`).send(strike).expect(201)
      const [parted, taken] = await Promise.all([
        shop.request.post(`/api/jobs/${job.id}/part`).send({}),
        shop.request.delete(`/api/jobs/${job.id}/power/${strike.id}`),
      ])
      // Whichever came first, the other was refused: never parted with a train not confirmed off.
      expect([`${parted.status} ${taken.status}`]).toEqual([expect.stringMatching(/^(200 409|422 200)$/)])
      const after = await page(job.id)
      expect(after.powerOffs.length === 2).toBe(after.job.partedAt !== null)
    }
  })
})

describe('who and what before', () => {
  test('changes of what is no job’s are told with both states, and by whom', async () => {
    const ida = { id: randomUUID(), version: 0, name: 'Ida Vos', initials: 'IV', active: true }
    await shop.request.put(`/api/people/${ida.id}`).send(ida).expect(201)
    const one = bush({ count: 8 })
    const as = (method: 'put' | 'delete', path: string) =>
      shop.request[method](path).set('X-Bench', 'Ida Vos').set('X-Bench-Id', ida.id)
    await as('put', `/api/stock/${one.id}`).send(one).expect(201)
    await as('put', `/api/stock/${one.id}`)
      .send({ ...one, version: 1, count: 7 })
      .expect(200)
    await as('delete', `/api/stock/${one.id}`).expect(204)
    const told = ((await shop.request.get('/api/journal').expect(200)).body as JournalEntry[]).filter(
      (e) => (e as JournalEntry & { aboutId: string }).aboutId === one.id,
    )
    expect(told.map((e) => [e.text.replace(/:.*/, ''), e.who])).toEqual([
      ['Taken off the list', 'Ida Vos'],
      ['Changed', 'Ida Vos'],
      ['Put in', 'Ida Vos'],
    ])
    expect(told[1]).toMatchObject({ whoId: ida.id, figures: { before: { count: 8 }, after: { count: 7 } } })
  })

  test('a row carries the id of whoever made it, found by the name where no id is sent', async () => {
    const who = { id: randomUUID(), version: 0, name: 'Åse Lund', initials: 'ÅL', active: true }
    await shop.request.put(`/api/people/${who.id}`).send(who).expect(201)
    const { job } = await shop.takeIn()
    const hole = newHole()
    const answer = await put(job.id, 'holes', hole).set('X-Bench', encodeURIComponent('Åse Lund')).expect(201)
    expect(answer.body).toMatchObject({ measuredBy: 'Åse Lund', whoId: who.id })
    const unknown = await put(job.id, 'readings', {
      id: randomUUID(),
      version: 0,
      at: new Date().toISOString(),
      errorSeconds: 1,
      sigmaSeconds: 1,
      way: 'eye',
    })
      .set('X-Bench', 'A guest')
      .set('X-Bench-Id', randomUUID())
      .expect(201)
    expect(unknown.body).toMatchObject({ who: 'A guest', whoId: null })
  })

  test('whoever is known by an id is written by the name that the workshop knows, whatever a device still says', async () => {
    const ida = { id: randomUUID(), version: 0, name: 'Ida Vos-Lund', initials: 'IL', active: true }
    await shop.request.put(`/api/people/${ida.id}`).send(ida).expect(201)
    const { job } = await shop.takeIn()
    const answer = put(job.id, 'holes', newHole()).set('X-Bench', 'Ida Vos').set('X-Bench-Id', ida.id)
    expect((await answer.expect(201)).body).toMatchObject({ measuredBy: 'Ida Vos-Lund', whoId: ida.id })
  })

  test('what is sent as it stands changes nothing, and nothing is told of it', async () => {
    const { job, clock } = await shop.takeIn()
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1 })
    await put(job.id, 'holes', hole).expect(201)
    const before = await journal(job.id)
    expect((await put(job.id, 'holes', { ...hole, version: 1 }).expect(200)).body).toMatchObject({ version: 1 })
    expect(await journal(job.id)).toEqual(before)

    const shopSaid = async () => (await shop.request.get('/api/journal')).body as JournalEntry[]
    const said = await shopSaid()
    const { name, kind, marks, trains, pendulum, work, version } = clock
    const same = { name, kind, marks, trains, pendulum, work, version }
    expect((await shop.request.patch(`/api/clocks/${clock.id}`).send(same).expect(200)).body).toMatchObject({ version })
    const settings = (await shop.request.get('/api/settings')).body as { version: number }
    const answer = await shop.request.put('/api/settings').send(settings).expect(200)
    expect(answer.body).toMatchObject({ version: settings.version })
    const { version: tableVersion, values } = (await shop.request.get('/api/tables/prices')).body as {
      version: number
      values: object
    }
    await shop.request.put('/api/tables/prices').send({ version: tableVersion, values }).expect(200)
    expect(await shopSaid()).toEqual(said)
  })

  test('settings and tables sent again with equal content answer as made, in whatever order their fields come', async () => {
    const settings = (await shop.request.get('/api/settings')).body as object
    const first = { ...settings, workshop: 'Slip' }
    await shop.request.put('/api/settings').send(first).expect(200)
    const turned = Object.fromEntries(Object.entries(first).reverse())
    expect((await shop.request.put('/api/settings').send(turned).expect(200)).body).toMatchObject({ version: 1 })
    await shop.request
      .put('/api/settings')
      .send({ ...first, workshop: 'Other' })
      .expect(409)
    const { values } = (await shop.request.get('/api/tables/baths')).body as { values: { baths: object[] } }
    const fewer = { baths: values.baths.slice(0, 2).map((b) => Object.fromEntries(Object.entries(b).reverse())) }
    const table = { version: 0, values: fewer }
    await shop.request.put('/api/tables/baths').send(table).expect(200)
    await shop.request.put('/api/tables/baths').send(table).expect(200)
    expect((await shop.request.get('/api/tables/baths')).body).toMatchObject({ version: 1 })
  })

  test('a change answers with its row and what hangs on it', async () => {
    const { job } = await shop.takeIn()
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1, wearDeg: 40, pivotMm: 1.02, plateMm: 2 })
    const answer = (await put(job.id, 'holes', hole).expect(201)).body as { standing: Pick<JobPage, 'gates' | 'owed'> }
    const { gates, owed } = await page(job.id)
    expect(answer.standing).toEqual({ gates, owed })
  })

  test('a press asks the database a dozen things at most', async () => {
    const { job } = await shop.takeIn()
    const asked = vi.spyOn(pg.Client.prototype, 'query')
    const count = async (press: () => PromiseLike<unknown>) => {
      asked.mockClear()
      await press()
      expect(asked.mock.calls.length).toBeGreaterThan(3)
      return asked.mock.calls.length
    }
    const hole = newHole()
    expect(await count(() => put(job.id, 'holes', hole).set('X-Bench', 'Ida').expect(201))).toBeLessThanOrEqual(12)
    expect(
      await count(() => put(job.id, 'holes', { ...hole, version: 1, flagged: true }).expect(200)),
    ).toBeLessThanOrEqual(12)
    expect(await count(() => shop.request.get(`/api/jobs/${job.id}`).expect(200))).toBeLessThanOrEqual(12)
    asked.mockRestore()
  })
})
