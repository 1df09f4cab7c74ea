import { randomUUID } from 'node:crypto'
import { beforeEach, describe, expect, test } from 'vitest'
import {
  blankBushing,
  blankPivot,
  type BushingChange,
  type JobPage,
  type PivotChange,
  type PlateMapChange,
  type StockChange,
} from '@treadle/contract'
import { newHole, newJob, useWorkshop } from './workshop.ts'

const shop = useWorkshop()
let page: JobPage

beforeEach(async () => {
  page = await shop.takeIn()
})

const url = (path: string) => `/api/jobs/${page.job.id}/${path}`
const again = async () => (await shop.request.get(`/api/jobs/${page.job.id}`).expect(200)).body as JobPage
const put = <B extends { id: string }>(path: string, body: B) =>
  shop.request
    .put(url(`${path}/${body.id}`))
    .set('X-Bench', 'Ida')
    .send(body)

function newMap(part: Partial<PlateMapChange> = {}): PlateMapChange {
  const arbor = (name: string, index: number, xMm: number | null, yMm: number | null) => ({
    train: 'going' as const,
    name,
    index,
    role: 'other' as const,
    xMm,
    yMm,
    pinionAt: 0.5,
    wheelAt: 0.5,
    frontMm: 2,
    backMm: 2,
    cock: '' as const,
    moduleMm: null,
  })
  return {
    id: randomUUID(),
    version: 0,
    arbors: [arbor('Great', 0, 0, 0), arbor('Centre', 1, 0, 36), arbor('Third arbor', 2, 20, 55)],
    fixtures: [{ name: 'Pillar 1', kind: 'pillar', plate: 'both', xMm: 40, yMm: 0, diameterMm: 6 }],
    edge: [],
    betweenMm: 30,
    photoId: null,
    trueing: null,
    note: '',
    ...part,
  }
}

function newPivot(part: Partial<PivotChange> = {}): PivotChange {
  const place = { train: 'going', arbor: 'Third arbor', arborIndex: 2, plate: 'back' } as const
  const found = { nail: 'catches', firstMm: 1, secondMm: 0.97, grooveDepthMm: 0.03, shoulder: 'clean' } as const
  return { ...blankPivot(randomUUID(), place), ...found, ...part }
}

function newBushing(holeId: string, part: Partial<BushingChange> = {}): BushingChange {
  const sizes = { cutterMm: 2, outsideMm: 2.02, insideMm: 0.93, lengthMm: 2.5, pivotMm: 1 }
  return { ...blankBushing(randomUUID(), holeId), ...sizes, done: ['mark'], ...part }
}

const MARKED = ['mark', 'reference', 'mask', 'centre', 'cut']

describe('the plates', () => {
  test('are the clock’s: another visit finds them set out, and what was bushed when', async () => {
    const map = newMap()
    await put('plates', map).expect(201)
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1, wearDeg: 50, pivotMm: 1, plateMm: 2.4 })
    await put('holes', hole).expect(201)
    await put('bushings', newBushing(hole.id, { done: [...MARKED, 'pair'], finishedMm: 1.04 })).expect(201)
    expect((await again()).holes[0]).toMatchObject({ bushed: true, version: 2 })
    const { clock, owner } = page
    const { ownerId: _, version: _v, ...known } = clock
    const next = await shop.takeIn({ ...newJob(), owner, clock: known })
    expect(next.plateMap).toMatchObject({ id: map.id, arbors: map.arbors })
    expect(next.bushedBefore).toMatchObject([
      { arbor: 'Third arbor', plate: 'back', jobNumber: page.job.number, longAxisMm: 1.32, finishedMm: 1.04 },
    ])
    expect((await again()).bushedBefore).toEqual([])
  })

  test('two who set them out at once: the second is shown the first’s', async () => {
    const first = newMap()
    await put('plates', first).expect(201)
    const answer = await put('plates', newMap()).expect(409)
    expect((answer.body as { current: PlateMapChange }).current.id).toBe(first.id)
    await put('plates', { ...first, version: 1, betweenMm: 31 }).expect(200)
    const stale = await put('plates', { ...first, version: 1, betweenMm: 32 }).expect(409)
    expect((stale.body as { current: PlateMapChange }).current.betweenMm).toBe(31)
  })

  test.each([
    [{ edge: [{ xMm: 0, yMm: 0 }] }, /three corners/],
    [{ photoId: randomUUID() }, /not one of this clock/],
    [{ trueing: [1, 2, 3] }, /Trueing/],
    [{ fixtures: [{ name: 'P', kind: 'pillar', plate: 'both', xMm: 0, yMm: 9999, diameterMm: 6 }] }, /y must be/],
  ])('what can’t be is refused by name: %j', async (part, says) => {
    const answer = await put('plates', newMap(part as never)).expect(400)
    expect(answer.text).toMatch(says)
  })

  test('two screws of one name are refused', async () => {
    const { fixtures } = newMap()
    expect((await put('plates', newMap({ fixtures: [...fixtures, ...fixtures] })).expect(400)).text).toMatch(
      /name of its own/,
    )
  })

  test('two arbors of one name are refused', async () => {
    const { arbors } = newMap()
    expect((await put('plates', newMap({ arbors: [...arbors, ...arbors.slice(0, 1)] })).expect(400)).text).toMatch(
      /same name/,
    )
  })

  test('the map gives the depth: a worn hole along the line of centres is to be bushed by that alone', async () => {
    await put('plates', newMap()).expect(201)
    const sheet = {
      id: randomUUID(),
      version: 0,
      train: 'going',
      arbors: [
        { name: 'Great', pinion: null, wheel: 84 },
        { name: 'Centre', pinion: 8, wheel: 64 },
        { name: 'Third', pinion: 8, wheel: 60 },
      ],
      hourly: 1,
      escape: false,
      greatTurns: null,
      motion: null,
      faultPeriodS: null,
    }
    await shop.request
      .put(url(`trains/${sheet.id}`))
      .send(sheet)
      .expect(201)
    // Oval by 0.09 on a wide pivot: within play, over ovalness; the depth decides, where it goes along the line.
    const worn = newHole({ longAxisMm: 2.12, shortAxisMm: 2.03, pivotMm: 2, plateMm: 2.4 })
    await put('holes', { ...worn, wearDeg: 46 }).expect(201)
    const gate = (p: JobPage) => p.gates.find((g) => g.name === 'holes')?.reason
    expect(gate(await again())).toMatch(/waits for a bush/)
    await put('holes', { ...worn, version: 1, wearDeg: 136 }).expect(200)
    expect(gate(await again())).toMatch(/judged and done/)
  })
})

describe('pivots come first', () => {
  test('a hole is not cut while its pivot waits; finished, or overridden in writing, it is', async () => {
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1, wearDeg: 50, pivotMm: 1, plateMm: 2.4 })
    await put('holes', hole).expect(201)
    const pivot = newPivot()
    await put('pivots', pivot).expect(201)
    const work = newBushing(hole.id)
    await put('bushings', work).expect(201)
    const refused = await put('bushings', { ...work, version: 1, done: MARKED }).expect(422)
    expect(refused.text).toMatch(/Finish the pivot first/)
    expect((await again()).gates.find((g) => g.name === 'pivots')).toMatchObject({ passed: false })
    await put('pivots', { ...pivot, version: 1, work: 'burnished', finishedMm: 0.94 }).expect(200)
    await put('bushings', { ...work, version: 1, done: MARKED }).expect(200)
    expect((await again()).gates.find((g) => g.name === 'pivots')).toMatchObject({ passed: true })
  })

  test('a hole is not ticked off as bushed behind its pivot’s back either', async () => {
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1, wearDeg: 50, pivotMm: 1, plateMm: 2.4 })
    await put('holes', hole).expect(201)
    await put('pivots', newPivot()).expect(201)
    expect((await put('holes', { ...hole, version: 1, bushed: true }).expect(422)).text).toMatch(
      /Finish the pivot first/,
    )
  })

  test('the plate is not cut before its marks', async () => {
    const hole = newHole()
    await put('holes', hole).expect(201)
    const answer = await put('bushings', newBushing(hole.id, { done: ['mark', 'cut'] })).expect(422)
    expect(answer.text).toMatch(/reference marks/)
  })

  test('overridden in writing it is cut, and the gate says so', async () => {
    const hole = newHole()
    await put('holes', hole).expect(201)
    await put('pivots', newPivot()).expect(201)
    const override = { id: randomUUID(), gate: 'pivots', reason: 'The pivot is burnished once the bush is in.' }
    await shop.request.post(url('overrides')).send(override).expect(201)
    await put('bushings', newBushing(hole.id, { done: MARKED })).expect(201)
    const gate = (await again()).gates.find((g) => g.name === 'pivots')
    expect(gate).toMatchObject({ passed: false, overriddenBecause: override.reason })
    expect(gate?.reason).toMatch(/Cut before its pivot was finished: Third arbor, back/)
  })

  test.each([
    [{ work: 'burnished' }, /enter what the gauge says/],
    [{ work: 'straightened', finishedMm: 1 }, /tell the owner first/],
    [{ firstMm: 90 }, /Gauge, at the shoulder/],
    [{ grooveDepthMm: 0.5 }, /half the pivot/],
  ])('%j is refused', async (part, says) => {
    expect((await put('pivots', newPivot(part as never)).expect(400)).text).toMatch(says)
  })

  test('a hole of another job can’t be worked on here', async () => {
    const hole = newHole()
    await put('holes', hole).expect(201)
    page = await shop.takeIn()
    expect((await put('bushings', newBushing(hole.id)).expect(400)).text).toMatch(/not one of this job/)
  })

  test('work taken back is no bush', async () => {
    const hole = newHole({ longAxisMm: 1.32, shortAxisMm: 1.1, wearDeg: 50, pivotMm: 1, plateMm: 2.4 })
    await put('holes', hole).expect(201)
    const work = newBushing(hole.id, { done: [...MARKED, 'pair'] })
    await put('bushings', work).expect(201)
    await shop.request.delete(url(`bushings/${work.id}`)).expect(204)
    expect((await again()).holes[0]?.bushed).toBe(false)
  })

  test('a test between the plates is kept and told', async () => {
    const row = {
      id: randomUUID(),
      version: 0,
      train: 'going',
      arbor: 'Centre',
      arborIndex: 1,
      endshakeMm: 0.3,
      binds: ['upright'],
      feel: 'gritty',
      tried: true,
      note: '',
    }
    await put('arbor-tests', row).expect(201)
    expect((await again()).arborTests).toMatchObject([{ arbor: 'Centre', binds: ['upright'] }])
    const journal = await shop.request.get(url('journal')).expect(200)
    expect(journal.text).toMatch(/Between the plates, Centre: endshake 0.30 mm; binds upright; gritty/)
    expect((await put('arbor-tests', { ...row, id: randomUUID(), binds: ['sideways'] }).expect(400)).text).toMatch(
      /dial up, dial down, upright/,
    )
  })
})

describe('what is promised', () => {
  const bush = (count: number): StockChange => ({
    id: randomUUID(),
    version: 0,
    kind: 'bush',
    name: '',
    material: 'bronze',
    outsideMm: 2.02,
    insideMm: 1,
    lengthMm: 2.5,
    measuredMm: null,
    widthMm: null,
    thickMm: null,
    count,
    lowAt: 0,
    drawer: '',
  })
  const stocked = async (count: number) => {
    const row = bush(count)
    await shop.request.put(`/api/stock/${row.id}`).send(row).expect(201)
    return row.id
  }
  const left = async (id: string) => {
    const rows = (await shop.request.get('/api/stock').expect(200)).body as {
      id: string
      count: number
      reserved: number
    }[]
    return rows.find((r) => r.id === id)
  }
  const promise = (stockId: string, part: object = {}) => ({
    id: randomUUID(),
    version: 0,
    stockId,
    holeId: null,
    count: 1,
    taken: false,
    ...part,
  })

  test('promised, taken, put back: the drawer is true at every step', async () => {
    const stockId = await stocked(2)
    const one = promise(stockId)
    await put('reservations', one).expect(201)
    expect(await left(stockId)).toMatchObject({ count: 2, reserved: 1 })
    await put('reservations', { ...one, version: 1, taken: true }).expect(200)
    expect(await left(stockId)).toMatchObject({ count: 1, reserved: 0 })
    await put('reservations', { ...one, version: 2, taken: false }).expect(200)
    expect(await left(stockId)).toMatchObject({ count: 2, reserved: 1 })
    await put('reservations', { ...one, version: 3, taken: true }).expect(200)
    await shop.request.delete(url(`reservations/${one.id}`)).expect(204)
    expect(await left(stockId)).toMatchObject({ count: 2, reserved: 0 })
  })

  test('of a job called off nothing is kept back, and again once it is open', async () => {
    const stockId = await stocked(1)
    await put('reservations', promise(stockId)).expect(201)
    await shop.request.post(url('call-off')).send({ reason: 'entered twice' }).expect(200)
    expect(await left(stockId)).toMatchObject({ count: 1, reserved: 0 })
    await shop.request.post(url('reopen')).send({}).expect(200)
    expect(await left(stockId)).toMatchObject({ count: 1, reserved: 1 })
  })

  test('a request sent twice takes one', async () => {
    const stockId = await stocked(2)
    const one = promise(stockId, { taken: true })
    await put('reservations', one).expect(201)
    await put('reservations', one).expect(200)
    expect(await left(stockId)).toMatchObject({ count: 1 })
  })

  test('two jobs reach for the last one at once: one has it', async () => {
    const stockId = await stocked(1)
    const other = await shop.takeIn()
    const answers = await Promise.all(
      [page, other].map((p) => {
        const body = promise(stockId)
        return shop.request.put(`/api/jobs/${p.job.id}/reservations/${body.id}`).send(body)
      }),
    )
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409])
    expect(answers.find((a) => a.status === 409)?.text).toMatch(/order some, or turn one/)
  })

  test('what jobs have is not thrown out of the drawers', async () => {
    const stockId = await stocked(1)
    await put('reservations', promise(stockId)).expect(201)
    expect((await shop.request.delete(`/api/stock/${stockId}`).expect(409)).text).toMatch(/set its count to 0/)
    expect((await put('reservations', promise(randomUUID())).expect(400)).text).toMatch(/no such thing/)
  })
})
