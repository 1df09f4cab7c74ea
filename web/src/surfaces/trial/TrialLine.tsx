import type { RateEventRow } from '@treadle/contract'
import { secondsOf, type JobTrial } from '@treadle/core'
import styles from './Trial.module.css'
import { dayLike } from '../../parts/say.ts'

const DAY_S = 86_400

/** The days of a trial on a line: gone and to come, with its windings, and the changes before it that began it anew. */
export function TrialLine({ trial, events, nowS }: { trial: JobTrial; events: RateEventRow[]; nowS: number }) {
  const { countsFromS, endsAtS, days } = trial
  const x = (s: number) => Math.max(0, Math.min(100, (100 * (s - countsFromS)) / (endsAtS - countsFromS)))
  const wound = events.filter((e) => e.kind === 'winding' && secondsOf(e.at) > countsFromS && secondsOf(e.at) <= nowS)
  const gone = x(nowS)
  return (
    <svg
      viewBox="-2 0 104 16"
      className={styles.line}
      role="img"
      aria-label={`${Math.min(days, Math.floor((nowS - countsFromS) / DAY_S))} of ${days} days gone, wound ${wound.length} times`}
    >
      <path d="M0 8H100" className={styles.track} />
      <path d={`M0 8H${gone}`} className={styles.gone} />
      {Array.from({ length: days + 1 }, (_, i) => (
        <path key={i} d={`M${(100 * i) / days} 6V10`} className={styles.tick} />
      ))}
      {wound.map((e) => (
        <g key={e.id} transform={`translate(${x(secondsOf(e.at))} 8)`}>
          <title>Wound {dayLike(e.at, '27 Nov')}</title>
          <circle r="1.6" className={styles.wound} />
          <path d="M0 -1.600V-4" className={styles.tick} />
        </g>
      ))}
      <circle cx={gone} cy="8" r="1.1" className={styles.now} />
    </svg>
  )
}
