import { randomUUID } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import type { BenchPage, CleanPart, Estimate, JobPage, NewJob, NowMark, StripStep, Timer } from '@treadle/contract'
import { jobChangeOf } from '@treadle/contract'
import { markMeshes, newJob, powerOff, useWorkshop } from './workshop.ts'

const workshop = useWorkshop()
const page = async (id: string) => (await workshop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const put = <B extends { id: string }>(jobId: string, path: string, body: B) =>
  workshop.request.put(`/api/jobs/${jobId}/${path}/${body.id}`).set('X-Bench', 'Ida').send(body)
const owedOf = async (id: string) => (await page(id)).owed.map((o) => o.kind)

describe('the power gate in full', () => {
  const clockWith = (train: NewJob['clock']['trains'][number], part: Partial<NewJob['clock']> = {}) => ({
    clock: { ...newJob().clock, trains: [train], ...part },
  })

  test('a fusee is off only with its set-up off', async () => {
    const { job } = await workshop.takeIn(clockWith({ train: 'going', power: 'fusee' }))
    const refused = await workshop.request.post(`/api/jobs/${job.id}/power`).send(powerOff('going')).expect(400)
    expect((refused.body as { errors: { message: string }[] }).errors[0]?.message).toMatch(/set-up is off/)
    const proofs = ['square', 'great-wheel', 'set-up']
    await workshop.request.post(`/api/jobs/${job.id}/power`).send(powerOff('going', { proofs })).expect(201)
  })

  test('a tall case asks for a second person, mercury for its procedure', async () => {
    const { job } = await workshop.takeIn(
      clockWith(
        { train: 'going', power: 'weight' },
        { kind: 'longcase', work: { strikeWork: null, moon: false, calendar: false, mercury: true } },
      ),
    )
    const off = powerOff('going', { method: 'weight-off', proofs: ['weight', 'great-wheel'] })
    const refused = await workshop.request.post(`/api/jobs/${job.id}/power`).send(off).expect(400)
    const { message } = (refused.body as { errors: { message: string }[] }).errors[0]!
    expect(message).toMatch(/mercury/)
    expect(message).toMatch(/second person/)
    await workshop.request
      .post(`/api/jobs/${job.id}/power`)
      .send({ ...off, proofs: [...off.proofs, 'mercury', 'second-person'] })
      .expect(201)
  })

  test('a way that does not fit the power is refused', async () => {
    const { job } = await workshop.takeIn(clockWith({ train: 'going', power: 'spring' }))
    const refused = await workshop.request
      .post(`/api/jobs/${job.id}/power`)
      .send(powerOff('going', { method: 'weight-off' }))
      .expect(400)
    expect((refused.body as { errors: { field: string }[] }).errors[0]?.field).toBe('method')
  })

  test('a mark is waived only with a reason; then the plates may be parted', async () => {
    const { job } = await workshop.takeIn(clockWith({ train: 'going', power: 'spring' }))
    await workshop.request.post(`/api/jobs/${job.id}/power`).send(powerOff('going')).expect(201)
    const waived = { id: randomUUID(), version: 0, key: 'nut', state: 'waived', note: '' }
    await put(job.id, 'strip-marks', waived).expect(400)
    await put(job.id, 'strip-marks', { ...waived, note: 'The nut is lost.' }).expect(201)
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(422)
    await put(job.id, 'strip-marks', {
      id: randomUUID(),
      version: 0,
      key: 'clicks',
      state: 'done',
      note: '',
    }).expect(201)
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
  })
})

const step = (position: number, part: Partial<StripStep> = {}): StripStep => ({
  id: randomUUID(),
  version: 0,
  position,
  part: `Part ${position}`,
  tray: 'going',
  screws: '',
  marks: '',
  remark: '',
  count: 1,
  photoId: null,
  back: false,
  notBack: '',
  ...part,
})

describe('the strip log', () => {
  test('stays in its order, and a job is not closed while a part is left over', async () => {
    const { job } = await workshop.takeIn()
    const steps = [step(1, { part: 'Hands', count: 3 }), step(2, { part: 'Dial' }), step(1.5, { part: 'Moon' })]
    for (const s of steps) await put(job.id, 'strip-steps', s).expect(201)
    const kept = (await page(job.id)).stripSteps
    expect(kept.map((s) => s.part)).toEqual(['Hands', 'Moon', 'Dial'])
    const parts = async () => (await page(job.id)).gates.find((g) => g.name === 'parts')!
    expect((await parts()).reason).toBe('Left over from taking it apart: Hands, Moon, Dial.')
    for (const s of kept) {
      const { jobId: _j, at: _a, who: _w, whoId: _i, ...row } = s
      await put(job.id, 'strip-steps', { ...row, back: true }).expect(200)
    }
    expect((await parts()).reason).toBe('Not ticked off yet: key.')
  })

  test('a step without a part, or with no parts out, is refused', async () => {
    const { job } = await workshop.takeIn()
    await put(job.id, 'strip-steps', step(1, { part: ' ' })).expect(400)
    await put(job.id, 'strip-steps', step(1, { count: 0 })).expect(400)
    await put(job.id, 'strip-steps', step(Number.MAX_VALUE)).expect(400)
  })

  test('two people put the same step back: the second is told', async () => {
    const { job } = await workshop.takeIn()
    const s = step(1)
    await put(job.id, 'strip-steps', s).expect(201)
    await put(job.id, 'strip-steps', { ...s, version: 1, back: true }).expect(200)
    const late = await put(job.id, 'strip-steps', { ...s, version: 1, remark: 'bent' }).expect(409)
    expect((late.body as { current: { back: boolean } }).current.back).toBe(true)
  })
})

describe('cleaning', () => {
  test('parts wait until they are clean; a bath stands in Now and ends by itself', async () => {
    const { job } = await workshop.takeIn()
    const part: CleanPart = {
      id: randomUUID(),
      version: 0,
      name: 'plates',
      material: 'brass',
      finish: 'bare',
      done: false,
    }
    await put(job.id, 'clean-parts', part).expect(201)
    const begun = Date.now() - 9 * 60_000
    const timer: Timer = {
      id: randomUUID(),
      version: 0,
      title: 'Ammoniated bath',
      startedAt: new Date(begun).toISOString(),
      endsAt: new Date(begun + 8 * 60_000).toISOString(),
      stopped: false,
      bath: 'ammoniated',
      step: 0,
    }
    await put(job.id, 'timers', timer).expect(201)
    await put(job.id, 'timers', timer).expect(200)
    const { owed } = await page(job.id)
    expect(owed[0]).toMatchObject({
      kind: 'bath',
      weight: 'must',
      title: 'Take it out: Ammoniated bath',
      subject: timer.id,
    })
    await put(job.id, 'timers', { ...timer, version: 1, stopped: true }).expect(200)
    expect(await owedOf(job.id)).not.toContain('bath')
  })

  test('a timer that ends before it begins, or next week, is refused', async () => {
    const { job } = await workshop.takeIn()
    const timer = { id: randomUUID(), version: 0, title: 'Bath', stopped: false, bath: '', step: 0 }
    const at = (min: number) => new Date(1_790_000_000_000 + min * 60_000).toISOString()
    await put(job.id, 'timers', { ...timer, startedAt: at(10), endsAt: at(0) }).expect(400)
    await put(job.id, 'timers', { ...timer, startedAt: at(0), endsAt: at(10_000) }).expect(400)
  })
})

const estimate = (part: Partial<Estimate> = {}): Estimate => ({
  id: randomUUID(),
  version: 0,
  revision: 1,
  state: 'draft',
  lines: [
    {
      id: randomUUID(),
      title: 'New mainspring',
      kind: 'fixed',
      quantity: 1,
      unit: '',
      unitPrice: '48.00',
      upToPrice: null,
      taxed: true,
      order: true,
    },
  ],
  choices: [],
  chosen: '',
  currency: '€',
  taxPercent: '21',
  depositPercent: '30',
  note: '',
  sentAt: null,
  answer: null,
  ...part,
})

describe('estimates', () => {
  const yes = {
    how: 'call' as const,
    by: 'Miss Tarn',
    at: '2026-03-01T10:00:00Z',
    note: 'Agreed on the telephone.',
    strokes: [],
  }

  test('sent it waits for an answer, accepted it stays as it is, in the database too', async () => {
    const { job } = await workshop.takeIn()
    const e = estimate()
    await put(job.id, 'estimates', e).expect(201)
    const sentAt = new Date(Date.now() - 4 * 86_400_000).toISOString()
    await put(job.id, 'estimates', { ...e, version: 1, state: 'sent', sentAt }).expect(200)
    expect((await page(job.id)).owed.find((o) => o.kind === 'answer')).toMatchObject({
      title: 'Ask the owner about the estimate',
      weight: 'watch',
    })
    const accepted = { ...e, version: 2, state: 'accepted' as const, sentAt, answer: yes }
    await put(job.id, 'estimates', accepted).expect(200)
    // Repeated word for word it is the same; changed in any way it is refused.
    await put(job.id, 'estimates', accepted).expect(200)
    await put(job.id, 'estimates', { ...accepted, version: 3, state: 'draft', answer: null }).expect(422)
    await put(job.id, 'estimates', { ...accepted, version: 3, note: 'And a new glass.' }).expect(422)
    await workshop.request.delete(`/api/jobs/${job.id}/estimates/${e.id}`).expect(422)
    await expect(
      workshop.connection.pool.query('update estimates set lines = $1 where id = $2', ['[]', e.id]),
    ).rejects.toThrow(/accepted estimate stays/)
    await put(job.id, 'estimates', estimate({ revision: 2 })).expect(201)
    expect((await page(job.id)).estimates.map((r) => [r.revision, r.state])).toEqual([
      [1, 'accepted'],
      [2, 'draft'],
    ])
  })

  test('what has to be ordered is owed until it is ticked off', async () => {
    const { job } = await workshop.takeIn()
    const e = estimate({ state: 'accepted', answer: yes })
    await put(job.id, 'estimates', e).expect(201)
    const order = (await page(job.id)).owed.find((o) => o.kind === 'order')!
    expect(order).toMatchObject({ title: 'Order: New mainspring', subject: e.lines[0]!.id })
    const mark: NowMark = { kind: 'order', subject: order.subject, state: 'done', dueS: null, untilS: null }
    await workshop.request.put(`/api/jobs/${job.id}/now`).send(mark).expect(200)
    expect(await owedOf(job.id)).not.toContain('order')
    await workshop.request.delete(`/api/jobs/${job.id}/now/order`).query({ subject: order.subject }).expect(204)
    expect(await owedOf(job.id)).toContain('order')
  })

  test.each<[string, Partial<Estimate>]>([
    ['accepted without an answer', { state: 'accepted' }],
    ['signed without a signature', { state: 'accepted', answer: { ...yes, how: 'signed' } }],
    ['a call without a word', { state: 'accepted', answer: { ...yes, note: '' } }],
    ['a tax of words', { taxPercent: 'a fifth' }],
    ['a price with a comma', { lines: [{ ...estimate().lines[0]!, unitPrice: '4,80' }] }],
  ])('%s is refused', async (_name, part) => {
    const { job } = await workshop.takeIn()
    await put(job.id, 'estimates', estimate(part)).expect(400)
  })

  test('there are no two revisions of one number', async () => {
    const { job } = await workshop.takeIn()
    await put(job.id, 'estimates', estimate()).expect(201)
    const twin = await put(job.id, 'estimates', estimate())
    expect(twin.status).toBeGreaterThanOrEqual(400)
    expect((await page(job.id)).estimates).toHaveLength(1)
  })
})

describe('Now', () => {
  const bench = async () => (await workshop.request.get('/api/bench')).body as BenchPage

  test('put off, it is silent until its time; the bench hears of it too', async () => {
    const { job } = await workshop.takeIn({ promisedOn: '2020-01-01' })
    const promise = (await page(job.id)).owed.find((o) => o.kind === 'promise')!
    expect(promise.weight).toBe('must')
    const later = (untilS: number): NowMark => ({
      kind: 'promise',
      subject: '',
      state: 'later',
      dueS: promise.dueS,
      untilS,
    })
    await workshop.request
      .put(`/api/jobs/${job.id}/now`)
      .send(later(Date.now() / 1000 + 3600))
      .expect(200)
    expect(await owedOf(job.id)).not.toContain('promise')
    expect((await bench()).tags.find((t) => t.job.id === job.id)?.owed.map((o) => o.kind)).not.toContain('promise')
    await workshop.request
      .put(`/api/jobs/${job.id}/now`)
      .send(later(Date.now() / 1000 - 1))
      .expect(200)
    expect(await owedOf(job.id)).toContain('promise')
    await workshop.request.put(`/api/jobs/${job.id}/now`).send({ kind: 'promise', state: 'perhaps' }).expect(400)
  })

  test('goes as a calendar, with what has a time and nothing else', async () => {
    const { job } = await workshop.takeIn({ promisedOn: '2026-12-24' })
    await workshop.request
      .put(`/api/jobs/${job.id}/now`)
      .send({ kind: 'promise', subject: 'other', state: 'done', dueS: null, untilS: null })
      .expect(200)
    const answer = await workshop.request
      .get('/api/now.ics')
      .expect(200)
      .expect('Content-Type', /text\/calendar/)
    expect(answer.text).toMatch(/^BEGIN:VCALENDAR\r\n/)
    const events = answer.text.split('BEGIN:VEVENT').slice(1)
    for (const event of events) {
      expect(event).toMatch(/DTSTART:\d{8}T\d{6}Z/)
      expect(event).toMatch(/SUMMARY:.+/)
      expect(event).toMatch(/BEGIN:VALARM/)
    }
    expect(answer.text).toContain('DTSTART:20200101T170000Z')
  })

  test('is subscribed to at a secret address, which can be changed', async () => {
    const { secret } = (await workshop.request.get('/api/calendar')).body as { secret: string }
    expect(secret.length).toBeGreaterThanOrEqual(32)
    expect((await workshop.request.get('/api/calendar')).body).toEqual({ secret })
    await workshop.request.get(`/api/calendar/${secret}/now.ics`).expect(200)
    const renewed = (await workshop.request.post('/api/calendar/renew').send({}).expect(200)).body as { secret: string }
    expect(renewed.secret).not.toBe(secret)
    await workshop.request.get(`/api/calendar/${secret}/now.ics`).expect(404)
    await workshop.request.get(`/api/calendar/${renewed.secret}/now.ics`).expect(200)
  })
})

test('from the door to the trays: what is next is always said', async () => {
  const { job } = await workshop.takeIn()
  const next = async () => (await page(job.id)).owed[0]?.kind
  expect(await next()).toBe('observe')
  await workshop.request
    .patch(`/api/jobs/${job.id}`)
    .send({ ...jobChangeOf(job), bay: 'strip' })
    .expect(200)
  expect(await next()).toBe('make-safe')
  for (const train of ['going', 'strike'])
    await workshop.request.post(`/api/jobs/${job.id}/power`).send(powerOff(train)).expect(201)
  expect(await next()).toBe('mark')
  await markMeshes(workshop.request, job.id)
  expect(await next()).toBe('make-safe')
  await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
  expect(await next()).toBe('take-apart')
  await put(job.id, 'strip-steps', step(1)).expect(201)
  expect(await next()).toBe('measure')
})
