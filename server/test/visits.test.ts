import { randomUUID } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import { visitChangeOf, type BenchPage, type JobPage, type Observation, type VisitChange } from '@treadle/contract'
import { LOSS_KEY, lookedKey } from '@treadle/core'
import { newHole, newJob, newListening, parted, useWorkshop } from './workshop.ts'

const shop = useWorkshop()
const page = async (id: string) => (await shop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const bench = async () => (await shop.request.get('/api/bench').expect(200)).body as BenchPage
const gate = async (id: string, name: string) => (await page(id)).gates.find((g) => g.name === name)!
const visit = async (id: string, part: Partial<VisitChange>) =>
  shop.request.put(`/api/jobs/${id}/visit`).send({ ...visitChangeOf((await page(id)).job), ...part })
const say = (id: string, key: string, part: Partial<Observation> = {}) => {
  const row = {
    id: randomUUID(),
    version: 0,
    key,
    answer: 'sound',
    figure: null,
    second: null,
    note: '',
    photoId: null,
  }
  return shop.request.put(`/api/jobs/${id}/observations/${row.id}`).send({ ...row, ...part, id: row.id })
}
const event = (id: string, kind: string, at = new Date()) => {
  const row = { id: randomUUID(), version: 0, at: at.toISOString(), kind, turns: null, showed: '', note: '' }
  return shop.request.put(`/api/jobs/${id}/events/${row.id}`).send(row)
}

describe('gates go by what the movement has', () => {
  test('with four holes judged of a train of four arbors, the others are asked after by name', async () => {
    const id = await parted(shop)
    expect((await gate(id, 'holes')).reason).toMatch(/No arbor of the going and strike train is written down/)
    const arbors = ['Great wheel', 'Centre', 'Third arbor', 'Escape'].map((name) => ({ name, wheel: 64, pinion: 8 }))
    arbors[0] = { ...arbors[0]!, pinion: null as never }
    const sheet = { id: randomUUID(), version: 0, train: 'going', arbors, hourly: 1, escape: true, greatTurns: null }
    await shop.request
      .put(`/api/jobs/${id}/trains/${sheet.id}`)
      .send({ ...sheet, motion: null, faultPeriodS: null })
      .expect(201)
    await say(id, lookedKey('holes', 'strike')).expect(201)
    await say(id, lookedKey('pivots', 'strike')).expect(201)
    const hole = newHole({ arbor: 'Third arbor', waived: 'bushed last year' })
    await shop.request.put(`/api/jobs/${id}/holes/${hole.id}`).send(hole).expect(201)
    expect((await gate(id, 'holes')).reason).toMatch(/^Nobody has looked at 7 holes: Great wheel, front;/)
    expect((await gate(id, 'pivots')).reason).toMatch(/^Nobody has looked at 8 pivots:/)
    expect((await page(id)).owed.some((o) => o.kind === 'assemble')).toBe(false)
    await say(id, lookedKey('holes', 'going')).expect(201)
    await say(id, lookedKey('pivots', 'going')).expect(201)
    expect((await gate(id, 'holes')).passed).toBe(true)
    expect((await gate(id, 'pivots')).passed).toBe(true)
  })

  test('a plate can’t be logged off before the plates are parted', async () => {
    const { job } = await shop.takeIn()
    const step = (part: string) => ({
      ...{ id: randomUUID(), version: 0, position: 1, part, tray: 'going', screws: '', marks: '', remark: '' },
      ...{ count: 1, photoId: null, back: false, notBack: '' },
    })
    const plate = step('Front plate')
    const refused = await shop.request.put(`/api/jobs/${job.id}/strip-steps/${plate.id}`).send(plate).expect(422)
    expect((refused.body as { title: string }).title).toMatch(/Confirm every train’s power off first/)
    const hands = step('Hands')
    await shop.request.put(`/api/jobs/${job.id}/strip-steps/${hands.id}`).send(hands).expect(201)
  })

  test('a dearer estimate that nobody agreed to keeps the job open', async () => {
    const { job } = await shop.takeIn()
    const line = {
      id: randomUUID(),
      title: 'Service',
      unit: '',
      quantity: 1,
      unitPrice: '90.00',
      upToPrice: null,
      kind: 'fixed',
    }
    const estimate = (revision: number, state: string, unitPrice: string) => ({
      ...{ id: randomUUID(), version: 0, revision, state, choices: [], chosen: '', currency: '€' },
      lines: [{ ...line, unitPrice, taxed: true, order: false }],
      ...{ taxPercent: '0', depositPercent: '0', note: '', sentAt: new Date().toISOString() },
      answer:
        state === 'accepted'
          ? { how: 'call', by: 'Gull Row', at: new Date().toISOString(), note: 'Agreed to it.', strokes: [] }
          : null,
    })
    const put = (e: { id: string }) => shop.request.put(`/api/jobs/${job.id}/estimates/${e.id}`).send(e)
    await put(estimate(1, 'accepted', '90.00')).expect(201)
    expect((await gate(job.id, 'estimate')).passed).toBe(true)
    await put(estimate(2, 'sent', '140.00')).expect(201)
    expect((await gate(job.id, 'estimate')).reason).toBe(
      'Estimate 2, 140.00 €, is with the owner and not answered; 90.00 was agreed to.',
    )
    await put(estimate(3, 'sent', '80.00')).expect(201)
    expect((await gate(job.id, 'estimate')).passed).toBe(true)
  })
})

describe('a way out', () => {
  test('taken in by mistake it is called off: off the bench, in the book, and open again if need be', async () => {
    const { job, clock } = await shop.takeIn()
    await shop.request.post(`/api/jobs/${job.id}/call-off`).send({ reason: '' }).expect(400)
    await shop.request.post(`/api/jobs/${job.id}/call-off`).send({ reason: 'entered twice' }).expect(200)
    expect((await bench()).tags.some((t) => t.job.id === job.id)).toBe(false)
    expect((await page(job.id)).job).toMatchObject({ ending: 'called-off' })
    const book = (await shop.request.get(`/api/clocks/${clock.id}`)).body as { visits: { ending: string }[] }
    expect(book.visits.map((v) => v.ending)).toEqual(['called-off'])
    await shop.request.post(`/api/jobs/${job.id}/reopen`).send({}).expect(200)
    expect((await page(job.id)).job).toMatchObject({ ending: '', closedAt: null })
  })

  test('with its plates parted it can’t be called off, and nothing has changed', async () => {
    const id = await parted(shop)
    await shop.request.post(`/api/jobs/${id}/call-off`).send({ reason: 'changed my mind' }).expect(422)
    expect((await page(id)).job.closedAt).toBeNull()
  })

  test('back as it came: one reason, what came with it ticked off, and it may go', async () => {
    const { job } = await shop.takeIn({ cameWith: [] })
    await shop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(422)
    expect((await visit(job.id, { scope: 'untouched', scopeReason: 'no' })).status).toBe(400)
    expect((await visit(job.id, { scope: 'untouched', scopeReason: 'the owner declined' })).status).toBe(200)
    expect((await gate(job.id, 'rate')).notNeeded).toBe('Goes back as it came: the owner declined')
    await shop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(200)
    const { visits } = (await shop.request.get(`/api/clocks/${job.clockId}`)).body as { visits: { told: string[] }[] }
    expect(visits[0]?.told).toEqual(['It went back as it came.'])
  })

  test('a clock that waits for parts says so, and asks again on its day', async () => {
    const { job } = await shop.takeIn()
    expect(
      (await visit(job.id, { waitsFor: 'parts', waitsNote: 'Mainspring 19', waitsUntil: '2020-01-02' })).status,
    ).toBe(200)
    expect((await page(job.id)).owed).toEqual([
      expect.objectContaining({ kind: 'waits', title: 'Ask after the parts', weight: 'watch' }),
    ])
    expect((await visit(job.id, { waitsFor: '' })).status).toBe(200)
    expect((await page(job.id)).job).toMatchObject({ waitsFor: '', waitsNote: '', waitsUntil: null })
  })

  test('what broke in our hands is a must until the owner was told', async () => {
    const { job } = await shop.takeIn()
    const key = `${LOSS_KEY}${randomUUID()}`
    const made = await say(job.id, key, { answer: 'not told', note: 'the glass of the door' }).expect(201)
    expect((await page(job.id)).owed[0]).toMatchObject({ kind: 'tell-owner', weight: 'must' })
    expect((await gate(job.id, 'parts')).reason).toMatch(/owner not told: the glass of the door/)
    const { id } = made.body as { id: string }
    const told = { id, version: 1, key, answer: 'told', figure: null, second: null, note: 'the glass of the door' }
    await shop.request
      .put(`/api/jobs/${job.id}/observations/${id}`)
      .send({ ...told, photoId: null })
      .expect(200)
    expect((await page(job.id)).owed.some((o) => o.kind === 'tell-owner')).toBe(false)
  })
})

describe('owners', () => {
  const owner = async (id: string) =>
    (await shop.request.get(`/api/owners/${id}`)).body as {
      owner: { version: number; phone: string }
      clocks: object[]
    }

  test('are found by telephone and address, corrected, and never changed on an older version', async () => {
    const { owner: made } = await shop.takeIn({
      owner: { id: randomUUID(), name: 'Wren Quay', phone: '0555 7731', address: '4 Ropewalk' },
    })
    for (const words of ['7731', 'ropewalk', 'wren']) {
      const found = (await shop.request.get(`/api/owners?q=${words}`)).body as { owner: { id: string } }[]
      expect(found.map((f) => f.owner.id)).toContain(made.id)
      const everywhere = (await shop.request.get(`/api/find?q=${words}`)).body as { kind: string; id: string }[]
      expect(everywhere).toContainEqual(expect.objectContaining({ kind: 'owner', id: made.id }))
    }
    const change = { version: 1, name: 'Wren Quay', phone: '0555 7732', address: '4 Ropewalk' }
    await shop.request.patch(`/api/owners/${made.id}`).send(change).expect(200)
    await shop.request
      .patch(`/api/owners/${made.id}`)
      .send({ ...change, phone: '1' })
      .expect(409)
    expect((await owner(made.id)).owner.phone).toBe('0555 7732')
  })

  test('one who is in the book twice becomes one: clocks and what only one entry knew are kept', async () => {
    const one = await shop.takeIn({ owner: { id: randomUUID(), name: 'Ash Fell', phone: '', address: '' } })
    const two = await shop.takeIn({ owner: { id: randomUUID(), name: 'A. Fell', phone: '0555 1212', address: '' } })
    const into = { version: 1, into: one.owner.id }
    await shop.request
      .post(`/api/owners/${two.owner.id}/merge`)
      .send({ ...into, version: 7 })
      .expect(409)
    await shop.request.post(`/api/owners/${two.owner.id}/merge`).send(into).expect(200)
    const left = await owner(one.owner.id)
    expect(left.clocks).toHaveLength(2)
    expect(left.owner.phone).toBe('0555 1212')
    await shop.request.get(`/api/owners/${two.owner.id}`).expect(404)
    expect((await page(two.job.id)).owner.name).toBe('Ash Fell')
    await shop.request.post(`/api/owners/${one.owner.id}/merge`).send({ version: 2, into: one.owner.id }).expect(400)
  })

  test('a clock passes to another owner with its history', async () => {
    const { clock, job } = await shop.takeIn()
    const { owner: heir } = await shop.takeIn({ owner: { id: randomUUID(), name: 'Heir', phone: '', address: '' } })
    await shop.request.patch(`/api/clocks/${clock.id}/owner`).send({ version: 1, ownerId: heir.id }).expect(200)
    await shop.request.patch(`/api/clocks/${clock.id}/owner`).send({ version: 1, ownerId: randomUUID() }).expect(404)
    expect((await page(job.id)).owner.id).toBe(heir.id)
  })
})

describe('the log as a sheet', () => {
  const send = (id: string, text: string, keep: boolean) =>
    shop.request.post(`/api/jobs/${id}/log`).send({ text, keep }).expect(200)
  interface Answer {
    readings: { at: string; errorSeconds: number }[]
    events: object[]
    wrong: { line: number; message: string }[]
    kept: number
  }

  test('pasted lines are looked at first, then kept once however often they are sent', async () => {
    const { job } = await shop.takeIn()
    await shop.request.put('/api/settings').send({
      ...((await shop.request.get('/api/settings')).body as object),
      timeZone: 'Europe/Oslo',
    })
    const text =
      '2026-03-01 09:05, −12.5\n2026-03-02 09:05, 2:30, ear\n30 February, 4\n2026-02-30 10:00, 4\n2026-03-03 09:05, soon'
    const looked = (await send(job.id, text, false)).body as Answer
    expect(looked.readings.map((r) => [r.at, r.errorSeconds])).toEqual([
      ['2026-03-01T08:05:00.000Z', -12.5],
      ['2026-03-02T08:05:00.000Z', 150],
    ])
    expect(looked.wrong.map((w) => w.line)).toEqual([3, 4, 5])
    expect(looked.kept).toBe(0)
    expect((await page(job.id)).readings).toEqual([])
    expect(((await send(job.id, text, true)).body as Answer).kept).toBe(2)
    expect(((await send(job.id, text, true)).body as Answer).kept).toBe(0)
    expect((await page(job.id)).readings).toHaveLength(2)
  })

  test('saved as CSV it comes back as it was, into another job', async () => {
    const { job } = await shop.takeIn()
    await send(job.id, 'when;ahead s;how;event;turns\n2026-03-01 09:05;-12,5;pedal;;\n2026-03-02 10:00;;;nut;0,5', true)
    const saved = (await shop.request.get(`/api/jobs/${job.id}/log.csv`).expect(200)).text
    const { job: other } = await shop.takeIn()
    const again = (await send(other.id, saved, true)).body as Answer
    expect(again.wrong).toEqual([])
    expect(again.kept).toBe(2)
    const [one, two] = [await page(job.id), await page(other.id)]
    const bare = ({ readings, events }: JobPage) => [
      readings.map((r) => [r.at, r.errorSeconds, r.sigmaSeconds, r.way]),
      events.map((e) => [e.at, e.kind, e.turns]),
    ]
    expect(bare(two)).toEqual(bare(one))
  })

  test('saved and sent back to its own job it adds nothing, to the second', async () => {
    const { job } = await shop.takeIn()
    const row = { id: randomUUID(), version: 0, at: '2026-03-01T09:05:37.412Z', errorSeconds: 4.2, sigmaSeconds: 0.1 }
    await shop.request
      .put(`/api/jobs/${job.id}/readings/${row.id}`)
      .send({ ...row, way: 'pedal' })
      .expect(201)
    await event(job.id, 'oiled', new Date('2026-03-01T09:10:02.007Z')).expect(201)
    const saved = (await shop.request.get(`/api/jobs/${job.id}/log.csv`).expect(200)).text
    expect(saved).toMatch(/:05:37,4\.2,/)
    expect(((await send(job.id, saved, true)).body as Answer).kept).toBe(0)
    expect(((await send(job.id, `${saved}2026-03-02 09:00:00,5,,eye,,,\n`, true)).body as Answer).kept).toBe(1)
    expect((await page(job.id)).readings).toHaveLength(2)
  })

  test('a corrected reading leaves the old figure in the journal', async () => {
    const { job } = await shop.takeIn()
    const row = {
      id: randomUUID(),
      version: 0,
      at: '2026-03-01T09:00:00.000Z',
      errorSeconds: 4,
      sigmaSeconds: 1,
      way: 'eye',
    }
    await shop.request.put(`/api/jobs/${job.id}/readings/${row.id}`).send(row).expect(201)
    await shop.request
      .put(`/api/jobs/${job.id}/readings/${row.id}`)
      .send({ ...row, version: 1, errorSeconds: -56, at: '2026-02-28T09:00:00.000Z' })
      .expect(200)
    const journal = (await shop.request.get(`/api/jobs/${job.id}/journal`)).body as { text: string }[]
    expect(journal.some((e) => /Corrected a reading: −56\.0 s.*it was \+4\.0 s, 2026-03-01/.test(e.text))).toBe(true)
  })
})

test('a clock at home is thought of when its oil is due, and not while it is here', async () => {
  const { job, clock, owner } = await shop.takeIn({ cameWith: [] })
  const long = new Date(Date.now() - 3.2 * 365.25 * 86_400_000)
  await event(job.id, 'oiled', long).expect(201)
  const heard = newListening()
  await shop.request.put(`/api/jobs/${job.id}/listenings/${heard.id}`).send(heard).expect(201)
  for (const name of ['rate', 'trial', 'beat'])
    await shop.request
      .post(`/api/jobs/${job.id}/overrides`)
      .send({ id: randomUUID(), gate: name, reason: 'By agreement with the owner.' })
      .expect(201)
  const recalled = async () => (await bench()).recalls.filter((r) => r.clock.id === clock.id)
  expect(await recalled()).toEqual([])
  await shop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(200)
  const [due] = await recalled()
  expect(due?.owed[0]).toMatchObject({ kind: 'recall', weight: 'watch' })
  expect((await shop.request.get('/api/now.ics')).text).toContain('oil is due for a look')
  const { kind, subject, dueS } = due!.owed[0]!
  const mark = { kind, subject, state: 'not-needed', dueS, untilS: null }
  await shop.request.put(`/api/jobs/${job.id}/now`).send(mark).expect(200)
  expect(await recalled()).toEqual([])
  await shop.request.delete(`/api/jobs/${job.id}/now/recall?subject=`)
  expect(await recalled()).toHaveLength(1)
  const { ownerId: _, version: _v, ...known } = clock
  await shop.takeIn({ ...newJob(), owner, clock: known })
  expect(await recalled()).toEqual([])
})
