import { blankOil, blankOilSheet, type JobPage, type OilChange } from '@treadle/contract'
import { DEFAULT_PRACTICE_CLOCK, ledKey, oilMapOf, strikesRight, strikeSteps } from '@treadle/core'
import { demoId, type DemoApi } from './api.ts'
import { countTrain, observe, takeApart, type Step } from './arrivals.ts'
import { backTogether, keepRateBook, listenTo, moveTo, partPlates, putEvent, putRow } from './history.ts'
import { sinksPicture } from './pictures.ts'

const OILS: [kind: OilChange['kind'], name: string, part: Partial<OilChange>][] = [
  ['pivot oil', 'Pale pivot oil', { keepsYears: 3, school: 'middle', drawer: 'O1' }],
  ['pivot oil', 'Old yellow oil', { keepsYears: 2, drawer: 'O1', note: 'Kept to compare; not for use.' }],
  ['heavy oil', 'Barrel oil', { keepsYears: 4, drawer: 'O1' }],
  ['grease', 'Grey grease', { keepsYears: 5, drawer: 'O2' }],
]
const oilId = (name: string) => demoId(`oil ${name}`)

/** The bird clock’s strip log, in the order in which it came apart. */
const BIRD_STEPS: Step[] = [
  ['Hands and their nut', 'case', 3, 'nut by hand', ''],
  ['Chains, off their sprockets', 'case', 2, 'wired so that they do not run off', ''],
  ['Bellows wires', 'strike', 2, 'high note left', 'bent loop forward'],
  ['Bird and its lever', 'strike', 2, '', 'home when locked'],
  ['Movement, out of its case', 'case', 5, '4 wood screws, 1 longer below', ''],
  ['Count lever and count wheel', 'strike', 3, 'tapered pin', 'pen stroke on the plate where the pin stands locked'],
  ['Back plate', 'case', 5, '4 nuts', ''],
  ['Strike wheels', 'strike', 4, '', 'pen mark: locking pin at rest'],
  ['Going wheels', 'going', 4, '', ''],
]

/** Oils, a chiming clock on its trial, and a bird clock that goes back between its plates. */
export async function layDownSet(
  api: DemoApi,
  ago: (days: number) => Date,
  jobs: Record<'chimer' | 'bird' | 'cafe', string>,
  nowMs: number,
): Promise<void> {
  for (const [i, [kind, name, part]] of OILS.entries()) {
    const openedOn = ago(260 + 340 * (i % 2))
      .toISOString()
      .slice(0, 10)
    const row = { ...blankOil(oilId(name), kind), name, openedOn, ...part }
    await api.at(ago(45)).send('PUT', `/oils/${row.id}`, row)
  }
  await chimer(api, ago, jobs.chimer, nowMs)
  await bird(api, ago, jobs.bird)
  await observe(api.at(ago(39.8)), jobs.cafe, 'drive', { answer: 'kg', figure: 4.9, second: 4.4 })
  await observe(api.at(ago(26.1)), jobs.cafe, 'drive-again', { answer: 'kg', figure: 4.9, second: 2.1 })
  await strikeRound(api.at(ago(4)), jobs.cafe, 12)
}

async function chimer(api: DemoApi, ago: (days: number) => Date, job: string, nowMs: number): Promise<void> {
  const heard = {
    ...DEFAULT_PRACTICE_CLOCK,
    beatsPerHour: 7200,
    semiArcDeg: 4.5,
    releaseDeg: 2,
    rateSecondsPerDay: -4,
    scatterMs: 0.3,
  }
  await listenTo(
    api.at(ago(47.9)),
    job,
    'chimer observe',
    { ...heard, offsetDeg: 0.4, seed: 41 },
    { purpose: 'observe' },
  )
  await observe(api.at(ago(47.8)), job, 'drive', { answer: 'turns', figure: 6, second: 3.5 })
  const counts: ['going' | 'strike' | 'chime', [string, number | null, number | null][]][] = [
    [
      'going',
      [
        ['Great', null, 84],
        ['Centre', 7, 84],
        ['Third', 7, 80],
        ['Escape', 8, 30],
      ],
    ],
    [
      'strike',
      [
        ['Great', null, 84],
        ['Pin', 7, 80],
        ['Gathering', 8, 56],
        ['Warning', 8, 49],
        ['Fly', 7, null],
      ],
    ],
    [
      'chime',
      [
        ['Great', null, 84],
        ['Second', 10, 80],
        ['Locking', 8, 64],
        ['Warning', 8, 56],
        ['Fly', 7, null],
      ],
    ],
  ]
  for (const [train, arbors] of counts)
    await countTrain(api.at(ago(46)), job, arbors, {
      train,
      hourly: train === 'going' ? 1 : null,
      escape: train === 'going',
      greatTurns: 10.5,
    })
  await partPlates(api.at(ago(44)), job, [
    { train: 'going', method: 'let-down' },
    { train: 'strike', method: 'let-down' },
    { train: 'chime', method: 'let-down' },
  ])
  await backTogether(api.at(ago(30)), job, 'chimer', ['going', 'strike', 'chime'], false)
  await oilIt(api.at(ago(29)), job)
  await moveTo(api.at(ago(28.9)), job, 'set', 'stops')
  for (const step of strikeSteps('chime'))
    await observe(api.at(ago(30.1)), job, `strike-set:${step.key}`, { answer: 'done' })
  await observe(api.at(ago(28.8)), job, 'drive-again', { answer: 'turns', figure: 6, second: 1.25 })
  await listenTo(api.at(ago(28.7)), job, 'chimer set', { ...heard, offsetDeg: 0.01, seed: 42 }, { purpose: 'beat' })
  await keepRateBook(api, job, 'chimer', nowMs - 11 * 3_600_000, {
    startRate: 24,
    lengthMm: 248,
    pitchMm: 0.7,
    nutShare: 0.9,
    days: 27,
    turns: { 9: -0.25 },
    windEvery: 7,
    handsSet: [9],
    readingHours: [1, 20, 41],
    seed: 17,
    sigmaS: 0.5,
    perDegree: 0.1,
  })
  await putEvent(api.at(ago(14)), job, 'chimer trial', 'trial', null)
  const stop = await putEvent(api.at(ago(9.2)), job, 'chimer stop', 'stopped', null, '', '2:56')
  await observe(api.at(ago(9.1)), job, `stop:${stop}`, {
    answer: 'found',
    note: 'The hour’s lift jammed on the warning lever; eased.',
  })
  await strikeRound(api.at(ago(5)), job, 31)
}

/** What it struck round the dial, as it should, so far. */
async function strikeRound(api: DemoApi, job: string, times: number): Promise<void> {
  const { clock } = await api.get<JobPage>(`/jobs/${job}`)
  const strike = clock.work.strike
  if (!strike) return
  for (const { hour, quarter, quarters, blows } of strikesRight(strike.kind, strike.halves).slice(0, times))
    await putRow(api, job, 'strike-counts', `struck ${job} ${hour} ${quarter}`, {
      hour,
      quarter,
      quarters: quarters > 0 ? quarters : null,
      blows: blows > 0 ? blows : null,
      way: 'hand',
      heardAt: api.now.toISOString(),
    })
}

/** Every point of its map ticked off, its sinks pictured, and then said to be oiled. */
async function oilIt(api: DemoApi, job: string): Promise<void> {
  const page = await api.get<JobPage>(`/jobs/${job}`)
  const { work, pendulum, trains } = page.clock
  const points = oilMapOf(undefined, { ...page, trains, work, pendulum, scopeTrain: '' })
  const { id: _, version: _v, ...blank } = blankOilSheet('')
  await putRow(api, job, 'oil-sheets', `oil ${job}`, {
    ...blank,
    pivotOilId: oilId('Pale pivot oil'),
    heavyOilId: oilId('Barrel oil'),
    greaseId: oilId('Grey grease'),
    sinks: points
      .filter((p) => p.part === 'pivot' || p.part === 'great pivot')
      .map((p) => ({ key: p.key, acrossMm: p.part === 'pivot' ? 2.2 : 3.4, depthMm: p.part === 'pivot' ? 0.7 : 1 })),
    done: points.map((p) => p.key),
  })
  await putEvent(api, job, `${job} oiled`, 'oiled', null, 'With Pale pivot oil, Barrel oil, Grey grease.')
  for (const [i, side] of (['front', 'back'] as const).entries()) {
    const photoId = demoId(`sinks ${job} ${side}`)
    await api.sendBytes(
      `/jobs/${job}/photos/${photoId}?caption=Sinks,+${side},+freshly+oiled`,
      'image/jpeg',
      await sinksPicture(i + 3),
    )
    await putRow(api, job, 'witnesses', `witness ${job} ${side}`, {
      moment: 'oiled',
      side,
      photoId,
      state: 'stays',
      note: '',
    })
  }
}

async function bird(api: DemoApi, ago: (days: number) => Date, job: string): Promise<void> {
  await observe(api.at(ago(11)), job, 'drive', { answer: 'kg', figure: 0.32, second: 0.46 })
  const counts: ['going' | 'strike', [string, number | null, number | null][]][] = [
    [
      'going',
      [
        ['Great', null, 72],
        ['Centre', 12, 60],
        ['Third', 8, 50],
        ['Escape', 6, 24],
      ],
    ],
    [
      'strike',
      [
        ['Great', null, 78],
        ['Pin', 12, 60],
        ['Locking', 10, 54],
        ['Fly', 6, null],
      ],
    ],
  ]
  for (const [train, arbors] of counts)
    await countTrain(api.at(ago(10.5)), job, arbors, {
      train,
      hourly: train === 'going' ? 1 : null,
      escape: train === 'going',
    })
  await partPlates(api.at(ago(10)), job, [
    { train: 'going', method: 'weight-off' },
    { train: 'strike', method: 'weight-off' },
  ])
  await takeApart(api.at(ago(9.8)), job, BIRD_STEPS)
  await moveTo(api.at(ago(1)), job, 'set', 'stops')
  for (const key of ['stand', 'caught-going', 'pivots-going', 'endshake-going'])
    await observe(api.at(ago(0.3)), job, ledKey(key), { answer: 'done' })
  const { stripSteps } = await api.get<JobPage>(`/jobs/${job}`)
  const wheels = stripSteps.find((s) => s.part === 'Going wheels')
  if (wheels) {
    const { jobId: _j, at: _a, who: _w, whoId: _i, ...row } = wheels
    await api.send('PUT', `/jobs/${job}/strip-steps/${row.id}`, { ...row, back: true })
  }
}
