import dayjs from 'dayjs'
import { Link } from 'react-router'
import { useClock } from '../data/queries.ts'
import parts from '../parts/parts.module.css'

const TOLD = 4

/** A clock that comes again: what was done, what its nut does, when it was last oiled, what to look out for. */
export function SeenBefore({ clockId, exceptJob = '' }: { clockId: string; exceptJob?: string }) {
  const { data } = useClock(clockId)
  const before = data?.visits.filter((v) => v.id !== exceptJob && v.closedAt !== null) ?? []
  const last = before[0]
  if (!data || !last) return null
  const told = data.journal.filter((e) => e.jobId === last.id)
  const done = told.filter((e) => /bush|Taken apart|oiled|beat|^It was this/i.test(e.text)).slice(0, TOLD)
  const outlook = data.journal.filter((e) => e.kind === 'override' || e.kind === 'cause').slice(0, 2)
  return (
    <section aria-label="It has been here before" className={parts.before}>
      <h2>It has been here before</h2>
      <p>
        {before.length === 1 ? 'Once' : `${before.length} times`}, last until {dayjs(last.closedAt).format('MMMM YYYY')}
        : “{last.complaint}” <Link to={`/clocks/${clockId}`}>Its whole history</Link>
      </p>
      <dl className={parts.facts}>
        <dt>Last oil</dt>
        <dd>{data.learned.lastOiledAt ? dayjs(data.learned.lastOiledAt).format('MMMM YYYY') : 'not written down'}</dd>
        <dt>Its nut</dt>
        <dd>
          {data.learned.secondsPerDayPerTurn === null
            ? 'not learned yet'
            : `${data.learned.secondsPerDayPerTurn.toFixed(1)} ± ${data.learned.perTurnStandardError?.toFixed(1) ?? '?'} s a day for one turn, learned on it`}
        </dd>
        {done.length > 0 && (
          <>
            <dt>What was done</dt>
            <dd>{done.map((e) => e.text).join(' ')}</dd>
          </>
        )}
        {outlook.length > 0 && (
          <>
            <dt>Look out for</dt>
            <dd>{outlook.map((e) => e.text).join(' ')}</dd>
          </>
        )}
      </dl>
    </section>
  )
}
