import { Fragment } from 'react'
import { Link } from 'react-router'
import { useClock } from '../data/queries.ts'
import parts from '../parts/parts.module.css'
import { dayLike, signed } from '../parts/say.ts'

/** So many visits are told, the latest first. */
const TOLD = 3

/** A clock that comes again: what was done, what its nut does, when it was last oiled, what to look out for. */
export function SeenBefore({ clockId, exceptJob = '' }: { clockId: string; exceptJob?: string }) {
  const { data } = useClock(clockId)
  const before =
    data?.visits.flatMap(({ closedAt, ...v }) =>
      v.id !== exceptJob && closedAt !== null && v.ending === '' ? [{ ...v, closedAt }] : [],
    ) ?? []
  const last = before[0]
  if (!data || !last) return null
  const outlook = data.journal.filter((e) => e.jobId === last.id && (e.kind === 'override' || e.kind === 'cause'))
  return (
    <section aria-label="It has been here before" className={parts.before}>
      <h2>It has been here before</h2>
      <p>
        {before.length === 1 ? 'Once' : `${before.length} times`}, last until {dayLike(last.closedAt, 'November 2026')}:
        “{last.complaint}” <Link to={`/clocks/${clockId}`}>Its whole history</Link>
      </p>
      <dl className={parts.facts}>
        <dt>Last oil</dt>
        <dd>{data.learned.lastOiledAt ? dayLike(data.learned.lastOiledAt, 'November 2026') : 'not written down'}</dd>
        <dt>Its nut</dt>
        <dd>
          {data.learned.secondsPerDayPerTurn === null
            ? 'not learned yet'
            : `${data.learned.secondsPerDayPerTurn.toFixed(1)} ± ${data.learned.perTurnStandardError?.toFixed(1) ?? '?'} s a day for one turn, learned on it`}
        </dd>
        {data.learned.secondsPerDayPerC !== null && (
          <>
            <dt>A degree</dt>
            <dd>
              {signed(data.learned.secondsPerDayPerC, 2)} ± {data.learned.perCStandardError?.toFixed(2) ?? '?'} s a day,
              learned on it
            </dd>
          </>
        )}
        {before.slice(0, TOLD).map((visit) => (
          <Fragment key={visit.id}>
            <dt>{dayLike(visit.closedAt, 'Nov 2026')}</dt>
            <dd>{visit.told.length === 0 ? 'Nothing was written down.' : visit.told.join(' ')}</dd>
          </Fragment>
        ))}
        {outlook.length > 0 && (
          <>
            <dt>Look out for</dt>
            <dd>
              {outlook
                .slice(0, 2)
                .map((e) => e.text)
                .join(' ')}
            </dd>
          </>
        )}
      </dl>
    </section>
  )
}
