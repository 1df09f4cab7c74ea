import { usePedal } from './Pedal.tsx'
import styles from './PedalBar.module.css'

/** The bar along the bottom of every job page: what a press will do now. It is a button for a finger, too. */
export function PedalBar() {
  const { action, typing, held, said, down, up } = usePedal()
  return (
    <div className={styles.bar}>
      <button
        type="button"
        className={styles.press}
        disabled={!action}
        onPointerDown={(e) => down(e.timeStamp)}
        onPointerUp={(e) => up(e.timeStamp)}
        onPointerLeave={(e) => e.buttons > 0 && up(e.timeStamp)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== ' ') return
          e.preventDefault()
          if (!e.repeat) down(e.timeStamp)
        }}
        onKeyUp={(e) => (e.key === 'Enter' || e.key === ' ') && up(e.timeStamp)}
      >
        <svg viewBox="0 0 40 40" width="44" height="44" aria-hidden="true" className={held ? styles.held : undefined}>
          <circle cx="20" cy="20" r="18" className={styles.ring} />
          <path
            d="M9 29h22M12 29l3-15q5-3 10 0l3 15M15.5 19.500h9M14.5 24h11"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
            strokeLinejoin="round"
          />
        </svg>
        {typing ? (
          <>
            <span className={styles.label}>Type, then Enter</span>
            <span className={styles.hint}>
              {action ? `then: ${action.label}` : 'the pedal is still while you type'}
            </span>
          </>
        ) : (
          <>
            <span className={styles.label}>{action?.label ?? 'Nothing for the foot to do here'}</span>
            {action?.hint !== undefined && <span className={styles.hint}>{action.hint}</span>}
          </>
        )}
      </button>
      <span className={styles.said} role="status">
        {said}
      </span>
      <span className={styles.keys}>
        <span>hold: {action?.held?.label ?? 'take back'}</span>
        {action?.flag && <span>twice: flag for later</span>}
      </span>
    </div>
  )
}
