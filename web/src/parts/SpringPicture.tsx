import type { Mainspring } from '@treadle/core'

/** The barrel from above, to scale: run down against the wall on the left, wound on the arbor on the right. */
export function SpringPicture({ spring }: { spring: Mainspring }) {
  const { lengthMm: l, thicknessMm: t, barrelInsideMm, arborMm } = spring
  const R = barrelInsideMm / 2
  const r = arborMm / 2
  const area = (l * t) / Math.PI
  const free = Math.sqrt(Math.max(0, R * R - area))
  const full = Math.sqrt(r * r + area)
  return (
    <svg
      viewBox={`${-R * 1.1} ${-R * 1.1} ${R * 4.6} ${R * 2.2}`}
      width="190"
      height="91"
      role="img"
      aria-label="The spring in its barrel, run down and fully wound, to scale"
    >
      {[
        { x: 0, from: free, to: R },
        { x: R * 2.4, from: r, to: full },
      ].map(({ x, from, to }) => (
        <g key={x} transform={`translate(${x} 0)`}>
          <circle r={R} fill="none" stroke="var(--quiet)" strokeWidth={R * 0.04} />
          <path d={spiral(from, to, t)} fill="none" stroke="var(--steel)" strokeWidth={Math.max(t, R * 0.012)} />
          <circle r={r} fill="var(--brass-line)" />
        </g>
      ))}
    </svg>
  )
}

/** A coil from one radius to another; drawn with at most fourteen turns, so that it stays a coil and not a disc. */
function spiral(from: number, to: number, thickness: number): string {
  const turns = Math.min(14, (to - from) / thickness)
  const steps = Math.max(24, Math.round(turns * 36))
  return Array.from({ length: steps + 1 }, (_, i) => {
    const radius = from + ((to - from) * i) / steps
    const angle = (2 * Math.PI * turns * i) / steps
    return `${i === 0 ? 'M' : 'L'}${(radius * Math.cos(angle)).toFixed(2)} ${(radius * Math.sin(angle)).toFixed(2)}`
  }).join('')
}
