import { randomUUID } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import {
  blankBushing,
  blankDonor,
  blankOil,
  blankPivot,
  blankSpringSheet,
  blankWheelSheet,
  type JobPage,
  type Problem,
} from '@treadle/contract'
import { encodeWav } from '@treadle/core'
import pg from 'pg'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { TABLES } from '../../scripts/lib/archive.mjs'
import { triedAgain } from '../../scripts/lib/workshopClient.mjs'
import { lasting } from '../src/log.ts'
import { bytesAt } from './archives.ts'
import { newHole, newJob, newListening, powerOff, runSql, useWorkshop } from './workshop.ts'

// What breaks in the middle of a change: the connection, the disk. It is refused, it changes nothing, the next one goes.

let freeBytes = Infinity
const shop = useWorkshop({ disk: () => Promise.resolve(freeBytes), uploads: { perMinute: 1_000_000 } })
const from = useWorkshop()
const AT = '2026-03-01T09:30:00.000Z'

type Asked = () => PromiseLike<{ status: number; body: unknown; text: string }>
interface Kind {
  what: string
  ask: Asked
}
const kinds: Kind[] = []
let holding: pg.Client
let stop: () => Promise<void>

beforeAll(async () => {
  holding = new pg.Client({ connectionString: shop.adminUrl })
  await holding.connect()
  stop = () => holding.end()
  const send = (method: 'post' | 'put' | 'patch' | 'delete', path: string, body?: object): Asked => {
    return () =>
      body === undefined ? shop.request[method](`/api${path}`) : shop.request[method](`/api${path}`).send(body)
  }
  const { job, clock, owner } = await shop.takeIn()
  const { job: other } = await shop.takeIn()
  const at = `/jobs/${job.id}`
  const hole = newHole()
  await shop.request.put(`/api${at}/holes/${hole.id}`).send(hole).expect(201)
  const heard = newListening()
  await shop.request.put(`/api${at}/listenings/${heard.id}`).send(heard).expect(201)
  const one = { outsideMm: 2, insideMm: 1, lengthMm: 3, measuredMm: null, widthMm: null, thickMm: null }
  const bush = {
    ...one,
    id: randomUUID(),
    version: 0,
    kind: 'bush',
    name: '',
    material: '',
    count: 5,
    lowAt: 0,
    drawer: '',
  }
  await shop.request.put(`/api/stock/${bush.id}`).send(bush).expect(201)
  const row = (path: string, part: object) => {
    const id = randomUUID()
    return { what: path, ask: send('put', `${at}/${path}/${id}`, { version: 0, ...part, id }) }
  }
  const place = { train: 'going', arbor: 'Second', arborIndex: 1 } as const
  const settings = (await shop.request.get('/api/settings')).body as object
  const prices = (await shop.request.get('/api/tables/prices')).body as { values: { lines: object[] } }
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'red' } })
    .png()
    .toBuffer()
  const wav = Buffer.from(
    encodeWav(
      Float32Array.from({ length: 400 }, (_, i) => Math.sin(i / 9)),
      8000,
    ),
  )
  const theirs = await from.takeIn()
  const archive = await bytesAt(from, `/api/clocks/${theirs.clock.id}/archive.zip`)
  const { id: _, ownerId: _o, ...known } = clock
  kinds.push(
    { what: 'taking in', ask: send('post', '/jobs', newJob()) },
    {
      what: 'the job',
      ask: send('patch', at, {
        ...{ version: 1, bay: 'strip', complaint: 'It stops at night.', runs: 'stops', cameWith: [], promisedOn: null },
        ...{ standsAt: '', movedLately: 'unknown', lastServiced: null },
      }),
    },
    { what: 'power off', ask: send('post', `${at}/power`, powerOff('going')) },
    {
      what: 'an override',
      ask: send('post', `${at}/overrides`, { id: randomUUID(), gate: 'trial', reason: 'It was proved.' }),
    },
    { what: 'a note', ask: send('post', `${at}/journal`, { id: randomUUID(), text: 'It was dusty.', corrects: null }) },
    row('holes', newHole({ plate: 'front' })),
    row('pivots', blankPivot(randomUUID(), { ...place, plate: 'back' })),
    { what: 'bushings', ask: row('bushings', { ...blankBushing('', hole.id) }).ask },
    row('reservations', { stockId: bush.id, holeId: null, count: 1, taken: true }),
    row('springs', blankSpringSheet('', 'strike')),
    row('wheels', blankWheelSheet('', { ...place, part: 'wheel' })),
    row('readings', { at: AT, errorSeconds: 1, sigmaSeconds: 1, way: 'eye' }),
    row('events', { at: AT, kind: 'moved', turns: null, showed: '', note: '' }),
    row('observations', { key: 'hands', answer: 'sound', figure: null, second: null, note: '', photoId: null }),
    row('estimates', {
      ...{ revision: 1, state: 'draft', lines: [], choices: [], chosen: '', currency: '€', taxPercent: '21' },
      ...{ depositPercent: '0', note: '', sentAt: null, answer: null },
    }),
    { what: 'a hole taken back', ask: send('delete', `${at}/holes/${randomUUID()}`) },
    {
      what: 'a photo',
      ask: () => shop.request.put(`/api${at}/photos/${randomUUID()}`).type('image/png').send(picture),
    },
    { what: 'a sound', ask: () => shop.request.put(`/api/listenings/${heard.id}/sound`).type('audio/wav').send(wav) },
    { what: 'stock', ask: send('put', `/stock/${bush.id}`, { ...bush, version: 99, count: 9 }) },
    {
      what: 'a list',
      ask: send('post', '/stock/lists', {
        ...{ id: randomUUID(), csv: 'kind,measured mm,count\ncutter,7.1,1\n', keep: true },
      }),
    },
    { what: 'a donor', ask: send('put', `/donors/${theirs.job.id}`, blankDonor(theirs.job.id)) },
    {
      what: 'an oil',
      ask: send('put', `/oils/${theirs.clock.id}`, { ...blankOil(theirs.clock.id, 'pivot oil'), name: 'Oil' }),
    },
    {
      what: 'a person',
      ask: send('put', `/people/${other.id}`, { id: other.id, version: 0, name: 'Ida', initials: 'I', active: true }),
    },
    { what: 'settings', ask: send('put', '/settings', { ...settings, workshop: 'Slip' }) },
    {
      what: 'prices',
      ask: send('put', '/tables/prices', {
        version: 0,
        values: { ...prices.values, lines: prices.values.lines.slice(0, 3) },
      }),
    },
    { what: 'the clock', ask: send('patch', `/clocks/${clock.id}`, { ...known, marks: 'IV' }) },
    {
      what: 'the owner',
      ask: send('patch', `/owners/${owner.id}`, { version: 1, name: 'Gull Row', phone: '12', address: '' }),
    },
    { what: 'the calendar', ask: send('post', '/calendar/renew', {}) },
    {
      what: 'an archive',
      ask: () => shop.request.post('/api/archive?keep=true').type('application/zip').send(archive),
    },
    { what: 'calling off', ask: send('post', `/jobs/${other.id}/call-off`, { reason: 'It was sold.' }) },
    { what: 'opening again', ask: send('post', `/jobs/${other.id}/reopen`, {}) },
  )
})
afterAll(() => stop())

/** A digest of every row, staged files aside: those go with the next archive. */
async function digest(): Promise<string> {
  const each = TABLES.map((t) => {
    const not =
      t === 'files'
        ? ' where not r.staged'
        : t === 'file_chunks'
          ? ' where exists (select 1 from files f where f.id = r.file_id and not f.staged)'
          : ''
    return `(select md5(coalesce(string_agg(r::text, '|' order by r::text), '')) from ${t} r${not})`
  })
  const { rows } = await holding.query<{ all: string }>(`select concat_ws(' ', ${each.join(', ')}) as all`)
  return rows[0]?.all ?? ''
}

/** Waits until a change stands in the middle, at the journal that is held; gives the process that serves it; null: it was answered. */
async function standing(asked: Promise<unknown>): Promise<number | null> {
  let answered = false
  asked.then(
    () => (answered = true),
    () => (answered = true),
  )
  while (!answered) {
    // In a transaction it would be told the same each time.
    await holding.query('select pg_stat_clear_snapshot()')
    const { rows } = await holding.query<{ pid: number }>(
      `select pid from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock' and pid <> pg_backend_pid()`,
    )
    if (rows[0]) return rows[0].pid
    await pause(5)
  }
  return null
}

describe('every kind of change', () => {
  test('its connection cut in the middle: it is refused, nothing of it stands, and it goes when it is sent again', async () => {
    for (const { what, ask } of kinds.filter((k) => k.what !== 'a hole taken back' && k.what !== 'stock')) {
      const before = await digest()
      await holding.query('begin')
      await holding.query('lock table journal in exclusive mode')
      const asked = Promise.resolve(ask())
      const pid = await standing(asked)
      if (pid !== null) await holding.query('select pg_terminate_backend($1)', [pid])
      await holding.query('rollback')
      const answer = await asked
      // A sound is kept without an entry: there is nothing to hold it by.
      if (pid === null) {
        expect([what, answer.status, answer.text]).toEqual(['a sound', 204, ''])
        continue
      }
      expect([what, answer.status, (answer.body as Problem).type]).toEqual([what, 503, '/problems/database-away'])
      expect([what, await digest()]).toEqual([what, before])
      const again = await ask()
      expect([what, again.status, again.text]).toEqual([what, expect.toSatisfy((s: number) => s < 300), again.text])
    }
  })

  test('no room on the disk, as the system tells it: refused in words, reading goes on, and writing once there is room', async () => {
    const before = await digest()
    freeBytes = 1_000_000
    // What was told a second ago may still be believed.
    await expect.poll(async () => (await kinds[0]!.ask()).status).toBe(507)
    for (const { what, ask } of kinds) {
      const answer = await ask()
      expect([what, answer.status, (answer.body as Problem).type]).toEqual([what, 507, '/problems/disk-full'])
    }
    expect(await digest()).toBe(before)
    for (const path of ['/bench', '/clocks', '/stock', '/settings', '/journal', '/health'])
      await shop.request.get(`/api${path}`).expect(200)
    freeBytes = Infinity
    await expect.poll(async () => (await shop.request.post('/api/jobs').send(newJob())).status).toBe(201)
  })

  test('no room on the disk, as the database tells it at any of its steps: the same, and nothing half', async () => {
    await runSql(
      shop.adminUrl,
      `create function no_room() returns trigger language plpgsql as
         $$ begin raise exception 'could not extend file' using errcode = '53100'; end $$`,
    )
    const tables = ['journal', 'files', 'file_chunks', 'jobs', 'owners']
    for (const table of tables) {
      await runSql(
        shop.adminUrl,
        `create trigger no_room before insert or update on ${table} for each row execute function no_room()`,
      )
      const before = await digest()
      const answers: [string, Asked][] = [
        ['journal', () => shop.request.post('/api/jobs').send(newJob())],
        ['jobs', () => shop.request.post('/api/jobs').send(newJob())],
        ['owners', () => shop.request.post('/api/jobs').send(newJob())],
      ]
      const statuses = []
      for (const { what, ask } of [...answers.map(([what, ask]) => ({ what, ask })), ...kinds]) {
        const { status } = await ask()
        statuses.push([what, status])
        expect([table, what, status]).toEqual([table, what, expect.toSatisfy((s: number) => s === 507 || s < 500)])
      }
      expect(
        statuses.some(([, status]) => status === 507),
        table,
      ).toBe(true)
      await runSql(shop.adminUrl, `drop trigger no_room on ${table}`)
      if (table === 'journal') expect(await digest()).toBe(before)
    }
    const { job } = await shop.takeIn()
    await shop.request.get(`/api/jobs/${job.id}`).expect(200)
  })
})

test('twenty connections cut at once while many read and write: each is answered, none ends the server', async () => {
  const { job } = await shop.takeIn()
  let cutting = true
  const cut = async () => {
    while (cutting) {
      await holding.query(
        `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and usename = 'treadle_serve'`,
      )
      await pause(15)
    }
  }
  const kept: string[] = []
  const bench = async () => {
    for (let i = 0; i < 12; i++) {
      const hole = { id: randomUUID(), version: 0, at: AT, errorSeconds: i, sigmaSeconds: 1, way: 'eye' }
      const answer = await shop.request.put(`/api/jobs/${job.id}/readings/${hole.id}`).send(hole)
      expect([201, 503]).toContain(answer.status)
      if (answer.status === 201) kept.push(hole.id)
      expect([200, 503]).toContain((await shop.request.get('/api/bench')).status)
    }
  }
  const cuts = cut()
  await Promise.all(Array.from({ length: 10 }, bench))
  cutting = false
  await cuts
  const there = ((await shop.request.get(`/api/jobs/${job.id}`).expect(200)).body as JobPage).readings.map((r) => r.id)
  for (const id of kept) expect(there).toContain(id)
})

test('a change that met another in a ring is made once more, and told once', async () => {
  const { job } = await shop.takeIn()
  // Whoever comes first to the journal is told that it was a deadlock's victim.
  await runSql(
    shop.adminUrl,
    `create sequence ring;
     grant usage on sequence ring to treadle_serve;
     create function ring() returns trigger language plpgsql as
       $$ begin if nextval('ring') % 2 = 1 then raise exception 'deadlock detected' using errcode = '40P01'; end if; return new; end $$;
     create trigger ring before insert on journal for each row execute function ring()`,
  )
  const reading = { id: randomUUID(), version: 0, at: AT, errorSeconds: 4, sigmaSeconds: 1, way: 'eye' }
  await shop.request.put(`/api/jobs/${job.id}/readings/${reading.id}`).send(reading).expect(201)
  await runSql(shop.adminUrl, 'drop trigger ring on journal')
  const { rows } = await shop.connection.pool.query("select 1 from journal where job_id = $1 and kind = 'reading'", [
    job.id,
  ])
  expect(rows).toHaveLength(1)
})

describe('a backup', () => {
  test('that meets a deadlock or a cancelled statement tries again; what is wrong for good is told', async () => {
    for (const code of ['40P01', '57014', '40001', '55P03']) {
      let tries = 0
      const work = () =>
        ++tries < 3 ? Promise.reject(Object.assign(new Error('broken off'), { code })) : Promise.resolve('kept')
      expect([code, await triedAgain(work, { pauseMs: 1 }), tries]).toEqual([code, 'kept', 3])
    }
    let tries = 0
    const wrong = () => Promise.reject(Object.assign(new Error('no such table'), { code: '42P01', tries: ++tries }))
    await expect(triedAgain(wrong, { pauseMs: 1 })).rejects.toThrow('no such table')
    expect(tries).toBe(1)
  })
})

describe('a log that can’t be written', () => {
  test('is let go and tried again after a while; the workshop goes on', async () => {
    const { PassThrough } = await import('node:stream')
    const opened: InstanceType<typeof PassThrough>[] = []
    let now = 0
    let mayOpen = true
    const log = lasting(
      () => {
        if (!mayOpen) throw new Error('ENOSPC')
        const stream = new PassThrough()
        opened.push(stream)
        return stream
      },
      { againMs: 1000, now: () => now },
    )
    log.write('one\n')
    expect(String(opened[0]?.read())).toBe('one\n')
    opened[0]?.destroy(new Error('ENOSPC: no space left on device'))
    await pause(0)
    log.write('lost\n')
    expect(opened).toHaveLength(1)
    now = 1001
    mayOpen = false
    log.write('lost too\n')
    mayOpen = true
    log.write('still waiting\n')
    expect(opened).toHaveLength(1)
    now = 2002
    log.write('two\n')
    expect(String(opened[1]?.read())).toBe('two\n')
  })
})
