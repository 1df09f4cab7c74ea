import { isHeld, openStop, stopKey, trialDaysFor, type GateName, type TrialNeed } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { Fragment, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useOils, useSettings } from '../../data/queries.ts'
import { DriveCompared } from '../../job/DriveAgain.tsx'
import { proofOf, trialNow } from '../../job/proof.ts'
import { useHappened } from '../../job/useHappened.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations } from '../../job/useObservations.ts'
import { Mark } from '../../parts/Mark.tsx'
import parts from '../../parts/parts.module.css'
import { useNow } from '../../parts/useNow.ts'
import { usePaper } from '../../parts/usePaper.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { Proof } from './Proof.tsx'
import { Stopped } from './Stopped.tsx'
import { StopFound } from './StopFound.tsx'
import styles from './Trial.module.css'
import { TrialLine } from './TrialLine.tsx'
import { dayHour } from '../../parts/say.ts'

/** Where what comes before a trial is done, by its gate. */
const BEFORE: Partial<Record<GateName, string>> = { dry: 'assemble', oil: 'oil', beat: 'listen' }

/** The trial of this clock: since when it counts, what is still wanted, a stop asked about at once, and its proof. */
export function TrialSurface() {
  const data = useJobData()
  const { job, clock, events, gates } = data
  const { data: settings } = useSettings()
  const { data: oils } = useOils()
  const seen = useObservations()
  const happened = useHappened()
  const navigate = useNavigate()
  const nowS = useNow(500) / 1000
  const [stopping, setStopping] = useState(false)
  usePaper('A5', '10mm')
  const trial = settings ? trialNow(data, settings, nowS) : null
  const unanswered = openStop(
    events,
    events.flatMap((e) => seen.of(stopKey(e.id)) ?? []),
  )
  const needs = (what: TrialNeed) => trial?.needs.includes(what) ?? false
  const before = gates.filter((g) => ['dry', 'oil', 'beat'].includes(g.name) && isHeld(g))
  const [printed, setPrinted] = useState(false)
  const print = () => {
    window.print()
    setPrinted(true)
  }
  usePedalAction(
    !settings || stopping || unanswered
      ? null
      : !trial
        ? before[0]
          ? {
              label: `Press to go and see: ${before[0].title.toLowerCase()}`,
              hint: before[0].reason,
              press: () => void navigate(`../${BEFORE[before[0]?.name ?? 'beat'] ?? 'listen'}`),
            }
          : {
              label: 'Press to begin its trial',
              hint: `${trialDaysFor(clock, settings)} days, and a full winding in them`,
              press: () => happened('trial'),
            }
        : trial.passed
          ? printed
            ? { label: 'Press to go on: the owner’s card', press: () => void navigate('../card') }
            : { label: 'Press to print its proof', press: print }
          : needs('strike')
            ? { label: 'Press to count its strike round', press: () => void navigate('../strike?show=count') }
            : needs('winding')
              ? {
                  label: 'Press when it is fully wound, every train',
                  hint: trial.wanted.join('; '),
                  press: () => happened('winding'),
                }
              : needs('moon')
                ? { label: 'Press if its moon has moved on', press: () => happened('moon') }
                : {
                    label: 'Press if it has stopped',
                    hint: 'then say what its dial shows',
                    press: () => setStopping(true),
                  },
  )
  if (!settings || !oils) return null
  return (
    <div className={parts.columns}>
      <section>
        <div className={styles.tools}>
          <h2 className={styles.title}>{titleOf(trial)}</h2>
          {!trial && (
            <>
              <p className={parts.say}>
                {trialDaysFor(clock, settings)} days{' '}
                {trialDaysFor(clock, settings) === settings.trialDaysLong && 'for a chiming or complicated clock '}
                without a stop or a change, a full winding in them
                {clock.work.strike && ', its hours struck round'}
                {clock.work.moon && ', its moon seen to move'}. It begins anew with every change.
              </p>
              {before.map((g) => (
                <p key={g.name}>
                  <Mark state="watch" label="first" /> {g.reason}
                </p>
              ))}
              <Button size="lg" onClick={() => happened('trial')}>
                Begin its trial
              </Button>
            </>
          )}
          {trial && (
            <>
              <TrialLine trial={trial} events={events} nowS={nowS} />
              <p>
                Counts from {dayHour(trial.countsFromS * 1000)}; its days are up {dayHour(trial.endsAtS * 1000)}.
              </p>
            </>
          )}
          {unanswered && <StopFound key={unanswered.id} stop={unanswered} seen={seen} />}
          {stopping && (
            <Stopped
              onKeep={(part) => {
                happened('stopped', part)
                setStopping(false)
              }}
              onLeave={() => setStopping(false)}
            />
          )}
          {trial && !stopping && (
            <Group mt="md">
              <Button variant="default" onClick={() => happened('winding')}>
                It is fully wound
              </Button>
              {clock.work.moon && (
                <Button variant="default" onClick={() => happened('moon')}>
                  Its moon has moved on
                </Button>
              )}
              <Button variant="default" onClick={() => setStopping(true)}>
                It has stopped…
              </Button>
              <Button variant="subtle" onClick={() => happened('trial')}>
                Begin it anew
              </Button>
            </Group>
          )}
        </div>
        {trial && !trial.passed && (
          <div className={styles.tools}>
            <h2 className={parts.next}>What its proof can say so far</h2>
            <dl className={parts.facts}>
              {proofOf(data, settings, oils, trial)
                .slice(1)
                .map((l) => (
                  <Fragment key={l.title}>
                    <dt>{l.title}</dt>
                    <dd>{l.words}</dd>
                  </Fragment>
                ))}
            </dl>
          </div>
        )}
        {trial?.passed && <Proof lines={proofOf(data, settings, oils, trial)} />}
        {trial?.passed && (
          <Group mt="md" className={styles.tools}>
            <Button onClick={print}>Print its proof</Button>
          </Group>
        )}
      </section>
      <section className={styles.tools}>
        <h2>Still wanted</h2>
        {trial && trial.wanted.length === 0 && (
          <p>
            <Mark state="sound" label="nothing" /> Nothing more: it has shown all it has to.
          </p>
        )}
        <ul className={parts.list}>
          {(trial?.wanted ?? []).map((w) => (
            <li key={w}>
              <Mark state="watch" label="wanted" />
              <span className={parts.grow}>{w.charAt(0).toUpperCase() + w.slice(1)}</span>
            </li>
          ))}
          {gates
            .filter((g) => (g.name === 'beat' || g.name === 'rate') && !g.passed)
            .map((g) => (
              <li key={g.name}>
                <Mark state={isHeld(g) ? 'watch' : 'none'} label={g.title} />
                <span className={parts.grow}>
                  {g.title}: {g.reason}
                </span>
                <Link to={g.name === 'beat' ? '../listen' : '../rate'}>Go there</Link>
              </li>
            ))}
        </ul>
        {needs('strike') && (
          <p>
            <Link to="../strike?show=count">Count its strike round</Link>
          </p>
        )}
        <p className={parts.say}>
          <DriveCompared seen={seen} />
        </p>
        <p className="quiet">
          A change of nut, weight, arc, beat or oil is said under <Link to={`/jobs/${job.id}/rate`}>Rate</Link>; the
          count then begins anew by itself.
        </p>
        <StopsBefore />
      </section>
    </div>
  )
}

function titleOf(trial: ReturnType<typeof trialNow>): string {
  if (!trial) return 'Its trial has not begun'
  if (trial.passed) return 'It has passed its trial'
  return trial.day > trial.days ? 'Its days are up' : `Day ${trial.day} of ${trial.days}`
}

/** Earlier stops and what was found. */
function StopsBefore() {
  const { events } = useJobData()
  const seen = useObservations()
  const stops = events.filter((e) => e.kind === 'stopped')
  if (stops.length === 0) return null
  return (
    <>
      <h3>Stops</h3>
      <ul>
        {stops.map((s) => {
          const found = seen.of(stopKey(s.id))
          return (
            <li key={s.id}>
              Found {dayHour(s.at)}
              {s.showed !== '' && `, its dial at ${s.showed}`}:{' '}
              {found?.answer ? `${found.answer}${found.note === '' ? '' : `, ${found.note}`}` : 'not told yet'}
            </li>
          )
        })}
      </ul>
    </>
  )
}
