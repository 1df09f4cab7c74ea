import { mean, sampleStandardDeviation } from 'simple-statistics'
import { trainBeats } from '../train/beats.ts'
import { watchBlocks, type TemperatureAt, type WatchBlock, type WatchedMinute } from './blocks.ts'
import { slopes, type Falling, type PerDegree } from './slopes.ts'
import { linesAt, type GoingCounts, type Periodic } from '../listen/periodic.ts'

/** The rate over the longest stretch without a break, and what it strayed: of the clock alone, without the sound card. */
export interface WatchRun {
  fromS: number
  toS: number
  secondsPerDay: number
  standardError: number
}

export interface WatchTells {
  /** the rate over all of it, s/day, by what it got ahead where that was unbroken; null with too little */
  rate: WatchRun | null
  /** rate against the time since winding (or the beginning): null where it keeps */
  sinceWinding: Falling | null
  /** rate against warmth, s/day for each degree, with how far it changed; null: not known, or it keeps */
  perDegree: PerDegree | null
  /** by how much the first half hour differed from the hours after it, s/day */
  settled: { secondsPerDay: number; standardError: number } | null
  /** wheels too slow for a short listening */
  wheels: Periodic
}

/** Fewer half hours don’t tell how they scatter. */
const LEAST_RATES = 3
/** Told when it is so many errors, and so much over the time that was watched. */
const CLEAR = 4
const LEAST_CHANGE = 1
const MINUTE_S = 60
const SECONDS_PER_DAY = 86_400

/**
 * What a watch tells of a clock besides its minutes.
 *
 * Minutes are gathered into half hours, since neighbours wander together; slopes and differences are told with the
 * scatter of those, and only when they are four errors and matter. Slow wheels are looked for in what it got ahead,
 * minute by minute, in the longest listening without a break.
 *
 * @param windingsS - when it was wound, s from the beginning of the watch
 * @param temperatures - in order of time
 */
export function watchTells(
  minutes: WatchedMinute[],
  windingsS: number[],
  train: GoingCounts | null,
  temperatures: TemperatureAt[] = [],
): WatchTells {
  const blocks = watchBlocks(minutes, windingsS, temperatures)
  return {
    rate: runOf(minutes),
    ...slopes(blocks),
    settled: settling(blocks),
    wheels: train ? slowWheels(longest(minutes), train) : { arbors: [], meshes: [] },
  }
}

function settling(blocks: WatchBlock[]) {
  const first = blocks[0]
  const later = blocks.slice(2, 8).map((b) => b.rate)
  if (!first || later.length < 4) return null
  const standardError = sampleStandardDeviation(later) * Math.sqrt(1 + 1 / later.length)
  const secondsPerDay = first.rate - mean(later)
  return Math.abs(secondsPerDay) > CLEAR * standardError && Math.abs(secondsPerDay) > LEAST_CHANGE
    ? { secondsPerDay, standardError }
    : null
}

/** The minutes of the listening that went on longest. */
function longest(minutes: WatchedMinute[]): WatchedMinute[] {
  const groups = new Map<number, WatchedMinute[]>()
  for (const m of minutes) {
    if (m.aheadS === null) continue
    const group = groups.get(m.sinceS)
    if (group) group.push(m)
    else groups.set(m.sinceS, [m])
  }
  return [...groups.values()].reduce((a, b) => (b.length > a.length ? b : a), [])
}

function slowWheels(minutes: WatchedMinute[], train: GoingCounts): Periodic {
  const { periodsS } = trainBeats(train.wheels, train.pinions, train.escapeTeeth)
  const whole = minutes.filter((m) => m.seconds >= MINUTE_S)
  return linesAt(
    whole.map((m) => Math.round((m.fromS - m.sinceS) / MINUTE_S)),
    whole.map((m) => -1000 * (m.aheadS ?? 0)),
    train,
    periodsS,
    1 / MINUTE_S,
    'minutes',
  )
}

/**
 * The rate by what it got ahead between the first and the last half hour of the longest listening.
 *
 * Its error is how far the half hours in between stray from that line, over the time: the clock's own wander, not the
 * beats' scatter, which is thousands of times smaller.
 */
export function runOf(minutes: WatchedMinute[]): WatchRun | null {
  const row = longest(minutes)
  const [first, last] = [row[0], row.at(-1)]
  if (!first || !last || row.length < 30) return null
  const rates = watchBlocks(row).map((b) => b.rate)
  const days = (last.fromS - first.fromS) / SECONDS_PER_DAY
  const secondsPerDay = ((last.aheadS ?? 0) - (first.aheadS ?? 0)) / days
  if (rates.length < LEAST_RATES) return null
  const scatter = Math.sqrt(
    rates.reduce((sum, r) => sum + (r - secondsPerDay) ** 2, 0) / (rates.length - 1) / rates.length,
  )
  return { secondsPerDay, standardError: scatter, fromS: first.fromS, toS: last.fromS + last.seconds }
}
