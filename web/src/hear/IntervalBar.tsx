import { sided, type HeardIntervals } from '@treadle/core'
import styles from './Listen.module.css'

/** The period split by the two releases, against the even half. */
export function IntervalBar(intervals: HeardIntervals) {
  const told = sided(intervals)
  const [one, two] = told
    ? [told.rightToLeftMs, told.leftToRightMs]
    : [intervals.firstToSecondMs, intervals.secondToFirstMs]
  const share = (100 * one) / (one + two)
  return (
    <figure className={styles.interval}>
      <div className={styles.bar}>
        <span style={{ width: `${share}%` }}>
          {told ? 'right to left' : 'one way'} {one.toFixed(1)} ms
        </span>
        <span style={{ width: `${100 - share}%` }}>
          {told ? 'left to right' : 'the other'} {two.toFixed(1)} ms
        </span>
        <i aria-hidden="true" />
      </div>
      <figcaption>
        even is in the middle; now {share.toFixed(1)} to {(100 - share).toFixed(1)}
      </figcaption>
    </figure>
  )
}
