import type { JobPage } from '@treadle/contract'
import { connect, makeApp } from '@treadle/server'
import { DEFAULT_PRACTICE_CLOCK, type PracticeClock } from '@treadle/core'
import { once } from 'node:events'
import { createServer } from 'node:http'
import { pino } from 'pino'
import { DemoApi, demoId } from './api.ts'
import { layDownDrawers } from './layDownDrawers.ts'
import { layDownEstimates } from './layDownEstimates.ts'
import { layDownPendulum, workshopWarmth } from './layDownPendulum.ts'
import { layDownPlates } from './layDownPlates.ts'
import { layDownSeen } from './layDownSeen.ts'
import { layDownSet } from './layDownSet.ts'
import { layDownWatch } from './layDownWatch.ts'
import { layDownStripped } from './layDownStripped.ts'
import { layDownWheels } from './layDownWheels.ts'
import {
  backTogether,
  keepRateBook,
  letDown,
  listenTo,
  listHole,
  moveTo,
  partPlates,
  putEvent,
  type DemoHole,
} from './history.ts'
import { jobsGoingHome } from './goingHome.ts'
import { jobsOfTheDemo, PEOPLE, SETTINGS } from './island.ts'
import { layDownReturn } from './layDownReturn.ts'
import { dialPicture } from './pictures.ts'
import { jobsBefore, layDownYearsBefore } from './yearsBefore.ts'

const DAY_MS = 86_400_000

/** Lays down the demo workshop, unless this one has been used; says whether it did. */
export async function loadDemo(databaseUrl: string): Promise<boolean> {
  const connection = connect(databaseUrl, 'working')
  const holder: { api?: DemoApi } = {}
  const app = makeApp({
    db: connection.db,
    version: 'demo',
    logger: pino({ level: 'silent' }),
    now: () => holder.api?.now ?? new Date(),
  })
  const server = createServer(app)
  // Between two requests a minute's sound is judged here: a line that was let go meanwhile would break the next one.
  server.keepAliveTimeout = 0
  try {
    // A load that was broken off is taken up again; what anybody else put in is left alone.
    const own = [
      ...PEOPLE,
      ...Object.values(jobsOfTheDemo(() => '')),
      ...Object.values(jobsGoingHome(() => '')),
      ...jobsBefore(),
    ].map((row) => row.id)
    const used = await connection.pool.query(
      'select 1 from settings union all select 1 from people where id <> all($1) union all select 1 from jobs where id <> all($1) limit 1',
      [own],
    )
    if (used.rowCount !== 0) return false
    server.listen(0, '127.0.0.1')
    await once(server, 'listening')
    holder.api = new DemoApi(server)
    await layDown(holder.api, Date.now())
    return true
  } finally {
    server.close()
    await connection.pool.end()
  }
}

async function layDown(api: DemoApi, nowMs: number): Promise<void> {
  const ago = (days: number) => new Date(nowMs - days * DAY_MS)
  const jobs = jobsOfTheDemo((days) => new Date(nowMs + days * DAY_MS).toISOString().slice(0, 10))
  const heard = (rest: Partial<PracticeClock>): PracticeClock => ({ ...DEFAULT_PRACTICE_CLOCK, ...rest })
  const take = async (key: keyof typeof jobs, days: number, who = 'Ida Vos') => {
    await api.at(ago(days), who).send('POST', '/jobs', jobs[key])
    return jobs[key].id
  }

  for (const person of PEOPLE) await api.at(ago(1470)).send('PUT', `/people/${person.id}`, person)

  // Four years ago: the regulator's first visit, closed.
  const before = await take('regulatorBefore', 1460)
  await moveTo(api.at(ago(1450)), before, 'set', 'runs')
  for (const gate of ['beat', 'rate', 'trial', 'parts'])
    await api.send('POST', `/jobs/${before}/overrides`, {
      id: demoId(`before ${gate}`),
      gate,
      reason: 'Kept in the old paper book, page 41.',
    })
  await api.at(ago(1440)).send('POST', `/jobs/${before}/close`, {})

  // The regulator: it stood in the workshop for most of a year, its readings on paper and a logger beside it; then it
  // was seen to, and is on rate: three months of readings and four turns of the nut.
  const regulator = await take('regulator', 372)
  const mercury = {
    lengthMm: 994,
    pitchMm: 0.8,
    nutShare: 0.93,
    windEvery: 7,
    perDegree: 0.09,
    warmth: (atMs: number) => workshopWarmth(atMs) - 16.5,
  }
  await keepRateBook(api, regulator, 'regulator year', nowMs - 97 * DAY_MS, {
    ...mercury,
    startRate: -1.8,
    days: 272,
    turns: {},
    handsSet: [],
    readingHours: [9],
    seed: 6,
    sigmaS: 1,
    asSheet: true,
  })
  const steady = heard({
    beatsPerHour: 3600,
    rateSecondsPerDay: -9,
    semiArcDeg: 2,
    releaseDeg: 1,
    offsetDeg: 0.004,
    scatterMs: 0.12,
    seed: 31,
  })
  await listenTo(
    api.at(ago(95.9)),
    regulator,
    'regulator first',
    { ...steady, offsetDeg: 0.1, rateSecondsPerDay: -31 },
    { purpose: 'observe' },
  )
  await partPlates(api.at(ago(94)), regulator, [{ train: 'going', method: 'weight-off' }])
  await backTogether(api.at(ago(91.2)), regulator, 'regulator', ['going'])
  await moveTo(api.at(ago(91)), regulator, 'set', 'runs')
  await listenTo(api.at(ago(90.1)), regulator, 'regulator set', steady, { purpose: 'beat' })
  await keepRateBook(api, regulator, 'regulator', nowMs - 5 * 3_600_000, {
    ...mercury,
    startRate: -31,
    days: 88,
    turns: { 12: 0.5, 30: 0.25, 55: -0.125, 79: 0.0625 },
    handsSet: [12, 30, 55],
    readingHours: [1, 22],
    seed: 5,
    sigmaS: 0.5,
  })
  await layDownPendulum(api, regulator, nowMs)

  // The school dial: heard limping, bent once, still limping.
  const school = await take('school', 6)
  await api.sendBytes(
    `/jobs/${school}/photos/${demoId('photo school')}?caption=As+it+came+in`,
    'image/jpeg',
    await dialPicture(3),
  )
  const limping = heard({ offsetDeg: 0.69, seed: 11 })
  await listenTo(api.at(ago(5.9)), school, 'school observe', limping, { purpose: 'observe' })
  await partPlates(api.at(ago(5)), school, [{ train: 'going', method: 'let-down' }])
  await backTogether(api.at(ago(2.2)), school, 'school', ['going'])
  await moveTo(api.at(ago(2)), school, 'set', 'runs')
  await listenTo(api.at(ago(0.1)), school, 'school one', limping, { purpose: 'beat' })
  await listenTo(
    api.at(ago(0.09)),
    school,
    'school two',
    { ...limping, offsetDeg: 0.5, seed: 12 },
    { purpose: 'beat', changeMm: 0.4 },
  )

  // The chapel's tower clock: the going weight is off, the strike not yet.
  const chapel = await take('chapel', 12, 'Rasmus Oake')
  await api.sendBytes(
    `/jobs/${chapel}/photos/${demoId('photo chapel')}?caption=Setting+dial+before+anything+was+touched`,
    'image/jpeg',
    await dialPicture(8),
  )
  await listenTo(
    api,
    chapel,
    'chapel observe',
    heard({
      beatsPerHour: 2880,
      rateSecondsPerDay: -70,
      semiArcDeg: 2.2,
      releaseDeg: 1,
      offsetDeg: 0.06,
      seed: 15,
      noise: 0.01,
    }),
    { purpose: 'observe' },
  )
  await moveTo(api.at(ago(3), 'Rasmus Oake'), chapel, 'strip', 'stops')
  await letDown(api, chapel, (await api.get<JobPage>(`/jobs/${chapel}`)).clock, 'going', 'weight-off')

  // The long café clock: sixth day of its trial.
  const cafe = await take('cafe', 40)
  const cafeBeat = heard({
    beatsPerHour: 3600,
    rateSecondsPerDay: 4,
    semiArcDeg: 2.5,
    releaseDeg: 1.2,
    offsetDeg: 0.01,
    seed: 21,
  })
  await listenTo(api.at(ago(39.9)), cafe, 'cafe observe', { ...cafeBeat, offsetDeg: 0.2 }, { purpose: 'observe' })
  await partPlates(api.at(ago(38)), cafe, [
    { train: 'going', method: 'weight-off' },
    { train: 'strike', method: 'weight-off' },
  ])
  for (const hole of CAFE_HOLES) await listHole(api.at(ago(33)), cafe, hole)
  await backTogether(api.at(ago(26.2)), cafe, 'cafe', ['going', 'strike'])
  await moveTo(api.at(ago(26)), cafe, 'set', 'stops')
  await listenTo(api.at(ago(25.9)), cafe, 'cafe set', cafeBeat, { purpose: 'beat' })
  await keepRateBook(api, cafe, 'cafe', nowMs - 9 * 3_600_000, {
    startRate: 22,
    lengthMm: 994,
    pitchMm: 1,
    nutShare: 0.9,
    days: 25,
    turns: { 6: -0.5, 19: 0.0625 },
    windEvery: 6,
    handsSet: [],
    readingHours: [1, 13, 37],
    seed: 9,
    sigmaS: 1,
    perDegree: 0.1,
  })
  await putEvent(api.at(ago(5.3)), cafe, 'cafe trial', 'trial', null)

  // The drum clock: plates apart, six holes of twelve measured.
  const drum = await take('drum', 15, 'Rasmus Oake')
  await moveTo(api.at(ago(13), 'Rasmus Oake'), drum, 'strip', 'dead')
  await partPlates(api.at(ago(12)), drum, [
    { train: 'going', method: 'let-down' },
    { train: 'strike', method: 'clamped' },
  ])
  await moveTo(api.at(ago(8)), drum, 'mend', 'dead')
  for (const hole of DRUM_HOLES) await listHole(api.at(ago(1)), drum, hole)

  // The ferry house's: one hole is too large for any cutter in the drawer.
  const ferry = await take('ferry', 20)
  await moveTo(api.at(ago(18)), ferry, 'mend', 'stops')
  await partPlates(api, ferry, [{ train: 'going', method: 'weight-off' }])
  for (const hole of FERRY_HOLES) await listHole(api.at(ago(4)), ferry, hole)

  // One that nobody has heard yet, and one that waits for its card.
  await take('shelf', 0.2)
  const bracket = await take('bracket', 33)
  const ready = heard({ semiArcDeg: 4, offsetDeg: 0.01, rateSecondsPerDay: 3, seed: 27 })
  await listenTo(api.at(ago(32.9)), bracket, 'bracket observe', ready, { purpose: 'observe' })
  await moveTo(api.at(ago(24)), bracket, 'set', 'runs')
  await listenTo(api.at(ago(22.1)), bracket, 'bracket set', ready, { purpose: 'beat' })
  await keepRateBook(api, bracket, 'bracket', nowMs - 20 * 3_600_000, {
    startRate: 42,
    lengthMm: 248,
    pitchMm: 0.7,
    nutShare: 0.88,
    days: 21,
    turns: { 4: -0.375 },
    windEvery: 7,
    handsSet: [],
    readingHours: [2, 20, 40],
    seed: 13,
    sigmaS: 0.5,
    perDegree: 0.1,
  })
  await putEvent(
    api.at(ago(12)),
    bracket,
    'bracket oiled',
    'oiled',
    null,
    'Pivots, fusee and pallets; nothing on the wheels.',
  )
  await putEvent(api.at(ago(11.9)), bracket, 'bracket trial', 'trial', null)
  await moveTo(api.at(ago(1)), bracket, 'return', 'runs')

  // A chiming clock on its trial, and a bird clock that goes back between its plates.
  const chimer = await take('chimer', 48)
  const bird = await take('bird', 12, 'Rasmus Oake')
  await layDownSet(api, ago, { chimer, bird, cafe }, nowMs)
  await layDownWatch(api, chimer, nowMs)

  await layDownReturn(api, nowMs)
  await layDownYearsBefore(api, nowMs)

  const jobsHere = { school, chapel, drum, ferry, cafe, bracket, regulator }
  await layDownSeen(api, ago, jobsHere)
  await layDownEstimates(api, ago, jobsHere)
  await layDownStripped(api, ago, jobsHere)
  await layDownDrawers(api, ago)
  await layDownPlates(api, ago, drum)
  await layDownWheels(api, ago, drum)

  // The last thing: while there are no settings, a load that was broken off is taken up again.
  await api.at(ago(0)).send('PUT', '/settings', SETTINGS)
}

const going = (arbor: string, arborIndex: number, plate: 'front' | 'back', rest: Partial<DemoHole> = {}): DemoHole => ({
  train: 'going',
  arbor,
  arborIndex,
  plate,
  ...rest,
})
const strike = (
  arbor: string,
  arborIndex: number,
  plate: 'front' | 'back',
  rest: Partial<DemoHole> = {},
): DemoHole => ({
  train: 'strike',
  arbor,
  arborIndex,
  plate,
  ...rest,
})

const DRUM_HOLES: DemoHole[] = [
  going('Great wheel', 0, 'front', { measured: [2.54, 2.5, 200, 2.42, 2.4] }),
  going('Centre', 1, 'front', { measured: [1.84, 1.82, 150, 1.75, 2.4] }),
  going('Third arbor', 2, 'front', { measured: [1.24, 1.1, 130, 1.02, 2.4] }),
  going('Escape arbor', 3, 'front', { role: 'escape', measured: [0.83, 0.82, 170, 0.79, 2.4] }),
  going('Great wheel', 0, 'back', { measured: [2.56, 2.5, 20, 2.33, 2.4] }),
  going('Centre', 1, 'back', { measured: [1.83, 1.81, 330, 1.74, 2.4] }),
  going('Third arbor', 2, 'back', {
    measured: [1.32, 1.1, 55, 1, 2.4],
    more: { old: 'pressed', oldHoleMm: 2.2, sinkMm: 2.6 },
  }),
  going('Escape arbor', 3, 'back', { role: 'escape' }),
  going('Pallet arbor', 4, 'back', { role: 'pallet', more: { leanDeg: 1.1, pivotMm: 0.82, plateMm: 2.4 } }),
  strike('Great wheel', 0, 'back', { measured: [2.61, 2.5, 20, 2.43, 2.4], bushed: true }),
  strike('Pin wheel', 1, 'back', { waived: 'New with the arbor in 2011; no shake at all.' }),
  strike('Warning arbor', 3, 'back'),
]

const FERRY_HOLES: DemoHole[] = [
  going('Great wheel', 0, 'back', { measured: [4.9, 4.1, 205, 3.9, 1.6] }),
  going('Third arbor', 2, 'back', { measured: [1.42, 1.2, 110, 1.1, 1.6], bushed: true }),
  going('Escape arbor', 3, 'back', { role: 'escape', measured: [0.95, 0.9, 70, 0.86, 1.6], bushed: true }),
]

const CAFE_HOLES: DemoHole[] = [
  going('Third arbor', 2, 'back', { measured: [1.5, 1.32, 75, 1.24, 3], bushed: true }),
  going('Escape arbor', 3, 'back', { role: 'escape', measured: [1.02, 0.94, 110, 0.9, 3], bushed: true }),
  going('Escape arbor', 3, 'front', { role: 'escape', measured: [0.92, 0.92, 0, 0.9, 3] }),
]
