import { DEFAULT_PRACTICE_CLOCK } from '@treadle/core'
import { demoId, type DemoApi } from './api.ts'
import { demoEstimate } from './arrivals.ts'
import { jobsGoingHome } from './goingHome.ts'
import { backTogether, keepRateBook, listenTo, moveTo, partPlates, putEvent, putRow } from './history.ts'
import { dialPicture, partPicture } from './pictures.ts'

const DAY_MS = 86_400_000

/** Two clocks on their way home: all was done and proved, and what is left is the house. */
export async function layDownReturn(api: DemoApi, nowMs: number): Promise<void> {
  const ago = (days: number) => new Date(nowMs - days * DAY_MS)
  const jobs = jobsGoingHome((days) => new Date(nowMs + days * DAY_MS).toISOString().slice(0, 10))
  const beat = {
    ...DEFAULT_PRACTICE_CLOCK,
    beatsPerHour: 3600,
    rateSecondsPerDay: 2,
    semiArcDeg: 2.6,
    releaseDeg: 1.3,
    offsetDeg: 0.01,
    scatterMs: 0.15,
    seed: 61,
  }

  await api.at(ago(36)).send('POST', '/jobs', jobs.customs)
  const customs = jobs.customs.id
  const picture = async (days: number, caption: string, bytes: Uint8Array<ArrayBuffer>) =>
    api
      .at(ago(days))
      .sendBytes(
        `/jobs/${customs}/photos/${demoId(`photo customs ${caption}`)}?caption=${encodeURIComponent(caption)}`,
        'image/jpeg',
        bytes,
      )
  await picture(35.9, 'Dial as it came', await dialPicture(5))
  await picture(35.8, 'Count wheel, one slot burred', await partPicture('Count wheel', 41))
  await listenTo(
    api.at(ago(35.7)),
    customs,
    'customs observe',
    { ...beat, offsetDeg: 0.22, seed: 62 },
    { purpose: 'observe' },
  )
  for (const [name, kind, of, note] of [
    ['Movement', 'part', 'original', ''],
    ['Dial', 'part', 'old-replacement', 'its feet do not fit the first holes of the plate'],
    ['“C.H.” in chalk', 'mark', 'original', 'inside the trunk; left as it is'],
    ['Going line', 'part', 'made-now', 'gut, the old one worn through'],
  ] as const)
    await putRow(api, customs, 'conditions', `customs ${name}`, {
      kind,
      name,
      class: of,
      note,
      photoId: null,
      x: null,
      y: null,
    })
  await putRow(api, customs, 'estimates', 'estimate customs', {
    ...demoEstimate(
      customs,
      1,
      [
        ['look', 1],
        ['service', 2],
        ['bush', 3],
        ['re-pivot', 1, 'if-needed'],
        ['fetch', 1],
      ],
      {},
    ),
    state: 'accepted',
    sentAt: ago(35).toISOString(),
    answer: {
      how: 'call',
      by: 'The collector',
      at: ago(34).toISOString(),
      note: 'Go ahead; home before the feast.',
      strokes: [],
    },
  })
  await partPlates(api.at(ago(33)), customs, [
    { train: 'going', method: 'weight-off' },
    { train: 'strike', method: 'weight-off' },
  ])
  await backTogether(api.at(ago(24.2)), customs, 'customs', ['going', 'strike'])
  await moveTo(api.at(ago(24)), customs, 'set', 'runs')
  await listenTo(api.at(ago(23.9)), customs, 'customs set', beat, { purpose: 'beat' })
  await keepRateBook(api, customs, 'customs', nowMs - 30 * 3_600_000, {
    startRate: 14,
    lengthMm: 994,
    pitchMm: 0.9,
    nutShare: 0.92,
    days: 22,
    turns: { 5: -0.375 },
    windEvery: 8,
    handsSet: [],
    readingHours: [2, 26, 39],
    seed: 71,
    sigmaS: 0.5,
    perDegree: 0.2,
  })
  for (let hour = 1; hour <= 12; hour++)
    await putRow(api.at(ago(16)), customs, 'strike-counts', `customs strikes ${hour}`, {
      hour,
      quarter: 0,
      quarters: null,
      blows: hour,
      way: 'pedal',
      heardAt: ago(16).toISOString(),
    })
  await putEvent(api.at(ago(15.9)), customs, 'customs trial', 'trial', null)
  await putEvent(api.at(ago(12)), customs, 'customs moon', 'moon', null)
  await picture(1.5, 'Ready to go home', await dialPicture(9))
  await moveTo(api.at(ago(1.2)), customs, 'return', 'runs')

  await api.at(ago(28)).send('POST', '/jobs', jobs.pilot)
  const pilot = jobs.pilot.id
  const still = { ...beat, semiArcDeg: 1.6, releaseDeg: 0.9, seed: 63, scatterMs: 0.1 }
  await listenTo(api.at(ago(27.9)), pilot, 'pilot observe', still, { purpose: 'observe' })
  await partPlates(api.at(ago(26)), pilot, [{ train: 'going', method: 'weight-off' }])
  await backTogether(api.at(ago(20.2)), pilot, 'pilot', ['going'])
  await moveTo(api.at(ago(20)), pilot, 'set', 'runs')
  await listenTo(api.at(ago(19.9)), pilot, 'pilot set', still, { purpose: 'beat' })
  await keepRateBook(api, pilot, 'pilot', nowMs - 52 * 3_600_000, {
    startRate: -4,
    lengthMm: 994,
    pitchMm: 0.7,
    nutShare: 0.95,
    days: 17,
    turns: { 4: 0.125 },
    windEvery: 8,
    handsSet: [],
    readingHours: [1, 23, 37],
    seed: 72,
    sigmaS: 0.5,
    perDegree: 0.04,
  })
  await putEvent(api.at(ago(11)), pilot, 'pilot trial', 'trial', null)
  await moveTo(api.at(ago(2)), pilot, 'return', 'runs')
  for (const key of ['may', 'room', 'tray'])
    await putRow(api.at(ago(1.9)), pilot, 'observations', `pilot mercury ${key}`, {
      key: `mercury gate: ${key}`,
      answer: 'so',
      figure: null,
      second: null,
      note: '',
      photoId: null,
    })
}
