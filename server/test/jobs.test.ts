import { randomUUID } from 'node:crypto'
import { jobChangeOf, type JobPage, type JournalEntry } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { markMeshes, newHole, newJob, newListening, powerOff, runSql, useWorkshop } from './workshop.ts'

const workshop = useWorkshop()
const page = async (id: string) => (await workshop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const journal = async (id: string, words = '') =>
  (await workshop.request.get(`/api/jobs/${id}/journal?q=${encodeURIComponent(words)}`)).body as JournalEntry[]

describe('taking in', () => {
  test('a clock comes in with its owner, and stands on the bench', async () => {
    const taken = await workshop.takeIn()
    expect(taken.job).toMatchObject({ bay: 'arrive', runs: 'not-tried', closedAt: null })
    const bench = await workshop.request.get('/api/bench').expect(200)
    const tag = (bench.body as { tags: { job: { id: string }; owed: { title: string }[] }[] }).tags.find(
      (t) => t.job.id === taken.job.id,
    )
    expect(tag?.owed[0]?.title).toBe('Hear it before touching it')
  })

  test('a repeated request makes one job and one entry', async () => {
    const body = newJob()
    await workshop.request.post('/api/jobs').send(body).expect(201)
    await workshop.request.post('/api/jobs').send(body).expect(200)
    expect(await journal(body.id)).toHaveLength(1)
  })

  test('every wrong field is named at once, and nothing is written', async () => {
    const body = { ...newJob(), complaint: ' ', promisedOn: 'soon' }
    const answer = await workshop.request
      .post('/api/jobs')
      .send({ ...body, owner: { ...body.owner, name: '' }, colour: 'red' })
      .expect(400)
    expect(answer.headers['content-type']).toContain('application/problem+json')
    const fields = (answer.body as { errors: { field: string; message: string }[] }).errors.map((e) => e.field)
    expect(fields).toEqual(expect.arrayContaining(['owner.name', 'complaint', 'promisedOn']))
    await workshop.request.get(`/api/jobs/${body.id}`).expect(404)
  })

  test('a number as a string is refused, not guessed', async () => {
    const body = newJob()
    const clock = { ...body.clock, pendulum: { ...body.clock.pendulum, beatsPerHour: '7200' } }
    await workshop.request
      .post('/api/jobs')
      .send({ ...body, clock })
      .expect(400)
  })

  test('1e999 in JSON, which reads as infinity, is refused', async () => {
    const body = JSON.stringify(newJob()).replace('"lengthMm":248', '"lengthMm":1e999')
    const answer = await workshop.request
      .post('/api/jobs')
      .set('Content-Type', 'application/json')
      .send(body)
      .expect(400)
    expect(JSON.stringify(answer.body)).toContain('Length of the pendulum')
  })
})

describe('two people at one job', () => {
  test('a stale change gets 409 with the row as it stands now', async () => {
    const { job } = await workshop.takeIn()
    const change = { ...jobChangeOf(job), complaint: 'It limps.', runs: 'runs', cameWith: [] }
    await workshop.request.patch(`/api/jobs/${job.id}`).send(change).expect(200)
    const late = await workshop.request
      .patch(`/api/jobs/${job.id}`)
      .send({ ...change, complaint: 'It is silent.' })
      .expect(409)
    expect(late.body).toMatchObject({ status: 409, current: { complaint: 'It limps.', version: job.version + 1 } })
    expect((await page(job.id)).job.complaint).toBe('It limps.')
  })

  test('the same change sent twice is no conflict', async () => {
    const { job } = await workshop.takeIn()
    const change = { ...jobChangeOf(job), bay: 'strip', runs: 'stops' }
    await workshop.request.patch(`/api/jobs/${job.id}`).send(change).expect(200)
    await workshop.request.patch(`/api/jobs/${job.id}`).send(change).expect(200)
    expect((await journal(job.id, 'Moved to Strip')).length).toBe(1)
  })
})

describe('the power gate', () => {
  test('plates can’t be parted before every train is confirmed off', async () => {
    const { job } = await workshop.takeIn()
    await workshop.request.post(`/api/jobs/${job.id}/power`).set('X-Bench', 'Ida').send(powerOff('going')).expect(201)
    const refused = await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(422)
    expect((refused.body as { detail: string }).detail).toContain('strike')
    await workshop.request
      .post(`/api/jobs/${job.id}/power`)
      .set('X-Bench', encodeURIComponent('Åse'))
      .send(powerOff('strike'))
      .expect(201)
    const unmarked = await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(422)
    expect((unmarked.body as { detail: string }).detail).toMatch(/Mark first.*rating nut/)
    await markMeshes(workshop.request, job.id)
    const parted = await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
    expect((parted.body as JobPage).job.partedAt).not.toBeNull()
    expect((await journal(job.id, 'strike train is off'))[0]).toMatchObject({ who: 'Åse' })
  })

  test('without proof by hand no train is off', async () => {
    const { job } = await workshop.takeIn()
    await workshop.request
      .post(`/api/jobs/${job.id}/power`)
      .send({ ...powerOff('going'), proofs: ['square'] })
      .expect(400)
  })

  test('a train the clock has not got is refused', async () => {
    const { job } = await workshop.takeIn()
    await workshop.request.post(`/api/jobs/${job.id}/power`).send(powerOff('chime')).expect(400)
  })

  test('a confirmation can be taken back, and the gate holds again', async () => {
    const { job } = await workshop.takeIn()
    const body = powerOff('going')
    await workshop.request.post(`/api/jobs/${job.id}/power`).send(body).expect(201)
    await workshop.request.delete(`/api/jobs/${job.id}/power/${body.id}`).expect(200)
    expect((await page(job.id)).powerOffs).toHaveLength(0)
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(422)
  })

  test('an override needs a written reason, and stands in the journal', async () => {
    const { job } = await workshop.takeIn()
    const override = { id: randomUUID(), gate: 'power', reason: 'no' }
    await workshop.request.post(`/api/jobs/${job.id}/overrides`).send(override).expect(400)
    await workshop.request
      .post(`/api/jobs/${job.id}/overrides`)
      .send({ ...override, reason: 'Arbor broken, nothing to wind.' })
      .expect(201)
    await markMeshes(workshop.request, job.id)
    await workshop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
    expect((await page(job.id)).overrides).toMatchObject([{ gate: 'power', reason: 'Arbor broken, nothing to wind.' }])
    expect((await journal(job.id, 'Arbor broken')).length).toBe(1)
  })
})

describe('closing', () => {
  test('needs every gate passed or overridden, and then changes nothing more', async () => {
    const { job } = await workshop.takeIn()
    const refused = await workshop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(422)
    expect((refused.body as { detail: string }).detail).toContain('key')
    for (const gate of ['beat', 'rate', 'trial', 'parts'])
      await workshop.request
        .post(`/api/jobs/${job.id}/overrides`)
        .send({ id: randomUUID(), gate, reason: 'Taken home unmended.' })
        .expect(201)
    await workshop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(200)
    await workshop.request.put(`/api/jobs/${job.id}/holes/${randomUUID()}`).send(newHole()).expect(400)
    const hole = newHole()
    await workshop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(409)
    await workshop.request.post(`/api/jobs/${job.id}/reopen`).send({}).expect(200)
    await workshop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(201)
  })

  test('an even listening passes the beat gate, a later change of the beat shuts it again', async () => {
    const { job } = await workshop.takeIn()
    const beat = async () => (await page(job.id)).gates.find((g) => g.name === 'beat')?.passed
    const listening = newListening({ at: '2026-03-01T10:00:00Z' })
    await workshop.request.put(`/api/jobs/${job.id}/listenings/${listening.id}`).send(listening).expect(201)
    expect(await beat()).toBe(true)
    const event = {
      id: randomUUID(),
      version: 0,
      at: '2026-03-01T11:00:00Z',
      kind: 'moved',
      turns: null,
      showed: '',
      note: '',
    }
    await workshop.request.put(`/api/jobs/${job.id}/events/${event.id}`).send(event).expect(201)
    expect(await beat()).toBe(false)
  })
})

describe('the journal', () => {
  test('is searched by its words and by who wrote it, literally', async () => {
    const { job } = await workshop.takeIn()
    await workshop.request
      .post(`/api/jobs/${job.id}/journal`)
      .set('X-Bench', 'Rasmus')
      .send({ id: randomUUID(), text: 'Bell cracked 100 %', corrects: null })
      .expect(201)
    expect(await journal(job.id, '100 %')).toHaveLength(1)
    expect(await journal(job.id, 'rasmus')).toHaveLength(1)
    expect(await journal(job.id, '%%%')).toHaveLength(0)
  })

  test('a correction names what it corrects, of the same job', async () => {
    const { job } = await workshop.takeIn()
    const [entry] = await journal(job.id)
    await workshop.request
      .post(`/api/jobs/${job.id}/journal`)
      .send({ id: randomUUID(), text: 'It came without its key.', corrects: entry!.id })
      .expect(201)
    expect((await journal(job.id)).find((e) => e.corrects === entry!.id)?.kind).toBe('correction')
    const other = await workshop.takeIn()
    await workshop.request
      .post(`/api/jobs/${other.job.id}/journal`)
      .send({ id: randomUUID(), text: 'Wrong.', corrects: entry!.id })
      .expect(400)
  })

  test('the database itself refuses to change, remove or empty it', async () => {
    const { job } = await workshop.takeIn()
    for (const sql of [
      "update journal set text = 'no'",
      `delete from journal where job_id = '${job.id}'`,
      'truncate journal',
    ])
      await expect(runSql(workshop.adminUrl, sql)).rejects.toThrow(/append-only/)
  })
})
