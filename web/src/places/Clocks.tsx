import { CLOCK_KIND_TITLES } from '@treadle/contract'
import { TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { Link, useSearchParams } from 'react-router'
import { useBench, useClocks } from '../data/queries.ts'
import { ClockGlyph } from '../parts/ClockGlyph.tsx'
import { Loaded } from '../parts/Loading.tsx'
import { count, dayLike, dayShort } from '../parts/say.ts'
import styles from './Clocks.module.css'

/** Every clock and owner the workshop knows. */
export function Clocks() {
  const [search, setSearch] = useSearchParams()
  const words = search.get('q') ?? ''
  const [asked] = useDebouncedValue(words.trim(), 200)
  const clocks = useClocks(asked)
  return (
    <>
      <h1>Clocks</h1>
      <p className={styles.ways}>
        <Link to="/care">Due at home, months ahead</Link>
        <Link to="/year">The year of the workshop</Link>
      </p>
      <TextInput
        label="Find a clock or an owner"
        description="Name, owner or marks"
        value={words}
        onChange={(e) =>
          setSearch(e.currentTarget.value === '' ? {} : { q: e.currentTarget.value }, {
            replace: true,
            flushSync: true,
          })
        }
        maw={420}
        my="md"
      />
      <div className={styles.beside}>
        <Loaded query={clocks}>
          {(list) =>
            list.length === 0 ? (
              <p>
                {asked === '' ? 'No clock has been here yet. ' : 'None is known under those words. '}
                <Link to="/take-in">Take one in</Link>.
              </p>
            ) : (
              <ul className={styles.list} aria-label="Clocks">
                {list.map(({ clock, owner, visits }) => (
                  <li key={clock.id}>
                    <ClockGlyph kind={clock.kind} />
                    <div>
                      <Link to={`/clocks/${clock.id}`} className={styles.name}>
                        {clock.name}
                      </Link>
                      <p className="quiet">
                        {owner.name}. {CLOCK_KIND_TITLES[clock.kind]}. {clock.marks}
                      </p>
                    </div>
                    <p className={styles.visits}>
                      {count(visits.length, 'visit')}
                      <br />
                      <span className="quiet">
                        {visits[0] &&
                          `${visits[0].closedAt ? 'last' : 'here since'} ${dayLike(visits[0].closedAt ?? visits[0].receivedAt, 'Nov 2026')}`}
                      </span>
                    </p>
                  </li>
                ))}
              </ul>
            )
          }
        </Loaded>
        <Here />
      </div>
    </>
  )
}

/** Beside the book: what is in the workshop now, by its promise, and what is due at home. */
function Here() {
  const { data } = useBench()
  if (!data) return null
  const tags = [...data.tags].sort((a, b) => (a.job.promisedOn ?? '9').localeCompare(b.job.promisedOn ?? '9'))
  return (
    <aside aria-label="Here now">
      <h2>Here now</h2>
      <ul className={styles.here}>
        {tags.slice(0, 12).map(({ job, clock }) => (
          <li key={job.id}>
            <Link to={`/jobs/${job.id}`}>
              {job.number}, {clock.name}
            </Link>
            <span className="quiet">
              {job.promisedOn === null ? 'nothing promised' : `promised ${dayShort(job.promisedOn)}`}
            </span>
          </li>
        ))}
      </ul>
      {data.recalls.length > 0 && (
        <>
          <h2>At home, and due</h2>
          <ul className={styles.here}>
            {data.recalls.slice(0, 12).map(({ job, clock, owner }) => (
              <li key={job.id}>
                <Link to={`/clocks/${clock.id}`}>{clock.name}</Link>
                <span className="quiet">{[owner.name, owner.phone].filter(Boolean).join(', ')}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </aside>
  )
}
