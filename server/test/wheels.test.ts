import { randomUUID } from 'node:crypto'
import {
  blankDepthTrial,
  blankDonor,
  blankEscapement,
  blankSpringSheet,
  blankSuspension,
  blankTool,
  blankWheelSheet,
  type DonorChange,
  type DonorFound,
  type DonorRow,
  type EscapementSheetChange,
  type JobPage,
  type MadePartChange,
  type SpringSheetChange,
  type StockChange,
  type StockRow,
  type WheelSheetChange,
} from '@treadle/contract'
import sharp from 'sharp'
import { beforeEach, describe, expect, test } from 'vitest'
import { useWorkshop } from './workshop.ts'

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
const journal = async () =>
  ((await shop.request.get(url('journal')).expect(200)).body as { text: string }[]).map((e) => e.text)

const wheel = (part: Partial<WheelSheetChange> = {}): WheelSheetChange => ({
  ...blankWheelSheet(randomUUID(), { train: 'going', arbor: 'Great', arborIndex: 0, part: 'wheel' }),
  count: 84,
  ...part,
})
const WORKS: Partial<EscapementSheetChange> = {
  kind: 'dead-beat',
  teeth: 30,
  tipRadiusMm: 18,
  centreDistanceMm: 25.4558,
  spannedSpaces: 7.5,
  palletMm: 1.5,
  liftDeg: 2,
  lockDeg: 0.8,
  swingDeg: 3,
}

describe('a wheel’s sheet', () => {
  test('is kept with what was found, and the journal says it', async () => {
    await put('wheels', wheel({ worn: 'working', faults: [{ tooth: 4, fault: 'bent' }], click: 'bad' })).expect(201)
    expect((await again()).wheels[0]).toMatchObject({ arbor: 'Great', worn: 'working', who: 'Ida' })
    expect(await journal()).toContainEqual('Great, wheel: 1 bent, worn on the working flank, click bad.')
  })

  test('is one for each wheel: a second is shown the first', async () => {
    const first = wheel()
    await put('wheels', first).expect(201)
    const answer = await put('wheels', wheel()).expect(409)
    expect((answer.body as { current: { id: string } }).current.id).toBe(first.id)
    await put('wheels', { ...wheel(), part: 'pinion' }).expect(201)
  })

  test.each([
    [
      'a tooth beyond its count',
      { count: 30, faults: [{ tooth: 31, fault: 'bent' as const }] },
      /greater than the count/,
    ],
    [
      'a tooth named twice',
      {
        faults: [
          { tooth: 3, fault: 'bent' as const },
          { tooth: 3, fault: 'worn' as const },
        ],
      },
      /named twice/,
    ],
    ['a groove that ends before it begins', { grooveFromMm: 3, grooveToMm: 2 }, /ends before it begins/],
  ])('refuses %s', async (_name, part, words) => {
    const answer = await put('wheels', wheel(part)).expect(400)
    expect((answer.body as { errors: { message: string }[] }).errors.map((e) => e.message).join(' ')).toMatch(words)
    expect((await again()).wheels).toEqual([])
  })

  test('work that can’t be undone waits for the owner’s word', async () => {
    const sheet = wheel({ way: 'dress', done: ['straighten'] })
    const answer = await put('wheels', sheet).expect(422)
    expect((answer.body as { title: string }).title).toMatch(/Ask the owner first/)
    await put('wheels', { ...sheet, ownerAgreed: true }).expect(201)
    // Reversing can be undone, and needs no word.
    await put('wheels', { ...wheel({ arbor: 'Centre', way: 'reverse', done: ['note'] }) }).expect(201)
  })
})

describe('a mainspring', () => {
  const stocked = (): StockChange => ({
    id: randomUUID(),
    version: 0,
    kind: 'mainspring',
    name: '',
    material: 'steel',
    outsideMm: null,
    insideMm: null,
    lengthMm: 1250,
    measuredMm: null,
    widthMm: 16,
    thickMm: 0.34,
    count: 1,
    lowAt: 0,
    drawer: 'S1',
  })
  const countOf = async (id: string) =>
    ((await shop.request.get('/api/stock').expect(200)).body as StockRow[]).find((s) => s.id === id)?.count

  const wayOff = (jobId: string) =>
    shop.request
      .post(`/api/jobs/${jobId}/overrides`)
      .send({ id: randomUUID(), gate: 'power', reason: 'Came without its springs.' })
      .expect(201)

  test('is not worked on before its train is confirmed off', async () => {
    const sheet = { ...blankSpringSheet(randomUUID(), 'going'), winderNmm: 2000 }
    await put('springs', sheet).expect(201)
    const answer = await put('springs', { ...sheet, version: 1, done: ['out'] }).expect(422)
    expect((answer.body as { title: string }).title).toMatch(/Confirm the going train off first/)
    expect((await again()).springs[0]?.done).toEqual([])
    await wayOff(page.job.id)
    await put('springs', { ...sheet, version: 1, done: ['out'] }).expect(200)
  })

  test('leaves its drawer with the step that takes it, and is back when that is taken back', async () => {
    await wayOff(page.job.id)
    const spring = stocked()
    await shop.request.put(`/api/stock/${spring.id}`).send(spring).expect(201)
    const sheet: SpringSheetChange = { ...blankSpringSheet(randomUUID(), 'going'), choice: 'stock', stockId: spring.id }
    await put('springs', sheet).expect(201)
    expect(await countOf(spring.id)).toBe(1)
    await put('springs', { ...sheet, version: 1, done: ['out', 'take'] }).expect(200)
    expect(await countOf(spring.id)).toBe(0)
    // Nobody else has it now.
    const other = await shop.takeIn()
    await wayOff(other.job.id)
    const theirs = { ...blankSpringSheet(randomUUID(), 'going'), choice: 'stock', stockId: spring.id, done: ['take'] }
    await shop.request.put(`/api/jobs/${other.job.id}/springs/${theirs.id}`).send(theirs).expect(409)
    await put('springs', { ...sheet, version: 2, done: ['out'] }).expect(200)
    expect(await countOf(spring.id)).toBe(1)
    await shop.request.delete(`/api/stock/${spring.id}`).expect(409)
  })

  test('an arbor wider than its barrel is refused by name', async () => {
    const sheet = { ...blankSpringSheet(randomUUID(), 'going'), barrelInsideMm: 30, arborMm: 31 }
    const answer = await put('springs', sheet).expect(400)
    expect(JSON.stringify(answer.body)).toMatch(/Arbor: it must be smaller than the barrel/)
  })

  test('and the suspension spring has one row', async () => {
    const first = { ...blankSuspension(randomUUID()), thickMm: 0.1, kinked: true }
    await put('suspensions', first).expect(201)
    await put('suspensions', blankSuspension(randomUUID())).expect(409)
    expect((await again()).suspensions).toHaveLength(1)
    expect(await journal()).toContainEqual('Suspension spring: 0.1 mm thick, kinked.')
  })
})

describe('the escapement', () => {
  const release = async () => (await again()).clock.pendulum.releaseDeg

  test('tells the beat where it lets go, and again when it is set otherwise', async () => {
    const sheet = { ...blankEscapement(randomUUID()), ...WORKS }
    expect(await release()).toBeNull()
    await put('escapements', sheet).expect(201)
    expect(await release()).toBeCloseTo(1.4, 9)
    expect((await again()).clock.pendulum.escapeTeeth).toBe(30)
    await put('escapements', { ...sheet, version: 1, openedDeg: 0.4 }).expect(200)
    expect(await release()).toBeCloseTo(1.2, 9)
    expect(await journal()).toContainEqual('From the escapement to the beat: it lets go at ±1.20°.')
  })

  test('never overwrites a release angle that a person typed', async () => {
    const { clock } = await again()
    const { id, version, name, kind, marks, trains, work } = clock
    await shop.request
      .patch(`/api/clocks/${id}`)
      .send({ version, name, kind, marks, trains, work, pendulum: { ...clock.pendulum, releaseDeg: 1.7 } })
      .expect(200)
    await put('escapements', { ...blankEscapement(randomUUID()), ...WORKS }).expect(201)
    expect(await release()).toBe(1.7)
  })

  test('that does not work tells the beat nothing', async () => {
    await put('escapements', { ...blankEscapement(randomUUID()), ...WORKS, nearerMm: 1 }).expect(201)
    expect(await release()).toBeNull()
  })

  test('refuses more tips than teeth', async () => {
    const sheet = { ...blankEscapement(randomUUID()), teeth: 12, tipRadiiMm: Array.from({ length: 13 }, () => 10) }
    await put('escapements', sheet).expect(400)
  })

  test('once a period is said for the clock, and the beat is then the eye’s', async () => {
    const { clock } = await again()
    const { id, version, name, kind, marks, trains, work } = clock
    await shop.request
      .patch(`/api/clocks/${id}`)
      .send({ version, name, kind, marks, trains, work, pendulum: { ...clock.pendulum, ticks: 'once a period' } })
      .expect(200)
    const gate = async () => (await again()).gates.find((g) => g.name === 'beat')!
    expect((await gate()).reason).toMatch(/by ear its beat can’t be told/)
    const seen = {
      id: randomUUID(),
      version: 0,
      key: 'beat-by-eye',
      answer: 'even',
      figure: null,
      second: null,
      note: '',
      photoId: null,
    }
    await put('observations', seen).expect(201)
    expect(await gate()).toMatchObject({ passed: true, reason: expect.stringMatching(/even to the eye/) as string })
  })
})

describe('the depthing tool and parts to make', () => {
  test('a setting is kept, one for each pinion', async () => {
    const place = { train: 'going', arbor: 'Centre', arborIndex: 1 }
    const trial = {
      ...blankDepthTrial(randomUUID(), place),
      trials: [{ acrossMm: 40.13, feel: 'smooth' }],
      keptMm: 40.13,
    }
    await put('depths', trial).expect(201)
    await put('depths', blankDepthTrial(randomUUID(), place)).expect(409)
    expect(await journal()).toContainEqual('Depthing tool, Centre: 40.13 mm across the runners kept.')
  })

  const rivet: MadePartChange = {
    id: randomUUID(),
    version: 0,
    part: 'click rivet',
    name: 'going click <1>',
    sizes: { clickHoleMm: 2.4, clickMm: 1.6, wheelHoleMm: 2, wheelMm: 2 },
    done: [],
  }

  test('a part is drawn at its true size, as SVG and DXF', async () => {
    await put('made-parts', rivet).expect(201)
    const svg = (await shop.request.get(url(`made-parts/${rivet.id}.svg`)).expect(200)).body as Buffer
    const text = svg.toString()
    const [, wide, viewWide] = /width="([\d.]+)mm".*viewBox="0 0 ([\d.]+) /.exec(text) ?? []
    expect(wide).toBe(viewWide)
    expect(text).toContain('going click &lt;1&gt;')
    // Head, shank and tail end to end: 1.2 + 1.65 + 3.2 mm.
    expect(text).toMatch(/1\.20 long[\s\S]*1\.65 long[\s\S]*3\.20 long/)
    const dxf = await shop.request.get(url(`made-parts/${rivet.id}.dxf`)).expect(200)
    expect(String(dxf.body)).toMatch(/LWPOLYLINE/)
    await shop.request.get(url(`made-parts/${rivet.id}.png`)).expect(404)
    await shop.request.get(url(`made-parts/${randomUUID()}.svg`)).expect(404)
  })

  test('sizes that can’t be drawn are refused by name', async () => {
    const body = { ...rivet, id: randomUUID(), sizes: { ...rivet.sizes, wheelHoleMm: 3 } }
    const answer = await put('made-parts', body).expect(400)
    expect(JSON.stringify(answer.body)).toMatch(/wheelHoleMm – it must be smaller/)
    await put('made-parts', { ...body, sizes: { 'a b': 1 } }).expect(400)
  })
})

describe('the donor ledger', () => {
  const donor = (part: Partial<DonorChange>): DonorChange => ({ ...blankDonor(randomUUID()), ...part })
  const keep = (body: DonorChange) => shop.request.put(`/api/donors/${body.id}`).send(body)

  test('tells which parts fit, the nearest first', async () => {
    const same = donor({ count: 84, moduleMm: 0.75, outsideMm: 65, from: 'the same' })
    const near = donor({ count: 84, moduleMm: 0.76, outsideMm: 65.8, from: 'nearly' })
    const other = donor({ count: 80, moduleMm: 0.75, from: 'another count' })
    const gone = donor({ count: 84, moduleMm: 0.75, there: 0, from: 'gone' })
    for (const one of [near, other, gone, same]) await keep(one).expect(201)
    const answer = await shop.request
      .get('/api/donors/fitting?kind=wheel&count=84&moduleMm=0.75&outsideMm=65')
      .expect(200)
    const found = answer.body as DonorFound[]
    expect(found.map((d) => d.from)).toEqual(['the same', 'nearly'])
    expect(found[1]!.fits).toBe('with work')
  })

  test.each(['', 'kind=lever', 'kind=wheel&count=8.5', 'kind=wheel&moduleMm=-1', 'kind=wheel&side=up'])(
    'asks for what can be: ?%s is refused',
    async (query) => {
      await shop.request.get(`/api/donors/fitting?${query}`).expect(400)
    },
  )

  test('has a picture, and is not thrown out while a sheet names it', async () => {
    const one = donor({ count: 84 })
    await keep(one).expect(201)
    await shop.request.get(`/api/donors/${one.id}/photo`).expect(404)
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#876' } })
      .jpeg()
      .toBuffer()
    const send = (bytes: Buffer) =>
      shop.request.put(`/api/donors/${one.id}/photo`).set('Content-Type', 'image/jpeg').send(bytes)
    await send(picture).expect(200)
    await send(Buffer.from('no picture at all')).expect(415)
    expect((await shop.request.get(`/api/donors/${one.id}/photo`).expect(200)).type).toBe('image/webp')
    await put('wheels', wheel({ donorId: one.id })).expect(201)
    await shop.request.delete(`/api/donors/${one.id}`).expect(409)
    const listed = (await shop.request.get('/api/donors').expect(200)).body as { id: string; hasPhoto: boolean }[]
    expect(listed.find((d) => d.id === one.id)?.hasPhoto).toBe(true)
  })

  test('is taken by one sheet at a time, shown to that one, and there again once it is given back', async () => {
    const one = donor({ count: 71, from: 'the only one' })
    await keep(one).expect(201)
    const there = async () =>
      ((await shop.request.get('/api/donors').expect(200)).body as DonorRow[]).find((d) => d.id === one.id)?.there
    const sheet = wheel({ donorId: one.id })
    await put('wheels', sheet).expect(201)
    expect(await there()).toBe(0)
    // Nobody else gets it, and what is refused keeps nothing.
    const other = await shop.takeIn()
    const theirs = wheel({ donorId: one.id })
    await shop.request.put(`/api/jobs/${other.job.id}/wheels/${theirs.id}`).send(theirs).expect(409)
    expect(await there()).toBe(0)
    const fitting = async (more: string) =>
      ((await shop.request.get(`/api/donors/fitting?kind=wheel&count=71${more}`).expect(200)).body as DonorFound[])
        .length
    expect(await fitting('')).toBe(0)
    expect(await fitting(`&taken=${one.id}`)).toBe(1)
    await shop.request.get('/api/donors/fitting?kind=wheel&taken=that').expect(400)
    // Sent again, it is not taken twice.
    await put('wheels', sheet).expect(200)
    expect(await there()).toBe(0)
    await put('wheels', { ...sheet, version: 1, donorId: null }).expect(200)
    expect(await there()).toBe(1)
    await put('wheels', { ...sheet, version: 2 }).expect(200)
    await shop.request.delete(url(`wheels/${sheet.id}`)).expect(204)
    expect(await there()).toBe(1)
    expect(await journal()).toContainEqual('Taken out of the ledger: a wheel of 71.')
  })

  test('a sheet can’t name a donor that is none', async () => {
    await put('wheels', wheel({ donorId: randomUUID() })).expect(400)
    expect((await again()).wheels).toEqual([])
  })

  test('a stale change is shown what stands', async () => {
    const one = donor({ count: 64 })
    await keep(one).expect(201)
    await keep({ ...one, version: 1, there: 2 }).expect(200)
    await keep({ ...one, version: 1, there: 5 }).expect(409)
    await shop.request.delete(`/api/donors/${one.id}`).expect(204)
  })
})

test('files, abrasives and stones are kept; a file without its cut is refused', async () => {
  const file = blankTool(randomUUID(), 'file')
  await shop.request.put(`/api/tools/${file.id}`).send(file).expect(201)
  await shop.request
    .put(`/api/tools/${file.id}`)
    .send({ ...file, version: 1, cut: '' })
    .expect(400)
  const stone = blankTool(randomUUID(), 'stone')
  await shop.request.put(`/api/tools/${stone.id}`).send(stone).expect(201)
  expect((await shop.request.get('/api/tools').expect(200)).body).toHaveLength(2)
  await shop.request.delete(`/api/tools/${stone.id}`).expect(204)
  expect((await shop.request.get('/api/tools').expect(200)).body).toHaveLength(1)
})
