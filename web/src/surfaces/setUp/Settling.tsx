import type { ListeningSummary, Settings } from '@treadle/contract'
import { gradeHeard, outOfBeatMs, SETTLE_MINUTES, splitTold } from '@treadle/core'
import { Link } from 'react-router'
import { useJobData } from '../../job/useJobData.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { signed } from '../../parts/say.ts'
import { useNow } from '../../parts/useNow.ts'
import { heardInPlace } from './BeatInPlace.tsx'
import styles from './SetUp.module.css'

const MINUTE_MS = 60_000

function minutesSince(goingAt: string, nowMs: number): number {
  return (nowMs - Date.parse(goingAt)) / MINUTE_MS
}

/** How long it is still left alone; null: long enough. */
export function heldToSettle(goingAt: string | null, nowMs = Date.now()): string | null {
  if (goingAt === null) return 'It was not set going yet.'
  const left = Math.ceil(SETTLE_MINUTES - minutesSince(goingAt, nowMs))
  return left > 0 ? `${left} ${left === 1 ? 'minute' : 'minutes'} more; go on with the next steps meanwhile.` : null
}

/** The minutes that its arc has had, and how it runs here against how it ran on the stand. */
export function Settling({ goingAt, settings }: { goingAt: string | null; settings: Settings }) {
  const { listenings } = useJobData()
  const now = useNow(10_000)
  const here = heardInPlace(listenings)
  const stand = listenings.findLast((l) => ['beat', 'trial'].includes(l.purpose) && splitTold(l))
  const had = goingAt === null ? 0 : Math.min(SETTLE_MINUTES, Math.max(0, Math.floor(minutesSince(goingAt, now))))
  return (
    <>
      <p className={styles.big}>
        {had} of {SETTLE_MINUTES} minutes
      </p>
      {here && stand ? (
        <Against here={here} stand={stand} settings={settings} />
      ) : (
        <p className={styles.say}>
          {here
            ? 'It was not heard on the stand, so there is nothing to hold it against.'
            : 'It was not heard here yet.'}
        </p>
      )}
      <p className={styles.go}>
        <Link to="../listen">Hear it {here ? 'again' : 'here'}</Link>
      </p>
    </>
  )
}

function Against({ here, stand, settings }: { here: ListeningSummary; stand: ListeningSummary; settings: Settings }) {
  const rows: [string, string, string][] = [
    ['Out of beat, ms', outOfBeatMs(stand).toFixed(1), outOfBeatMs(here).toFixed(1)],
    ['Scatter of a beat, ms', stand.scatterMs.toFixed(2), here.scatterMs.toFixed(2)],
    ['Rate heard, s a day', signed(stand.rateSecondsPerDay, 1), signed(here.rateSecondsPerDay, 1)],
  ]
  const grade = gradeHeard(here, settings.beat)
  const rough = here.scatterMs > 2 * Math.max(0.1, stand.scatterMs)
  return (
    <>
      <table className={`${parts.list} ${styles.against}`}>
        <thead>
          <tr>
            <th scope="col">Against its fingerprint</th>
            <th scope="col">stand</th>
            <th scope="col">here</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([title, then, now]) => (
            <tr key={title}>
              <th scope="row">{title}</th>
              <td>{then}</td>
              <td>{now}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={styles.say}>
        <Mark state={grade} />{' '}
        {grade === 'sound' ? 'As even as it should be. ' : 'Its beat is not what it was: set it. '}
        {rough && 'It runs rougher than on the stand: look whether bob, crutch or a weight touches.'}
      </p>
    </>
  )
}
