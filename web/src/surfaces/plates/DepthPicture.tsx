import { CENTRES, type Centre, type MeshDepth } from '@treadle/core'
import styles from '../../job/plates/Plates.module.css'

/** How many times larger than it is a shift is drawn. */
const DRAWN = 4
const SAYS: Record<Centre, string> = {
  worn: 'run in its wear',
  true: 'bushed on the old centre',
  middle: 'bushed in the middle of the slot',
}

/** The mesh that suffers most, three times: why a bush is not put in the middle of a worn slot. */
export function DepthPicture({ depths }: { depths: Record<Centre, MeshDepth> }) {
  const order: Centre[] = ['worn', 'middle', 'true']
  const { driver, driven } = depths.true
  return (
    <svg
      viewBox="0 0 600 120"
      className={styles.depths}
      role="img"
      aria-label={`${driver} and ${driven}: ${CENTRES.map((c) => `${SAYS[c]} ${depths[c].percentOfModule.toFixed(0)} % of the module`).join('; ')}`}
    >
      {order.map((centre, i) => (
        <g key={centre} transform={`translate(${i * 200} 0)`}>
          <Teeth apart={(DRAWN * depths[centre].percentOfModule) / 100} />
          <text x="100" y="112" textAnchor="middle" fontSize="13" fill="var(--ink)">
            {SAYS[centre]}
          </text>
        </g>
      ))}
    </svg>
  )
}

/** A wheel's tooth between two leaves, in modules; `apart` is how far the centres have come from each other. */
function Teeth({ apart }: { apart: number }) {
  const scale = 20
  const x = 78 + scale * apart
  return (
    <>
      <path
        d="M20 4V92M20 22h40q14 4 20 10q-6 6 -20 10H20M20 58h40q14 4 20 10q-6 6 -20 10H20"
        className={styles.tooth}
      />
      <path
        d={`M${x + 70} 4V92M${x + 70} 40H${x}q-12 4 -16 10q4 6 16 10H${x + 70}`}
        className={apart > 0.4 ? styles.leafOff : styles.leaf}
      />
      <path d="M70 2V94" className={styles.pitch} />
    </>
  )
}
