import { pendulumLengthMm } from '../pendulum/length.ts'
import type { TrainSheet } from './sheet.ts'

export interface Comparison {
  state: 'sound' | 'must' | 'none'
  says: string
}

/** Beats that differ by no more than this are one clock off its rate, not another train, %. */
const SAME_BEAT_PERCENT = 1
/** A pendulum's length is measured to a few per cent, and its rod is not without weight. */
const SAME_LENGTH_PERCENT = 6

/** The train against what was heard and found: the beat, the pendulum, the winding. */
export function compared(
  sheet: TrainSheet,
  found: { heard: number | null; lengthMm: number | null; windsEveryDays: number | null },
): Comparison[] {
  const out: Comparison[] = []
  const { beatsPerHour: beats, days } = sheet
  if (beats !== null) {
    const counted = `The counts give ${beats.toFixed(1)} beats an hour`
    if (found.heard === null) out.push({ state: 'none', says: `${counted}. It has not been heard yet.` })
    else {
      const off = 100 * (found.heard / beats - 1)
      const agrees = Math.abs(off) <= SAME_BEAT_PERCENT
      out.push({
        state: agrees ? 'sound' : 'must',
        says: `${counted}; heard ${found.heard.toFixed(1)}${agrees ? '.' : `, ${Math.abs(off).toFixed(1)} % ${off > 0 ? 'faster' : 'slower'}: a wheel or the pendulum is not its own, or a count is wrong.`}`,
      })
    }
    const asked = pendulumLengthMm(beats)
    if (found.lengthMm !== null) {
      const off = 100 * (found.lengthMm / asked - 1)
      const agrees = Math.abs(off) <= SAME_LENGTH_PERCENT
      out.push({
        state: agrees ? 'sound' : 'must',
        says: `They ask for a pendulum of ${asked.toFixed(0)} mm; found ${found.lengthMm.toFixed(0)} mm${agrees ? '.' : ': another pendulum, or another train.'}`,
      })
    }
  }
  if (days !== null) {
    const short = found.windsEveryDays !== null && days < found.windsEveryDays
    out.push({
      state: found.windsEveryDays === null ? 'none' : short ? 'must' : 'sound',
      says: `One winding lasts ${days.toFixed(1)} days${found.windsEveryDays === null ? '.' : short ? `, less than the ${found.windsEveryDays} between windings.` : `; it is wound every ${found.windsEveryDays}.`}`,
    })
  }
  return out
}
