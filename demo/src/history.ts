import {
  lookedKey,
  meshMarks,
  proofsFor,
  hear,
  PowerTrack,
  PracticeSound,
  seededRandom,
  secondsPerDayPerTurn,
  encodeWav,
  type PracticeClock,
  type Side,
} from '@treadle/core'
import {
  blankHole,
  jobChangeOf,
  listeningFrom,
  newEvent,
  type HoleChange,
  type JobPage,
  type NewListening,
  type RateEventChange,
} from '@treadle/contract'
import { demoId, type DemoApi } from './api.ts'

const DAY_MS = 86_400_000
const SAMPLE_RATE = 22_050
const SECONDS = 40

/** Listens to a practice clock as the page would, and keeps result and sound. */
export async function listenTo(
  api: DemoApi,
  jobId: string,
  key: string,
  clock: PracticeClock,
  rest: { purpose: NewListening['purpose']; firstSide?: Side; changeMm?: number },
): Promise<void> {
  const samples = new PracticeSound(clock, SAMPLE_RATE).next(SAMPLE_RATE * SECONDS)
  const track = new PowerTrack(SAMPLE_RATE)
  track.push(samples)
  const heard = hear(track.bins, track.binS, { beatsPerHour: clock.beatsPerHour })
  if (!heard.heard) throw new Error(`The demo’s own clock was not heard: ${heard.sentence}`)
  const id = demoId(`listening ${key}`)
  const listening = listeningFrom(heard, {
    id,
    at: api.now.toISOString(),
    pickup: 'practice',
    fileName: '',
    purpose: rest.purpose,
    firstSide: rest.firstSide ?? firstSideOf(heard.intervalsMs, clock),
    hasSound: true,
    changeMm: rest.changeMm ?? null,
  })
  await api.send('PUT', `/jobs/${jobId}/listenings/${id}`, listening)
  await api.sendBytes(`/listenings/${id}/sound`, 'audio/wav', encodeWav(samples, SAMPLE_RATE))
}

/** The side of the first ticks: with a right offset the bob is longer under way from left to right. */
function firstSideOf([firstToSecond, secondToFirst]: [number, number], clock: PracticeClock): Side {
  return firstToSecond > secondToFirst === clock.offsetDeg > 0 ? 'left' : 'right'
}

export interface RateHistory {
  /** s/day before any turn, + gains */
  startRate: number
  lengthMm: number
  pitchMm: number
  /** what one turn really does, as a share of 43200·p/L */
  nutShare: number
  days: number
  /** day from the start → turns, + raised */
  turns: Record<number, number>
  windEvery: number
  /** days on which the hands are set right */
  handsSet: number[]
  readingHours: number[]
  seed: number
  sigmaS: number
  /** steel or wooden rod: s/day for each °C */
  perDegree: number
  /** of the room, °C from any mean; a slow swing of a month where nothing is said */
  warmth?: (atMs: number) => number
  /** it was kept on paper, and is read in at once */
  asSheet?: true
}

/**
 * Months of readings that agree with the pendulum: the error is the rate summed up hour by hour, the rate follows the
 * nut by the pendulum's own length and the room's slow warmth, and each reading errs by a person's own scatter.
 */
export async function keepRateBook(
  api: DemoApi,
  jobId: string,
  key: string,
  endMs: number,
  history: RateHistory,
): Promise<void> {
  const chance = seededRandom(history.seed)
  const perTurn = secondsPerDayPerTurn(history.lengthMm, history.pitchMm, history.nutShare)
  const startMs = endMs - history.days * DAY_MS
  const sheet = ['when,ahead s,how']
  let error = 3
  let turns = 0
  for (let hour = 0; hour <= history.days * 24; hour++) {
    const day = hour / 24
    const at = new Date(startMs + hour * 3_600_000)
    const warmth = history.warmth?.(at.getTime()) ?? 2 * Math.sin((2 * Math.PI * day) / 31)
    error += (history.startRate + perTurn * turns - history.perDegree * warmth) / 24
    if (history.readingHours.includes(hour % 48) && history.asSheet) {
      const read = error + history.sigmaS * chance.normal()
      sheet.push(`${at.toISOString()},${read.toFixed(1)},eye`)
    } else if (history.readingHours.includes(hour % 48)) {
      const id = demoId(`reading ${key} ${hour}`)
      const read = Math.round((error + history.sigmaS * chance.normal()) * 10) / 10
      await api
        .at(new Date(at.getTime() + 60_000 * Math.round(20 * chance.uniform())))
        .send('PUT', `/jobs/${jobId}/readings/${id}`, {
          id,
          version: 0,
          at: api.now.toISOString(),
          errorSeconds: read,
          sigmaSeconds: history.sigmaS,
          way: history.sigmaS < 0.6 ? 'pedal' : 'eye',
        })
    }
    const turn = history.turns[day]
    if (turn !== undefined) {
      turns += turn
      await putEvent(api.at(new Date(at.getTime() + 40 * 60_000)), jobId, `${key} nut ${day}`, 'nut', turn)
    }
    if (history.handsSet.includes(day)) {
      await putEvent(api.at(new Date(at.getTime() + 45 * 60_000)), jobId, `${key} hands ${day}`, 'hands', null)
      error = 1
    }
    if (hour > 0 && hour % (24 * history.windEvery) === 0)
      await putEvent(api.at(new Date(at.getTime() + 50 * 60_000)), jobId, `${key} wound ${day}`, 'winding', null)
  }
  if (history.asSheet)
    await api.at(new Date(endMs)).send('POST', `/jobs/${jobId}/log`, { text: sheet.join('\n'), keep: true })
}

/** Writes one event of the rate book at the api's moment. */
export async function putEvent(
  api: DemoApi,
  jobId: string,
  key: string,
  kind: RateEventChange['kind'],
  turns: number | null,
  note = '',
  showed = '',
): Promise<string> {
  const id = demoId(`event ${key}`)
  await api.send('PUT', `/jobs/${jobId}/events/${id}`, {
    ...newEvent(id, kind, api.now.toISOString()),
    turns,
    showed,
    note,
  })
  return id
}

/** Says of each train that the rest of its holes and pivots were looked at and that it ran dry; and that it was oiled. */
export async function backTogether(
  api: DemoApi,
  jobId: string,
  key: string,
  trains: string[],
  oiled = true,
): Promise<void> {
  for (const train of trains)
    for (const what of ['holes', 'pivots'] as const)
      await putRow(api, jobId, 'observations', `looked ${jobId} ${what} ${train}`, {
        key: lookedKey(what, train),
        answer: 'sound',
        figure: null,
        second: null,
        note: '',
        photoId: null,
      })
  const began = api.now.getTime()
  const { clock } = await api.get<JobPage>(`/jobs/${jobId}`)
  for (const train of trains) {
    const weight = clock.trains.find((t) => t.train === train)?.power === 'weight'
    await putRow(api, jobId, 'dry-runs', `dry ${jobId} ${train}`, {
      train,
      drivenBy: weight ? 'grams' : 'turns',
      amount: weight ? (train === 'going' ? 310 : 420) : 0.25,
      backsOff: 'yes',
      verdict: 'free',
      ranAt: api.now.toISOString(),
      note: '',
    })
  }
  if (oiled) await putEvent(api.at(new Date(began + 3_600_000)), jobId, `${key} oiled`, 'oiled', null)
}

/** Moves a job to a bay and notes whether it runs. */
export async function moveTo(api: DemoApi, jobId: string, bay: string, runs: string): Promise<void> {
  const { job } = await api.get<JobPage>(`/jobs/${jobId}`)
  if (job.closedAt) return
  await api.send('PATCH', `/jobs/${jobId}`, { ...jobChangeOf(job), bay, runs })
}

/** Confirms every train off and parts the plates. */
export async function partPlates(
  api: DemoApi,
  jobId: string,
  trains: { train: string; method: string }[],
): Promise<void> {
  const { clock } = await api.get<JobPage>(`/jobs/${jobId}`)
  for (const { train, method } of trains) await letDown(api, jobId, clock, train, method)
  const { strikeWork, moon, calendar } = clock.work
  for (const { key } of meshMarks({ trains: clock.trains, strikeWork, moon, calendar, pendulum: true }))
    await putRow(api, jobId, 'strip-marks', `mark ${jobId} ${key}`, { key, state: 'done', note: '' })
  await api.send('POST', `/jobs/${jobId}/part`, {})
}

/** One train off, every proof that its power asks for tried. */
export async function letDown(
  api: DemoApi,
  jobId: string,
  clock: JobPage['clock'],
  train: string,
  method: string,
): Promise<void> {
  const power = clock.trains.find((t) => t.train === train)?.power ?? 'spring'
  await api.send('POST', `/jobs/${jobId}/power`, {
    id: demoId(`power ${jobId} ${train}`),
    train,
    method,
    proofs: proofsFor(power, clock.kind, clock.work.mercury).map((p) => p.key),
  })
}

/** One row of a job, new. */
export async function putRow(api: DemoApi, jobId: string, path: string, name: string, row: object): Promise<string> {
  const id = demoId(name)
  await api.send('PUT', `/jobs/${jobId}/${path}/${id}`, { id, version: 0, ...row })
  return id
}

export interface DemoHole {
  arbor: string
  arborIndex: number
  train: string
  plate: 'front' | 'back'
  role?: 'escape' | 'pallet'
  /** long, short, wear as clock angle, pivot, plate */
  measured?: [number, number, number, number, number]
  bushed?: boolean
  waived?: string
  /** measured otherwise than by the caliper, or what stands in it */
  more?: Partial<HoleChange>
}

export async function listHole(api: DemoApi, jobId: string, hole: DemoHole): Promise<void> {
  const id = demoId(`hole ${jobId} ${hole.train} ${hole.arbor} ${hole.plate}`)
  const [a, b, wear, pivot, thick] = hole.measured ?? [null, null, null, null, null]
  const typed = (value: number | null, unit: 'mm' | 'dial' = 'mm') =>
    value === null ? null : { value: String(value), unit }
  const { train, arbor, arborIndex, plate, role = 'other' } = hole
  await api.send('PUT', `/jobs/${jobId}/holes/${id}`, {
    ...blankHole(id, { train, arbor, arborIndex, plate, role }),
    longAxisMm: a,
    shortAxisMm: b,
    wearDeg: wear,
    pivotMm: pivot,
    plateMm: thick,
    typed: {
      longAxis: typed(a),
      shortAxis: typed(b),
      wear: typed(wear === null ? null : Math.round(wear / 3) / 10, 'dial'),
      pivot: typed(pivot),
      plate: typed(thick),
    },
    bushed: hole.bushed ?? false,
    waived: hole.waived ?? '',
    ...hole.more,
  })
}
