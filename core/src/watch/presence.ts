import { onsetStrength } from '../listen/strength.ts'

/** Where the beats stood when they were last heard well. */
export interface Course {
  /** a beat of the even side, s */
  atS: number
  beatS: number
  /** by how much the next of the other side comes later than one beat, s */
  unevenS: number
}

/** A beat is struck when something sets in so near to where it is due, s. */
const NEAR_S = 0.012
const STRUCK_DB = 2
/** So many of the next beats, and no fewer, say that it still goes. */
const LOOKED_AT = 8
const GOES = 0.6

/**
 * The moments at which a clock that kept its course was heard to go, one for each beat that was struck and whose
 * neighbours were struck too: single knocks in time are chance.
 *
 * @param bins - power in bins of `binS`, the first of them at `fromS`
 */
export function beatsOnCourse(bins: Float32Array, binS: number, fromS: number, course: Course): number[] {
  const strength = onsetStrength(bins, binS)
  const reach = Math.round(NEAR_S / strength.stepS)
  const untilS = fromS + bins.length * binS
  const due: { atS: number; struck: boolean }[] = []
  for (let n = Math.ceil((fromS - course.atS) / course.beatS); ; n++) {
    const atS = course.atS + n * course.beatS + (Math.abs(n % 2) === 1 ? course.unevenS : 0)
    if (atS >= untilS) break
    const middle = Math.round((atS - fromS) / strength.stepS)
    let struck = false
    for (let k = Math.max(0, middle - reach); k <= Math.min(strength.values.length - 1, middle + reach); k++)
      if (strength.values[k]! > STRUCK_DB) struck = true
    due.push({ atS, struck })
  }
  return due.flatMap(({ atS, struck }, i) => {
    if (!struck) return []
    const company = (part: typeof due) =>
      part.length >= LOOKED_AT / 2 && part.filter((d) => d.struck).length >= GOES * part.length
    const goes = company(due.slice(Math.max(0, i - LOOKED_AT + 1), i + 1)) || company(due.slice(i, i + LOOKED_AT))
    return goes ? [atS] : []
  })
}
