import { randomUUID } from 'node:crypto'
import {
  ArborTestChange,
  blankBushing,
  BushingChange,
  CallOff,
  CleanPart,
  ClockChange,
  ClockPassed,
  ConditionItem,
  ConfirmedCause,
  DepthTrialChange,
  DonorChange,
  DryRunChange,
  EscapementSheetChange,
  FootingChange,
  LoggerSheet,
  PendulumSheetChange,
  RunDownChange,
  Estimate,
  GateOverride,
  HoleChange,
  Invoice,
  JobChange,
  JournalNote,
  LogSheet,
  MadePartChange,
  NewJob,
  NewListening,
  NowMark,
  Observation,
  OilChange,
  OilSheetChange,
  OwnerChange,
  OwnerMerge,
  Person,
  PivotChange,
  PlateMapChange,
  PowerOff,
  RateEventChange,
  ReadingChange,
  ReservationChange,
  Settings,
  SpringSheetChange,
  StockChange,
  StockCsv,
  StrikeCountChange,
  WatchChange,
  WatchTemperatures,
  WatchTold,
  StripMark,
  StripStep,
  SuspensionChange,
  TableChange,
  Timer,
  ToolChange,
  TrainSheetChange,
  UnreadableChoice,
  VisitChange,
  WheelSheetChange,
  WitnessChange,
  type Problem,
} from '@treadle/contract'
import fc from 'fast-check'
import type pg from 'pg'
import type { Schema } from 'yup'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { TABLES } from '../../scripts/lib/archive.mjs'
import { bodiesOf } from './oddBodies.ts'
import { newHole, newJob, newListening, runSql, useWorkshop, withClientAt } from './workshop.ts'

// Many requests from one address: no limit of the uploads' is met here.
const shop = useWorkshop({ uploads: { perMinute: 1_000_000 } })

/** Every route that changes something by a JSON body, by the address it is registered under. */
const BODIES: [route: string, schema: Schema][] = [
  ['post /jobs', NewJob],
  ['patch /jobs/:id', JobChange],
  ['post /jobs/:id/unreadable', UnreadableChoice],
  ['post /jobs/:id/power', PowerOff],
  ['post /jobs/:id/overrides', GateOverride],
  ['patch /clocks/:id', ClockChange],
  ['put /jobs/:id/holes/:row', HoleChange],
  ['put /jobs/:id/readings/:row', ReadingChange],
  ['put /jobs/:id/events/:row', RateEventChange],
  ['put /jobs/:id/listenings/:row', NewListening],
  ['put /jobs/:id/observations/:row', Observation],
  ['put /jobs/:id/conditions/:row', ConditionItem],
  ['put /jobs/:id/causes/:row', ConfirmedCause],
  ['put /jobs/:id/trains/:row', TrainSheetChange],
  ['put /jobs/:id/estimates/:row', Estimate],
  ['put /jobs/:id/invoices/:row', Invoice],
  ['put /jobs/:id/strip-marks/:row', StripMark],
  ['put /jobs/:id/strip-steps/:row', StripStep],
  ['put /jobs/:id/clean-parts/:row', CleanPart],
  ['put /jobs/:id/timers/:row', Timer],
  ['put /jobs/:id/plates/:row', PlateMapChange],
  ['put /jobs/:id/arbor-tests/:row', ArborTestChange],
  ['put /jobs/:id/pivots/:row', PivotChange],
  ['put /jobs/:id/bushings/:row', BushingChange],
  ['put /jobs/:id/reservations/:row', ReservationChange],
  ['put /jobs/:id/wheels/:row', WheelSheetChange],
  ['put /jobs/:id/springs/:row', SpringSheetChange],
  ['put /jobs/:id/suspensions/:row', SuspensionChange],
  ['put /jobs/:id/escapements/:row', EscapementSheetChange],
  ['put /jobs/:id/depths/:row', DepthTrialChange],
  ['put /jobs/:id/made-parts/:row', MadePartChange],
  ['put /jobs/:id/dry-runs/:row', DryRunChange],
  ['put /jobs/:id/oil-sheets/:row', OilSheetChange],
  ['put /jobs/:id/witnesses/:row', WitnessChange],
  ['put /jobs/:id/strike-counts/:row', StrikeCountChange],
  ['put /jobs/:id/watches/:row', WatchChange],
  ['put /jobs/:id/watches/:row/told', WatchTold],
  ['put /jobs/:id/watches/:row/temperatures', WatchTemperatures],
  ['put /jobs/:id/footings/:row', FootingChange],
  ['put /jobs/:id/pendulums/:row', PendulumSheetChange],
  ['put /jobs/:id/run-downs/:row', RunDownChange],
  ['put /jobs/:id/thermometer', WatchTemperatures],
  ['post /jobs/:id/thermometer/logger', LoggerSheet],
  ['post /jobs/:id/watches/:row/logger', LoggerSheet],
  ['put /oils/:row', OilChange],
  ['put /donors/:row', DonorChange],
  ['put /tools/:row', ToolChange],
  ['put /stock/:row', StockChange],
  ['post /stock/lists', StockCsv],
  ['put /tables/:name', TableChange],
  ['put /jobs/:id/now', NowMark],
  ['post /jobs/:id/journal', JournalNote],
  ['put /people/:id', Person],
  ['put /settings', Settings],
  ['put /jobs/:id/visit', VisitChange],
  ['post /jobs/:id/log', LogSheet],
  ['patch /owners/:id', OwnerChange],
  ['patch /clocks/:id/owner', ClockPassed],
  ['post /owners/:id/merge', OwnerMerge],
  // Last: it closes the job.
  ['post /jobs/:id/call-off', CallOff],
]
/** Those that take no JSON: nothing, or a picture or a sound. */
const WITHOUT_BODY = [
  'post /jobs/:id/part',
  'post /jobs/:id/close',
  'post /jobs/:id/reopen',
  'post /stock/lists/:row/undo',
  'post /calendar/renew',
  'put /jobs/:id/photos/:photo',
  'put /listenings/:row/sound',
  'put /jobs/:id/watches/:row/strikes-read',
  'put /jobs/:id/watches/:row/marks/:mark/sound',
  'put /donors/:row/photo',
  'post /archive',
]

const ids: string[] = []

beforeAll(async () => {
  const { job, clock } = await shop.takeIn()
  const { job: other } = await shop.takeIn()
  const hole = newHole()
  await shop.request.put(`/api/jobs/${job.id}/holes/${hole.id}`).send(hole).expect(201)
  const work = blankBushing(randomUUID(), hole.id)
  await shop.request.put(`/api/jobs/${job.id}/bushings/${work.id}`).send(work).expect(201)
  const listening = newListening()
  await shop.request.put(`/api/jobs/${other.id}/listenings/${listening.id}`).send(listening).expect(201)
  ids.push(job.id, other.id, clock.id, hole.id, work.id, listening.id)
  await runSql(shop.adminUrl, counting())
})

/** How many rows were ever written, changed or taken out, of any table: what is undone with its change counts for nothing. */
async function changesOf(client: pg.Client): Promise<string> {
  const { rows } = await client.query<{ n: string }>('select coalesce(sum(n), 0) as n from changes_counted')
  return rows[0]?.n ?? ''
}

/** Counts each changed row within its own transaction, whoever changes it. */
const counting = () =>
  [
    'create table changes_counted (n bigint)',
    `create function count_change() returns trigger language plpgsql security definer as
       'begin insert into changes_counted values (1); return null; end'`,
    ...TABLES.map(
      (t) =>
        `create trigger counted after insert or update or delete on ${t} for each row execute function count_change()`,
    ),
  ].join(';')

function routesOf(stack: unknown[]): string[] {
  type Layer = { route?: { path: string; methods: Record<string, boolean> }; handle?: { stack?: unknown[] } }
  return (stack as Layer[]).flatMap(({ route, handle }) =>
    route ? Object.keys(route.methods).map((m) => `${m} ${route.path}`) : handle?.stack ? routesOf(handle.stack) : [],
  )
}

test('every route that changes something is among those tried here', () => {
  const changing = routesOf((shop.app as unknown as { router: { stack: unknown[] } }).router.stack).filter((r) =>
    /^(post|put|patch) /.test(r),
  )
  expect(changing.length).toBeGreaterThan(30)
  expect([...BODIES.map(([route]) => route), ...WITHOUT_BODY].sort()).toEqual(changing.sort())
})

describe('whatever is sent, it is taken or refused with a sentence, and what is refused changes nothing', () => {
  afterAll(async () => {
    for (const id of ids.slice(0, 2)) await shop.request.post(`/api/jobs/${id}/reopen`).send({})
  })
  test.each(BODIES)('%s', async (route, schema) => {
    const [method = '', path = ''] = route.split(' ')
    const bodies = fc.sample(bodiesOf(schema.describe() as never, ids), { numRuns: 80, seed: 20 })
    const rows = fc.sample(fc.constantFrom(...ids), { numRuns: 80, seed: 21 })
    await withClientAt(shop.adminUrl, async (client) => {
      let before = await changesOf(client)
      for (const [i, body] of bodies.entries()) {
        const id = (body as { id?: unknown } | null)?.id
        const row = typeof id === 'string' && /^[0-9a-f-]{36}$/.test(id) ? id : (rows[i] ?? '')
        const of = path.startsWith('/clocks') ? (ids[2] ?? '') : path.startsWith('/people') ? row : (ids[i % 2] ?? '')
        const address = `/api${path
          .replace(':id', of)
          .replace(':row', row)
          .replace(':name', ['trouble', 'baths', 'prices'][i % 3] ?? '')}`
        const asked = shop.request[method as 'put'](address)
        const answer = await (body === undefined ? asked : asked.type('json').send(JSON.stringify(body)))
        const said = `${method} ${address} ${JSON.stringify(body)?.slice(0, 500)}: ${answer.status} ${answer.text.slice(0, 500)}`
        expect(answer.status, said).toBeLessThan(500)
        const after = await changesOf(client)
        if (answer.status >= 400) {
          expect((answer.body as Problem).title, said).toMatch(/\.$/)
          expect(after, said).toBe(before)
        }
        before = after
      }
    })
  })
})

describe('floods are refused before they are read', () => {
  const hole = () => newHole()
  const job = () => ids[0] ?? ''

  test.each([
    ['400,000 zeros in a list', () => ({ ...newJob(), cameWith: new Array(400_000).fill(0) }), 'cameWith'],
    [
      '20,000 things that came with it',
      () => ({ ...newJob(), cameWith: new Array(20_000).fill({ name: 'x' }) }),
      'cameWith',
    ],
    [
      '100,000 fields of its own making',
      () => ({ ...newJob(), ...Object.fromEntries(Array.from({ length: 60_000 }, (_, i) => [`k${i}`, 1])) }),
      '',
    ],
  ])('%s', async (_name, body, field) => {
    const answer = await shop.request.post('/api/jobs').send(body()).expect(400)
    expect((answer.body as Problem).errors).toMatchObject([{ field }])
  })

  test('three thousand nested brackets, and thirty thousand', async () => {
    for (const depth of [3000, 30_000]) {
      const nested = `${'['.repeat(depth)}${']'.repeat(depth)}`
      for (const field of ['typed', 'arborIndex', 'more']) {
        const body = JSON.stringify({ ...hole(), [field]: 'HERE' }).replace('"HERE"', nested)
        await shop.request.put(`/api/jobs/${job()}/holes/${randomUUID()}`).type('json').send(body).expect(400)
      }
    }
  })

  test('the largest that may come is answered: 60,000 beats, and as many signatures’ points as a megabyte holds', async () => {
    const listening = { ...newListening(), beatTimesS: Array.from({ length: 60_000 }, (_, i) => i / 2) }
    await shop.request.put(`/api/jobs/${job()}/listenings/${listening.id}`).send(listening).expect(201)
    const wrong = { ...listening, id: randomUUID(), beatTimesS: new Array(60_000).fill('x') }
    const refused = await shop.request.put(`/api/jobs/${job()}/listenings/${wrong.id}`).send(wrong).expect(400)
    expect(refused.text.length).toBeLessThan(1000)
  })
})

describe('addresses, words and names that can’t be', () => {
  test.each([
    ['/api/find?q=%00', 400],
    ['/api/clocks?q=a%00b', 400],
    ['/api/jobs/%00', 400],
    ['/api/calendar/%00/now.ics', 400],
    ['/api/find?q=%ED%A0%80', 200],
    ['/api/find?q=%E0%A4%A', 200],
    ['/api/jobs/%ED%A0%80', 400],
    ['/api/tables/__proto__', 404],
    ['/api/tables/constructor', 404],
    ['/api/calendar/%2e%2e/now.ics', 404],
  ])('%s', async (address, status) => {
    expect((await shop.request.get(address)).status).toBe(status)
  })

  test.each(['%00', 'Ida%0d%0aEvil', '%ZZ', '%ed%a0%80'])('a name at the bench such as %s', async (name) => {
    const hole = newHole({ plate: 'front' })
    const answer = await shop.request.put(`/api/jobs/${ids[0]}/holes/${hole.id}`).set('X-Bench', name).send(hole)
    expect(answer.status).toBe(400)
    expect((answer.body as Problem).title).toMatch(/name of whoever is at the bench/)
  })
})

describe('days, moments, lines', () => {
  test.each([
    ['2026-02-31', 400],
    ['0000-05-01', 400],
    ['2026-13-01', 400],
    ['2028-02-29', 201],
  ])('a promise for %s', async (promisedOn, status) => {
    const answer = await shop.request.post('/api/jobs').send({ ...newJob(), promisedOn })
    expect(answer.status).toBe(status)
    if (status === 400) expect(answer.text).toContain('Promised for must be a day')
  })

  test('a promise put off to no day at all', async () => {
    const { job } = await shop.takeIn({ promisedOn: '2026-12-24' })
    const { version, bay, complaint, runs, cameWith, standsAt, movedLately, lastServiced } = job
    const change = { version, bay, complaint, runs, cameWith, standsAt, movedLately, lastServiced, promisedOn: '' }
    const answer = await shop.request.patch(`/api/jobs/${job.id}`).send(change).expect(200)
    expect(answer.body).toMatchObject({ promisedOn: null })
  })

  test('a workshop’s name holds one line, so the calendar does too', async () => {
    const settings = (await shop.request.get('/api/settings')).body as object
    for (const workshop of ['Slip\r\nX-EVIL:1', 'Slip\nshed', 'Slip\u2028shed', 'Slip\u0085shed'])
      expect((await shop.request.put('/api/settings').send({ ...settings, workshop })).text).toContain(
        'must be on one line',
      )
  })

  test('a list’s figures are plain decimals', async () => {
    const csv = 'kind,measured mm,count\ncutter,0x10,1\ncutter,1e1,1\ncutter,"2,5",1\ncutter,Infinity,1\ncutter,2.6,1\n'
    const answer = await shop.request.post('/api/stock/lists').send({ id: randomUUID(), csv, keep: false }).expect(200)
    const { added, wrong } = answer.body as { added: { measuredMm: number }[]; wrong: { line: number }[] }
    expect(added.map((a) => a.measuredMm)).toEqual([2.5, 2.6])
    expect(wrong.map((w) => w.line)).toEqual([2, 3, 5])
  })
})

describe('an id that is another’s', () => {
  const asked = (method: 'put' | 'post', path: string, body: object) => shop.request[method](`/api${path}`).send(body)

  test('listenings, journal entries, overrides, lists: the same again is no change; other content is shown what stands', async () => {
    const [{ job }, { job: other }] = [await shop.takeIn(), await shop.takeIn()]
    const listening = newListening()
    const note = { id: randomUUID(), text: 'The arbor was bent.', corrects: null }
    const override = { id: randomUUID(), gate: 'trial', reason: 'Proved at the house.' }
    const tries: [method: 'put' | 'post', path: (job: string) => string, body: object, part: object][] = [
      ['put', (j) => `/jobs/${j}/listenings/${listening.id}`, listening, { scatterMs: 0.7 }],
      ['post', (j) => `/jobs/${j}/journal`, note, { text: 'Another word.' }],
      ['post', (j) => `/jobs/${j}/overrides`, override, { reason: 'Another reason.' }],
    ]
    for (const [method, path, body, part] of tries) {
      await asked(method, path(job.id), body).expect(201)
      expect((await asked(method, path(job.id), body)).status).toBeLessThan(300)
      for (const [j, changed] of [
        [job.id, { ...body, ...part }],
        [other.id, body],
      ] as const) {
        const answer = await asked(method, path(j), changed).expect(409)
        expect((answer.body as Problem).current).toMatchObject({ id: (body as { id: string }).id, jobId: job.id })
      }
    }
    const list = { id: randomUUID(), csv: 'kind,measured mm,count\ncutter,7.1,1\n', keep: true }
    await asked('post', '/stock/lists', list).expect(200)
    expect((await asked('post', '/stock/lists', list).expect(200)).body).toMatchObject({
      kept: { added: 1, changed: 0 },
    })
    await asked('post', '/stock/lists', { ...list, csv: 'kind,measured mm,count\ncutter,7.2,1\n' }).expect(409)
  })

  test('owners, clocks and jobs', async () => {
    const first = newJob()
    await asked('post', '/jobs', first).expect(201)
    await asked('post', '/jobs', first).expect(200)
    for (const part of [
      { complaint: 'It strikes wrong.' },
      { id: randomUUID(), owner: { ...first.owner, phone: '12' } },
      { id: randomUUID(), clock: { ...first.clock, name: 'Other' } },
      { id: randomUUID(), owner: newJob().owner },
    ]) {
      const answer = await asked('post', '/jobs', { ...first, ...part })
      expect(answer.status, JSON.stringify(part)).toBe(409)
    }
  })

  test('an id that is nobody’s is named', async () => {
    const work = { ...blankBushing(randomUUID(), ids[3] ?? ''), stockId: randomUUID() }
    const answer = await asked('put', `/jobs/${ids[0]}/bushings/${ids[4]}`, { ...work, id: ids[4], version: 1 }).expect(
      400,
    )
    expect((answer.body as Problem).errors).toEqual([{ field: 'stockId', message: 'stockId: there is no such thing' }])
  })
})

describe('who may ask', () => {
  test.each([
    ['cross-site', 403],
    ['same-site', 403],
    ['same-origin', 201],
    ['none', 201],
  ])('a change without an origin, from a page that is %s', async (site, status) => {
    expect((await shop.request.post('/api/jobs').set('Sec-Fetch-Site', site).send(newJob())).status).toBe(status)
  })

  test('what the API answers is kept by no browser, and fonts come from here alone', async () => {
    const { headers } = await shop.request.get('/api/bench').expect(200)
    expect(headers['cache-control']).toBe('no-store')
    expect(headers['content-security-policy']).toMatch(/font-src 'self'(;|$)/)
  })
})
