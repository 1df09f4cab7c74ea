import type { ReactNode } from 'react'
import { Mark } from './Mark.tsx'
import styles from './parts.module.css'

/**
 * The usual caution of the trade, at the step where it applies. A view has one red box: what stands second says the same
 * beside a line, so that the first is still seen.
 */
export function Caution({ children, second = false }: { children: ReactNode; second?: boolean }) {
  return (
    <div className={second ? styles.cautionSecond : styles.caution} role="note">
      <Mark state="danger" label="danger" />
      <span>{children}</span>
    </div>
  )
}
