import { blankPendulumSheet, blankRunDown, blankSuspension } from '@treadle/contract'
import { blankPart, seededRandom, type SheetPart } from '@treadle/core'
import type { DemoApi } from './api.ts'
import { putRow } from './history.ts'

const DAY_MS = 86_400_000

/** How warm the workshop is by the date: coldest at the end of January, and some weather of a week or so over it. */
export function workshopWarmth(atMs: number): number {
  const yearStartMs = Date.UTC(new Date(atMs).getUTCFullYear(), 0, 1)
  const day = (atMs - yearStartMs) / DAY_MS
  const weather = 1.1 * Math.sin((2 * Math.PI * day) / 9.3) + 0.7 * Math.sin((2 * Math.PI * day) / 23.7 + 1)
  return 16.5 - 5.2 * Math.cos((2 * Math.PI * (day - 27)) / 365.25) + weather
}

/** The regulator's year: its thermometer, its mercury pendulum laid out, and the pendulum left to run down twice. */
export async function layDownPendulum(api: DemoApi, jobId: string, nowMs: number): Promise<void> {
  const lines = ['time,temperature °C']
  for (let day = 371; day >= 0; day--) {
    const at = nowMs - day * DAY_MS - 3 * 3_600_000
    lines.push(`${new Date(at).toISOString()},${workshopWarmth(at).toFixed(1)}`)
  }
  await api.at(new Date(nowMs - 6 * 3_600_000)).send('POST', `/jobs/${jobId}/thermometer/logger`, {
    text: lines.join('\n'),
  })
  const parts: SheetPart[] = [
    { ...blankPart('rod'), atMm: 557, lengthMm: 1090, acrossMm: 8 },
    { ...blankPart('jar'), atMm: 1085.08, lengthMm: 150, acrossMm: 48, thickMm: 2.5 },
    { ...blankPart('nut'), atMm: 1105.08, massG: 46 },
    { ...blankPart('tray'), atMm: 497, massG: 9 },
  ]
  const { id: _s, version: _w, ...spring } = blankSuspension('')
  await putRow(api.at(new Date(nowMs - 90.5 * DAY_MS)), jobId, 'suspensions', `suspension ${jobId}`, {
    ...spring,
    blades: 1,
    thickMm: 0.1,
    widthMm: 9,
    freeMm: 8,
    massKg: 4.3,
  })
  const { id: _i, version: _v, ...blank } = blankPendulumSheet('')
  await putRow(api.at(new Date(nowMs - 90.4 * DAY_MS)), jobId, 'pendulums', `pendulum ${jobId}`, {
    ...blank,
    parts,
    threadUpMm: 11,
    threadDownMm: 13,
  })
  await runDown(api.at(new Date(nowMs - 95.5 * DAY_MS)), jobId, 'found', 1.7, 71)
  await runDown(api.at(new Date(nowMs - 89.9 * DAY_MS)), jobId, 'after', 2, 72)
}

/** Of a pendulum of Q 5000 that swings once in two seconds, s. */
const TAU_S = (5000 * 2) / Math.PI

/** A free pendulum timed against a scale that is read to a fiftieth of a degree. */
async function runDown(
  api: DemoApi,
  jobId: string,
  when: 'found' | 'after',
  semiArcDeg: number,
  seed: number,
): Promise<void> {
  const chance = seededRandom(seed)
  const { id: _i, version: _v, ...blank } = blankRunDown('', when, api.now.toISOString())
  const readings = [2.4, 2.2, 2, 1.8, 1.6, 1.4].map((arc, i) => {
    const read = TAU_S * Math.log(2.4 / (arc + (i === 0 ? 0 : 0.008 * chance.normal())))
    return { atS: Math.max(0, Math.round(read)), semiArcDeg: arc }
  })
  await putRow(api, jobId, 'run-downs', `run-down ${jobId} ${when}`, {
    ...blank,
    way: 'scale',
    readings,
    semiArcDeg,
    drive: 'weight',
    weightKg: 3.2,
    fallMm: 850,
    hours: 168,
  })
}
