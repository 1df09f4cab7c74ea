import { jobChangeOf, type JobPage as JobData, type JobRow } from '@treadle/contract'
import { BAYS, GATE_TITLES, type Bay } from '@treadle/core'
import { NativeSelect } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { Link, NavLink, Outlet, useLocation, useParams } from 'react-router'
import { ApiProblem } from '../data/api.ts'
import { sentenceOf, useChange, useJob } from '../data/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import { Mark } from '../parts/Mark.tsx'
import { whenShort } from '../parts/say.ts'
import { PedalBar } from '../pedal/PedalBar.tsx'
import { SURFACES } from '../surfaces/index.ts'
import styles from './JobPage.module.css'

/** The bays as tabs, each with its surfaces; what is of the whole job stands last. */
const TABS = [...BAYS, { bay: null, title: 'Journal' }].map(({ bay, title }) => ({
  bay,
  title,
  surfaces: SURFACES.filter((s) => s.bay === bay),
}))

/** One visit of one clock: its head, the surfaces of its bays, and the pedal. */
export function JobPage() {
  const { id = '' } = useParams()
  const job = useJob(id)
  return (
    <>
      <Loaded query={job}>
        {(data) => (
          <div className={styles.page}>
            <Head data={data} />
            <Outlet context={data} />
          </div>
        )}
      </Loaded>
      <PedalBar />
    </>
  )
}

function Head({ data }: { data: JobData }) {
  const change = useChange()
  const order = BAYS.map((b) => b.bay)
  const path = useLocation().pathname.split('/')[3]
  const here = TABS.find((t) => t.surfaces.some((s) => s.path === path))
  const { job } = data
  const moveTo = (bay: Bay, from: JobRow = job) => {
    change.mutate(
      { method: 'PATCH', path: `/jobs/${job.id}`, body: { ...jobChangeOf(from), bay } },
      {
        onError: (error) => {
          // Only the bay is meant, so a change of anything else meanwhile is kept and the bay moved on it.
          if (error instanceof ApiProblem && error.status === 409 && error.current) moveTo(bay, error.current as JobRow)
          else notifications.show({ color: 'red', title: 'Not moved', message: sentenceOf(error) })
        },
      },
    )
  }
  return (
    <div className={styles.head}>
      <h1 className={styles.name}>{data.clock.name}</h1>
      <span className="quiet">
        {data.owner.name}, number {job.number}
        {job.closedAt !== null && ', closed'}
      </span>
      <nav aria-label="Surfaces of this job" className={styles.bays}>
        {TABS.map((tab) => {
          const done = tab.bay !== null && order.indexOf(tab.bay) < order.indexOf(job.bay)
          const [first] = tab.surfaces
          return (
            <Link
              key={tab.title}
              to={first?.path ?? ''}
              aria-current={tab === here ? 'true' : undefined}
              className={[styles.bay, done ? styles.done : '', tab === here ? styles.here : ''].join(' ')}
            >
              {tab.title}
            </Link>
          )
        })}
        <NativeSelect
          aria-label="Bay this clock is in"
          size="sm"
          value={job.bay}
          disabled={job.closedAt !== null}
          onChange={(e) => moveTo(e.currentTarget.value as Bay)}
          data={BAYS.map((b) => ({ value: b.bay, label: `In ${b.title}` }))}
        />
      </nav>
      {data.overrides.length > 0 && (
        <ul className={styles.overrides} aria-label="Gates overridden on this job">
          {data.overrides.map((o) => (
            <li key={o.id}>
              <Mark state="danger" label="gate overridden" />
              <span>
                Overridden by {o.who}, {whenShort(o.at)}: {GATE_TITLES[o.gate].toLowerCase()}. “{o.reason}”
              </span>
            </li>
          ))}
        </ul>
      )}
      {here && here.surfaces.length > 1 && (
        <nav aria-label={`Surfaces of ${here.title}`} className={styles.surfaces}>
          {here.surfaces.map(({ path, title }) => (
            <NavLink
              key={path}
              to={path}
              className={({ isActive }) => (isActive ? `${styles.surface} ${styles.on}` : styles.surface)}
            >
              {title}
            </NavLink>
          ))}
        </nav>
      )}
    </div>
  )
}
