import { SegmentedControl } from '@mantine/core'
import { memo, useCallback } from 'react'
import styles from './Pick.module.css'
import { useLatest } from './useLatest.ts'

/** One of a few words, with what is asked before them. */
export function Pick<T extends string>({
  label,
  value,
  of,
  onPick,
}: {
  label: string
  value: T
  /** the words to choose from, or pairs of what is kept and what is shown */
  of: readonly (T | [T, string])[]
  onPick: (value: T) => void
}) {
  const latest = useLatest(onPick)
  const pick = useCallback((v: string) => latest.current(v as T), [latest])
  return (
    <div className={styles.pick}>
      <span>{label}</span>
      <Words label={label} value={value} of={of} onPick={pick} />
    </div>
  )
}

interface WordsProps {
  label: string
  value: string
  of: readonly (string | [string, string])[]
  onPick: (value: string) => void
}

/** Drawn anew only where the words or the one that is picked changed: a press seldom changes more than one. */
const Words = memo(
  function Words({ label, value, of, onPick }: WordsProps) {
    return (
      <SegmentedControl
        aria-label={label}
        value={value}
        onChange={onPick}
        data={of.map((one) =>
          typeof one === 'string' ? { value: one, label: one } : { value: one[0], label: one[1] },
        )}
      />
    )
  },
  (a, b) => a.label === b.label && a.value === b.value && a.onPick === b.onPick && sameWords(a.of, b.of),
)

/** Pages write the words out where they ask: the same ones are another list each time. */
function sameWords(a: WordsProps['of'], b: WordsProps['of']): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b)
}
