import { coilsLie, fillPercent, type Barrel, type Strip } from '@treadle/core'

const R = 90

/** The strip in its barrel to scale: wound round the arbor on the left, run down against the wall on the right. */
export function CoilsPicture({ strip, barrel }: { strip: Strip; barrel: Barrel }) {
  const { wound, runDown } = coilsLie(strip, barrel)
  const scale = R / (barrel.barrelInsideMm / 2)
  const fill = fillPercent(strip, barrel)
  return (
    <svg
      viewBox="0 0 420 236"
      style={{ width: '100%', maxWidth: 520 }}
      role="img"
      aria-label={`The spring fills ${fill.toFixed(0)} per cent of the barrel’s free area: ${wound.coils.toFixed(1)} coils wound, ${runDown.coils.toFixed(1)} run down`}
    >
      {[
        { at: 104, lies: wound, words: `wound, ${wound.coils.toFixed(1)} coils` },
        { at: 316, lies: runDown, words: `run down, ${runDown.coils.toFixed(1)} coils` },
      ].map(({ at, lies, words }) => (
        <g key={words} transform={`translate(${at} 100)`}>
          <circle r={R} fill="var(--brass-wash)" stroke="var(--brass)" strokeWidth="3" />
          <path
            d={spiral(lies.fromMm * scale, lies.toMm * scale, lies.coils)}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={Math.max(0.7, strip.thicknessMm * scale * 0.6)}
          />
          <circle r={(barrel.arborMm / 2) * scale} fill="var(--steel-metal)" stroke="var(--ink)" />
          <text y="118" fontSize="15" textAnchor="middle" fill="var(--ink)">
            {words}
          </text>
        </g>
      ))}
    </svg>
  )
}

/** Coils drawn at their true number and radii, a point for so many degrees. */
function spiral(from: number, to: number, coils: number): string {
  const points = Math.max(40, Math.round(coils * 36))
  return Array.from({ length: points + 1 }, (_, i) => {
    const share = i / points
    const r = from + (to - from) * share
    const a = 2 * Math.PI * coils * share
    return `${i === 0 ? 'M' : 'L'}${(r * Math.sin(a)).toFixed(2)} ${(-r * Math.cos(a)).toFixed(2)}`
  }).join('')
}
