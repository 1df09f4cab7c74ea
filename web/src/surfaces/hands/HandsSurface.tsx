import {
  dayMinutes,
  dialTime,
  FieldError,
  handsPlan,
  hoursAndMinutes,
  shownMinutes,
  STRIKE_KIND_FACTS,
  unlessRefused,
  type HandsPlan,
  type HandsStop,
} from '@treadle/core'
import { Button, Checkbox, Group, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useClockChange } from '../../job/useClockChange.ts'
import { useHappened } from '../../job/useHappened.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Caution } from '../../parts/Caution.tsx'
import { Fold } from '../../parts/Fold.tsx'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { count, timeOfDay, whenShort } from '../../parts/say.ts'
import { useNow } from '../../parts/useNow.ts'
import { useSessionValue } from '../../parts/useSessionValue.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { Away } from './Away.tsx'
import { DialPicture } from './DialPicture.tsx'
import { OutOfStep } from './OutOfStep.tsx'
import styles from './Hands.module.css'

type Way = HandsPlan['advise']
const WAYS: Record<Way, string> = { forward: 'forward', wait: 'stop it and wait', back: 'back' }

/** The hands and the strike set with the least work, led hour by hour. */
export function HandsSurface() {
  const { clock, job, events } = useJobData()
  const happened = useHappened()
  const save = useClockChange(clock)
  const navigate = useNavigate()
  const now = timeOfDay(useNow(5000))
  const [shows, setShows] = useSessionValue(`treadle-hands ${job.id}`, '')
  const [typed, setTyped] = useSessionValue(`treadle-hands-true ${job.id}`, '')
  const [chosen, setChosen] = useState<Way | null>(null)
  const [stopped, setStopped] = useSessionValue(`treadle-hands-stopped ${job.id}`, false)
  const [isSet, setIsSet] = useState(false)
  const { strike } = clock.work
  const facts = strike && STRIKE_KIND_FACTS[strike.kind]
  const strikes = clock.trains.some((t) => t.train === 'strike' || t.train === 'chime')
  const quarters = facts ? facts.quarters !== 'none' : clock.trains.some((t) => t.train === 'chime')
  const backAllowed = !strikes || clock.work.handsBack === true
  const trueTime = typed === '' ? now : typed
  const shownAt = shows === '' ? null : unlessRefused(() => shownMinutes('It shows', shows))
  const trueAt = unlessRefused(() => dayMinutes('It should show', trueTime))
  const plan =
    typeof shownAt === 'number' && typeof trueAt === 'number'
      ? unlessRefused(() =>
          handsPlan({
            showsMinutes: shownAt,
            trueMinutes: trueAt,
            ...(strikes && { halves: strike?.halves ?? 'none', quarters }),
            backAllowed,
          }),
        )
      : null
  const told = plan === null || plan instanceof FieldError ? null : plan
  const way = told && (chosen === 'back' && !backAllowed ? told.advise : (chosen ?? told.advise))
  const [next] = told?.way ?? []
  // Once it was set it goes on by itself, while what was typed stands.
  const isThere = isSet || (told?.forwardMinutes === 0 && !stopped)
  const goTo = (time: string) => {
    const was = shows
    setShows(time)
    setIsSet(false)
    return () => setShows(was)
  }
  const finish = (note: string) => {
    const [was, wasStopped] = [shows, stopped]
    const undo = happened('hands', { note })
    setShows(dialTime(typeof trueAt === 'number' ? trueAt : 0))
    setStopped(false)
    setIsSet(true)
    return () => {
      undo()
      setShows(was)
      setStopped(wasStopped)
      setIsSet(false)
    }
  }
  usePedalAction(
    told === null || way === null
      ? // Nothing is known yet that a foot could say.
        { label: 'Press to go back to its setting up', press: () => void navigate('../set-up') }
      : isThere
        ? { label: 'Press to go on with its setting up', press: () => void navigate('../set-up') }
        : way === 'wait'
          ? stopped
            ? {
                label: `Press as you start it, at ${startsAt(told, trueAt)}`,
                press: () => finish('stopped, and started at its time'),
              }
            : {
                label: 'Press when you have stopped the pendulum',
                hint: `it is started at ${startsAt(told, trueAt)}`,
                press: () => {
                  setStopped(true)
                  return () => setStopped(false)
                },
              }
          : way === 'forward' && next
            ? {
                label: `Press when it has ${done(next)}`,
                hint: `minute hand on to ${next.time}, and wait`,
                press: () => goTo(next.time),
              }
            : {
                label: `Press when it shows ${trueTime.replace(/^0/, '')}`,
                hint: way === 'back' ? 'minute hand back' : 'minute hand on, no stop left',
                press: () => finish(way === 'back' ? `set back from ${shows}` : `set from ${shows}`),
              },
  )
  const refusal = [shownAt, trueAt, plan].find((v) => v instanceof FieldError)
  return (
    <div className={parts.columns}>
      <section>
        <div className={styles.two}>
          <DialPicture
            minutes={typeof shownAt === 'number' ? shownAt : null}
            label="It shows"
            onSet={(m) => goTo(dialTime(m))}
            stops={way === 'forward' ? (told?.way.map((s) => s.atMinutes) ?? []) : []}
          />
          <div>
            <TextInput
              label="It shows"
              size="lg"
              placeholder="10:50"
              value={shows}
              onChange={(e) => {
                setShows(e.currentTarget.value.trim())
                setChosen(null)
                setStopped(false)
                setIsSet(false)
              }}
            />
            <TextInput
              label="It should show"
              description={typed === '' ? 'The time it is now, by this computer’s clock' : 'As typed'}
              size="lg"
              mt="sm"
              placeholder={now}
              value={typed}
              onChange={(e) => {
                setTyped(e.currentTarget.value.trim())
                setIsSet(false)
              }}
            />
          </div>
        </div>
        {refusal instanceof FieldError && (
          <p role="alert">
            {refusal.field}: {refusal.allowed}.
          </p>
        )}
        {told === null && refusal === undefined && (
          <p className={styles.big}>Tap the two hands on the dial, or type what it shows.</p>
        )}
        {told && way && (
          <>
            <p className={styles.big} role="status">
              {isThere ? 'It shows the time' : headline(told, way, stopped, next, trueAt)}
            </p>
            {!isThere && <p className={styles.say}>{way === told.advise ? told.why : `Chosen instead. ${told.why}`}</p>}
            {!isThere && (
              <Pick
                label="Which way"
                value={way}
                of={(['forward', 'wait', 'back'] as const)
                  .filter((w) => w !== 'back' || backAllowed)
                  .map((w) => [w, WAYS[w]])}
                onPick={(w) => {
                  setChosen(w)
                  setStopped(false)
                }}
              />
            )}
            {!isThere && (
              <Caution>
                The minute hand only. Resistance means stop, and go the other way; nothing is forced.
                {strikes && !backAllowed && ' Never back: this one strikes.'}
              </Caution>
            )}
            {!isThere && way === 'forward' && told.way.length > 0 && <WayList stops={told.way} />}
          </>
        )}
      </section>
      <section>
        {strikes && <OutOfStep shows={typeof shownAt === 'number' ? shownAt : null} />}
        {strikes && (
          <Checkbox
            mt="md"
            size="md"
            label="Its maker allows the minute hand to go back (modern, self-correcting)"
            checked={clock.work.handsBack === true}
            onChange={(e) => save({ work: { ...clock.work, handsBack: e.currentTarget.checked } })}
          />
        )}
        {strikes && !strike && (
          <p className="quiet">How it strikes was not written down under Strike: only its hours are reckoned.</p>
        )}
        <Fold title={<b>Going away, coming home</b>}>
          <Away shows={shows} />
        </Fold>
        {events
          .filter((e) => e.kind === 'hands')
          .slice(-3)
          .map((e) => (
            <p key={e.id} className="quiet">
              {whenShort(e.at)}: hands set{e.note === '' ? '' : `, ${e.note}`}.
            </p>
          ))}
        <Group mt="md">
          <Button variant="default" onClick={() => void navigate('../set-up')}>
            Back to its setting up
          </Button>
        </Group>
      </section>
    </div>
  )
}

function WayList({ stops }: { stops: HandsStop[] }) {
  return (
    <ol className={styles.way} aria-label="The way there">
      {stops.map((s, i) => (
        <li key={s.atMinutes} aria-current={i === 0 ? 'step' : undefined}>
          <b>{s.time}</b> {must(s)}
        </li>
      ))}
    </ol>
  )
}

/** What it must strike or chime there. */
function must({ blows, quarters }: HandsStop): string {
  const chimed = quarters > 0 ? `chimes ${count(quarters, 'quarter')}` : ''
  const struck = blows > 0 ? `strikes ${blows}` : ''
  return [chimed, struck].filter(Boolean).join(', ') || 'lifts and lets off'
}

function done({ time, blows, quarters }: HandsStop): string {
  if (blows > 0) return `struck ${blows}`
  return quarters > 0 ? `chimed at ${time}` : `let off at ${time}`
}

function headline(
  told: HandsPlan,
  way: Way,
  stopped: boolean,
  next: HandsStop | undefined,
  trueAt: number | FieldError,
): string {
  if (way === 'wait')
    return stopped
      ? `Start it at ${startsAt(told, trueAt)}`
      : `Stop the pendulum; start it in ${hoursAndMinutes(told.waitMinutes)}, at ${startsAt(told, trueAt)}`
  if (way === 'back') return `Back by ${hoursAndMinutes(told.waitMinutes)}`
  const stops = told.stops === 0 ? '' : `, ${count(told.stops, 'stop')}, ${count(told.blows, 'blow')}`
  return next
    ? `Forward ${hoursAndMinutes(told.forwardMinutes)}${stops}. First to ${next.time}: it ${must(next)}`
    : `Forward ${hoursAndMinutes(told.forwardMinutes)}`
}

/** When the true time has come round to what it shows. */
function startsAt({ waitMinutes }: HandsPlan, trueAt: number | FieldError): string {
  const at = ((typeof trueAt === 'number' ? trueAt : 0) + waitMinutes) % 1440
  return `${Math.floor(at / 60)}:${String(at % 60).padStart(2, '0')}`
}
