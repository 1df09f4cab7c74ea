import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import type { Server } from 'node:http'
import pg from 'pg'
import { pino } from 'pino'
import supertest from 'supertest'
import { afterAll, beforeAll } from 'vitest'
import {
  blankHole,
  EMPTY_PENDULUM,
  PLAIN_WORK,
  type HoleChange,
  type JobPage,
  type NewJob,
  type NewListening,
  type PowerOff,
} from '@treadle/contract'
import { connect, makeApp, type Connection } from '../src/index.ts'

export interface Workshop {
  request: ReturnType<typeof supertest>
  connection: Connection
  app: ReturnType<typeof makeApp>
  /** of its database, for whoever may do all */
  adminUrl: string
  /** takes in a clock and gives back its page */
  takeIn: (part?: Partial<NewJob>) => Promise<JobPage>
}

/** A workshop with a database of its own, copied from the empty template; gone after the file's tests. */
export function useWorkshop(options: Partial<Parameters<typeof makeApp>[0]> = {}): Workshop {
  const { TREADLE_TEST_DATABASE: admin, TREADLE_TEST_SERVING: serving } = process.env
  if (!admin || !serving) throw new Error('Run these by npm test: they need its database.')
  const name = `t_${randomUUID().replaceAll('-', '')}`
  const workshop = {} as Workshop
  let server: Server
  beforeAll(async () => {
    await runSql(admin, `create database ${name} template t_empty strategy file_copy`)
    workshop.connection = connect(serving.replace(/[^/]*$/, name))
    workshop.adminUrl = admin.replace(/[^/]*$/, name)
    const app = makeApp({ db: workshop.connection.db, version: 'test', logger: pino({ level: 'silent' }), ...options })
    workshop.app = app
    // Listening once for all that is asked: given an app alone, each request would have one listen for itself.
    server = app.listen(0, '127.0.0.1')
    await once(server, 'listening')
    workshop.request = supertest(server)
    workshop.takeIn = async (part = {}) => {
      const answer = await workshop.request
        .post('/api/jobs')
        .set('X-Bench', 'Ida')
        .send({ ...newJob(), ...part })
      if (answer.status !== 201) throw new Error(answer.text)
      return answer.body as JobPage
    }
  })
  afterAll(async () => {
    server.close()
    server.closeAllConnections()
    await workshop.connection.pool.end()
    await runSql(admin, `drop database ${name} with (force)`)
  })
  return workshop
}

/** Does work with a client of its own at an address. */
export async function withClientAt<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}

export const runSql = (url: string, sql: string) => withClientAt(url, (client) => client.query(sql))

export function newJob(): NewJob {
  return {
    id: randomUUID(),
    owner: { id: randomUUID(), name: 'Gull Row', phone: '', address: '' },
    clock: {
      id: randomUUID(),
      name: 'Kitchen clock',
      kind: 'wall',
      marks: '',
      trains: [
        { train: 'going', power: 'spring' },
        { train: 'strike', power: 'spring' },
      ],
      pendulum: { ...EMPTY_PENDULUM, beatsPerHour: 7200, lengthMm: 248, pitchMm: 0.7 },
      work: PLAIN_WORK,
    },
    complaint: 'It stops.',
    cameWith: [{ name: 'key', state: 'present', returned: false }],
    promisedOn: null,
    standsAt: '',
    movedLately: 'unknown',
    lastServiced: null,
  }
}

export function newHole(part: Partial<HoleChange> = {}): HoleChange {
  const place = { train: 'going', arbor: 'Third arbor', arborIndex: 2, plate: 'back', role: 'other' } as const
  return { ...blankHole(randomUUID(), place), ...part }
}

export function newListening(part: Partial<NewListening> = {}): NewListening {
  return {
    id: randomUUID(),
    at: new Date().toISOString(),
    pickup: 'practice',
    fileName: '',
    purpose: 'beat',
    firstSide: 'right',
    beatsPerHour: 7196.5,
    nominalBeatsPerHour: 7200,
    rateSecondsPerDay: -42,
    rateStandardError: 0.3,
    firstToSecondMs: 500.4,
    secondToFirstMs: 499.9,
    outOfBeatStandardError: 0.08,
    scatterMs: 0.2,
    beatsHeard: 80,
    beatsExpected: 80,
    rejected: 0,
    slips: 0,
    secondsAnalysed: 40,
    confidence: 0.99,
    analyserVersion: '1',
    beatTimesS: [0.1, 0.6, 1.1],
    hasSound: true,
    changeMm: null,
    ...part,
  }
}

/** A train of the usual clock confirmed off, every proof tried. */
export function powerOff(train: string, part: Partial<PowerOff> = {}): PowerOff {
  return { id: randomUUID(), train, method: 'let-down', proofs: ['square', 'great-wheel'], ...part }
}

/** Marks every mesh of the usual striking clock, so that its plates may be parted. */
export async function markMeshes(request: Workshop['request'], jobId: string): Promise<void> {
  for (const key of ['clicks', 'nut', 'strike-lock', 'warning', 'count-wheel', 'gathering-pallet']) {
    const mark = { id: randomUUID(), version: 0, key, state: 'done', note: '' }
    await request.put(`/api/jobs/${jobId}/strip-marks/${mark.id}`).send(mark).expect(201)
  }
}

/** A visit of the usual clock whose plates were parted as they should be. */
export async function parted(shop: Workshop): Promise<string> {
  const { job } = await shop.takeIn()
  for (const train of ['going', 'strike'])
    await shop.request.post(`/api/jobs/${job.id}/power`).send(powerOff(train)).expect(201)
  await markMeshes(shop.request, job.id)
  await shop.request.post(`/api/jobs/${job.id}/part`).send({}).expect(200)
  return job.id
}
