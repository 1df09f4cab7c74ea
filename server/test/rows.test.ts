import { randomUUID } from 'node:crypto'
import { DEFAULT_SETTINGS, type JobPage, type JournalEntry } from '@treadle/contract'
import { GATE_NAMES } from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { newHole, newJob, useWorkshop } from './workshop.ts'

const workshop = useWorkshop()
const page = async (id: string) => (await workshop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage
const journal = async (id: string) => (await workshop.request.get(`/api/jobs/${id}/journal`)).body as JournalEntry[]
const at = new Date(Date.UTC(2026, 2, 1, 9)).toISOString()

/** Every kind of row a job has: where it is put, what a new one is, a change of it, and where the page shows it. */
const KINDS: [path: string, row: object, change: object, shown: keyof JobPage][] = [
  ['holes', newHole(), { flagged: true }, 'holes'],
  ['readings', { at, errorSeconds: 1, sigmaSeconds: 1, way: 'eye' }, { errorSeconds: 2 }, 'readings'],
  ['events', { at, kind: 'winding', turns: null, showed: '', note: '' }, { note: 'both squares' }, 'events'],
  [
    'observations',
    { key: 'hands', answer: 'sound', figure: null, second: null, note: '', photoId: null },
    { answer: 'watch' },
    'observations',
  ],
  [
    'conditions',
    { kind: 'part', name: 'Hand', class: 'unknown', note: '', photoId: null, x: null, y: null },
    { class: 'original' },
    'conditions',
  ],
  ['causes', { cause: 'dirt', note: '' }, { note: 'fluff' }, 'confirmedCauses'],
  ['strip-marks', { key: 'nut', state: 'done', note: '' }, { note: '6 turns' }, 'stripMarks'],
  [
    'strip-steps',
    {
      position: 1,
      part: 'Dial',
      tray: 'case',
      screws: '',
      marks: '',
      remark: '',
      count: 1,
      photoId: null,
      back: false,
      notBack: '',
    },
    { back: true },
    'stripSteps',
  ],
  ['clean-parts', { name: 'Dial', material: 'brass', finish: 'bare', done: false }, { done: true }, 'cleanParts'],
  [
    'timers',
    {
      title: 'Bath',
      startedAt: at,
      endsAt: new Date(Date.parse(at) + 60_000).toISOString(),
      stopped: false,
      bath: '',
      step: 0,
    },
    { stopped: true },
    'timers',
  ],
  [
    'estimates',
    {
      revision: 1,
      state: 'draft',
      lines: [],
      choices: [],
      chosen: '',
      currency: DEFAULT_SETTINGS.currency,
      taxPercent: '0',
      depositPercent: '0',
      note: '',
      sentAt: null,
      answer: null,
    },
    { note: 'Dear owner' },
    'estimates',
  ],
]

describe.each(KINDS)('%s', (path, fresh, change, shown) => {
  const make = async () => {
    const { job } = await workshop.takeIn(newJob())
    const row = { ...fresh, id: randomUUID(), version: 0 }
    const put = <B extends { id: string }>(body: B, jobId = job.id) =>
      workshop.request.put(`/api/jobs/${jobId}/${path}/${body.id}`).set('X-Bench', 'Ida').send(body)
    return { job, row, put }
  }
  const rowsOf = async (id: string) => (await page(id))[shown] as unknown as Record<string, unknown>[]

  test('sent twice, it is one row and one line in the journal', async () => {
    const { job, row, put } = await make()
    const before = (await journal(job.id)).length
    await put(row).expect(201)
    await put(row).expect(200)
    expect(await rowsOf(job.id)).toHaveLength(1)
    expect(await journal(job.id)).toHaveLength(before + 1)
  })

  test('changed on an older version it is refused, with the row as it stands', async () => {
    const { job, row, put } = await make()
    await put(row).expect(201)
    await put({ ...row, ...change, version: 1 }).expect(200)
    await put({ ...row, ...change, version: 1 }).expect(200)
    const late = await put({ ...row, version: 1 }).expect(409)
    expect((late.body as { current: object }).current).toMatchObject({ ...plain(change), version: 2 })
    expect((await rowsOf(job.id))[0]).toMatchObject(plain(change))
  })

  test('taken back, it is gone from the page and told in the journal; twice is once', async () => {
    const { job, row, put } = await make()
    await put(row).expect(201)
    const before = (await journal(job.id)).length
    for (let i = 0; i < 2; i++) await workshop.request.delete(`/api/jobs/${job.id}/${path}/${row.id}`).expect(204)
    expect(await rowsOf(job.id)).toEqual([])
    expect(await journal(job.id)).toHaveLength(before + 1)
    // Undone: the same row is made again.
    await put(row).expect(201)
    expect(await rowsOf(job.id)).toHaveLength(1)
  })

  test('another job can neither change it nor take it back', async () => {
    const { job, row, put } = await make()
    const { job: other } = await workshop.takeIn(newJob())
    await put(row).expect(201)
    await put({ ...row, ...change, version: 1 }, other.id).expect(404)
    await workshop.request.delete(`/api/jobs/${other.id}/${path}/${row.id}`).expect(204)
    expect(await rowsOf(job.id)).toHaveLength(1)
  })

  test('is not written under another’s id, nor with a field of its own making', async () => {
    const { job, row } = await make()
    await workshop.request.put(`/api/jobs/${job.id}/${path}/${randomUUID()}`).send(row).expect(400)
    await workshop.request
      .put(`/api/jobs/${job.id}/${path}/${row.id}`)
      .send({ ...row, jobId: job.id })
      .expect(400)
    await workshop.request.put(`/api/jobs/${job.id}/${path}/not-an-id`).send(row).expect(404)
    expect(await rowsOf(job.id)).toEqual([])
  })

  test('a closed job is changed by nobody', async () => {
    const { job, row, put } = await make()
    for (const gate of GATE_NAMES)
      await workshop.request
        .post(`/api/jobs/${job.id}/overrides`)
        .send({ id: randomUUID(), gate, reason: 'Closed for this test.' })
        .expect(201)
    await workshop.request.post(`/api/jobs/${job.id}/close`).send({}).expect(200)
    await put(row).expect(409)
    await workshop.request.delete(`/api/jobs/${job.id}/${path}/${row.id}`).expect(409)
  })
})

/** As the server tells it: moments with their milliseconds. */
function plain(value: object): object {
  return JSON.parse(JSON.stringify(value)) as object
}
