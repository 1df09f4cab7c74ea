import type { Compensation } from '@treadle/core'
import { signed } from '../parts/say.ts'
import styles from './Lab.module.css'

const WIDTH = 420
const HEIGHT = 150
const [LEFT, RIGHT, UP, DOWN] = [62, 16, 14, 30]

/** What a degree does at each length of what compensates: nought where it is right, a dot where it stands. */
export function CompensationPicture({ way }: { way: Compensation }) {
  const { curve, lengthMm, rightMm } = way
  const first = curve[0]
  const last = curve.at(-1)
  if (!first || !last) return null
  const values = curve.map((p) => p.secondsPerDayPerC)
  const [low, high] = [Math.min(0, ...values), Math.max(0, ...values)]
  const x = (mm: number) =>
    LEFT + ((mm - first.lengthMm) / (last.lengthMm - first.lengthMm || 1)) * (WIDTH - LEFT - RIGHT)
  const y = (v: number) => UP + ((high - v) / (high - low || 1)) * (HEIGHT - UP - DOWN)
  const now = lengthMm === null ? null : nearest(curve, lengthMm)
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={styles.curve}
      role="img"
      aria-label={`Seconds a day for a degree, from ${signed(first.secondsPerDayPerC, 2)} at ${first.lengthMm.toFixed(0)} mm to ${signed(last.secondsPerDayPerC, 2)} at ${last.lengthMm.toFixed(0)} mm`}
    >
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(0)} y2={y(0)} className={styles.nought} />
      <line x1={LEFT} x2={LEFT} y1={UP} y2={HEIGHT - DOWN} className={styles.axis} />
      {[low, high].map((v) =>
        Math.abs(v) < 0.005 ? null : (
          <text key={v} x={LEFT - 8} y={y(v) + 5} textAnchor="end" className={styles.quiet} fontSize="13">
            {signed(v, 2)}
          </text>
        ),
      )}
      <text x={LEFT - 8} y={y(0) + 5} textAnchor="end" className={styles.quiet} fontSize="13">
        0 s
      </text>
      <polyline
        points={curve.map((p) => `${x(p.lengthMm).toFixed(1)},${y(p.secondsPerDayPerC).toFixed(1)}`).join(' ')}
        className={styles.curveLine}
      />
      {now && <circle cx={x(now.lengthMm)} cy={y(now.secondsPerDayPerC)} r={6} className={styles.now} />}
      {rightMm !== null && (
        <>
          <circle cx={x(rightMm)} cy={y(0)} r={8} className={styles.right} />
          <text x={x(rightMm)} y={HEIGHT - 8} textAnchor="middle" className={styles.takesWords} fontSize="13">
            {rightMm.toFixed(0)} mm
          </text>
        </>
      )}
      {[first, last].map((p, i) => (
        <text
          key={p.lengthMm}
          x={x(p.lengthMm)}
          y={HEIGHT - 8}
          textAnchor={i === 0 ? 'start' : 'end'}
          className={styles.quiet}
          fontSize="13"
        >
          {p.lengthMm.toFixed(0)}
        </text>
      ))}
    </svg>
  )
}

/** The curve at a length, drawn straight between its points. */
function nearest(curve: Compensation['curve'], lengthMm: number): Compensation['curve'][number] | null {
  const i = curve.findIndex((p) => p.lengthMm >= lengthMm)
  const [a, b] = [curve[i - 1], curve[i]]
  if (!a || !b) return curve.find((p) => p.lengthMm === lengthMm) ?? null
  const part = (lengthMm - a.lengthMm) / (b.lengthMm - a.lengthMm)
  return { lengthMm, secondsPerDayPerC: a.secondsPerDayPerC + part * (b.secondsPerDayPerC - a.secondsPerDayPerC) }
}
