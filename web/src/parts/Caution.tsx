import type { ReactNode } from 'react'
import { Mark } from './Mark.tsx'
import styles from './parts.module.css'

/** The usual caution of the trade, at the step where it applies. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <div className={styles.caution} role="note">
      <Mark state="danger" label="danger" />
      <span>{children}</span>
    </div>
  )
}
