import { AGAIN_YEARS, type Evidence, type YearTold } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { lazy, Suspense } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useYear } from '../data/queries.ts'
import { Loaded } from '../parts/Loading.tsx'
import { count, dayLike, dayToday, times } from '../parts/say.ts'
import styles from './year/Year.module.css'

const MonthsChart = lazy(() => import('./year/MonthsChart.tsx'))

/** The shop's own evidence: what came and why, what came back too soon, which oil and which bush it was. */
export function Year() {
  const [search, setSearch] = useSearchParams()
  const asked = search.get('until') ?? ''
  const until = /^\d{4}-(0[1-9]|1[0-2])$/.test(asked) ? asked : dayToday().slice(0, 7)
  const year = useYear(until)
  const go = (years: number) => setSearch({ until: monthsOn(until, 12 * years) }, { replace: true })
  const isNow = until >= dayToday().slice(0, 7)
  return (
    <>
      <Group className={styles.head}>
        <h1>The year of the workshop</h1>
        <Button variant="default" onClick={() => go(-1)}>
          The year before
        </Button>
        <Button variant="default" disabled={isNow} onClick={() => go(1)}>
          The year after
        </Button>
        <a href={`/api/year.csv?until=${until}`} download="treadle-year.csv">
          Its visits as CSV
        </a>
      </Group>
      <p className="quiet">
        {dayLike(`${monthsOn(until, -11)}-01`, 'November 2026')} to {dayLike(`${until}-01`, 'November 2026')}
      </p>
      <Loaded query={year}>{(told) => <YearOf told={told} />}</Loaded>
    </>
  )
}

function YearOf({ told }: { told: YearTold }) {
  const sum = (key: 'came' | 'left' | 'again') => told.months.reduce((n, m) => n + m[key], 0)
  const most = told.causes[0]?.times ?? 1
  return (
    <div className={styles.columns}>
      <section>
        <p className={styles.big}>
          {count(sum('came'), 'clock')} came, {sum('again')} of them back too soon; {sum('left')} went home
        </p>
        <Suspense fallback={<p className="quiet">Drawing…</p>}>
          <MonthsChart
            months={told.months}
            label={`Clocks by month: ${told.months.map((m) => `${m.month} ${m.came} came, ${m.left} went home`).join('; ')}`}
          />
        </Suspense>
        <h2>Came back within {AGAIN_YEARS} years</h2>
        {told.again.length === 0 ? (
          <p className={styles.say}>None did.</p>
        ) : (
          <table className={styles.table}>
            <thead>
              <tr>
                <th scope="col">Clock</th>
                <th scope="col">after</th>
                <th scope="col">It was</th>
                <th scope="col">oiled with</th>
                <th scope="col">bushes</th>
              </tr>
            </thead>
            <tbody>
              {told.again.map((a) => (
                <tr key={a.jobId}>
                  <td>
                    <Link to={`/clocks/${a.clockId}`}>{a.clock}</Link>
                  </td>
                  <td>{count(a.days, 'day')}</td>
                  <td>{a.causes.join('; ') || 'not said'}</td>
                  <td>{a.oil ?? 'not said'}</td>
                  <td>{a.bushes.join('; ') || 'none'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <section>
        <h2>Why they came</h2>
        {told.causes.length === 0 && (
          <p className={styles.say}>
            No cause was confirmed in these months. Under Trouble, say what it was, and it is counted here.
          </p>
        )}
        <ul className={styles.causes}>
          {told.causes.map(({ cause, times: n }) => (
            <li key={cause}>
              <span>{cause}</span>
              <span className={styles.bar} style={{ width: `${(100 * n) / most}%` }} aria-hidden="true" />
              <b>{times(n)}</b>
            </li>
          ))}
        </ul>
        {told.noCause > 0 && told.causes.length > 0 && (
          <p className="quiet">Of {count(told.noCause, 'visit')} nobody said what it was.</p>
        )}
        <Evidences
          title="Which oil"
          of={told.oils}
          what={`came back within ${AGAIN_YEARS} years, over all years`}
          none="No oil was named on a visit that ended."
        />
        <Evidences
          title="Which bush"
          of={told.bushes}
          what="of the holes that were seen again were bushed again"
          none="No hole was bushed on a visit that ended."
        />
      </section>
    </div>
  )
}

function Evidences({ title, of, what, none }: { title: string; of: Evidence[]; what: string; none: string }) {
  const percent = (share: number) => `${Math.round(100 * share)}`
  return (
    <>
      <h2>{title}</h2>
      {of.length === 0 ? (
        <p className={styles.say}>{none}</p>
      ) : (
        <>
          <ul className={styles.evidence}>
            {of.map(({ name, share, notYet }) => (
              <li key={name}>
                <b>{name}</b>
                {share.of === 0 ? (
                  <span className="quiet">nothing to tell yet, {count(notYet, 'visit')} too young</span>
                ) : (
                  <>
                    <span>
                      {share.times} of {share.of}
                    </span>
                    <span
                      className={styles.span}
                      role="img"
                      aria-label={`between ${percent(share.low)} and ${percent(share.high)} per cent`}
                    >
                      <i style={{ left: `${100 * share.low}%`, right: `${100 - 100 * share.high}%` }} />
                      <em style={{ left: `${(100 * share.times) / share.of}%` }} />
                    </span>
                    <span className="quiet">
                      {percent(share.low)} to {percent(share.high)} %{notYet > 0 ? `, ${notYet} too young to tell` : ''}
                    </span>
                  </>
                )}
              </li>
            ))}
          </ul>
          <p className="quiet">
            So many {what}; between brackets where the truth is likely to lie (95 %): few clocks tell little.
          </p>
        </>
      )}
    </>
  )
}

/** The month, YYYY-MM, so many months on, or back. */
function monthsOn(month: string, by: number): string {
  const [year, of] = month.split('-').map(Number)
  return new Date(Date.UTC(year!, of! - 1 + by)).toISOString().slice(0, 7)
}
