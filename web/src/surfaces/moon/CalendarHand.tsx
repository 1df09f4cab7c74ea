import { calendarSetting, FieldError, unlessRefused, type CalendarSetting } from '@treadle/core'
import { Button } from '@mantine/core'
import { Figure } from '../../parts/Figure.tsx'
import { dayShort, dayToday } from '../../parts/say.ts'
import { count } from '../../parts/say.ts'
import { useSessionValue } from '../../parts/useSessionValue.ts'
import styles from './Moon.module.css'

export interface CalendarNow {
  /** day of the month */
  today: number
  shows: number | null
  setShows: (day: number | null) => void
  set: CalendarSetting | null
  /** the next days on which a month wants a hand */
  byHand: CalendarSetting['nextByHand'][]
}

const NEXT = 5

/** The day it is by the workshop's clock, and the days from what it shows to it. */
export function useCalendar(jobId: string): CalendarNow {
  const [shows, setShows] = useSessionValue<number | null>(`treadle-date ${jobId}`, null)
  const date = dayToday()
  const set = shows === null ? null : unlessRefused(() => calendarSetting(shows, date))
  const byHand: CalendarSetting['nextByHand'][] = []
  for (let from = date; byHand.length < NEXT; from = byHand.at(-1)!.date)
    byHand.push(calendarSetting(1, from).nextByHand)
  return { today: Number(date.slice(8)), shows, setShows, set: set instanceof FieldError ? null : set, byHand }
}

export function CalendarHand({
  calendar: { today, shows, setShows, set, byHand },
  given,
  kept,
  onAgain,
}: {
  calendar: CalendarNow
  given: number
  kept: boolean
  onAgain: () => void
}) {
  return (
    <>
      <p className={styles.big} role="status">
        {set === null
          ? 'Say what day it shows'
          : kept
            ? 'The date is right'
            : set.clicksForward === 0
              ? `It shows the ${today}`
              : `${count(set.clicksForward, 'day')} forward, to the ${today}${given > 0 ? `; ${given} given` : ''}`}
      </p>
      <Figure
        label="It shows the"
        min={1}
        max={31}
        whole
        w={140}
        value={shows}
        onKeep={(day) => {
          setShows(day)
          if (given > 0 || kept) onAgain()
        }}
      />
      {(given > 0 || kept) && (
        <Button variant="subtle" mt="xs" onClick={onAgain}>
          Begin again
        </Button>
      )}
      <h3>By hand after short months</h3>
      <ul className={styles.hand}>
        {byHand.map(({ date, clicks }) => (
          <li key={date}>
            {dayShort(date)} {date.slice(0, 4)}: {count(clicks, 'day')} on
          </li>
        ))}
      </ul>
    </>
  )
}
