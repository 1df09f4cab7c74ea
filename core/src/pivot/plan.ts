import { FieldError, requirePositive, requireWithin } from '../check/require.ts'

export const PIVOT_VERDICTS = ['leave', 'polish', 'file and burnish', 'straighten', 're-pivot'] as const
export type PivotVerdict = (typeof PIVOT_VERDICTS)[number]

export interface PivotFigures {
  /** largest diameter by gauge, mm */
  diameterMm: number
  /** as it was made, where that is known; the diameter when it is not */
  originalMm?: number | undefined
  /** of the deepest groove, mm on the radius; 0: none */
  grooveDepthMm: number
  /** as it turns in the lathe, from least to most, mm */
  runoutMm?: number | undefined
  rust?: boolean | undefined
}

/** What a workshop holds a pivot to; rules of thumb. */
export interface PivotRules {
  /** least part of its original diameter that a pivot may have, % */
  leastPercent: number
  /** a groove no deeper than this is polished out by hand, mm */
  polishUpToMm: number
  /** a runout above this is bent, mm */
  straightenFromMm: number
}

export const DEFAULT_PIVOT_RULES: PivotRules = { leastPercent: 90, polishUpToMm: 0.01, straightenFromMm: 0.02 }

/** The rules for pivots by the workshop’s own least diameter. */
export function pivotRulesOf({ pivotLeastPercent }: { pivotLeastPercent: number }): PivotRules {
  return { ...DEFAULT_PIVOT_RULES, leastPercent: pivotLeastPercent }
}

export interface PivotPlan {
  /** predicted: the groove is taken off all round */
  finishedMm: number
  /** of bending strength, against the original */
  strengthPercent: number
  verdict: PivotVerdict
  reasons: string[]
}

/**
 * What to do with a pivot, how thick it will be and how strong, mm and %.
 *
 * The groove comes off on both sides, so finished = diameter − 2 × groove. Bending strength goes as the diameter cubed.
 * The gravest verdict wins: below its limit it is re-pivoted; bent it is straightened first, whatever else it needs;
 * scored or rusty it goes in the lathe; a trace is polished by hand.
 *
 * @throws FieldError for figures that can't be
 */
export function pivotPlan(pivot: PivotFigures, rules: PivotRules = DEFAULT_PIVOT_RULES): PivotPlan {
  const { diameterMm, grooveDepthMm, runoutMm = 0, rust = false } = pivot
  const originalMm = pivot.originalMm ?? diameterMm
  requirePositive('diameterMm', diameterMm)
  requirePositive('originalMm', originalMm)
  requireWithin('runoutMm', runoutMm, 0, 20)
  if (diameterMm > 50)
    throw new FieldError('diameterMm', diameterMm, 'it must be at most 50 mm; is it in another unit?')
  if (originalMm < diameterMm - 0.02)
    throw new FieldError('originalMm', originalMm, `it must not be below diameterMm (${diameterMm}): no pivot grows`)
  if (!Number.isFinite(grooveDepthMm) || grooveDepthMm < 0 || grooveDepthMm >= diameterMm / 2)
    throw new FieldError('grooveDepthMm', grooveDepthMm, `it must be from 0 to below half the pivot, ${diameterMm / 2}`)
  const finishedMm = diameterMm - 2 * grooveDepthMm
  const strengthPercent = 100 * (finishedMm / originalMm) ** 3
  const thin = finishedMm < (rules.leastPercent / 100) * originalMm - 1e-9
  const bent = runoutMm > rules.straightenFromMm + 1e-9
  const scored = grooveDepthMm > rules.polishUpToMm + 1e-9
  const share = ((100 * finishedMm) / originalMm).toFixed(0)
  const reasons = [
    thin && `Finished it would be ${share} % of its original thickness; ${rules.leastPercent} is the least.`,
    bent &&
      `It runs out by ${runoutMm.toFixed(2)} mm; from ${rules.straightenFromMm} it is bent. It may break: tell the owner before.`,
    scored && `A groove ${grooveDepthMm.toFixed(2)} mm deep comes out in the lathe, all round.`,
    rust && 'Rust leaves pits that wear the hole: it goes in the lathe.',
    !scored && grooveDepthMm > 0 && `A trace of ${grooveDepthMm.toFixed(3)} mm polishes out by hand.`,
  ].filter((r) => r !== false)
  const verdict: PivotVerdict = thin
    ? 're-pivot'
    : bent
      ? 'straighten'
      : scored || rust
        ? 'file and burnish'
        : grooveDepthMm > 0
          ? 'polish'
          : 'leave'
  return {
    finishedMm,
    strengthPercent,
    verdict,
    reasons: reasons.length > 0 ? reasons : ['Smooth, straight and clean: leave it as it is.'],
  }
}
