import { mean, median } from 'simple-statistics'
import { FieldError } from '../check/require.ts'
import { robustSpread } from '../listen/spread.ts'
import type { AngleAt } from './swing.ts'

/** Where an escapement drops, as the bob is moved slowly across by hand. */
export interface DropPoints {
  /** degrees from plumb, + right */
  rightDeg: number
  leftDeg: number
  /** φ, half the angle between the two, degrees */
  releaseDeg: number
  releaseStandardError: number
  /** δ, how far their middle stands to the right of plumb, degrees */
  offsetDeg: number
  offsetStandardError: number
  /** drops that were used on each side */
  right: number
  left: number
}

/** A click with the side that dropped: that to which the bob was moved. */
export interface Drop {
  atS: number
  deg: number
  side: 'right' | 'left'
  degPerS: number
}

/** Slower than this nobody knows which way it went, degrees a second. */
const SLOWEST = 0.15
/** The way it goes is told over so long on either side of a click, s. */
const AROUND_S = 0.25
/** Of each side, at least. */
const LEAST = 2
/** A click so far from the others of its side is a knock of the hand, degrees and spreads. */
const NEAR_DEG = 0.15
const NEAR_SPREADS = 4
/** Picture and sound may be apart by so much, s. */
const LAG_S = 0.06

/**
 * Every click with the angle it came at and the side that dropped; those while the bob stood, or was not seen, left out.
 *
 * @param path - angles of the bob from plumb, in order of time
 * @param clicksS - on the same time
 */
export function dropsOf(path: AngleAt[], clicksS: number[]): Drop[] {
  return clicksS.flatMap((atS) => {
    const deg = angleAt(path, atS)
    const [before, after] = [angleAt(path, atS - AROUND_S), angleAt(path, atS + AROUND_S)]
    if (deg === null || before === null || after === null) return []
    const degPerS = (after - before) / (2 * AROUND_S)
    if (Math.abs(degPerS) < SLOWEST) return []
    return [{ atS, deg, side: degPerS > 0 ? ('right' as const) : ('left' as const), degPerS }]
  })
}

/**
 * φ and δ from where each side drops: measured, not assumed.
 *
 * Picture and sound need not be of one clock to better than some hundredths of a second: what that shifts the drops of
 * the two sides apart by lies in the error of φ, and nearly cancels in δ.
 *
 * @throws FieldError naming the side that is wanting
 */
export function dropPoints(drops: Drop[]): DropPoints {
  const right = nearOnes(drops.filter((d) => d.side === 'right'))
  const left = nearOnes(drops.filter((d) => d.side === 'left'))
  for (const [name, side] of [
    ['right', right],
    ['left', left],
  ] as const)
    if (side.length < LEAST)
      throw new FieldError(name, side.length, `move it across to the ${name} ${side.length === 0 ? 'twice' : 'again'}`)
  const [rightDeg, leftDeg] = [mean(right.map((d) => d.deg)), mean(left.map((d) => d.deg))]
  if (!(rightDeg > leftDeg))
    throw new FieldError(
      'drops',
      rightDeg - leftDeg,
      'the right drop must lie to the right of the left one: begin again',
    )
  const scatter = Math.hypot(errorOf(right), errorOf(left)) / 2
  const [goesRight, goesLeft] = [mean(right.map((d) => d.degPerS)), mean(left.map((d) => d.degPerS))]
  return {
    rightDeg,
    leftDeg,
    releaseDeg: (rightDeg - leftDeg) / 2,
    releaseStandardError: Math.hypot(scatter, (LAG_S * (goesRight - goesLeft)) / 2),
    offsetDeg: (rightDeg + leftDeg) / 2,
    offsetStandardError: Math.hypot(scatter, (LAG_S * (goesRight + goesLeft)) / 2),
    right: right.length,
    left: left.length,
  }
}

function nearOnes(drops: Drop[]): Drop[] {
  if (drops.length < 3) return drops
  const degs = drops.map((d) => d.deg)
  const middle = median(degs)
  const limit = Math.max(NEAR_DEG, NEAR_SPREADS * robustSpread(degs.map((d) => d - middle)))
  return drops.filter((d) => Math.abs(d.deg - middle) <= limit)
}

/** Of the mean; of a few the scatter is taken to be no smaller than a bob is placed by hand. */
function errorOf(drops: Drop[]): number {
  const middle = mean(drops.map((d) => d.deg))
  const scatter = Math.sqrt(drops.reduce((sum, d) => sum + (d.deg - middle) ** 2, 0) / Math.max(1, drops.length - 1))
  return Math.max(scatter, 0.03) / Math.sqrt(drops.length)
}

function angleAt(path: AngleAt[], atS: number): number | null {
  const next = path.findIndex((p) => p.atS >= atS)
  const [before, after] = [path[next - 1], path[next]]
  if (!before || !after || after.atS - before.atS > 2 * AROUND_S) return null
  return before.deg + ((atS - before.atS) / (after.atS - before.atS)) * (after.deg - before.deg)
}
