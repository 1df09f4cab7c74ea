import { DEFAULT_BUSHING_RULES, type ArborRole, type BushingRules } from './schools.ts'

/** The hole a finished pivot wants, mm: its play as a share of the pivot, and no less than the least. */
export function finishedHoleMm(
  pivotMm: number,
  role: ArborRole = 'other',
  rules: BushingRules = DEFAULT_BUSHING_RULES,
): number {
  const share = role === 'other' ? rules.leavePlayPercent : rules.leaveFinePlayPercent
  return pivotMm + Math.max(rules.leavePlayAtLeastMm, (share / 100) * pivotMm)
}
