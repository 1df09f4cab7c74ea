import { signed } from '../parts/say.ts'
import styles from './Lab.module.css'

export interface Effect {
  what: string
  /** s/day, + gains */
  secondsPerDay: number
  note?: string
  /** something one does, and not what happens to it */
  act?: boolean
}

/** What each thing does to the rate, as bars to one scale. */
export function Effects({ effects }: { effects: Effect[] }) {
  const most = Math.max(...effects.map((e) => Math.abs(e.secondsPerDay)), 1e-9)
  return (
    <dl className={styles.effects}>
      {effects.map(({ what, secondsPerDay, note, act = false }) => (
        <div key={what} style={{ display: 'contents' }}>
          <dt>{what}</dt>
          <dd>
            <div className={styles.row}>
              <span
                className={styles.bar}
                data-act={act}
                style={{ width: `calc((100% - 7.6rem) * ${(Math.abs(secondsPerDay) / most).toFixed(4)})` }}
                aria-hidden
              />
              <b>{signed(secondsPerDay, placesOf(secondsPerDay))} s a day</b>
            </div>
            {note !== undefined && <small>{note}</small>}
          </dd>
        </div>
      ))}
    </dl>
  )
}

function placesOf(value: number): number {
  return Math.abs(value) >= 10 ? 1 : 2
}
