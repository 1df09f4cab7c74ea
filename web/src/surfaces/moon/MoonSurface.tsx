import { DIAL_STATE_TITLES, DIAL_STATES, PLAIN_MOON, type CalendarWork, type MoonWork } from '@treadle/contract'
import { useNavigate } from 'react-router'
import { useClockChange } from '../../job/useClockChange.ts'
import { useJobData } from '../../job/useJobData.ts'
import { useObservations } from '../../job/useObservations.ts'
import parts from '../../parts/parts.module.css'
import { Pick } from '../../parts/Pick.tsx'
import { useSessionValue } from '../../parts/useSessionValue.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { CalendarHand, useCalendar } from './CalendarHand.tsx'
import { MoonHand, useMoon } from './MoonHand.tsx'

const SET_MOON = 'set-up: moon disc'
const SET_DATE = 'set-up: date'

/** Moon and day of the month set to the day it is, click by click by the foot. */
export function MoonSurface() {
  const { clock, job } = useJobData()
  const save = useClockChange(clock)
  const seen = useObservations()
  const navigate = useNavigate()
  const { work } = clock
  const moonWork: MoonWork = work.moonWork ?? PLAIN_MOON
  const calendarWork: CalendarWork = work.calendarWork ?? { state: 'works' }
  const [given, setGiven] = useSessionValue(`treadle-clicks ${job.id}`, 0)
  const [days, setDays] = useSessionValue(`treadle-days ${job.id}`, 0)
  const moon = useMoon(moonWork, job.id)
  const calendar = useCalendar(job.id)
  const moonGoes = work.moon && moonWork.state === 'works'
  const dateGoes = work.calendar && calendarWork.state === 'works'
  const moonLeft = moonGoes && moon.clicks !== null ? Math.max(0, moon.clicks - given) : null
  const daysLeft = dateGoes && calendar.set !== null ? Math.max(0, calendar.set.clicksForward - days) : null
  const moonKept = seen.of(SET_MOON)?.answer === 'right'
  const dateKept = seen.of(SET_DATE)?.answer === 'right'
  const one = (set: (next: (n: number) => number) => void) => () => {
    set((n) => n + 1)
    return () => set((n) => n - 1)
  }
  const keep = (key: string, figure: number) => () => {
    seen.set(key, { answer: 'right', figure })
    return () => seen.set(key, { answer: '', figure: null })
  }
  const onward = { label: 'Press to go on with its setting up', press: () => void navigate('../set-up') }
  usePedalAction(
    moonLeft !== null && moonLeft > 0
      ? {
          label: `Press with each click of the moon: ${moonLeft} to go`,
          hint: 'forward, gently, one tooth at a time',
          rhythmic: true,
          press: one(setGiven),
        }
      : moonLeft === 0 && !moonKept
        ? { label: 'Press when the moon looks as drawn', press: keep(SET_MOON, given) }
        : daysLeft !== null && daysLeft > 0
          ? {
              label: `Press with each day of the calendar: ${daysLeft} to go`,
              hint: 'forward only',
              rhythmic: true,
              press: one(setDays),
            }
          : daysLeft === 0 && !dateKept
            ? { label: `Press when it shows the ${calendar.today}`, press: keep(SET_DATE, days) }
            : onward,
  )
  return (
    <div className={parts.columns}>
      {work.moon && (
        <section aria-label="Moon">
          <h2>Moon</h2>
          <Pick
            label="Its works"
            value={moonWork.state}
            of={DIAL_STATES.map((s) => [s, DIAL_STATE_TITLES[s]])}
            onPick={(state) => save({ work: { ...work, moonWork: { ...moonWork, state } } })}
          />
          {moonGoes ? (
            <MoonHand
              moon={moon}
              given={given}
              kept={moonKept}
              onAgain={() => {
                setGiven(0)
                seen.set(SET_MOON, { answer: '', figure: null })
              }}
              work={moonWork}
              onWork={(part) => save({ work: { ...work, moonWork: { ...moonWork, ...part } } })}
            />
          ) : (
            <Still what="moon" />
          )}
        </section>
      )}
      {work.calendar && (
        <section aria-label="Day of the month">
          <h2>Day of the month</h2>
          <Pick
            label="Its works"
            value={calendarWork.state}
            of={DIAL_STATES.map((s) => [s, DIAL_STATE_TITLES[s]])}
            onPick={(state) => save({ work: { ...work, calendarWork: { state } } })}
          />
          {dateGoes ? (
            <CalendarHand
              calendar={calendar}
              given={days}
              kept={dateKept}
              onAgain={() => {
                setDays(0)
                seen.set(SET_DATE, { answer: '', figure: null })
              }}
            />
          ) : (
            <Still what="calendar" />
          )}
        </section>
      )}
      <p className="quiet">
        Dials of the rising sun, the year or the planets are set by their own papers: they are not reckoned here.
      </p>
    </div>
  )
}

function Still({ what }: { what: string }) {
  return (
    <p className={parts.say}>
      Recorded with the clock. It is not forced, and the owner’s card says that its {what} stands still.
    </p>
  )
}
