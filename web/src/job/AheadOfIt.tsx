import { NO_HOME, type Settings } from '@treadle/contract'
import {
  aheadOf,
  homeInWords,
  pendulumTells,
  perDegreeOf,
  seasonInWords,
  warmthLately,
  type RateBook,
  type RateBookInput,
} from '@treadle/core'
import { Link } from 'react-router'
import { useJobData } from './useJobData.ts'
import { leaning } from '../parts/say.ts'
import { useNow } from '../parts/useNow.ts'

/** What to expect of it at its owner's: gravity and warmth there, and the year. */
export function AheadOfIt({
  book,
  input,
  settings,
  className,
}: {
  book: RateBook
  input: RateBookInput
  settings: Settings
  className?: string | undefined
}) {
  const { clock, footings, pendulums } = useJobData()
  const footing = footings.at(-1)
  const perC = perDegreeOf(book, pendulumTells(pendulums.at(-1)?.parts)?.warmth ?? null)
  const month = new Date(useNow(3_600_000)).getMonth() + 1
  const ahead = aheadOf(settings, warmthLately(input), clock.home ?? NO_HOME, perC, month)
  const season = ahead?.season ? seasonInWords(ahead.season) : null
  return (
    <section aria-label="At its owner’s" className={className}>
      <h3>At its owner’s</h3>
      {ahead ? (
        <>
          <p>{homeInWords(ahead)}</p>
          {season !== null && <p>{season}</p>}
        </>
      ) : (
        <p className="quiet">
          Say under <Link to="../pendulum">Pendulum</Link> where it stands and how warm its room is, and the rate there
          is told.
        </p>
      )}
      {footing && (
        <p>
          Its footing: it is in beat with its case leaning {leaning(footing.evenAtDeg)}. Stood so there it keeps the arc
          it has here, and with it its rate.
        </p>
      )}
    </section>
  )
}
