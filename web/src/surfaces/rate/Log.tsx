import {
  EVENT_TITLES,
  RateEventChange,
  READING_WAY_TITLES,
  ReadingChange,
  type RateEventRow,
  type Reading,
} from '@treadle/contract'
import { turnFraction } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { memo, useCallback, useState } from 'react'
import { sayNotKept, useChange } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Figure } from '../../parts/Figure.tsx'
import { Mark } from '../../parts/Mark.tsx'
import { MomentField } from '../../parts/MomentField.tsx'
import { signed, whenShort } from '../../parts/say.ts'
import styles from './Rate.module.css'

/** Readings and events, the latest first; each can be corrected in place, and the old figure stays in the journal. */
export function Log({
  readings,
  events,
  doubted,
}: {
  readings: Reading[]
  events: RateEventRow[]
  /** ids of readings that do not belong */
  doubted: ReadonlySet<string | undefined>
}) {
  const { job } = useJobData()
  const { mutate } = useChange()
  const takeBack = useCallback(
    (path: string) => mutate({ method: 'DELETE', path: `/jobs/${job.id}/${path}` }),
    [mutate, job.id],
  )
  const [editing, setEditing] = useState<string | null>(null)
  const log = [
    ...readings.map((r) => ({ at: r.at, reading: r, event: null })),
    ...events.map((e) => ({ at: e.at, reading: null, event: e })),
  ].sort((a, b) => b.at.localeCompare(a.at))
  return (
    <div className={styles.log} tabIndex={0} role="region" aria-label="Readings and events">
      <table>
        <tbody>
          {log.map(({ reading, event }) => {
            const id = (reading ?? event)?.id ?? ''
            return editing === id ? (
              <tr key={id}>
                <td colSpan={5}>
                  {reading && <EditReading reading={reading} onDone={() => setEditing(null)} />}
                  {event && <EditEvent event={event} onDone={() => setEditing(null)} />}
                </td>
              </tr>
            ) : (
              <Entry
                key={id}
                reading={reading}
                event={event}
                doubted={doubted.has(id)}
                onCorrect={setEditing}
                onTakeBack={takeBack}
              />
            )
          })}
        </tbody>
      </table>
    </div>
  )
}

interface EntryProps {
  reading: Reading | null
  event: RateEventRow | null
  doubted: boolean
  onCorrect: (id: string) => void
  onTakeBack: (path: string) => void
}

/** One line of the log; drawn anew only when it changed: there may be hundreds, and a press changes one. */
const Entry = memo(function Entry({ reading, event, doubted, onCorrect, onTakeBack }: EntryProps) {
  const { id = '', at = '', version = 0 } = reading ?? event ?? {}
  return (
    <tr>
      <td>{whenShort(at)}</td>
      <td>
        {doubted && <Mark state="watch" label="does not belong" />}{' '}
        {reading ? `reading ${READING_WAY_TITLES[reading.way]}${besideWords(reading)}` : event ? eventWords(event) : ''}
      </td>
      <td className={styles.number}>{reading && <b>{signed(reading.errorSeconds, 1)} s</b>}</td>
      <td className="quiet">{reading && `± ${reading.sigmaSeconds}`}</td>
      <td>
        <Button
          variant="subtle"
          size="compact-sm"
          aria-label={`Correct the entry of ${whenShort(at)}`}
          // What is on its way has no version yet to be changed from.
          disabled={version === 0}
          onClick={() => onCorrect(id)}
        >
          correct
        </Button>
        <Button
          variant="subtle"
          size="compact-sm"
          aria-label={`Take back the entry of ${whenShort(at)}`}
          onClick={() => onTakeBack(reading ? `readings/${id}` : `events/${id}`)}
        >
          take back
        </Button>
      </td>
    </tr>
  )
})

function EditReading({ reading, onDone }: { reading: Reading; onDone: () => void }) {
  const [at, setAt] = useState(reading.at)
  const [error, setError] = useState<number | null>(reading.errorSeconds)
  const { id, version, sigmaSeconds, way } = reading
  const body = { id, version, at, errorSeconds: error, sigmaSeconds, way }
  return (
    <Group align="end">
      <Figure
        label="The clock was ahead by"
        draftOf={`edit ${id}`}
        unit="s"
        w="12rem"
        of={[ReadingChange, 'errorSeconds']}
        value={error}
        onKeep={setError}
        atOnce
      />
      <MomentField label="Read on" value={at} onChange={(to) => to !== '' && setAt(to)} />
      <KeepIt rows="readings" body={body} may={ReadingChange.isValidSync(body, { strict: true })} onDone={onDone} />
    </Group>
  )
}

function EditEvent({ event, onDone }: { event: RateEventRow; onDone: () => void }) {
  const [at, setAt] = useState(event.at)
  const [turns, setTurns] = useState(event.turns)
  const [grams, setGrams] = useState(event.grams ?? null)
  const { id, version, kind, showed, note } = event
  const body = { id, version, at, kind, turns, showed, note, ...(kind === 'tray' && { grams }) }
  return (
    <Group align="end">
      <span>{EVENT_TITLES[kind]}</span>
      {kind === 'nut' && (
        <Figure
          label="Turns, + raised"
          draftOf={`edit ${id}`}
          w="9rem"
          of={[RateEventChange, 'turns']}
          value={turns}
          onKeep={setTurns}
          atOnce
        />
      )}
      {kind === 'tray' && (
        <Figure
          label="Grams, − taken off"
          draftOf={`edit ${id}`}
          w="9rem"
          of={[RateEventChange, 'grams']}
          value={grams}
          onKeep={setGrams}
          atOnce
        />
      )}
      <MomentField label="Done on" value={at} onChange={(to) => to !== '' && setAt(to)} />
      <KeepIt rows="events" body={body} may={RateEventChange.isValidSync(body, { strict: true })} onDone={onDone} />
    </Group>
  )
}

interface KeepItProps {
  rows: 'readings' | 'events'
  body: { id: string; version: number }
  may: boolean
  onDone: () => void
}

/** Keeps an entry as it was corrected, or leaves it as it was. */
function KeepIt({ rows, body, may, onDone }: KeepItProps) {
  const { job } = useJobData()
  const change = useChange()
  const keep = () =>
    change.mutate(
      { method: 'PUT', path: `/jobs/${job.id}/${rows}/${body.id}`, body },
      { onSuccess: onDone, onError: sayNotKept },
    )
  return (
    <>
      <Button onClick={keep} disabled={!may}>
        Keep it so
      </Button>
      <Button variant="subtle" onClick={onDone}>
        Leave it
      </Button>
    </>
  )
}

function besideWords({ temperatureC, semiArcDeg, pressureHpa }: Reading): string {
  return [
    temperatureC == null ? '' : `, ${temperatureC} °C`,
    semiArcDeg == null ? '' : `, arc ${semiArcDeg}°`,
    pressureHpa == null ? '' : `, ${pressureHpa} hPa`,
  ].join('')
}

function eventWords({ kind, turns, grams, showed, note }: RateEventRow): string {
  const what =
    kind === 'nut' && turns !== null
      ? `nut ${turns > 0 ? 'raised' : 'lowered'} ${turnFraction(turns)} turn`
      : kind === 'tray' && grams != null
        ? `${Math.abs(grams)} g ${grams > 0 ? 'laid on' : 'taken off'} the tray`
        : `${EVENT_TITLES[kind]}${showed === '' ? '' : `, its dial at ${showed}`}`
  return note === '' ? what : `${what}: ${note}`
}
