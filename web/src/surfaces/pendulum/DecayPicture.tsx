import type { ArcReading, PowerGoes } from '@treadle/core'
import styles from '../../lab/Lab.module.css'

const [WIDTH, HEIGHT, LEFT, DOWN] = [420, 130, 48, 26]

/** The arc dying away: what was noted, and the curve through it. */
export function DecayPicture({ readings, goes }: { readings: ArcReading[]; goes: PowerGoes | null }) {
  const first = readings[0]
  const last = readings.at(-1)
  if (!first || !last || last.atS <= first.atS) return null
  const most = Math.max(...readings.map((r) => r.semiArcDeg))
  const x = (s: number) => LEFT + ((s - first.atS) / (last.atS - first.atS)) * (WIDTH - LEFT - 14)
  const y = (deg: number) => 10 + (1 - deg / most) * (HEIGHT - DOWN - 10)
  const curve = goes?.decay.arcAt
  const points = curve
    ? Array.from({ length: 41 }, (_, i) => (last.atS - first.atS) * (i / 40)).map(
        (s) => `${x(s + first.atS).toFixed(1)},${y(curve(s)).toFixed(1)}`,
      )
    : []
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={styles.curve}
      role="img"
      aria-label={`The arc falls from ${first.semiArcDeg}° to ${last.semiArcDeg}° in ${Math.round((last.atS - first.atS) / 60)} minutes`}
    >
      <line x1={LEFT} x2={WIDTH - 14} y1={y(0)} y2={y(0)} className={styles.axis} />
      <line x1={LEFT} x2={LEFT} y1={10} y2={y(0)} className={styles.axis} />
      {points.length > 0 && <polyline points={points.join(' ')} fill="none" stroke="var(--steel)" strokeWidth="2.4" />}
      {readings.map((r) => (
        <circle
          key={r.atS}
          cx={x(r.atS)}
          cy={y(r.semiArcDeg)}
          r={5}
          fill="var(--ground)"
          stroke="var(--brass)"
          strokeWidth="2.4"
        />
      ))}
      <text x={LEFT - 8} y={y(most) + 5} textAnchor="end" fontSize="13" className={styles.quiet}>
        {most}°
      </text>
      <text x={LEFT - 8} y={y(0) + 5} textAnchor="end" fontSize="13" className={styles.quiet}>
        0
      </text>
      <text x={WIDTH - 14} y={HEIGHT - 6} textAnchor="end" fontSize="13" className={styles.quiet}>
        {Math.round((last.atS - first.atS) / 60)} min
      </text>
    </svg>
  )
}
