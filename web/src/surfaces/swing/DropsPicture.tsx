import type { Drop } from '@treadle/core'
import { leaning } from '../../parts/say.ts'
import styles from './Swing.module.css'

const WIDTH = 420
const MIDDLE = WIDTH / 2
const TOP = 20
const RADIUS = 150
/** Degrees are drawn wider than they are. */
const WIDER = 5

/** Where each drop was seen, along the arc of the bob: right ones with a full dot, left ones with a ring. */
export function DropsPicture({ drops, nowDeg }: { drops: Drop[]; nowDeg: number | null }) {
  const at = (deg: number, radius = RADIUS) => {
    const a = (Math.max(-12, Math.min(12, deg)) * WIDER * Math.PI) / 180
    return { x: MIDDLE + radius * Math.sin(a), y: TOP + radius * Math.cos(a) }
  }
  const [left, right] = [at(-12), at(12)]
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${TOP + RADIUS + 40}`}
      className={styles.drops}
      role="img"
      aria-label={`Drops at ${drops.map((d) => leaning(d.deg, 1)).join(', ') || 'no angle yet'}`}
    >
      <path d={`M${left.x},${left.y}A${RADIUS},${RADIUS} 0 0 0 ${right.x},${right.y}`} className={styles.arc} />
      <path d={`M${MIDDLE},${TOP}V${TOP + RADIUS + 10}`} className={styles.plumb} />
      {nowDeg !== null && <line x1={MIDDLE} y1={TOP} x2={at(nowDeg).x} y2={at(nowDeg).y} className={styles.rod} />}
      {drops.map((d) => (
        <circle
          key={d.atS}
          cx={at(d.deg, RADIUS + 16).x}
          cy={at(d.deg, RADIUS + 16).y}
          r={5}
          className={d.side === 'right' ? styles.dropRight : styles.dropLeft}
        />
      ))}
    </svg>
  )
}
