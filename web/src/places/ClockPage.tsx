import { dayLike, spoken } from '../parts/say.ts'
import { Link, useParams } from 'react-router'
import { useClock } from '../data/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import type { Clock } from '@treadle/contract'
import { sayNotKept, useChange } from '../data/queries.ts'
import { SinksSeen } from '../job/SinksSeen.tsx'
import { ClockFigures } from '../job/ClockFigures.tsx'
import { CallBack } from './CallBack.tsx'
import { DueHere } from './care/DueHere.tsx'
import { ChooseOwner } from './ChooseOwner.tsx'
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
            <Link to={`/owners/${owner.id}`}>{owner.name}</Link>
            {owner.address !== '' && `, ${owner.address}`}
            {owner.phone !== '' && `, ${owner.phone}`}
          </p>
          <div className={styles.history}>
            <section>
              <h2>Visits</h2>
              <ol>
                {visits.map((v) => (
                  <li key={v.id}>
                    <Link to={`/jobs/${v.id}/arrive`}>Number {v.number}</Link>, {dayLike(v.receivedAt, '27 Nov 2026')}
                    {v.closedAt ? ` to ${dayLike(v.closedAt, '27 Nov 2026')}` : ', here now'}
                    {v.ending === 'called-off' && ', called off'}. “{v.complaint}”
                    {v.told.length > 0 && <span className={styles.told}>{v.told.join(' ')}</span>}
                  </li>
                ))}
              </ol>
              <DueHere clockId={clock.id} />
              <CallBack clock={clock} />
              <SinksSeen clockId={clock.id} />
              <h2>Its memory</h2>
              <ol>
                {journal.map((entry) => (
                  <li key={entry.id}>
                    <span className="quiet">
                      {dayLike(entry.at, '27 Nov 2026')}, {entry.who}.
                    </span>{' '}
                    {spoken(entry.text)}
                  </li>
                ))}
              </ol>
            </section>
            <section>
              <h2>The clock’s figures</h2>
              <ClockFigures clock={clock} />
              <PassedOn clock={clock} ownerId={owner.id} />
              <p className={styles.carry}>
                <a href={`/api/clocks/${clock.id}/archive.zip`} download>
                  Its whole history, one zip
                </a>
              </p>
            </section>
          </div>
        </>
      )}
    </Loaded>
  )
}

/** A clock that was sold, left or given away: it keeps its history and passes to another owner. */
function PassedOn({ clock, ownerId }: { clock: Clock; ownerId: string }) {
  const change = useChange('clock', 'clocks', 'owner', 'owners', 'find')
  return (
    <details>
      <summary>It has passed to another owner</summary>
      <ChooseOwner
        label="To whom"
        except={ownerId}
        say="It is theirs now"
        onChoose={(to) =>
          change.mutate(
            { method: 'PATCH', path: `/clocks/${clock.id}/owner`, body: { version: clock.version, ownerId: to.id } },
            { onError: sayNotKept },
          )
        }
      />
      <p className="quiet">Somebody new is written down when they bring it in: choose the clock there first.</p>
    </details>
  )
}
