import type { RateEvent, RateReading } from '../src/index.ts'
import { normal, random } from './clockSound.ts'

const DAY = 86_400
const at = (days: number) => 1.78e9 + days * DAY

/** A clock whose error walks by `walk` s per √day of itself, read `days` times, its nut turned halfway if wanted. */
export function madeBook(seed: number, days: number, walk: number, turned: boolean) {
  const uniform = random(seed)
  const gauss = normal(random(seed * 17 + days))
  const base = 20 * gauss()
  const perTurn = 34.77 * (1 + 0.25 * gauss())
  const log: RateReading[] = []
  const events: RateEvent[] = []
  let rate = base
  let error = 4
  let day = 0
  for (let i = 0; i < days; i++) {
    const span = i === 0 ? 0 : 0.5 + uniform()
    day += span
    error += rate * span + walk * Math.sqrt(span) * gauss()
    log.push({ atS: at(day), errorS: error + 0.5 * gauss(), sigmaS: 0.5 })
    if (!turned || i !== Math.floor(days / 2)) continue
    events.push({ atS: at(day) + 60, kind: 'nut', turns: 0.5 })
    rate = base + 0.5 * perTurn + 0.2 * gauss()
  }
  return { rate, perTurn, input: { readings: log, events, pitchMm: 0.8, lengthMm: 994 } }
}
