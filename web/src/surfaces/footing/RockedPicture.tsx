import type { EvenTilt, TiltPoint } from '@treadle/core'
import { leaning } from '../../parts/say.ts'
import styles from './Footing.module.css'

const WIDTH = 520
const HEIGHT = 260
const EDGE = 58

function nearEdge(x: number): 'start' | 'middle' | 'end' {
  return x < 70 ? 'start' : x > WIDTH - 70 ? 'end' : 'middle'
}

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
  const x = (deg: number) => EDGE + ((deg - left) / (right - left)) * (WIDTH - 2 * EDGE)
  const line = (deg: number) => even.msPerDeg * (deg - even.evenAtDeg)
  const outs = [0, line(left), line(right), ...points.map((p) => p.outMs)]
  const [low, high] = [Math.min(...outs), Math.max(...outs)]
  const y = (ms: number) => EDGE + ((high - ms) / (high - low)) * (HEIGHT - 2 * EDGE - 24)
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
      <path d={`M${x(stoodAtDeg)} ${HEIGHT - 34}l-6 12h12z`} className={styles.stood} />
      <text x={x(stoodAtDeg)} y={HEIGHT - 6} textAnchor={nearEdge(x(stoodAtDeg))} className={styles.word}>
        as it stood
      </text>
      {[low, high].map((ms) => (
        <text key={ms} x={2} y={y(ms) + 5} className={styles.scale}>
          {Math.abs(ms).toFixed(0)} ms
        </text>
      ))}
      <circle cx={x(even.evenAtDeg)} cy={y(0)} r={7} className={styles.even} />
      <text x={x(even.evenAtDeg)} y={y(0) - 14} textAnchor="middle" className={styles.word}>
        even, {leaning(even.evenAtDeg)}
      </text>
    </svg>
  )
}
