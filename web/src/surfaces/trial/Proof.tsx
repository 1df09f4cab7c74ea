import { useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import type { ProofLine } from '../../job/proof.ts'
import { ClockGlyph } from '../../parts/ClockGlyph.tsx'
import styles from './Trial.module.css'
import { dayLike, dayToday } from '../../parts/say.ts'

/** What the trial proved, on paper for the owner. */
export function Proof({ lines }: { lines: ProofLine[] }) {
  const { job, clock, owner } = useJobData()
  const { data: settings } = useSettings()
  return (
    <article className={styles.proof} aria-label="The proof of its trial">
      <header>
        <div>
          <p className={styles.shop}>{settings?.workshop}</p>
          <h1>{clock.name}</h1>
          <p>
            Proof of its trial, for {owner.name}; job {job.number}, {dayLike(dayToday(), '27 November 2026')}
          </p>
        </div>
        <ClockGlyph kind={clock.kind} />
      </header>
      <dl>
        {lines.map((l) => (
          <div key={l.title}>
            <dt>{l.title}</dt>
            <dd>{l.words}</dd>
          </div>
        ))}
      </dl>
    </article>
  )
}
