import type { WorkStep } from '@treadle/core'
import { Checkbox } from '@mantine/core'
import { Caution } from './Caution.tsx'
import styles from './Steps.module.css'

/** The steps of a piece of work, the next one marked, each with its way back; its caution stands at the step. */
export function Steps({
  steps,
  done,
  onDone,
  locked = false,
}: {
  steps: WorkStep[]
  /** keys of those that are done */
  done: string[]
  onDone: (done: string[]) => void
  /** something has to be said first */
  locked?: boolean
}) {
  const next = steps.find((s) => !done.includes(s.key))
  return (
    <ol className={styles.steps}>
      {steps.map((s) => {
        const isDone = done.includes(s.key)
        return (
          <li
            key={s.key}
            aria-current={s === next ? 'step' : undefined}
            className={s === next ? styles.now : undefined}
          >
            <Checkbox
              size="md"
              label={s.title}
              checked={isDone}
              disabled={locked && !isDone}
              onChange={(e) => onDone(e.currentTarget.checked ? [...done, s.key] : done.filter((key) => key !== s.key))}
            />
            {!isDone && <p>{s.does}</p>}
            {s === next && s.caution !== undefined && <Caution>{s.caution} Follow your local rules.</Caution>}
          </li>
        )
      })}
    </ol>
  )
}
