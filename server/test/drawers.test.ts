import { randomUUID } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import type { StockChange, StockImport, StockPreview, StockRow } from '@treadle/contract'
import { useWorkshop } from './workshop.ts'

const shop = useWorkshop()

const HEAD = 'kind,name,material,outside mm,inside mm,length mm,measured mm,count,low at,drawer'
type Answer = StockPreview & { kept: StockImport | null }

const stock = async () => (await shop.request.get('/api/stock').expect(200)).body as StockRow[]
const send = async (csv: string, keep: boolean, id = randomUUID()) =>
  (await shop.request.post('/api/stock/lists').send({ id, csv, keep }).expect(200)).body as Answer

describe('lists', () => {
  test('looked at, nothing changes; taken in, it is there; taken back, it is gone', async () => {
    const csv = `${HEAD}\nbush,,bronze,2.02,1.00,2.5,,6,2,B1\ncutter,stamped 2,,,,,2.003,1,0,C1\n`
    const looked = await send(csv, false)
    expect(looked).toMatchObject({ same: 0, changed: [], wrong: [], kept: null })
    expect(looked.added).toHaveLength(2)
    expect(await stock()).toEqual([])
    const { kept } = await send(csv, true)
    expect(kept).toMatchObject({ added: 2, changed: 0 })
    expect((await stock()).map((s) => [s.kind, s.measuredMm ?? s.outsideMm, s.count])).toEqual([
      ['bush', 2.02, 6],
      ['cutter', 2.003, 1],
    ])
    await shop.request.post(`/api/stock/lists/${kept!.id}/undo`).send({}).expect(200)
    expect(await stock()).toEqual([])
    await shop.request.post(`/api/stock/lists/${randomUUID()}/undo`).send({}).expect(404)
  })

  test('the same thing again has its count changed, and is as it was when the list is taken back', async () => {
    const first = await send(`${HEAD}\nbush,,bronze,3.02,1.5,3,,4,1,B1\n`, true)
    const second = await send(`${HEAD}\nbush,,Bronze,3.02,1.5,3,,9,1,B7\n`, true)
    expect(second.kept).toMatchObject({ added: 0, changed: 1 })
    const one = async () => (await stock()).find((s) => s.outsideMm === 3.02)
    expect(await one()).toMatchObject({ count: 9, drawer: 'B7' })
    // The first can't go back while the second stands on it.
    expect((await shop.request.post(`/api/stock/lists/${first.kept!.id}/undo`).send({}).expect(409)).text).toMatch(
      /changed or promised since/,
    )
    await shop.request.post(`/api/stock/lists/${second.kept!.id}/undo`).send({}).expect(200)
    expect(await one()).toMatchObject({ count: 4, drawer: 'B1' })
    expect((await send(`${HEAD}\nbush,,bronze,3.02,1.5,3,,4,1,B1\n`, false)).same).toBe(1)
  })

  test('semicolons and decimal commas, as sheets of half the world write them', async () => {
    const csv = `\ufeff${HEAD.replaceAll(',', ';')}\r\nbush;;brass;2,32;1,10;2,5;;3;1;B1\r\n`
    expect((await send(csv, false)).added).toMatchObject([{ outsideMm: 2.32, insideMm: 1.1, lengthMm: 2.5, count: 3 }])
  })

  test('rows that can’t be are named by their line, and the others taken', async () => {
    const csv = [
      HEAD,
      'bush,,,2.02,1.1,2.5,,6,0,',
      'bush,,,2.02,2.1,2.5,,6,0,',
      'bush,,,2.02,,2.5,,6,0,',
      'spanner,,,2,,,,1,0,',
      'cutter,,,,,,wide,1,0,',
      'bush,,,2.02,1.1,2.5,,7,0,',
      'bush,,,2.02,1.2,2.5,,1.5,0,',
    ].join('\n')
    const { added, wrong } = await send(csv, false)
    expect(added).toHaveLength(1)
    expect(wrong.map((w) => [w.line, w.message])).toEqual([
      [3, expect.stringMatching(/smaller than the outside/)],
      [4, expect.stringMatching(/needs its outside, inside and length/)],
      [5, expect.stringMatching(/Kind must be one of/)],
      [6, expect.stringMatching(/Measured/)],
      [7, expect.stringMatching(/same as line 2/)],
      [8, expect.stringMatching(/Count must be an integer/)],
    ])
  })

  test.each([
    ['kind,size,count\nbush,2,1', /column “size” is not known; known are kind, name/],
    ['kind,name\nbush,2', /column “count” is missing/],
    ['', /csv|List/],
    [`${HEAD}\n"bush,,,2`, /can’t be read as a list/],
  ])('a list that is none says what is wrong: %j', async (csv, says) => {
    const answer = await shop.request.post('/api/stock/lists').send({ id: randomUUID(), csv, keep: true })
    expect(answer.text).toMatch(says)
    const body = answer.body as Partial<Answer>
    expect(body.kept?.added ?? 0).toBe(0)
  })

  test('five thousand rows come in whole, and go out again the same', async () => {
    const rows = Array.from(
      { length: 5000 },
      (_, i) => `bush,row ${i},bronze,${(4 + i / 1000).toFixed(3)},1.5,3,,${i % 9},0,B${i % 40}`,
    )
    const { kept, wrong } = await send([HEAD, ...rows].join('\n'), true)
    expect(wrong).toEqual([])
    expect(kept?.added).toBe(5000)
    const out = await shop.request.get('/api/stock.csv').expect(200)
    const back = await send(out.text, false)
    expect(back).toMatchObject({ added: [], changed: [], wrong: [] })
    expect(back.same).toBeGreaterThanOrEqual(5000)
    await shop.request.post(`/api/stock/lists/${kept!.id}/undo`).send({}).expect(200)
  })

  test('a name that a sheet would reckon goes out harmless and comes back as it was', async () => {
    await send(`${HEAD}\nrod,=1+2,bronze,5,,200,,1,0,\n`, true)
    const out = await shop.request.get('/api/stock.csv').expect(200)
    expect(out.text).toContain("'=1+2")
    expect((await send(out.text, false)).added).toEqual([])
  })
})

describe('one thing at a time', () => {
  const cutter = (part: Partial<StockChange> = {}): StockChange => ({
    id: randomUUID(),
    version: 0,
    kind: 'cutter',
    name: '',
    material: '',
    outsideMm: null,
    insideMm: null,
    lengthMm: null,
    measuredMm: 2.5,
    widthMm: null,
    thickMm: null,
    count: 1,
    lowAt: 0,
    drawer: '',
    ...part,
  })

  test('put in, changed, and two people’s changes laid side by side', async () => {
    const one = cutter()
    await shop.request.put(`/api/stock/${one.id}`).send(one).expect(201)
    await shop.request
      .put(`/api/stock/${one.id}`)
      .send({ ...one, version: 1, drawer: 'C4' })
      .expect(200)
    const stale = await shop.request
      .put(`/api/stock/${one.id}`)
      .send({ ...one, version: 1, drawer: 'C5' })
      .expect(409)
    expect((stale.body as { current: StockChange }).current.drawer).toBe('C4')
    await shop.request.delete(`/api/stock/${one.id}`).expect(204)
  })

  test.each([
    [{ measuredMm: null, widthMm: null, thickMm: null }, /needs its measured size/],
    [{ kind: 'rod', measuredMm: null, widthMm: null, thickMm: null }, /how thick they are/],
    [{ count: -1 }, /Count/],
    [{ id: 'x' }, /no such thing|UUID/],
  ])('%j is refused', async (part, says) => {
    const body = cutter(part as Partial<StockChange>)
    const answer = await shop.request.put(`/api/stock/${body.id}`).send(body)
    expect(answer.status).toBeGreaterThanOrEqual(400)
    expect(answer.text).toMatch(says)
  })
})
