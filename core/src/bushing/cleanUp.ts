import { requirePositive, requireWithin } from '../check/require.ts'

/** What stands in the plate where a hole is to be cut anew: mm, degrees clockwise from 12. */
export interface HoleFound {
  longAxisMm: number
  shortAxisMm: number
  /** which way it is worn; not known: reckoned at its worst */
  wearDeg?: number | null | undefined
  /** across the hole that an old bush leaves when it is out; of a screwed one, across the crests of its thread */
  oldHoleMm?: number | null | undefined
  /** from the old centre to where the new one belongs, for a hole that was bushed off its centre before */
  offCentre?: { mm: number; deg: number } | null | undefined
}

/**
 * The least circle about the new centre that takes in all that was cut or worn away there, mm across.
 *
 * The slot reaches from the old circle to as far as the pivot wore, and is filed back as far to the other side; an old
 * bush stood round the old circle. About the old centre that is 2·long − short; off it, the farthest end counts.
 *
 * @throws FieldError for a move or an old bush's hole that can't be
 */
export function leastToCleanUpMm({ longAxisMm, shortAxisMm, wearDeg, oldHoleMm, offCentre }: HoleFound): number {
  const wearMm = longAxisMm - shortAxisMm
  const offMm = offCentre?.mm ?? 0
  requireWithin('offCentre.mm', offMm, 0, 50)
  const apart = wearDeg == null || !offCentre ? Math.PI : ((wearDeg - offCentre.deg) * Math.PI) / 180
  const wornEnd = Math.sqrt(Math.max(0, wearMm ** 2 + offMm ** 2 - 2 * wearMm * offMm * Math.cos(apart)))
  const slot = 2 * Math.max(offMm, wornEnd) + shortAxisMm
  if (oldHoleMm == null) return slot
  requirePositive('oldHoleMm', oldHoleMm)
  return Math.max(slot, oldHoleMm + 2 * offMm)
}
