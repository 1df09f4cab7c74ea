import type { PhotoRow } from '@treadle/contract'
import styles from './PhotoChoice.module.css'

/** The photos of a job as small pictures, one of them chosen. */
export function PhotoChoice({
  photos,
  chosen,
  onChoose,
}: {
  photos: PhotoRow[]
  chosen: string | null
  onChoose: (id: string) => void
}) {
  return (
    <div className={styles.thumbs} role="group" aria-label="Photos of this job">
      {photos.map((p) => (
        <button
          key={p.id}
          type="button"
          aria-pressed={p.id === chosen}
          title={p.caption}
          onClick={() => onChoose(p.id)}
        >
          <img src={`/api/photos/${p.id}/thumb`} alt={p.caption || 'A photo without a name'} loading="lazy" />
        </button>
      ))}
    </div>
  )
}
