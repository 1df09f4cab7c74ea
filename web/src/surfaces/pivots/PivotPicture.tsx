import type { PivotRow } from '@treadle/contract'
import type { PivotPlan } from '@treadle/core'

/** The pivot from the side, to scale across: as it is, with its groove, and as it will be. */
export function PivotPicture({ pivot, plan }: { pivot: PivotRow; plan: PivotPlan }) {
  const now = Math.max(pivot.firstMm ?? 0, pivot.secondMm ?? 0)
  if (now <= 0) return null
  const scale = 62 / now
  const y = (mm: number) => 60 - (mm / 2) * scale
  const tall = (mm: number) => mm * scale
  const groove = (now - plan.finishedMm) / 2
  const original = pivot.originalMm ?? now
  return (
    <svg
      viewBox="0 0 420 120"
      style={{ width: '100%', maxWidth: 520 }}
      role="img"
      aria-label={`The pivot, ${now.toFixed(2)} mm now, ${plan.finishedMm.toFixed(2)} mm when it is finished`}
    >
      <rect x="10" y="14" width="90" height="92" fill="var(--steel-metal)" stroke="var(--ink)" />
      {original > now && (
        <rect
          x="100"
          y={y(original)}
          width="230"
          height={tall(original)}
          fill="none"
          stroke="var(--quiet)"
          strokeDasharray="3 3"
        />
      )}
      <path
        d={`M100 ${y(now)}H160q30 ${2 * groove * scale} 60 0H330V${120 - y(now)}H220q-30 ${-2 * groove * scale} -60 0H100z`}
        fill="var(--steel-metal)"
        stroke="var(--ink)"
      />
      <path
        d={`M100 ${y(plan.finishedMm)}H330M100 ${120 - y(plan.finishedMm)}H330`}
        stroke="var(--steel)"
        strokeWidth="2"
        strokeDasharray="7 4"
      />
      <text x="340" y={y(now) + 2} fontSize="14" fill="var(--ink)">
        {now.toFixed(2)} now
      </text>
      <text x="340" y="64" fontSize="14" fill="var(--steel)">
        {plan.finishedMm.toFixed(2)} after
      </text>
      {original > now && (
        <text x="340" y={Math.max(12, y(original) - 6)} fontSize="14" fill="var(--quiet)">
          {original.toFixed(2)} made
        </text>
      )}
    </svg>
  )
}
