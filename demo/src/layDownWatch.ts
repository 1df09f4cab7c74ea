import type { Settings, WatchMark, WatchMinuteKept, WatchTemperatures } from '@treadle/contract'
import { seededRandom, timeThere } from '@treadle/core'
import { demoId, type DemoApi } from './api.ts'

const HOURS = 11
const BEATS_A_MINUTE = 120
/** A third wheel that runs a little out of true. */
const WHEEL = { periodS: 300, ms: 0.8 }
/** s/day at the beginning, and by how much more every hour, as its spring runs down. */
const RATE = { start: -5.2, perHour: 0.16 }

/** A night's watch on the chiming clock: it gains a little as its spring runs down, and one wheel comes back in it. */
export async function layDownWatch(api: DemoApi, jobId: string, nowMs: number): Promise<void> {
  const { timeZone } = await api.get<Settings>('/settings')
  const beganMs = Math.floor((nowMs - (HOURS + 0.4) * 3_600_000) / 60_000) * 60_000
  const id = demoId('chimer watch')
  const began = {
    id,
    version: 0,
    beganAt: new Date(beganMs).toISOString(),
    endedAt: null,
    device: 'the laptop by the test stand',
    pickup: 'microphone',
    beatsPerHour: 60 * BEATS_A_MINUTE,
    ticks: 'every beat',
    ppm: 12.4,
    ppmError: 1.1,
  }
  const evening = api.at(new Date(beganMs))
  await evening.send('PUT', `/jobs/${jobId}/watches/${id}`, began)
  const morning = api.at(new Date(beganMs + HOURS * 3_600_000))
  const minutes = nightly()
  for (let from = 0; from < minutes.length; from += 300)
    await morning.send('PUT', `/jobs/${jobId}/watches/${id}/told`, {
      minutes: minutes.slice(from, from + 300),
      marks: [],
    })
  await morning.send('PUT', `/jobs/${jobId}/watches/${id}/told`, { minutes: [], marks: strikes(beganMs, timeZone) })
  await morning.send('PUT', `/jobs/${jobId}/watches/${id}/temperatures`, { temperatures: coolNight(beganMs) })
  await morning.send('PUT', `/jobs/${jobId}/watches/${id}`, {
    ...began,
    version: 1,
    endedAt: new Date(beganMs + HOURS * 3_600_000).toISOString(),
  })
}

/** A workshop that cools in the night and is heated again toward morning, by a logger every quarter of an hour. */
function coolNight(beganMs: number): WatchTemperatures['temperatures'] {
  return Array.from({ length: HOURS * 4 + 1 }, (_, i) => {
    const hour = i / 4
    const celsius = hour < 8 ? 15.5 + 4.5 * Math.exp(-hour / 3.5) : 15.9 + 1.3 * (hour - 8)
    return { at: new Date(beganMs + 900_000 * i).toISOString(), celsius: Math.round(10 * celsius) / 10 }
  })
}

function nightly(): WatchMinuteKept[] {
  const { normal, uniform } = seededRandom(77)
  let aheadS = 0
  return Array.from({ length: HOURS * 60 }, (_, minute) => {
    const rate = RATE.start + (RATE.perHour * minute) / 60 - 1.6 * Math.exp(-minute / 12)
    aheadS += (rate / 86_400) * 60
    const turn = (2 * Math.PI * 60 * (minute + 0.5)) / WHEEL.periodS
    const wobble = (-WHEEL.ms / 1000) * Math.sin(turn)
    const swing = -(WHEEL.ms / 1000) * ((2 * Math.PI) / WHEEL.periodS) * Math.cos(turn) * 86_400
    const error = 0.12 + 0.05 * uniform()
    return {
      minute,
      fromS: 60 * minute,
      seconds: 60,
      beatsHeard: BEATS_A_MINUTE - (uniform() < 0.1 ? 1 : 0),
      beatsExpected: BEATS_A_MINUTE,
      rateSecondsPerDay: rate + swing + error * normal(),
      rateStandardError: error,
      outOfBeatMs: 1.2 + 0.05 * normal() + 0.02 * Math.sin(minute / 90),
      outOfBeatStandardError: 0.07,
      scatterMs: 0.3 + 0.02 * normal(),
      firstDb: -21 - 0.12 * (minute / 60) + 0.1 * normal(),
      secondDb: -24 - 0.12 * (minute / 60) + 0.1 * normal(),
      aheadS: aheadS + wobble + 0.00003 * normal(),
      sinceS: 0,
    }
  })
}

/** The hours it struck in the night, by the workshop's clock. */
function strikes(beganMs: number, timeZone: string): WatchMark[] {
  return Array.from({ length: HOURS * 60 }, (_, minute) => beganMs + 60_000 * minute).flatMap((ms) => {
    const [hour = 0, minute] = timeThere(ms / 1000, timeZone)
      .slice(-5)
      .split(':')
      .map(Number)
    if (minute !== 0) return []
    const fromS = (ms - beganMs) / 1000 + 9
    return [
      {
        id: demoId(`chimer strike ${fromS}`),
        kind: 'strike' as const,
        fromS,
        toS: null,
        blows: ((hour + 11) % 12) + 1,
        bird: false,
        note: '',
      },
    ]
  })
}
