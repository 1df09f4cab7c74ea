import { circularLossSecondsPerDay } from '../src/index.ts'
import type { RateEvent, RateReading } from '../src/index.ts'
import { mean } from 'simple-statistics'
import { normal, random } from './clockSound.ts'

const DAY_S = 86_400

export interface MadeLog {
  readings: RateReading[]
  events: RateEvent[]
  /** s/day for a degree */
  perC: number
  /** s/day a turn */
  perTurn: number
  arcShare: number
  /** true rate over the three days before the last reading, but for what it walks */
  rateLately: number
  /** when it was wound; empty: nobody wrote it down */
  windingsS: number[]
}

/**
 * The log of a clock of known heat, arc, nut and unsteadiness: its error integrated by the half hour through weather,
 * seasons and days, and read about once a day by eye.
 */
export function madeLog(seed: number, { days = 90, arcs = false, rhythm = false, slips = false } = {}): MadeLog {
  const u = random(seed * 613 + 29)
  const gauss = normal(u)
  const perC = -0.9 + 1.2 * u()
  const perTurn = 30 * (0.85 + 0.3 * u())
  const arcShare = arcs ? 0.6 + 0.8 * u() : 1
  const walk = 0.15 + 0.5 * u()
  const start = 40 * (u() - 0.5)
  const fall = rhythm ? -5 + 10 * u() : 0
  const season = 4 + 5 * u()
  const phase = 6.28 * u()
  const turnDays = [Math.floor(days * (0.2 + 0.2 * u())), Math.floor(days * (0.6 + 0.2 * u()))]
  const events: RateEvent[] = turnDays.map((day) => ({
    atS: (day + 0.41) * DAY_S,
    kind: 'nut',
    turns: (u() < 0.5 ? -1 : 1) * (0.125 + 0.375 * u()),
  }))
  const readings: RateReading[] = []
  const STEP = DAY_S / 48
  let [error, weather, turns, arcWander] = [8 * gauss(), 0, 0, 0]
  let next = 0.37 * DAY_S
  let read = 0
  const rates: number[] = []
  for (let t = 0; t <= days * DAY_S; t += STEP) {
    const day = t / DAY_S
    weather += -weather / (48 * 4) + 0.15 * gauss()
    arcWander += -arcWander / (48 * 8) + 0.012 * gauss()
    const warmth = 17 + season * Math.sin((6.28 * day) / 120 + phase) + weather + 0.8 * Math.sin(6.28 * day)
    const arc = 2.5 + (arcs ? arcWander : 0)
    for (const e of events) if (e.kind === 'nut' && e.atS > t - STEP && e.atS <= t) turns += e.turns
    const gone = ((day - 0.6 + 700) % 7) / 7 - 0.5
    const rate =
      (rhythm ? fall * gone : 0) +
      start +
      perTurn * turns +
      perC * (warmth - 17) -
      arcShare * (circularLossSecondsPerDay(arc) - 20.6)
    // What comes and goes with the winding is no part of the rate of a whole run.
    rates.push(rate - (rhythm ? fall * gone : 0))
    error += (rate * STEP) / DAY_S + walk * Math.sqrt(STEP / DAY_S) * gauss()
    if (t < next) continue
    read = rates.length
    readings.push({
      atS: t,
      errorS: error + 0.7 * gauss() + (slips && u() < 0.02 ? 60 * Math.sign(u() - 0.5) : 0),
      sigmaS: 0.7,
      temperatureC: warmth + 0.3 * gauss(),
      ...(arcs && { semiArcDeg: arc + 0.02 * gauss() }),
    })
    next += DAY_S * (u() < 0.1 ? 2 : 1) + 3600 * (u() - 0.5)
  }
  const windingsS = rhythm ? Array.from({ length: Math.ceil(days / 7) }, (_, i) => (0.6 + 7 * i) * DAY_S) : []
  return { readings, events, perC, perTurn, arcShare, rateLately: mean(rates.slice(read - 3 * 48, read)), windingsS }
}
