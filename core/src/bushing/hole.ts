import { FieldError, requirePositive } from '../check/require.ts'

/** A worn hole as the caliper finds it, mm. */
export interface MeasuredHole {
  longAxisMm: number
  shortAxisMm: number
  pivotMm: number
}

/**
 * Refuses figures that no worn hole can have.
 *
 * @throws FieldError at the field to correct: short axis above the long, or pivot above the hole's short axis
 */
export function checkHole({ longAxisMm, shortAxisMm, pivotMm }: MeasuredHole): void {
  requirePositive('longAxisMm', longAxisMm)
  requirePositive('shortAxisMm', shortAxisMm)
  requirePositive('pivotMm', pivotMm)
  if (longAxisMm > 50)
    throw new FieldError('longAxisMm', longAxisMm, 'it must be at most 50 mm; is it in another unit?')
  if (shortAxisMm > longAxisMm)
    throw new FieldError(
      'shortAxisMm',
      shortAxisMm,
      `it must not be above longAxisMm (${longAxisMm}): the long way is the worn way`,
    )
  if (pivotMm > shortAxisMm)
    throw new FieldError(
      'pivotMm',
      pivotMm,
      `it must not be above shortAxisMm (${shortAxisMm}): a pivot can't be larger than its hole`,
    )
}
