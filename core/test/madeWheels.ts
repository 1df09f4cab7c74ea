import type { GoingCounts } from '../src/index.ts'
import { normal, random } from './clockSound.ts'

/** Beats an hour by the counts, multiplied out here by hand. */
export const MADE_TRAINS: { train: GoingCounts; beatsPerHour: number; periodsS: number[] }[] = [
  { train: { wheels: [64, 60], pinions: [8, 8], escapeTeeth: 30 }, beatsPerHour: 3600, periodsS: [3600, 450, 60] },
  { train: { wheels: [84, 80], pinions: [7, 8], escapeTeeth: 30 }, beatsPerHour: 7200, periodsS: [3600, 300, 30] },
  { train: { wheels: [75, 70], pinions: [10, 7], escapeTeeth: 36 }, beatsPerHour: 5400, periodsS: [3600, 480, 48] },
]

export interface MadeRow {
  seconds: number
  scatterMs: number
  wobble?: { periodS: number; ms: number }
  /** random walk over the whole row, ms */
  walkMs?: number
  seed: number
}

/** Lateness of a clock's beats, with one in thirty missing. */
export function madeBeats(beatsPerHour: number, { seconds, scatterMs, wobble, walkMs = 0, seed }: MadeRow) {
  const u = random(seed * 271 + 5)
  const gauss = normal(u)
  const count = Math.floor((seconds * beatsPerHour) / 3600)
  const phase = 6.28 * u()
  const index: number[] = []
  const late: number[] = []
  let walk = 0
  for (let n = 0; n < count; n++) {
    walk += (walkMs * gauss()) / Math.sqrt(count)
    if (u() < 1 / 30) continue
    const turn = wobble ? (2 * Math.PI * n * 3600) / beatsPerHour / wobble.periodS : 0
    index.push(n)
    late.push(scatterMs * gauss() + walk + (wobble ? wobble.ms * Math.sin(turn + phase) : 0))
  }
  return [index, late] as const
}
