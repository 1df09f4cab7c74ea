import { Link } from 'react-router'
import { useCare } from '../../data/queries.ts'
import { dayShort, daysSpoken } from '../../parts/say.ts'
import { careTitle } from './careTitles.ts'
import styles from './Care.module.css'

/** What falls due of this clock within the year, and what to look at on the day. */
export function DueHere({ clockId }: { clockId: string }) {
  const { data } = useCare(12)
  const dues = data?.filter((due) => due.clock.id === clockId) ?? []
  if (dues.length === 0) return null
  return (
    <section aria-label="Due">
      <h2>Due</h2>
      {dues.map((due) => (
        <div key={due.kind}>
          <p>
            <b>
              {dayShort(due.dueOn)} {due.dueOn.slice(0, 4)}: {careTitle(due)}
            </b>
            , {daysSpoken(due.why)}
          </p>
          <ul className={styles.look}>
            {due.look.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      ))}
      <p>
        <Link to="/care">Write to its owner</Link>
      </p>
    </section>
  )
}
