import type { WatchMark, WatchPage } from '@treadle/contract'
import { Mark } from '../../parts/Mark.tsx'
import { count } from '../../parts/say.ts'
import { duration, shown } from './words.ts'
import styles from './Watch.module.css'

/** Strikes, silences and odd minutes, the latest first, with the sound that was kept about them. */
export function Marks({ page }: { page: WatchPage }) {
  const { watch, marks } = page
  if (marks.length === 0) return null
  return (
    <>
      <h3>Heard besides the beat</h3>
      <ul className={styles.marks} tabIndex={0} aria-label="Heard besides the beat">
        {[...marks].reverse().map((m) => (
          <li key={m.id}>
            <Mark state={m.kind === 'strike' ? 'sound' : m.kind === 'odd' ? 'watch' : 'must'} />
            <span>
              {shown(watch, m.fromS)}: {inWords(m)}
            </span>
            {m.soundStored && (
              <a href={`/api/watch-marks/${m.id}/sound`} download>
                its sound
              </a>
            )}
          </li>
        ))}
      </ul>
    </>
  )
}

function inWords(m: WatchMark): string {
  if (m.kind === 'strike') return m.bird ? `the bird called ${count(m.blows ?? 0, 'time')}` : `struck ${m.blows}`
  if (m.kind === 'odd') return `an odd minute: ${m.note}`
  return m.toS === null ? `silent from then on; ${m.note}` : `silent for ${duration(m.toS - m.fromS)}; ${m.note}`
}
