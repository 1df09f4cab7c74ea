import type { EvenTilt, TiltPoint } from '@treadle/core'
import styles from './Footing.module.css'

const WIDTH = 520
const HEIGHT = 240
const EDGE = 34

/** Every swing's unevenness against the tilt it was made at, the line through them, and where it is even. */
export function RockedPicture({
  points,
  even,
  stoodAtDeg,
}: {
  points: TiltPoint[]
  even: EvenTilt
  stoodAtDeg: number
}) {
  const tilts = [...points.map((p) => p.tiltDeg), even.evenAtDeg, stoodAtDeg]
  const [left, right] = [Math.min(...tilts) - 0.1, Math.max(...tilts) + 0.1]
  const most = Math.max(2, ...points.map((p) => Math.abs(p.outMs)))
  const x = (deg: number) => EDGE + ((deg - left) / (right - left)) * (WIDTH - 2 * EDGE)
  const y = (ms: number) => HEIGHT / 2 - (ms / most) * (HEIGHT / 2 - EDGE)
  const line = (deg: number) => even.msPerDeg * (deg - even.evenAtDeg)
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={styles.rocked}
      role="img"
      aria-label={`${points.length} swings; the beat is even at a tilt of ${even.evenAtDeg.toFixed(2)} degrees`}
    >
      <line x1={EDGE} x2={WIDTH - EDGE} y1={y(0)} y2={y(0)} className={styles.axis} />
      {points.map((p, i) => (
        <circle key={i} cx={x(p.tiltDeg)} cy={y(p.outMs)} r={3} className={styles.point} />
      ))}
      <line x1={x(left)} x2={x(right)} y1={y(line(left))} y2={y(line(right))} className={styles.line} />
      <path d={`M${x(stoodAtDeg)} ${HEIGHT - 16}l-6 12h12z`} className={styles.stood} />
      <text x={x(stoodAtDeg)} y={HEIGHT - 20} textAnchor="middle" className={styles.word}>
        as it stood
      </text>
      <circle cx={x(even.evenAtDeg)} cy={y(0)} r={7} className={styles.even} />
      <text x={x(even.evenAtDeg)} y={y(0) - 14} textAnchor="middle" className={styles.word}>
        even
      </text>
    </svg>
  )
}
