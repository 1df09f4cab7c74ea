import type { WorkStep } from '@treadle/core'
import { Checkbox } from '@mantine/core'
import { memo, useCallback } from 'react'
import { Caution } from './Caution.tsx'
import styles from './Steps.module.css'
import { useLatest } from './useLatest.ts'

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
  const latest = useLatest({ done, onDone })
  const tick = useCallback(
    (key: string, isDone: boolean) => {
      const now = latest.current
      now.onDone(isDone ? [...now.done, key] : now.done.filter((k) => k !== key))
    },
    [latest],
  )
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
            <Box of={s.key} title={s.title} isDone={isDone} locked={locked && !isDone} onTick={tick} />
            {!isDone && <p>{s.does}</p>}
            {s === next && s.caution !== undefined && <Caution>{s.caution} Follow your local rules.</Caution>}
          </li>
        )
      })}
    </ol>
  )
}

interface BoxProps {
  /** the step's key */
  of: string
  title: string
  isDone: boolean
  locked: boolean
  onTick: (key: string, isDone: boolean) => void
}

/** Drawn anew only where it changed: a press ticks one of a dozen. */
const Box = memo(function Box({ of, title, isDone, locked, onTick }: BoxProps) {
  return (
    <Checkbox
      size="md"
      label={title}
      checked={isDone}
      disabled={locked}
      onChange={(e) => onTick(of, e.currentTarget.checked)}
    />
  )
})
