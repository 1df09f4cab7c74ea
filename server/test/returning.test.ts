import { randomUUID } from 'node:crypto'
import {
  blankOil,
  blankOilSheet,
  newEvent,
  visitChangeOf,
  type CareListed,
  type Invoice,
  type InvoiceRow,
  type JobPage,
  type Problem,
} from '@treadle/contract'
import type { YearTold } from '@treadle/core'
import { expect, test } from 'vitest'
import { newHole, newJob, useWorkshop } from './workshop.ts'

const shop = useWorkshop()
const YEAR_MS = 365.25 * 86_400_000
const yearsAgo = (years: number) => new Date(Date.now() - years * YEAR_MS)

/** A clock that was oiled so long ago, and went home. */
async function atHome(years: number, part: Partial<Parameters<typeof shop.takeIn>[0]> = {}): Promise<JobPage> {
  const page = await shop.takeIn({ cameWith: [], ...part })
  const at = `/api/jobs/${page.job.id}`
  const id = randomUUID()
  await shop.request
    .put(`${at}/events/${id}`)
    .send(newEvent(id, 'oiled', yearsAgo(years).toISOString()))
    .expect(201)
  for (const gate of ['beat', 'rate', 'trial'])
    await shop.request
      .post(`${at}/overrides`)
      .send({ id: randomUUID(), gate, reason: 'By agreement with the owner.' })
      .expect(201)
  await shop.request.post(`${at}/close`).send({}).expect(200)
  return page
}
const care = async (months = 12) =>
  (await shop.request.get(`/api/care?months=${months}`).expect(200)).body as CareListed[]
const of = (list: CareListed[], page: JobPage) =>
  list.filter((due) => due.clock.id === page.clock.id).map((due) => [due.kind, due.state])

test('what falls due at home is told months ahead, and what its owner answered', async () => {
  const due = await atHome(3.2)
  const later = await atHome(1.2)
  // By the usual school: a look at three years, service at five; the guarantee of a year began today.
  expect(of(await care(), due)).toEqual([
    ['check', 'due'],
    ['guarantee', 'coming'],
  ])
  expect(of(await care(), later)).toEqual([['guarantee', 'coming']])
  expect(of(await care(36), later)).toEqual([
    ['guarantee', 'coming'],
    ['check', 'coming'],
  ])
  const row = (await care()).find((d) => d.clock.id === due.clock.id && d.kind === 'check')!
  expect(row.look.join()).toMatch(/Suspension/)
  const mark = (state: string, untilS: number | null) => {
    const { kind, subject, dueS } = row.owed
    return shop.request.put(`/api/jobs/${due.job.id}/now`).send({ kind, subject, state, dueS, untilS }).expect(200)
  }
  await mark('later', Date.now() / 1000 + 86_400)
  expect(of(await care(), due)[0]).toEqual(['check', 'put-off'])
  await mark('done', null)
  expect(of(await care(), due)[0]).toEqual(['check', 'answered'])
  // Put off or answered it is not asked for in Now either.
  const bench = (await shop.request.get('/api/bench')).body as { recalls: { clock: { id: string } }[] }
  expect(bench.recalls.filter((r) => r.clock.id === due.clock.id)).toEqual([])
  // It comes back: while it is here nothing falls due at home.
  const { ownerId: _, version: _v, ...clock } = due.clock
  await shop.takeIn({ ...newJob(), owner: due.owner, clock })
  expect(of(await care(), due)).toEqual([])
})

test('a guarantee runs from the last visit, oiled or not; one that went back as it came gives none', async () => {
  const visit = async (before: JobPage, scope?: 'untouched') => {
    const { ownerId: _, version: _v, ...clock } = before.clock
    const page = await shop.takeIn({ ...newJob(), cameWith: [], owner: before.owner, clock })
    const at = `/api/jobs/${page.job.id}`
    if (scope)
      await shop.request
        .put(`${at}/visit`)
        .send({ ...visitChangeOf(page.job), scope, scopeReason: 'Its owner took it back.' })
        .expect(200)
    else
      for (const gate of ['beat', 'rate', 'trial'])
        await shop.request.post(`${at}/overrides`).send({ id: randomUUID(), gate, reason: 'By agreement.' }).expect(201)
    await shop.request.post(`${at}/close`).send({}).expect(200)
    return page
  }
  const guarantee = async (page: JobPage) =>
    (await care())
      .filter((d) => d.clock.id === page.clock.id && d.kind === 'guarantee')
      .map((d) => [d.jobId, d.oiledOn])

  // Oiled on the first visit; mended and not oiled on the second, from which the guarantee runs.
  const oiled = await atHome(3.2)
  expect(await guarantee(oiled)).toEqual([[oiled.job.id, yearsAgo(3.2).toISOString().slice(0, 10)]])
  const mended = await visit(oiled)
  expect(await guarantee(oiled)).toEqual([[mended.job.id, null]])
  // Its oil is still due by the visit that oiled it.
  expect((await care()).find((d) => d.clock.id === oiled.clock.id && d.kind === 'check')?.jobId).toBe(oiled.job.id)
  // A visit on which nothing was done changes nothing of it.
  await visit(oiled, 'untouched')
  expect(await guarantee(oiled)).toEqual([[mended.job.id, null]])
  const never = await shop.takeIn({ cameWith: [] })
  expect(await guarantee(never)).toEqual([])
})

test('months ahead is a number of months', async () => {
  for (const months of ['0', '999', 'x', '1.5']) {
    const answer = await shop.request.get(`/api/care?months=${months}`)
    expect([answer.status, (answer.body as Problem).errors?.[0]?.message]).toEqual([
      400,
      'Months ahead: a whole number from 1 to 36',
    ])
  }
})

test('an oil past its time when it was put on is looked at after a year', async () => {
  const page = await shop.takeIn({ cameWith: [] })
  const oil = { ...blankOil(randomUUID(), 'pivot oil'), name: 'Old oil', keepsYears: 1, openedOn: '2015-01-01' }
  await shop.request.put(`/api/oils/${oil.id}`).send(oil).expect(201)
  const at = `/api/jobs/${page.job.id}`
  const sheet = { ...blankOilSheet(randomUUID()), pivotOilId: oil.id }
  await shop.request.put(`${at}/oil-sheets/${sheet.id}`).send(sheet).expect(201)
  const event = randomUUID()
  await shop.request
    .put(`${at}/events/${event}`)
    .send(newEvent(event, 'oiled', yearsAgo(1.1).toISOString()))
    .expect(201)
  for (const gate of ['beat', 'rate', 'trial'])
    await shop.request.post(`${at}/overrides`).send({ id: randomUUID(), gate, reason: 'By agreement.' }).expect(201)
  await shop.request.post(`${at}/close`).send({}).expect(200)
  expect(of(await care(), page)[0]).toEqual(['check', 'due'])
})

test('a year of the workshop counts causes, oils and bushes, and goes out as CSV', async () => {
  const first = await atHome(0.1, { clock: { ...newJob().clock, name: '=Sum clock' } })
  const { ownerId: _, version: _v, ...clock } = first.clock
  const again = await shop.takeIn({ ...newJob(), owner: first.owner, clock })
  const at = `/api/jobs/${again.job.id}`
  const cause = { id: randomUUID(), version: 0, cause: 'beat-out', note: '' }
  await shop.request.put(`${at}/causes/${cause.id}`).send(cause).expect(201)
  const hole = newHole({ bushed: false })
  await shop.request.put(`${at}/holes/${hole.id}`).send(hole).expect(201)
  const told = (await shop.request.get('/api/year').expect(200)).body as YearTold
  expect(told.months.length).toBe(12)
  expect(told.months.at(-1)?.came).toBeGreaterThanOrEqual(2)
  expect(told.causes).toContainEqual({ cause: 'It is out of beat', times: 1 })
  expect(told.again.map((a) => a.clockId)).toContain(first.clock.id)
  const csv = (await shop.request.get('/api/year.csv').expect(200)).text
  expect(csv.split('\n')[0]).toMatch(/^number,clock,came,left,cause,oil,bushes,/)
  expect(csv).toContain('It is out of beat')
  // A sheet takes no name for a formula.
  expect(csv).not.toMatch(/,=Sum/)
  await shop.request.get('/api/year?until=2026-13').expect(400)
})

test('an invoice is one to a job, and is paid after the clock has gone home', async () => {
  const page = await atHome(0.5)
  const at = `/api/jobs/${page.job.id}`
  const line = { id: randomUUID(), title: 'Service', quantity: 1, unit: '', unitPrice: '95.00', taxed: true }
  const invoice: Invoice = {
    ...{
      id: randomUUID(),
      version: 0,
      issuedOn: '2026-11-29',
      currency: '€',
      taxPercent: '20',
      note: '',
      payments: [],
    },
    lines: [{ ...line, source: 'estimate', why: '' }],
  }
  await shop.request.put(`${at}/invoices/${invoice.id}`).send(invoice).expect(201)
  const payment = { id: randomUUID(), on: '2026-12-01', amount: '114.00', how: 'in cash' }
  const paid = (
    await shop.request
      .put(`${at}/invoices/${invoice.id}`)
      .send({ ...invoice, version: 1, payments: [payment] })
      .expect(200)
  ).body as InvoiceRow
  expect(paid.payments).toEqual([payment])
  const journal = (await shop.request.get(`${at}/journal`)).body as { text: string }[]
  expect(journal.map((j) => j.text)).toContain('Invoice of 2026-11-29: 114.00 €, 114.00 paid, 0.00 owed.')

  // Money came in: it stays.
  const stays = await shop.request.delete(`${at}/invoices/${invoice.id}`).expect(400)
  expect((stays.body as Problem).errors?.[0]?.field).toBe('payments')
  expect(((await shop.request.get(at)).body as JobPage).invoices[0]?.payments).toEqual([payment])

  // A second is no new one: whoever writes it sees the first.
  const second = { ...invoice, id: randomUUID() }
  const clash = await shop.request.put(`${at}/invoices/${second.id}`).send(second).expect(409)
  expect((clash.body as { current?: { id: string } }).current?.id).toBe(invoice.id)

  const unsaid = { ...invoice, version: 2, lines: [{ ...line, source: 'left', why: '' }] }
  const refused = await shop.request.put(`${at}/invoices/${invoice.id}`).send(unsaid).expect(400)
  expect((refused.body as Problem).errors?.[0]?.message).toMatch(/^Why: say of each line/)
})

test('what is known of a dial and of its card is kept with the clock, and refused where it can’t be', async () => {
  const { clock } = await shop.takeIn()
  const { id: _, ownerId: _o, ...known } = clock
  const moonWork = { state: 'works', clicksPerLunation: 59, southern: false, tideMinutes: 690 } as const
  const card = {
    ...{ regulates: false, seasons: false, oilsPulleys: true, language: 'de', second: 'en', largePrint: true },
    paper: 'A4',
  }
  const change = { ...known, work: { ...clock.work, moon: true, moonWork, handsBack: true }, card }
  await shop.request.patch(`/api/clocks/${clock.id}`).send(change).expect(200)
  const { body } = await shop.request.get(`/api/clocks/${clock.id}`)
  expect((body as { clock: object }).clock).toMatchObject({ card, work: { moonWork, handsBack: true } })
  for (const bad of [
    { ...change, version: 2, card: { ...card, language: 'xx' } },
    { ...change, version: 2, work: { ...change.work, moonWork: { ...moonWork, clicksPerLunation: 7 } } },
    { ...change, version: 2, work: { ...change.work, moonWork: { ...moonWork, tideMinutes: 720 } } },
  ])
    await shop.request.patch(`/api/clocks/${clock.id}`).send(bad).expect(400)
})
