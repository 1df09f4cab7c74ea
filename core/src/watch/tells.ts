import { median } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import { trainBeats } from '../train/beats.ts'
import { linesAt, type GoingCounts, type Periodic } from '../listen/periodic.ts'

/** A minute as the findings ask for it. */
export interface WatchedMinute {
  fromS: number
  seconds: number
  rateSecondsPerDay: number | null
  rateStandardError: number | null
  aheadS: number | null
  /** when the listening that it is of began */
  sinceS: number
}

/** How a figure goes with the time since the last winding, or since the beginning. */
export interface Falling {
  perHour: number
  standardError: number
  hours: number
}

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
  /** by how much the first half hour differed from the hours after it, s/day */
  settled: { secondsPerDay: number; standardError: number } | null
  /** wheels too slow for a short listening */
  wheels: Periodic
}

const BLOCK_S = 1800
const LEAST_BLOCKS = 5
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
 */
export function watchTells(minutes: WatchedMinute[], windingsS: number[], train: GoingCounts | null): WatchTells {
  const blocks = halfHours(minutes, windingsS)
  return {
    rate: runOf(minutes),
    sinceWinding: slope(blocks),
    settled: settling(blocks),
    wheels: train ? slowWheels(longest(minutes), train) : { arbors: [], meshes: [] },
  }
}

interface Block {
  /** which winding it is after, and hours since */
  winding: number
  hours: number
  atS: number
  rate: number
}

function halfHours(minutes: WatchedMinute[], windingsS: number[]): Block[] {
  const windings = [-Infinity, ...[...windingsS].sort((a, b) => a - b)]
  const groups = new Map<string, { winding: number; atS: number[]; rates: number[] }>()
  for (const m of minutes) {
    if (m.rateSecondsPerDay === null) continue
    const atS = m.fromS + m.seconds / 2
    const winding = windings.filter((w) => w <= atS).length - 1
    const key = `${winding} ${Math.floor(atS / BLOCK_S)}`
    const group = groups.get(key) ?? { winding, atS: [], rates: [] }
    group.atS.push(atS)
    group.rates.push(m.rateSecondsPerDay)
    groups.set(key, group)
  }
  return [...groups.values()].flatMap(({ winding, atS, rates }) => {
    if (rates.length < 10) return []
    const middle = median(atS)
    const from = nth(windings, winding)
    const zero = Number.isFinite(from) ? from : (minutes[0]?.fromS ?? 0)
    return [{ winding, atS: middle, hours: (middle - zero) / 3600, rate: median(rates) }]
  })
}

/** One slope for all windings, each with its own level. */
function slope(blocks: Block[]): Falling | null {
  const levels = [...new Set(blocks.map((b) => b.winding))]
  const freedom = blocks.length - levels.length - 1
  if (freedom < LEAST_BLOCKS - 2) return null
  const mean = (winding: number, of: (b: Block) => number) => {
    const mine = blocks.filter((b) => b.winding === winding)
    return mine.reduce((sum, b) => sum + of(b), 0) / mine.length
  }
  const centred = blocks.map((b) => ({
    h: b.hours - mean(b.winding, (o) => o.hours),
    r: b.rate - mean(b.winding, (o) => o.rate),
  }))
  const hh = centred.reduce((sum, c) => sum + c.h * c.h, 0)
  if (hh === 0) return null
  const perHour = centred.reduce((sum, c) => sum + c.h * c.r, 0) / hh
  const left = centred.reduce((sum, c) => sum + (c.r - perHour * c.h) ** 2, 0) / freedom
  const standardError = Math.sqrt(left / hh)
  const hours = Math.max(...blocks.map((b) => b.hours)) - Math.min(...blocks.map((b) => b.hours))
  return Math.abs(perHour) > CLEAR * standardError && Math.abs(perHour) * hours > LEAST_CHANGE
    ? { perHour, standardError, hours }
    : null
}

function settling(blocks: Block[]) {
  const first = blocks[0]
  const later = blocks.slice(2, 8).map((b) => b.rate)
  if (!first || later.length < 4) return null
  const mean = later.reduce((a, b) => a + b, 0) / later.length
  const scatter = Math.sqrt(later.reduce((sum, r) => sum + (r - mean) ** 2, 0) / (later.length - 1))
  const standardError = scatter * Math.sqrt(1 + 1 / later.length)
  const secondsPerDay = first.rate - mean
  return Math.abs(secondsPerDay) > CLEAR * standardError && Math.abs(secondsPerDay) > LEAST_CHANGE
    ? { secondsPerDay, standardError }
    : null
}

/** The minutes of the listening that went on longest. */
function longest(minutes: WatchedMinute[]): WatchedMinute[] {
  const groups = new Map<number, WatchedMinute[]>()
  for (const m of minutes) if (m.aheadS !== null) groups.set(m.sinceS, [...(groups.get(m.sinceS) ?? []), m])
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
  const rates = halfHours(row, []).map((b) => b.rate)
  const days = (last.fromS - first.fromS) / SECONDS_PER_DAY
  const secondsPerDay = ((last.aheadS ?? 0) - (first.aheadS ?? 0)) / days
  if (rates.length < LEAST_RATES) return null
  const scatter = Math.sqrt(
    rates.reduce((sum, r) => sum + (r - secondsPerDay) ** 2, 0) / (rates.length - 1) / rates.length,
  )
  return { secondsPerDay, standardError: scatter, fromS: first.fromS, toS: last.fromS + last.seconds }
}
