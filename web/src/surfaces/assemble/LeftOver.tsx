import type { StripStepRow } from '@treadle/contract'
import styles from './Assemble.module.css'
import parts from '../../parts/parts.module.css'

/** What still lies on the trays, each with its picture. */
export function LeftOver({ steps, onShow }: { steps: StripStepRow[]; onShow: (id: string) => void }) {
  return (
    <>
      <h2 className={parts.next}>Not back yet</h2>
      <ul className={styles.left} aria-label="Not back yet">
        {steps.map((s) => (
          <li key={s.id}>
            <button type="button" onClick={() => onShow(s.id)}>
              {s.photoId !== null && <img src={`/api/photos/${s.photoId}/thumb`} alt="" loading="lazy" />}
              <span>
                {s.part}
                {s.count > 1 && `, ${s.count} parts in all`}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  )
}
