import { requirePositive, requireWithin } from '../check/require.ts'

export type Side = 'left' | 'right'

export interface BeatRemedy {
  crutchBendMm?: number
  crutchBendToward?: Side | null
  packMm?: number
  packUnder?: Side | null
  seatPackMm?: number
  seatPackUnder?: Side | null
  swingBottomMm?: number
  swingBottomToward?: Side | null
}

export interface RemedyLengths {
  /** crutch arbor to the foot where it meets the rod, mm */
  crutchLengthMm?: number | undefined
  /** distance of the case's feet, left to right, mm */
  footSpacingMm?: number | undefined
  /** distance of the bearers of the movement’s seat board, left to right, mm */
  seatSpacingMm?: number | undefined
  /** hanging point of a wall case to its bottom, mm */
  caseHeightMm?: number | undefined
}

/**
 * What puts a clock in beat, mm and side as seen from the front, for each length that is known.
 *
 * An escapement that stands to the right of plumb (+) needs its crutch foot bent to the left, or the left side
 * of its case or of its seat board raised, or the bottom of a wall case swung to the left; length × tan δ each. Sides are null at 0.
 *
 * @param offsetDeg - where the escapement stands from plumb, degrees, + right, −20 to 20
 */
export function beatRemedy(offsetDeg: number, lengths: RemedyLengths): BeatRemedy {
  requireWithin('offsetDeg', offsetDeg, -20, 20)
  const toward: Side | null = offsetDeg === 0 ? null : offsetDeg > 0 ? 'left' : 'right'
  const size = (field: keyof RemedyLengths): number | undefined => {
    const length = lengths[field]
    if (length === undefined) return undefined
    requirePositive(field, length)
    return length * Math.tan((Math.abs(offsetDeg) * Math.PI) / 180)
  }
  const crutchBendMm = size('crutchLengthMm')
  const packMm = size('footSpacingMm')
  const seatPackMm = size('seatSpacingMm')
  const swingBottomMm = size('caseHeightMm')
  return {
    ...(crutchBendMm !== undefined && { crutchBendMm, crutchBendToward: toward }),
    ...(packMm !== undefined && { packMm, packUnder: toward }),
    ...(seatPackMm !== undefined && { seatPackMm, seatPackUnder: toward }),
    ...(swingBottomMm !== undefined && { swingBottomMm, swingBottomToward: toward }),
  }
}
