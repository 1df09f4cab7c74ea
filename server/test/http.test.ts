import { randomUUID } from 'node:crypto'
import { DEFAULT_SETTINGS, type Settings } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { newJob, useWorkshop } from './workshop.ts'

const workshop = useWorkshop()

test('health says that the database answers, and which version this is', async () => {
  const answer = await workshop.request.get('/api/health').expect(200)
  expect(answer.body).toEqual({ ok: true, database: true, version: 'test' })
})

describe('errors are problem details', () => {
  test.each([
    ['an unknown path', 'get', '/api/nowhere', 404],
    ['no such job', 'get', `/api/jobs/${randomUUID()}`, 404],
    ['an id that is none', 'get', '/api/jobs/1;drop', 404],
    ['an unknown path under a known one', 'post', '/api/settings', 404],
  ] as const)('%s', async (_name, method, path, status) => {
    const answer = await workshop.request[method](path).expect(status)
    expect(answer.headers['content-type']).toContain('application/problem+json')
    expect(answer.body).toMatchObject({ status })
    expect((answer.body as { title: string }).title).toMatch(/\.$/)
  })

  test('JSON that is none, and JSON above a megabyte', async () => {
    await workshop.request.post('/api/jobs').set('Content-Type', 'application/json').send('{"id":').expect(400)
    const large = { ...newJob(), complaint: 'x'.repeat(1_100_000) }
    const answer = await workshop.request.post('/api/jobs').send(large).expect(413)
    expect(answer.headers['content-type']).toContain('application/problem+json')
  })
})

describe('who may ask', () => {
  test('a request for another host is refused', async () => {
    await workshop.request.get('/api/health').set('Host', 'evil.example:4173').expect(421)
  })

  test('a change asked for by a page from elsewhere is refused; reading and our own pages are not', async () => {
    await workshop.request.post('/api/jobs').set('Origin', 'https://evil.example').send(newJob()).expect(403)
    await workshop.request.post('/api/jobs').set('Origin', 'null').send(newJob()).expect(403)
    await workshop.request.get('/api/bench').set('Origin', 'https://evil.example').expect(200)
  })

  test('the pages’ policy lets no foreign script in', async () => {
    const { headers } = await workshop.request.get('/api/health')
    expect(headers['content-security-policy']).toContain("default-src 'self'")
    expect(headers['content-security-policy']).toContain("script-src 'self'")
    expect(headers['x-powered-by']).toBeUndefined()
  })
})

describe('settings and people', () => {
  test('settings begin with the craft’s defaults, are kept, and a stale change is shown', async () => {
    const first = (await workshop.request.get('/api/settings')).body as Settings
    expect(first).toEqual({ ...DEFAULT_SETTINGS, version: 0 })
    await workshop.request
      .put('/api/settings')
      .send({ ...first, workshop: 'Ours' })
      .expect(200)
    const stale = await workshop.request
      .put('/api/settings')
      .send({ ...first, workshop: 'Theirs' })
      .expect(409)
    expect(stale.body).toMatchObject({ current: { workshop: 'Ours', version: 1 } })
    await workshop.request
      .put('/api/settings')
      .send({ ...first, version: 1, trialDays: 900 })
      .expect(400)
  })

  test('a person is added once and can leave', async () => {
    const person = { id: randomUUID(), name: 'Åse Lund', initials: 'ÅL', active: true, version: 0 }
    await workshop.request.put(`/api/people/${person.id}`).send(person).expect(201)
    await workshop.request.put(`/api/people/${person.id}`).send(person).expect(200)
    await workshop.request
      .put(`/api/people/${person.id}`)
      .send({ ...person, version: 1, active: false })
      .expect(200)
    expect((await workshop.request.get('/api/people')).body).toEqual([{ ...person, active: false, version: 2 }])
  })
})

describe('clocks', () => {
  test('are found by name, owner and marks, and carry their visits', async () => {
    const body = newJob()
    body.clock.marks = 'Fish on the setting dial'
    body.owner.name = 'Chapel_wardens'
    await workshop.request.post('/api/jobs').send(body).expect(201)
    for (const words of ['fish ON', 'chapel_w', 'Kitchen'])
      expect(JSON.stringify((await workshop.request.get(`/api/clocks?q=${encodeURIComponent(words)}`)).body)).toContain(
        body.id,
      )
    expect((await workshop.request.get('/api/clocks?q=chapelXw')).body).toEqual([])
  })

  test('a second visit finds the clock with its history', async () => {
    const first = newJob()
    await workshop.request.post('/api/jobs').send(first).expect(201)
    const again = { ...newJob(), owner: first.owner, clock: first.clock, complaint: 'Back again.' }
    await workshop.request.post('/api/jobs').send(again).expect(201)
    const history = (await workshop.request.get(`/api/clocks/${first.clock.id}`).expect(200)).body as {
      visits: unknown[]
      journal: unknown[]
    }
    expect(history.visits).toHaveLength(2)
    expect(JSON.stringify(history.journal)).toContain('Back again.')
  })

  test('its figures change by version', async () => {
    const { clock } = await workshop.takeIn()
    const change = {
      version: clock.version,
      name: clock.name,
      kind: clock.kind,
      marks: '',
      trains: clock.trains,
      work: clock.work,
      pendulum: { ...clock.pendulum, semiArcDeg: 5 },
    }
    await workshop.request.patch(`/api/clocks/${clock.id}`).send(change).expect(200)
    await workshop.request
      .patch(`/api/clocks/${clock.id}`)
      .send({ ...change, marks: 'other' })
      .expect(409)
    await workshop.request
      .patch(`/api/clocks/${clock.id}`)
      .send({ ...change, version: 2, pendulum: { ...clock.pendulum, semiArcDeg: 90 } })
      .expect(400)
  })
})
