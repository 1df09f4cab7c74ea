import { mean } from 'simple-statistics'
import type { WatchBlock } from './blocks.ts'

/** How a figure goes with the time since the last winding, or since the beginning. */
export interface Falling {
  perHour: number
  standardError: number
  hours: number
}

/** Rate against warmth, s/day for each degree, with how far it changed. */
export interface PerDegree {
  perC: number
  standardError: number
  celsius: number
}

const LEAST_BLOCKS = 5
/** Told when it is so many errors, and so much over the time that was watched. */
const CLEAR = 4
const LEAST_CHANGE = 1
/** Warmth counts where it changed by so much, and is known for so many of the half hours. */
const LEAST_CELSIUS = 1.5
const KNOWN_SHARE = 0.8
const LIKENESS_ROUNDS = 6
const MOST_ALIKE = 0.97
/** Half hours farther apart than this are no neighbours, s. */
const NEIGHBOUR_S = 2700

/**
 * How the rate goes with the hours since winding, and with the warmth where that is known and changed: told apart by
 * least squares, each winding with its own level.
 *
 * A rate wanders, and what wanders goes along with anything for a while: neighbours' likeness is judged by what is left
 * over and taken out (Prais & Winsten 1954), so that the errors are those of a clock that wanders.
 */
export function slopes(blocks: WatchBlock[]): { sinceWinding: Falling | null; perDegree: PerDegree | null } {
  const warm = blocks.filter((b) => b.celsius !== null)
  const warmed = rangeOf(warm.map((b) => b.celsius ?? 0))
  const byWarmth = warmed >= LEAST_CELSIUS && warm.length >= KNOWN_SHARE * blocks.length
  const used = byWarmth ? warm : blocks
  const levels = new Set(used.map((b) => b.winding)).size
  const freedom = used.length - levels - (byWarmth ? 2 : 1)
  const none = { sinceWinding: null, perDegree: null }
  if (freedom < LEAST_BLOCKS - 2) return none
  let alike = 0
  let fit: ReturnType<typeof planeThrough> = null
  for (let round = 0; round < LIKENESS_ROUNDS; round++) {
    fit = planeThrough(unalike(used, alike), byWarmth, freedom)
    if (!fit) return none
    alike = likeness(used, fit)
  }
  if (!fit) return none
  const { perHour, hourError, perC, degreeError } = fit
  const hours = rangeOf(used.map((b) => b.hours))
  return {
    sinceWinding:
      Math.abs(perHour) > CLEAR * hourError && Math.abs(perHour) * hours > LEAST_CHANGE
        ? { perHour, standardError: hourError, hours }
        : null,
    perDegree:
      byWarmth && Math.abs(perC) > CLEAR * degreeError ? { perC, standardError: degreeError, celsius: warmed } : null,
  }
}

/** One half hour as an equation: level of its winding, hours, degrees, rate. */
interface Row {
  winding: number
  level: number
  hours: number
  celsius: number
  rate: number
}

/** Each half hour less what it shares with the one before. */
function unalike(blocks: WatchBlock[], alike: number): Row[] {
  return blocks.map((b, i) => {
    const own = { winding: b.winding, level: 1, hours: b.hours, celsius: b.celsius ?? 0, rate: b.rate }
    const before = neighbourOf(blocks, i)
    if (!before) {
      const scale = Math.sqrt(1 - alike ** 2)
      return { ...own, level: scale, hours: scale * own.hours, celsius: scale * own.celsius, rate: scale * own.rate }
    }
    return {
      winding: b.winding,
      level: 1 - alike,
      hours: own.hours - alike * before.hours,
      celsius: own.celsius - alike * (before.celsius ?? 0),
      rate: own.rate - alike * before.rate,
    }
  })
}

function neighbourOf(blocks: WatchBlock[], i: number): WatchBlock | null {
  const [before, block] = [blocks[i - 1], blocks[i]]
  return before && block && before.winding === block.winding && block.atS - before.atS < NEIGHBOUR_S ? before : null
}

/** Slopes with their errors, each winding's level taken out; null where hours and warmth went together all the time. */
function planeThrough(rows: Row[], byWarmth: boolean, freedom: number) {
  const levels = new Map<number, { ll: number; lh: number; lc: number; lr: number }>()
  for (const r of rows) {
    const l = levels.get(r.winding) ?? { ll: 0, lh: 0, lc: 0, lr: 0 }
    l.ll += r.level ** 2
    l.lh += r.level * r.hours
    l.lc += r.level * r.celsius
    l.lr += r.level * r.rate
    levels.set(r.winding, l)
  }
  let [hh, tt, ht, hr, tr, rr] = [0, 0, 0, 0, 0, 0]
  for (const r of rows) {
    const l = levels.get(r.winding)
    if (!l) continue
    const h = r.hours - (r.level * l.lh) / l.ll
    const c = byWarmth ? r.celsius - (r.level * l.lc) / l.ll : 0
    const y = r.rate - (r.level * l.lr) / l.ll
    hh += h * h
    tt += c * c
    ht += h * c
    hr += h * y
    tr += c * y
    rr += y * y
  }
  if (!byWarmth) tt = 1
  const determinant = hh * tt - ht * ht
  if (!(determinant > 1e-6 * hh * tt)) return null
  const perHour = (tt * hr - ht * tr) / determinant
  const perC = (hh * tr - ht * hr) / determinant
  const left = Math.max(0, rr - perHour * hr - perC * tr) / freedom
  return {
    perHour,
    perC,
    hourError: Math.sqrt((left * tt) / determinant),
    degreeError: Math.sqrt((left * hh) / determinant),
  }
}

/** How like neighbouring half hours are in what the slopes leave over, 0 to 1. */
function likeness(blocks: WatchBlock[], { perHour, perC }: { perHour: number; perC: number }): number {
  const raw = blocks.map((b) => b.rate - perHour * b.hours - perC * (b.celsius ?? 0))
  const left = raw.map((value, i) => {
    const mine = raw.filter((_, j) => blocks[j]?.winding === blocks[i]?.winding)
    return value - mean(mine)
  })
  let [together, alone] = [0, 0]
  blocks.forEach((_, i) => {
    if (!neighbourOf(blocks, i)) return
    together += (left[i] ?? 0) * (left[i - 1] ?? 0)
    alone += (left[i - 1] ?? 0) ** 2
  })
  // What is left of few half hours seems less alike than it is (Kendall 1954).
  const seen = alone > 0 ? together / alone : 0
  return Math.max(0, Math.min(MOST_ALIKE, seen + (1 + 3 * seen) / blocks.length))
}

function rangeOf(values: number[]): number {
  return values.length === 0 ? 0 : Math.max(...values) - Math.min(...values)
}
