import { turnFraction, type NutMove } from '@treadle/core'
import styles from './Rate.module.css'

/** The rating nut seen from below, with the part of a turn to give and which way. */
export function NutPicture({ turns, move }: { turns: number; move: NutMove }) {
  const part = turns >= 1 ? 1 : Math.max(0.02, turns)
  const angle = 2 * Math.PI * part
  // From below, turning right (the usual thread) raises the bob.
  const way = move === 'raise' ? 1 : -1
  const point = (r: number, a: number) => `${100 + r * Math.sin(way * a)} ${100 - r * Math.cos(way * a)}`
  const large = angle > Math.PI ? 1 : 0
  const sweep = way === 1 ? 1 : 0
  return (
    <svg
      viewBox="0 0 200 200"
      className={styles.nut}
      role="img"
      aria-label={`The nut from below: ${turnFraction(turns)} turn to the ${move === 'raise' ? 'right' : 'left'}`}
    >
      <circle cx="100" cy="100" r="76" fill="var(--brass-wash)" stroke="var(--brass-line)" strokeWidth="4" />
      {Array.from({ length: 48 }, (_, i) => (
        <line
          key={i}
          x1="100"
          x2="100"
          y1="18"
          y2="25"
          stroke="var(--brass-line)"
          strokeWidth="2"
          transform={`rotate(${i * 7.5} 100 100)`}
        />
      ))}
      {part < 1 ? (
        <path
          d={`M100 100L${point(74, 0)}A74 74 0 ${large} ${sweep} ${point(74, angle)}Z`}
          fill="var(--steel)"
          opacity="0.85"
        />
      ) : (
        <circle cx="100" cy="100" r="74" fill="var(--steel)" opacity="0.85" />
      )}
      <circle cx="100" cy="100" r="20" fill="var(--ground)" stroke="var(--ink)" strokeWidth="2.5" />
      <path
        d={`M${point(92, 0.12)}A92 92 0 ${part >= 1 ? 1 : large} ${sweep} ${point(92, Math.max(0.35, Math.min(angle, 5.8)))}`}
        fill="none"
        stroke="var(--madder)"
        strokeWidth="3.5"
      />
      <path
        d="M0 -9L9 9H-9z"
        fill="var(--madder)"
        transform={`translate(${point(92, Math.max(0.4, Math.min(angle + 0.05, 5.9))).replace(' ', ',')}) rotate(${(way * Math.max(0.4, Math.min(angle + 0.05, 5.9)) * 180) / Math.PI + way * 90})`}
      />
    </svg>
  )
}
