import { linearRegression, median } from 'simple-statistics'
import { requireCount } from '../check/require.ts'

/** How late a tooth drops on either pallet, ms; null where it was not heard. */
export interface HeardTooth {
  firstMs: number | null
  secondMs: number | null
}

/**
 * How late each tooth of the escape wheel drops, ms, from the kept times of a listening’s beats: folded by its turn.
 *
 * The steady rate and what tells tick from tock are taken out; what is left of each tooth is its median over the turns.
 * Tooth 1 is the one that was heard first. A short or bent tooth drops late (+) on one pallet or both.
 *
 * @param beatTimesS - in order, s; those missed may be missing
 * @param beatsPerHour - of the clock
 */
export function heardTeeth(beatTimesS: number[], beatsPerHour: number, teeth: number): HeardTooth[] {
  requireCount('teeth', teeth, 3, 200)
  const beatS = 3600 / beatsPerHour
  const first = beatTimesS[0]
  if (first === undefined) return Array.from({ length: teeth }, () => ({ firstMs: null, secondMs: null }))
  const index = beatTimesS.map((t) => Math.round((t - first) / beatS))
  const line = linearRegression(index.map((n, i) => [n, beatTimesS[i] ?? 0]))
  const late = index.map((n, i) => 1000 * ((beatTimesS[i] ?? 0) - line.b - line.m * n))
  const sides = [0, 1].map((side) => {
    const mine = late.filter((_, i) => (index[i] ?? 0) % 2 === side)
    return mine.length === 0 ? 0 : median(mine)
  })
  const of = (tooth: number, side: 0 | 1): number | null => {
    const mine = late.filter(
      (_, i) => (index[i] ?? 0) % 2 === side && Math.floor((index[i] ?? 0) / 2) % teeth === tooth,
    )
    return mine.length === 0 ? null : median(mine) - (sides[side] ?? 0)
  }
  return Array.from({ length: teeth }, (_, tooth) => ({ firstMs: of(tooth, 0), secondMs: of(tooth, 1) }))
}
