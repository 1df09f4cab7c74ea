import { requirePositive } from '../check/require.ts'

/** A size to turn to, mm, and how far it may be above and below. */
export interface TurnedSize {
  mm: number
  aboveMm: number
  belowMm: number
}

/** A bush to turn from rod: the drawing’s sizes. */
export interface TurnedBush {
  outside: TurnedSize
  bore: TurnedSize
  length: TurnedSize
  /** taper at the end that goes in first, mm long */
  leadMm: number
  /** least rod to turn it from, mm */
  rodMm: number
}

/**
 * Sizes and tolerances of a bush turned from rod, mm.
 *
 * Outside: the cutter and its press fit, within what still holds and still goes in. Bore: drilled under the pivot, which
 * is broached out later. Length: the plate and a hair, faced flush when it is in.
 *
 * @param outsideMm - cutter plus press fit
 * @param drilledMm - under the pivot by the workshop's figure
 * @param plateMm - the plate at that hole
 */
export function turnedBush(outsideMm: number, drilledMm: number, plateMm: number): TurnedBush {
  requirePositive('outsideMm', outsideMm)
  requirePositive('drilledMm', drilledMm)
  requirePositive('plateMm', plateMm)
  return {
    outside: { mm: outsideMm, aboveMm: 0.01, belowMm: 0.005 },
    bore: { mm: drilledMm, aboveMm: 0.02, belowMm: 0.03 },
    length: { mm: plateMm + 0.1, aboveMm: 0.1, belowMm: 0.05 },
    leadMm: 0.2,
    rodMm: Math.ceil((outsideMm + 0.3) * 2) / 2,
  }
}

/** Steps of the broach from a bush’s inside to the finished hole, mm: even, and none above `mostMm`. */
export function broachSteps(insideMm: number, finishedMm: number, mostMm = 0.03): number[] {
  requirePositive('insideMm', insideMm)
  requirePositive('finishedMm', finishedMm)
  requirePositive('mostMm', mostMm)
  const all = finishedMm - insideMm
  if (all <= 1e-9) return []
  const steps = Math.max(1, Math.ceil(all / mostMm - 1e-9))
  return Array.from({ length: steps }, (_, i) => insideMm + (all * (i + 1)) / steps)
}
