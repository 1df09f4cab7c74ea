import { Mark } from '../parts/Mark.tsx'
import styles from './StopList.module.css'

/** The stops of a walk, each done or open, to go to any of them. */
export function StopList<S extends { key: string; title: string }>({
  title,
  stops,
  at,
  isDone,
  onGo,
  wraps = false,
}: {
  title: string
  stops: S[]
  /** the place of the one that is shown */
  at: number
  isDone: (stop: S) => boolean
  onGo: (at: number) => void
  /** side by side where it stands above its stop, on a narrow screen */
  wraps?: boolean
}) {
  return (
    <ol className={wraps ? `${styles.stops} ${styles.wraps}` : styles.stops} aria-label={title}>
      {stops.map((stop, i) => (
        <li key={stop.key}>
          <button
            type="button"
            className={i === at ? styles.at : undefined}
            aria-current={i === at}
            onClick={() => onGo(i)}
          >
            <Mark state={isDone(stop) ? 'sound' : 'none'} label={isDone(stop) ? 'done' : 'open'} /> {stop.title}
          </button>
        </li>
      ))}
    </ol>
  )
}
