import { randomUUID } from 'node:crypto'
import {
  blankBushing,
  blankDonor,
  blankDryRun,
  blankOil,
  blankOilSheet,
  blankPivot,
  blankSpringSheet,
  blankWheelSheet,
  type JobPage,
  type JournalEntry,
  type Problem,
  type Reopened,
  type StockChange,
  type StockRow,
} from '@treadle/contract'
import { MERCURY_GATE } from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { markMeshes, newHole, parted, powerOff, runSql, useWorkshop } from './workshop.ts'

// Each gate is asked of what would then stand, by whichever row, word or order it would come to be so.

const shop = useWorkshop()
const ROUNDS = 8
const AT = '2026-03-01T09:30:00.000Z'

type Sent = { id: string; version?: number; [field: string]: unknown }
const put = (jobId: string, path: string, row: Sent) =>
  shop.request.put(`/api/jobs/${jobId}/${path}/${row.id}`).send({ version: 0, ...row })
const back = (jobId: string, path: string, id: string) => shop.request.delete(`/api/jobs/${jobId}/${path}/${id}`)
const page = async (id: string) => (await shop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const journal = async (id: string) => (await shop.request.get(`/api/jobs/${id}/journal`)).body as JournalEntry[]
const held = async (asked: PromiseLike<{ status: number; body: unknown }>, words: RegExp) => {
  const { status, body } = await asked
  const { type, title, detail = '' } = body as Problem
  expect([status, type, `${title} ${detail}`]).toEqual([422, '/problems/gate', expect.stringMatching(words)])
}
const statuses = async (asked: PromiseLike<{ status: number }>[]) =>
  (await Promise.all(asked.map(async (one) => (await one).status))).sort()

const step = (part: string, more: object = {}) => ({
  ...{ id: randomUUID(), position: 1, part, tray: 'case', screws: '', marks: '', remark: '', count: 1 },
  ...{ photoId: null, back: false, notBack: '', ...more },
})
const observation = (key: string, answer: string, more: object = {}) => ({
  ...{ id: randomUUID(), key, answer, figure: null, second: null, note: '', photoId: null, ...more },
})
const event = (kind: string) => ({ id: randomUUID(), at: AT, kind, turns: null, showed: '', note: '' })
const dryRun = (train: 'going' | 'strike', verdict: '' | 'free' | 'tight') => ({
  ...blankDryRun(randomUUID(), { train, power: 'spring' }, AT),
  ...{ amount: 0.5, backsOff: 'yes' as const, verdict },
})

describe('a plate is not out before the plates are parted', () => {
  test.each(['Front plate', 'Back plate, with its pillars'])('by a step for it: %s', async (part) => {
    const { job } = await shop.takeIn()
    await held(put(job.id, 'strip-steps', step(part)), /not parted yet/)
    expect((await page(job.id)).stripSteps).toEqual([])
  })

  test('by a step that is renamed to it', async () => {
    const { job } = await shop.takeIn()
    const dial = step('Dial')
    await put(job.id, 'strip-steps', dial).expect(201)
    await held(put(job.id, 'strip-steps', { ...dial, version: 1, part: 'Front plate' }), /not parted yet/)
    expect((await page(job.id)).stripSteps).toMatchObject([{ part: 'Dial', version: 1 }])
    // Nor is anything told of it.
    expect((await journal(job.id)).filter((e) => e.text.includes('Front plate'))).toEqual([])
  })

  test('on the word of another workshop', async () => {
    const { job } = await shop.takeIn()
    await markMeshes(shop.request, job.id)
    await shop.request
      .post(`/api/jobs/${job.id}/overrides`)
      .send({ id: randomUUID(), gate: 'power', reason: 'Its springs are out, I saw it.' })
      .expect(201)
    const brought = JSON.stringify({ from: 'Elsewhere', writtenOn: '2026-01-01', at: AT, by: 'Ida' })
    await runSql(shop.adminUrl, `update gate_overrides set brought = '${brought}' where job_id = '${job.id}'`)
    await held(shop.request.post(`/api/jobs/${job.id}/part`).send({}), /Not confirmed off: going, strike/)
    const { overrides, gates } = await page(job.id)
    expect(overrides[0]?.brought).toMatchObject({ from: 'Elsewhere' })
    expect(gates.every((g) => g.overriddenBecause === null)).toBe(true)
  })
})

describe('no oil before every train ran dry', () => {
  const oiled = { ...blankOilSheet(randomUUID()), done: ['going|Third|front'] }

  test('by the map, by the log, by an entry of it that is changed to that, by a sheet of it', async () => {
    const id = await parted(shop)
    await put(id, 'dry-runs', dryRun('going', 'free')).expect(201)
    await held(put(id, 'oil-sheets', { ...oiled, id: randomUUID() }), /Not run dry.*strike train/)
    await held(put(id, 'events', event('oiled')), /Run it dry first/)
    const moved = event('moved')
    await put(id, 'events', moved).expect(201)
    await held(put(id, 'events', { ...moved, version: 1, kind: 'oiled' }), /Run it dry first/)
    const { oilSheets, events } = await page(id)
    expect([oilSheets, events.map((e) => e.kind)]).toEqual([[], ['moved']])
  })

  test('nor is the dry run taken back that oil stands on; that it is tight may always be said', async () => {
    const id = await parted(shop)
    const runs = [dryRun('going', 'free'), dryRun('strike', 'free')]
    for (const run of runs) await put(id, 'dry-runs', run).expect(201)
    const sheet = { ...oiled, id: randomUUID() }
    await put(id, 'oil-sheets', sheet).expect(201)
    const [going] = runs
    await held(back(id, 'dry-runs', going!.id), /Oil stands on this dry run/)
    await held(put(id, 'dry-runs', { ...going!, version: 1, verdict: '' }), /Oil stands on this dry run/)
    await put(id, 'dry-runs', { ...going!, version: 1, verdict: 'tight' }).expect(200)
    await put(id, 'oil-sheets', { ...sheet, version: 1, done: [] }).expect(200)
    await back(id, 'dry-runs', going!.id).expect(204)
  })
})

describe('no spring is worked on before its train is off', () => {
  const worked = (train: 'going' | 'strike') => ({ ...blankSpringSheet(randomUUID(), train), done: ['out'] })

  test('by a step, or by a sheet that passes to another train', async () => {
    const { job } = await shop.takeIn()
    await held(put(job.id, 'springs', worked('going')), /Confirm the going train off/)
    await shop.request.post(`/api/jobs/${job.id}/power`).send(powerOff('going')).expect(201)
    const sheet = worked('going')
    await put(job.id, 'springs', sheet).expect(201)
    await held(put(job.id, 'springs', { ...sheet, version: 1, train: 'strike' }), /Confirm the strike train off/)
    expect((await page(job.id)).springs).toMatchObject([{ train: 'going', version: 1 }])
  })

  test('nor is that taken back while it was worked on', async () => {
    const { job } = await shop.takeIn()
    const off = powerOff('going')
    await shop.request.post(`/api/jobs/${job.id}/power`).send(off).expect(201)
    const sheet = worked('going')
    await put(job.id, 'springs', sheet).expect(201)
    await held(back(job.id, 'power', off.id), /was worked on with its power off/)
    await back(job.id, 'springs', sheet.id).expect(204)
    await back(job.id, 'power', off.id).expect(200)
  })
})

describe('nothing goes together over a bad click', () => {
  const great = { train: 'strike', arbor: 'Great', arborIndex: 0, part: 'wheel' } as const

  test('by a led step, a part that is put back, a train that is driven; mended, it does', async () => {
    const id = await parted(shop)
    const sheet = { ...blankWheelSheet(randomUUID(), great), click: 'bad' as const }
    await put(id, 'wheels', sheet).expect(201)
    const plate = step('Front plate')
    await put(id, 'strip-steps', plate).expect(201)
    const stand = observation('assembly:stand', 'done')
    await held(put(id, 'observations', stand), /Mend the click of the strike train/)
    await held(put(id, 'strip-steps', { ...plate, version: 1, back: true }), /Mend the click/)
    await held(put(id, 'dry-runs', dryRun('strike', 'free')), /Mend the click/)
    const sound = { ...sheet, version: 1, click: 'sound', clickSpring: 'sound', rivet: 'sound' }
    await put(id, 'wheels', sound).expect(200)
    await put(id, 'observations', stand).expect(201)
    await put(id, 'strip-steps', { ...plate, version: 1, back: true }).expect(200)
    await put(id, 'dry-runs', dryRun('strike', 'free')).expect(201)
  })
})

describe('mercury', () => {
  test('is not opened before all is so that must be, nor said to be weighed without its weight', async () => {
    const { job } = await shop.takeIn()
    const decant = observation('mercury keep: decant', 'done')
    await held(put(job.id, 'observations', decant), /Nothing of the mercury is opened yet/)
    const so = MERCURY_GATE.map(([key]) => observation(`mercury gate: ${key}`, 'so'))
    for (const one of so.slice(1)) await put(job.id, 'observations', one).expect(201)
    await held(put(job.id, 'observations', decant), /The authority was asked/)
    // A step that was noted, and is then said to be done.
    const noted = observation('mercury keep: film', '')
    await put(job.id, 'observations', noted).expect(201)
    await held(put(job.id, 'observations', { ...noted, version: 1, answer: 'done' }), /Still wanted/)
    await put(job.id, 'observations', so[0]!).expect(201)
    await held(put(job.id, 'observations', observation('mercury keep: weigh-before', 'done')), /what the jar weighs/)
    await put(job.id, 'observations', observation('mercury: jar', '', { figure: 5210.4 })).expect(201)
    await put(job.id, 'observations', observation('mercury keep: weigh-before', 'done')).expect(201)
    await put(job.id, 'observations', decant).expect(201)
    // What it stands on is not taken back under it.
    await held(back(job.id, 'observations', so[2]!.id), /stand on this/)
    await held(put(job.id, 'observations', { ...so[2]!, version: 1, answer: '' }), /stand on this/)
  })
})

describe('a plate is not cut before its marks and its pivot', () => {
  const DONE = ['mark', 'reference', 'mask']
  const place = { train: 'going', arbor: 'Third arbor', arborIndex: 2, plate: 'back' } as const
  const waiting = blankPivot(randomUUID(), place)

  test('by a later step alone, by the hole itself, by a hole that takes another place', async () => {
    const id = await parted(shop)
    const hole = newHole()
    await put(id, 'holes', hole).expect(201)
    const work = blankBushing(randomUUID(), hole.id)
    await held(put(id, 'bushings', { ...work, done: ['pair'] }), /Mark the wear/)
    await put(id, 'pivots', { ...waiting, id: randomUUID() }).expect(201)
    await held(put(id, 'bushings', { ...work, done: [...DONE, 'press'] }), /Finish the pivot first/)
    await held(put(id, 'holes', { ...hole, version: 1, bushed: true }), /Finish the pivot first/)
    // Cut where no pivot waits, it is not moved to where one does.
    const other = newHole({ arbor: 'Centre arbor' })
    await put(id, 'holes', other).expect(201)
    await put(id, 'bushings', { ...blankBushing(randomUUID(), other.id), done: [...DONE, 'cut'] }).expect(201)
    await back(id, 'holes', hole.id).expect(204)
    await held(put(id, 'holes', { ...other, version: 1, arbor: 'Third arbor' }), /Finish the pivot first/)
    expect((await page(id)).holes).toMatchObject([{ arbor: 'Centre arbor', bushed: false }])
  })

  test('nor is a pivot unfinished again under the bush that was sized by it', async () => {
    const id = await parted(shop)
    const hole = newHole()
    await put(id, 'holes', hole).expect(201)
    const pivot = { ...waiting, id: randomUUID(), work: 'polished' as const, finishedMm: 1 }
    await put(id, 'pivots', pivot).expect(201)
    await put(id, 'bushings', { ...blankBushing(randomUUID(), hole.id), done: [...DONE, 'cut'] }).expect(201)
    await held(put(id, 'pivots', { ...pivot, version: 1, work: '', finishedMm: null }), /Finish the pivot first/)
    expect((await page(id)).pivots).toMatchObject([{ finishedMm: 1 }])
  })
})

describe('what can’t be undone waits for the owner’s word', () => {
  const third = { train: 'going', arbor: 'Third', arborIndex: 2, part: 'wheel' } as const
  const forGood = async () => {
    const { values } = (await shop.request.get('/api/tables/ways').expect(200)).body as {
      values: { ways: { key: string; undone: boolean }[] }
    }
    return values.ways.find((w) => !w.undone)!.key
  }

  test('by the step first and the way after, by the donor that is taken for it, by the word that is taken back', async () => {
    const { job } = await shop.takeIn()
    const way = await forGood()
    const sheet = { ...blankWheelSheet(randomUUID(), third), done: ['begun'] }
    await put(job.id, 'wheels', sheet).expect(201)
    await held(put(job.id, 'wheels', { ...sheet, version: 1, way }), /Ask the owner first/)
    const donor = { ...blankDonor(randomUUID()), count: 64, there: 1 }
    await shop.request.put(`/api/donors/${donor.id}`).send(donor).expect(201)
    const taking = { ...blankWheelSheet(randomUUID(), { ...third, arbor: 'Centre' }), way, donorId: donor.id }
    await held(put(job.id, 'wheels', taking), /Ask the owner first/)
    // Nor has it left the ledger.
    const ledger = (await shop.request.get('/api/donors')).body as { id: string; there: number }[]
    expect(ledger.find((d) => d.id === donor.id)?.there).toBe(1)
    await put(job.id, 'wheels', { ...sheet, version: 1, way, ownerAgreed: true }).expect(200)
    await held(put(job.id, 'wheels', { ...sheet, version: 2, way, ownerAgreed: false }), /Ask the owner/)
  })
})

const stock = (part: Partial<StockChange>): StockChange => ({
  ...{ id: randomUUID(), version: 0, kind: 'bush', name: '', material: 'bronze', count: 1, lowAt: 0, drawer: '' },
  ...{ outsideMm: 2, insideMm: 1, lengthMm: 3, measuredMm: null, widthMm: null, thickMm: null },
  ...part,
})
const spring = (kind: 'mainspring' | 'suspension spring') =>
  stock({ kind, outsideMm: null, insideMm: null, lengthMm: 900, widthMm: 18, thickMm: 0.4 })
const keep = async (one: StockChange) => {
  await shop.request.put(`/api/stock/${one.id}`).send(one).expect(201)
  return one.id
}
const countOf = async (id: string) => {
  const row = ((await shop.request.get('/api/stock')).body as StockRow[]).find((s) => s.id === id)
  return [row?.count, row?.reserved]
}
const promise = (stockId: string, more: object = {}) => ({
  ...{ id: randomUUID(), stockId, holeId: null, count: 1, taken: false, ...more },
})

describe('the last one, wanted by two jobs at once', () => {
  test('a mainspring that is taken as it is fitted', async () => {
    const [one, two] = [await parted(shop), await parted(shop)]
    for (let round = 0; round < ROUNDS; round++) {
      const stockId = await keep(spring('mainspring'))
      const sheets = [one, two].map(() => ({
        ...blankSpringSheet(randomUUID(), 'going'),
        ...{ choice: 'stock' as const, stockId, done: ['take'] },
      }))
      const both = [one, two].map((job, i) => put(job, 'springs', sheets[i]!))
      expect(await statuses(both)).toEqual([201, 409])
      expect(await countOf(stockId)).toEqual([0, 0])
      await Promise.all([one, two].map((job, i) => back(job, 'springs', sheets[i]!.id)))
      expect(await countOf(stockId)).toEqual([1, 0])
    }
  })

  test('a suspension spring that is promised or taken', async () => {
    const [{ job }, { job: other }] = [await shop.takeIn(), await shop.takeIn()]
    for (let round = 0; round < ROUNDS; round++) {
      const stockId = await keep(spring('suspension spring'))
      const both = [job, other].map((j) => put(j.id, 'reservations', promise(stockId, { taken: round % 2 === 0 })))
      expect(await statuses(both)).toEqual([201, 409])
      const [count, reserved] = await countOf(stockId)
      expect(count! - reserved!).toBe(0)
    }
  })

  test('a donor of the ledger', async () => {
    const [{ job }, { job: other }] = [await shop.takeIn(), await shop.takeIn()]
    for (let round = 0; round < ROUNDS; round++) {
      const donor = { ...blankDonor(randomUUID()), count: 60 + round }
      await shop.request.put(`/api/donors/${donor.id}`).send(donor).expect(201)
      const place = { train: 'going', arbor: `Arbor ${round}`, arborIndex: 2, part: 'wheel' } as const
      const both = [job, other].map((j) =>
        put(j.id, 'wheels', { ...blankWheelSheet(randomUUID(), place), donorId: donor.id }),
      )
      expect(await statuses(both)).toEqual([201, 409])
      const ledger = (await shop.request.get('/api/donors')).body as { id: string; there: number }[]
      expect(ledger.find((d) => d.id === donor.id)?.there).toBe(0)
    }
  })

  test('an oil that is taken out while a clock is oiled with it: it is in the clock, or it is gone', async () => {
    for (let round = 0; round < ROUNDS; round++) {
      const { job } = await shop.takeIn()
      const oil = { ...blankOil(randomUUID(), 'pivot oil'), name: `Bottle ${round}` }
      await shop.request.put(`/api/oils/${oil.id}`).send(oil).expect(201)
      const [used, gone] = await Promise.all([
        put(job.id, 'oil-sheets', { ...blankOilSheet(randomUUID()), pivotOilId: oil.id }),
        shop.request.delete(`/api/oils/${oil.id}`),
      ])
      expect(`${used.status} ${gone.status}`).toMatch(/^(201 409|400 204)$/)
      const oils = (await shop.request.get('/api/oils')).body as { id: string }[]
      expect(oils.some((o) => o.id === oil.id)).toBe(used.status === 201)
    }
  })

  test('lists come and go while jobs promise, take and put back: nobody waits for another in a ring', async () => {
    const { job } = await shop.takeIn()
    const sizes = Array.from({ length: 12 }, (_, i) => 4 + i / 100)
    const ids = await Promise.all(sizes.map((outsideMm) => keep(stock({ outsideMm, count: 50 }))))
    const deadlocks = async () => {
      const asked = await shop.connection.pool.query<{ n: string }>(
        'select deadlocks as n from pg_stat_database where datname = current_database()',
      )
      return Number(asked.rows[0]?.n)
    }
    const before = await deadlocks()
    for (let round = 0; round < ROUNDS; round++) {
      const list = {
        id: randomUUID(),
        csv: `kind,material,outside mm,inside mm,length mm,count\n${sizes.map((s) => `bush,bronze,${s},1,3,${60 + round}`).join('\n')}\n`,
        keep: true,
      }
      const asked = [
        shop.request.post('/api/stock/lists').send(list),
        ...ids.map((id) => put(job.id, 'reservations', promise(id, { taken: true }))),
        ...ids
          .slice(0, 4)
          .map((id, i) =>
            shop.request.put(`/api/stock/${id}`).send({ ...stock({ id, outsideMm: sizes[i]! }), version: 99 }),
          ),
      ]
      for (const status of await statuses(asked)) expect([200, 201, 409]).toContain(status)
      await shop.request
        .post(`/api/stock/lists/${list.id}/undo`)
        .send({})
        .expect((r) => expect(r.status).toBeLessThan(500))
    }
    expect(await deadlocks()).toBe(before)
  })
})

describe('a visit that is called off', () => {
  test('lets go of what was promised to it; opened again, it says what could not be had', async () => {
    const [{ job }, { job: other }] = [await shop.takeIn(), await shop.takeIn()]
    const [gone, left] = [
      await keep(stock({ outsideMm: 5, count: 2 })),
      await keep(stock({ outsideMm: 5.5, count: 2 })),
    ]
    for (const stockId of [gone, left]) await put(job.id, 'reservations', promise(stockId, { count: 2 })).expect(201)
    await shop.request.post(`/api/jobs/${job.id}/call-off`).send({ reason: 'It was sold.' }).expect(200)
    expect((await journal(job.id))[0]?.text).toMatch(/^Called off: It was sold\. Let go of .*2 × .*5\.00.*2 × .*5\.50/)
    expect(await countOf(gone)).toEqual([2, 0])
    await put(other.id, 'reservations', promise(gone)).expect(201)
    const again = (await shop.request.post(`/api/jobs/${job.id}/reopen`).send({}).expect(200)).body as Reopened
    expect(again.noMore).toEqual([expect.stringMatching(/^2 × .*5\.00/)])
    expect(again.reservations.map((r) => r.stockId)).toEqual([left])
    expect([await countOf(gone), await countOf(left)]).toEqual([
      [2, 1],
      [2, 2],
    ])
    expect((await journal(job.id))[0]?.text).toMatch(/^Reopened\. No longer to be had .*5\.00/)
  })

  test('of two that are opened again for the last one, one has it', async () => {
    for (let round = 0; round < ROUNDS; round++) {
      const stockId = await keep(stock({ outsideMm: 6 + round / 100, count: 1 }))
      const both = [(await shop.takeIn()).job.id, (await shop.takeIn()).job.id]
      for (const id of both) {
        await put(id, 'reservations', promise(stockId)).expect(201)
        await shop.request.post(`/api/jobs/${id}/call-off`).send({ reason: 'Not now.' }).expect(200)
      }
      const again = await Promise.all(both.map((id) => shop.request.post(`/api/jobs/${id}/reopen`).send({})))
      expect(again.map((a) => (a.body as Reopened).noMore.length).sort()).toEqual([0, 1])
      expect(await countOf(stockId)).toEqual([1, 1])
    }
  })
})
