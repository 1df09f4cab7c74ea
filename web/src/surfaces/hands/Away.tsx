import {
  moonAge,
  moonClicks,
  calendarSetting,
  FieldError,
  shownMinutes,
  SYNODIC_MONTH,
  unlessRefused,
} from '@treadle/core'
import { useState } from 'react'
import { useJobData } from '../../job/useJobData.ts'
import { DayField } from '../../parts/DayField.tsx'
import { count } from '../../parts/say.ts'
import styles from './Hands.module.css'

const DAY_MS = 86_400_000

/** A clock stopped on leaving and started on coming home: when, and how far its moon and date are behind by then. */
export function Away({ shows }: { shows: string }) {
  const { clock } = useJobData()
  const { moon, calendar, moonWork } = clock.work
  const [left, setLeft] = useState('')
  const [home, setHome] = useState('')
  const shown = shows === '' ? null : unlessRefused(() => shownMinutes('It shows', shows))
  const days = left !== '' && home !== '' ? Math.round((Date.parse(home) - Date.parse(left)) / DAY_MS) : null
  return (
    <>
      <p className={styles.say}>
        Stop the pendulum when you leave, rather than let it run down: a clock that runs out stops in the middle of a
        strike.
        {typeof shown === 'number'
          ? ` It shows ${shows}: start it again when it is ${shows}, in the morning or in the evening, whichever comes first. Nothing has to be turned.`
          : ' Start it again when the time comes round to what it shows: nothing has to be turned.'}
      </p>
      {(moon || calendar) && (
        <>
          <DayField label="Stopped on" value={left} onChange={setLeft} />
          <DayField label="Started on" value={home} onChange={setHome} />
          {days !== null && days < 0 && <p role="alert">Started on: it must not be before it was stopped.</p>}
          {days !== null && days >= 0 && (
            <p className={styles.say} role="status">
              {[
                moon &&
                  `its moon ${count(moonBehind(left, home, moonWork?.clicksPerLunation ?? undefined), 'click')} forward`,
                calendar && `its date ${count(calendarBehind(left, home), 'day')} forward`,
              ]
                .filter(Boolean)
                .join(', ')
                .replace(/^./, (c) => c.toUpperCase())}
              .
            </p>
          )}
        </>
      )}
    </>
  )
}

const noon = (day: string) => Date.parse(`${day}T12:00:00Z`) / 1000

function moonBehind(left: string, home: string, clicksPerLunation: number | undefined): number {
  const [then, now] = [moonAge(noon(left)).ageDays, moonAge(noon(home)).ageDays]
  return moonClicks(Math.min(now, SYNODIC_MONTH), Math.min(then, SYNODIC_MONTH), clicksPerLunation)
}

/** It showed the day on which it was stopped. */
function calendarBehind(left: string, home: string): number {
  const set = unlessRefused(() => calendarSetting(Number(left.slice(8)), home))
  return set instanceof FieldError ? 0 : set.clicksForward
}
