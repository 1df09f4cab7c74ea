import { FieldError, requireFinite } from '../check/require.ts'

export interface TwoReadings {
  /** the whole change from where it stood at first, mm, in the sign of changeMm */
  fromStartMm: number
  /** what is still to do from where it stands now, mm, in the sign of changeMm */
  fromNowMm: number
}

/**
 * Where the beat will be even, from two readings either side of one known change; needs neither arc nor release.
 *
 * The signed difference is very nearly linear in the change, so its zero is at s* = −D1·s/(D2 − D1).
 *
 * @param firstMs - signed milliseconds out before the change
 * @param secondMs - the same, after it, with the same side counted positive
 * @param changeMm - packing put under or crutch bent, mm, signed, not 0
 * @throws FieldError when the change moved nothing (the two readings are equal)
 */
export function twoReadings(firstMs: number, secondMs: number, changeMm: number): TwoReadings {
  requireFinite('firstMs', firstMs)
  requireFinite('secondMs', secondMs)
  requireFinite('changeMm', changeMm)
  if (changeMm === 0)
    throw new FieldError('changeMm', changeMm, 'it must not be 0: without a change two readings tell nothing')
  if (firstMs === secondMs)
    throw new FieldError('secondMs', secondMs, `it must differ from firstMs (${firstMs}): the change moved nothing`)
  const fromStartMm = (-firstMs * changeMm) / (secondMs - firstMs)
  return { fromStartMm, fromNowMm: fromStartMm - changeMm }
}
