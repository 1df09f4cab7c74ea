import type { JobPage as JobData, JobRow } from '@treadle/contract'
import { BAYS, type Bay } from '@treadle/core'
import { NativeSelect } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { NavLink, Outlet, useOutletContext, useParams } from 'react-router'
import { ApiProblem } from '../app/api.ts'
import { sentenceOf, useChange, useJob } from '../app/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import { PedalBar } from '../pedal/PedalBar.tsx'
import styles from './JobPage.module.css'

const SURFACES: [path: string, title: string, bay: Bay | null][] = [
  ['arrive', 'Arrive', 'arrive'],
  ['power', 'Strip: power', 'strip'],
  ['holes', 'Mend: holes', 'mend'],
  ['listen', 'Set: beat', 'set'],
  ['rate', 'Set: rate', 'set'],
  ['card', 'Return', 'return'],
  ['journal', 'Journal', null],
]

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

/** The job that the surface is of. */
export function useJobData(): JobData {
  return useOutletContext<JobData>()
}

function Head({ data }: { data: JobData }) {
  const change = useChange()
  const order = BAYS.map((b) => b.bay)
  const { job } = data
  const moveTo = (bay: Bay, from: JobRow = job) => {
    const { version, complaint, runs, cameWith, promisedOn } = from
    change.mutate(
      { method: 'PATCH', path: `/jobs/${job.id}`, body: { version, bay, complaint, runs, cameWith, promisedOn } },
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
        {SURFACES.map(([path, title, bay]) => {
          const done = bay !== null && order.indexOf(bay) < order.indexOf(job.bay)
          return (
            <NavLink
              key={path}
              to={path}
              className={({ isActive }) => [styles.bay, done ? styles.done : '', isActive ? styles.here : ''].join(' ')}
            >
              {title}
            </NavLink>
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
    </div>
  )
}
