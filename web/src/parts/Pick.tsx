import { SegmentedControl } from '@mantine/core'
import styles from './Pick.module.css'

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
  return (
    <div className={styles.pick}>
      <span>{label}</span>
      <SegmentedControl
        aria-label={label}
        value={value}
        onChange={(v) => onPick(v)}
        data={of.map((one) =>
          typeof one === 'string' ? { value: one, label: one } : { value: one[0], label: one[1] },
        )}
      />
    </div>
  )
}
