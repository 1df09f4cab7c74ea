import { pivotPlan, type PivotPlan, type PivotRules } from './plan.ts'

/** A pivot as it was found, as far as what is done with it asks; mm, null: not measured. */
export interface PivotFacts {
  nail: '' | 'smooth' | 'catches'
  firstMm: number | null
  secondMm: number | null
  outOfRoundMm: number | null
  runoutMm: number | null
  grooveDepthMm: number | null
  originalMm: number | null
  shoulder: '' | 'clean' | 'worn'
  rust: boolean
}

/**
 * What to do with a pivot as it was found; null until its gauge is read.
 *
 * The larger of the two gauge figures counts. A groove that was not measured is half their difference; where the
 * fingernail catches and nothing more is known, 0.02 mm. The sister at the other end bounds it too: no pivot is left
 * under 0.9 of hers.
 */
export function planOfPivot(pivot: PivotFacts, rules: PivotRules, sisterMm: number | null = null): PivotPlan | null {
  const { firstMm, secondMm } = pivot
  const gauge = [firstMm, secondMm].filter((mm) => mm !== null)
  if (gauge.length === 0) return null
  const diameterMm = Math.max(...gauge)
  const between = gauge.length === 2 ? Math.abs((firstMm ?? 0) - (secondMm ?? 0)) / 2 : 0
  const felt = pivot.nail === 'catches' ? Math.max(between, 0.02) : between
  const plan = pivotPlan(
    {
      diameterMm,
      originalMm: Math.max(pivot.originalMm ?? diameterMm, diameterMm),
      grooveDepthMm: Math.max(pivot.grooveDepthMm ?? felt, (pivot.outOfRoundMm ?? 0) / 2),
      runoutMm: pivot.runoutMm ?? undefined,
      rust: pivot.rust,
    },
    rules,
  )
  const thin = sisterMm !== null && plan.finishedMm < (rules.leastPercent / 100) * sisterMm
  const reasons = [
    ...(thin && plan.verdict !== 're-pivot'
      ? [
          `It would be ${plan.finishedMm.toFixed(2)} mm, under ${rules.leastPercent / 100} of its sister’s ${sisterMm.toFixed(2)}.`,
        ]
      : []),
    ...plan.reasons,
    ...(pivot.shoulder === 'worn' ? ['Its shoulder is worn: turn it clean, and mind the endshake.'] : []),
  ]
  return { ...plan, verdict: thin ? 're-pivot' : plan.verdict, reasons }
}
