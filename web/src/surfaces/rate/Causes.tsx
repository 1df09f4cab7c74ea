import { READING_WAY_TITLES } from '@treadle/contract'
import {
  arcChangeInWords,
  arcChangeOf,
  causesOf,
  pendulumTells,
  sharesOf,
  type RateBook,
  type RateBookInput,
  type ReadingWay,
} from '@treadle/core'
import { Fold } from '../../parts/Fold.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { count } from '../../parts/say.ts'
import { useJobData } from '../../job/useJobData.ts'
import styles from './Rate.module.css'

/** What the clock's rate follows beside its nut, and what each way of reading gives to the answer. */
export function Causes({ book, input }: { book: RateBook; input: RateBookInput }) {
  const { pendulums } = useJobData()
  const causes = causesOf(book, pendulumTells(pendulums.at(-1)?.parts)?.warmth ?? null)
  const arc = arcChangeOf(book, input)
  return (
    <>
      {(causes.length > 0 || arc) && (
        <section aria-label="What its rate follows" className={styles.rule}>
          <h3>What its rate follows</h3>
          <ul className={styles.causes}>
            {causes.map((c) => (
              <li key={c.what}>
                <Mark state={c.told ? 'watch' : 'sound'} label={c.told ? 'it follows it' : 'not told'} /> {c.words}
              </li>
            ))}
            {arc && (
              <li>
                <Mark state={arc.more ? 'watch' : 'sound'} label={arc.more ? 'more than its arc' : 'its arc alone'} />{' '}
                {arcChangeInWords(arc)}
              </li>
            )}
          </ul>
        </section>
      )}
      <Fold title="What each way of reading gives to it">
        <Shares input={input} />
      </Fold>
    </>
  )
}

/** Reckoned only when it is asked for: the book without each way, one after another. */
function Shares({ input }: { input: RateBookInput }) {
  const shares = sharesOf(input)
  if (shares.length === 0) return <p>Nothing is told of its rate yet.</p>
  return (
    <>
      <ul className={styles.causes}>
        {shares.map(({ by, count: n, share }) => (
          <li key={by}>
            <b>{Math.round(100 * share)} in a hundred</b> {nameOf(by)}, {count(n, 'time')}
          </li>
        ))}
      </ul>
      <p className="quiet">By how much less would be known of the rate without it.</p>
    </>
  )
}

function nameOf(by: string): string {
  const way = READING_WAY_TITLES[by as ReadingWay] as string | undefined
  return way ?? by
}
