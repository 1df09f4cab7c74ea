import { nth } from '../check/nth.ts'
import { median } from 'simple-statistics'
import { robustSpread } from './spread.ts'
import type { TrackedBeat } from './track.ts'

/** A step of the recorder: from this beat on all later ones are shifted. */
export interface Slip {
  /** index of the first beat after it */
  beforeIndex: number
  atS: number
  stepMs: number
}

const LEVEL_S = 1e-3
const LEAST_STEP_LEVELS = 3
/** What a jump must save: so many beats that fit only after it. A few bent teeth in a row don't pay for it. */
const JUMP_COST = 7
const DRIFT_COST = 1.5
const WIDEST_LEVELS = 400

/**
 * Steps of the recorder: places where both sides move by several milliseconds at once, and stay.
 *
 * The beats' lateness, freed of period and beat by medians of differences (which a step or a bent tooth hardly
 * touches), is followed by the cheapest path over levels of 1 ms: each beat off the path costs up to 1, a change of
 * level JUMP_COST. Bent teeth come back to the old level and are left alone.
 */
export function findSlips(beats: TrackedBeat[]): Slip[] {
  if (beats.length < 12) return []
  const late = lateness(beats)
  const local = late.slice(1).map((v, i) => v - nth(late, i))
  const scale = Math.max(1.5e-3, (4 * robustSpread(local)) / Math.SQRT2)
  const path = cheapestPath(late, scale)
  const slips: Slip[] = []
  for (let i = 1; i < beats.length; i++) {
    const step = nth(path, i) - nth(path, i - 1)
    if (Math.abs(step) < LEAST_STEP_LEVELS) continue
    const before = median(late.slice(Math.max(0, i - 12), i))
    const after = median(late.slice(i, i + 12))
    const beat = beats[i] as TrackedBeat
    slips.push({ beforeIndex: beat.index, atS: beat.atS, stepMs: 1000 * (after - before) })
  }
  return slips
}

/** Seconds each beat is late after period and beat are taken out; a step stays a step. */
function lateness(beats: TrackedBeat[]): number[] {
  const byIndex = new Map(beats.map((b) => [b.index, b.atS]))
  const first = beats[0] as TrackedBeat
  const lateBy = (span: number) => {
    const found: number[] = []
    for (const b of beats) {
      const later = byIndex.get(b.index + span)
      if (later !== undefined) found.push((later - b.atS) / span)
    }
    return found
  }
  // Short against the stretches between slips, or most pairs would straddle one.
  const span = Math.max(2, Math.min(20, 2 * Math.floor(beats.length / 24)))
  const beatS = median(lateBy(span).length > 0 ? lateBy(span) : lateBy(2))
  const halves: number[] = []
  for (const b of beats) {
    const one = byIndex.get(b.index + 1)
    const two = byIndex.get(b.index + 2)
    if (one !== undefined && two !== undefined) halves.push((one - (b.atS + two) / 2) * (b.index % 2 === 0 ? 1 : -1))
  }
  const unevenS = halves.length > 0 ? median(halves) : 0
  return beats.map((b) => b.atS - first.atS - beatS * b.index - (b.index % 2 === 0 ? 0 : unevenS))
}

function cheapestPath(late: number[], scale: number): Int32Array {
  const lowest = Math.min(...late)
  const levels = Math.min(WIDEST_LEVELS, Math.ceil((Math.max(...late) - lowest) / LEVEL_S) + 1)
  let cost = new Float64Array(levels)
  const from: Int16Array[] = []
  for (const value of late) {
    const next = new Float64Array(levels)
    const origin = new Int16Array(levels)
    let cheapest = 0
    for (let l = 1; l < levels; l++) if (nth(cost, l) < nth(cost, cheapest)) cheapest = l
    for (let l = 0; l < levels; l++) {
      let least = nth(cost, l)
      let best = l
      for (const side of [l - 1, l + 1]) {
        const drifted = (cost[side] ?? Infinity) + DRIFT_COST
        if (drifted < least) {
          least = drifted
          best = side
        }
      }
      if (nth(cost, cheapest) + JUMP_COST < least) {
        least = nth(cost, cheapest) + JUMP_COST
        best = cheapest
      }
      next[l] = least + Math.min(1, ((value - (lowest + l * LEVEL_S)) / scale) ** 2)
      origin[l] = best
    }
    cost = next
    from.push(origin)
  }
  const path = new Int32Array(late.length)
  let level = cost.indexOf(Math.min(...cost))
  for (let i = late.length - 1; i >= 0; i--) {
    path[i] = level
    level = (from[i] as Int16Array)[level] as number
  }
  return path
}
