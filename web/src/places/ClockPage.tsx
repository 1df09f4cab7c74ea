import dayjs from 'dayjs'
import { Link, useParams } from 'react-router'
import { useClock } from '../data/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import { ClockFigures } from '../job/ClockFigures.tsx'
import styles from './Clocks.module.css'

/** A clock with its whole history: every visit, every entry. */
export function ClockPage() {
  const { id = '' } = useParams()
  return (
    <Loaded query={useClock(id)}>
      {({ clock, owner, visits, journal }) => (
        <>
          <h1>{clock.name}</h1>
          <p className="quiet">
            {owner.name}
            {owner.address !== '' && `, ${owner.address}`}
            {owner.phone !== '' && `, ${owner.phone}`}
          </p>
          <div className={styles.history}>
            <section>
              <h2>Visits</h2>
              <ol>
                {visits.map((v) => (
                  <li key={v.id}>
                    <Link to={`/jobs/${v.id}/arrive`}>Number {v.number}</Link>,{' '}
                    {dayjs(v.receivedAt).format('D MMM YYYY')}
                    {v.closedAt ? ` to ${dayjs(v.closedAt).format('D MMM YYYY')}` : ', here now'}. “{v.complaint}”
                  </li>
                ))}
              </ol>
              <h2>Its memory</h2>
              <ol>
                {journal.map((entry) => (
                  <li key={entry.id}>
                    <span className="quiet">
                      {dayjs(entry.at).format('D MMM YYYY')}, {entry.who}.
                    </span>{' '}
                    {entry.text}
                  </li>
                ))}
              </ol>
            </section>
            <section>
              <h2>The clock’s figures</h2>
              <ClockFigures clock={clock} />
            </section>
          </div>
        </>
      )}
    </Loaded>
  )
}
