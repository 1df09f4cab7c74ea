import type { JobPage as JobData } from '@treadle/contract'
import { BAYS, GATE_TITLES, SCOPE_TITLES, type Bay } from '@treadle/core'
import { NativeSelect } from '@mantine/core'
import { useEffect, useRef } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router'
import { useJob } from '../data/queries.ts'
import { useMoveTo } from '../job/useMoveTo.ts'
import { Loaded } from '../parts/Loading.tsx'
import { Mark } from '../parts/Mark.tsx'
import { whenShort } from '../parts/say.ts'
import { usePedalOnward } from '../pedal/Pedal.tsx'
import { PedalBar } from '../pedal/PedalBar.tsx'
import { SURFACES } from '../surfaces/index.ts'
import { onwardFrom } from './onward.ts'
import { whenIdle } from '../parts/whenIdle.ts'
import { Unreadable } from './Unreadable.tsx'
import styles from './JobPage.module.css'

/** The bays as tabs, each with its surfaces; what is of the whole job stands last. */
const TABS = [...BAYS, { bay: null, title: 'Visit' }].map(({ bay, title }) => ({
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

/** Where the surface has nothing for the foot, it goes on to what the clock is owed, or to the next surface. */
function useOnward(data: JobData, path: string) {
  const navigate = useNavigate()
  const to = onwardFrom(data, path)
  usePedalOnward(
    to && {
      label: to.label,
      hint: to.hint,
      press: () => {
        void navigate(`/jobs/${data.job.id}/${to.path}`)
        return () => void navigate(`/jobs/${data.job.id}/${path}`)
      },
    },
  )
}

function Head({ data }: { data: JobData }) {
  const order = BAYS.map((b) => b.bay)
  const path = useLocation().pathname.split('/')[3]
  const here = TABS.find((t) => t.surfaces.some((s) => s.path === path))
  const { job } = data
  const moveTo = useMoveTo(job)
  useOnward(data, path ?? '')
  // The other surfaces of the bay come next: they are here before they are asked for.
  const bay = here?.title
  useEffect(() => {
    const next = TABS.find((t) => t.title === bay)?.surfaces ?? []
    return whenIdle([...next.map((s) => s.load), ...next.flatMap((s) => s.chart ?? [])])
  }, [bay])
  const surfaces = useRef<HTMLElement>(null)
  useEffect(() => {
    const nav = surfaces.current
    const here = nav?.querySelector<HTMLElement>('[aria-current="page"]')
    if (nav && here) nav.scrollLeft = here.offsetLeft - nav.offsetLeft - (nav.clientWidth - here.clientWidth) / 2
  }, [path])
  return (
    <div className={styles.head}>
      <h1 className={styles.name}>{data.clock.name}</h1>
      <span className={`quiet ${styles.owner}`}>
        {data.owner.name}, number {job.number}
        {job.numberElsewhere !== null && ` (${job.numberElsewhere} where it came from)`}
        {job.closedAt !== null && (job.ending === 'called-off' ? ', called off' : ', closed')}
        {job.closedAt === null &&
          job.waitsFor !== '' &&
          `, waits for ${job.waitsFor === 'parts' ? 'parts' : 'the owner'}`}
        {job.scope !== 'whole' && `. ${SCOPE_TITLES[job.scope]}${job.scopeTrain === '' ? '' : `: ${job.scopeTrain}`}`}
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
          className={styles.inBay}
          aria-label="Bay this clock is in"
          size="sm"
          value={job.bay}
          disabled={job.closedAt !== null}
          onChange={(e) => moveTo(e.currentTarget.value as Bay)}
          data={BAYS.map((b) => ({ value: b.bay, label: `In ${b.title}` }))}
        />
      </nav>
      <Unreadable jobId={job.id} rows={data.unreadable} />
      {data.overrides.length > 0 && (
        <ul className={styles.overrides} aria-label="Gates overridden on this job">
          {data.overrides.map((o) => (
            <li key={o.id} className={o.brought === null ? styles.overridden : ''}>
              <Mark
                state={o.brought === null ? 'danger' : 'watch'}
                label={o.brought === null ? 'gate overridden' : 'overridden elsewhere'}
              />
              <span>
                {o.brought === null
                  ? `Overridden by ${o.who}, ${whenShort(o.at)}`
                  : `Overridden elsewhere by ${o.who}, ${whenShort(o.at)}, and brought by an archive on ${whenShort(o.brought.at)}; it opens nothing here`}
                : “{GATE_TITLES[o.gate]}”. The reason: “{o.reason}”
              </span>
            </li>
          ))}
        </ul>
      )}
      {here && here.surfaces.length > 1 && (
        <nav aria-label={`Surfaces of ${here.title}`} className={styles.surfaces} ref={surfaces}>
          {here.surfaces
            .filter((s) => s.of?.(data.clock) ?? true)
            .map(({ path, title }) => (
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
