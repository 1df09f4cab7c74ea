import {
  EVENT_TITLES,
  READING_WAY_TITLES,
  RateEventChange,
  ReadingChange,
  type RateEventRow,
  type Reading,
} from '@treadle/contract'
import {
  errorAtMinuteMark,
  EVENT_KINDS,
  type RateBook,
  rateBookOf,
  rateInWords,
  READING_SIGMAS,
  READING_WAYS,
  turnFraction,
  turnInWords,
} from '@treadle/core'
import { Button, Group, NativeSelect, SegmentedControl } from '@mantine/core'
import { lazy, Suspense, useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useChange, useSettings } from '../../data/queries.ts'
import { useJobData } from '../../job/useJobData.ts'
import { Figure } from '../../parts/Figure.tsx'
import { count, signed, whenAbout, whenShort } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { NutPicture } from './NutPicture.tsx'
import styles from './Rate.module.css'

const RateChart = lazy(() => import('./RateChart.tsx'))

/** The rate book: readings and what was done between them, the rate now, the next turn, the next reading. */
export function RateSurface() {
  const { job, clock, readings, events } = useJobData()
  const { data: settings } = useSettings()
  const change = useChange()
  const { pendulum } = clock
  const book = useMemo(
    () => (settings ? rateBookOf({ readings, events }, { pendulum, settings }) : null),
    [readings, events, pendulum, settings],
  )
  const putReading = (at: number, errorSeconds: number, way: ReadingChange['way']) => {
    const id = uuid()
    const body = {
      id,
      version: 0,
      at: new Date(at).toISOString(),
      errorSeconds: Math.round(errorSeconds * 100) / 100,
      sigmaSeconds: READING_SIGMAS[way],
      way,
    }
    change.mutate({ method: 'PUT', path: `/jobs/${job.id}/readings/${id}`, body })
    return () => change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/readings/${id}` })
  }
  const putEvent = (kind: RateEventRow['kind'], turns: number | null = null) => {
    const id = uuid()
    change.mutate({
      method: 'PUT',
      path: `/jobs/${job.id}/events/${id}`,
      body: { id, version: 0, at: new Date().toISOString(), kind, turns, note: '' },
    })
    return () => change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/events/${id}` })
  }
  usePedalAction({
    label: 'Press as the hand crosses a minute',
    hint: 'against this computer’s clock',
    press: (atMs) => putReading(atMs, errorAtMinuteMark(atMs / 1000, expectedError(book, readings, atMs)), 'pedal'),
  })
  const [span, setSpan] = useState<'recent' | 'all'>('recent')
  const fromMs = span === 'all' ? 0 : recentFrom(book)
  const log = [
    ...readings.map((r) => ({ at: r.at, reading: r, event: null })),
    ...events.map((e) => ({ at: e.at, reading: null, event: e })),
  ].sort((a, b) => b.at.localeCompare(a.at))
  const headline =
    book === null
      ? 'No reading yet'
      : book.rateSecondsPerDay === null || book.standardError === null
        ? 'Its rate is not told yet'
        : capital(rateInWords(book.rateSecondsPerDay, book.standardError))
  return (
    <div className={styles.columns}>
      <section>
        <p className={styles.headline} role="status">
          {headline}
        </p>
        <p className="quiet">
          {book
            ? summary(book, readings)
            : 'Type what the clock is out, or press the pedal as its minute hand crosses a mark. Two readings some hours apart begin to tell its rate.'}
        </p>
        {book && (
          <Suspense fallback={<div className={styles.chart} />}>
            <RateChart
              book={book}
              readings={readings}
              events={events}
              fromMs={fromMs}
              label={`Error over time, ${count(readings.length, 'reading')}. ${headline}.`}
            />
          </Suspense>
        )}
        {book && book.segments.length > RECENT_SEGMENTS && (
          <SegmentedControl
            size="xs"
            aria-label="How far back"
            value={span}
            onChange={(value) => setSpan(value)}
            data={[
              { value: 'recent', label: 'the last changes' },
              { value: 'all', label: 'all readings' },
            ]}
          />
        )}
        <NewReading onKeep={putReading} />
        <div className={styles.log} tabIndex={0} role="region" aria-label="Readings and events">
          <table>
            <tbody>
              {log.map(({ at, reading, event }) => (
                <tr key={(reading ?? event)?.id}>
                  <td>{whenShort(at)}</td>
                  <td>{reading ? `reading ${READING_WAY_TITLES[reading.way]}` : event ? eventWords(event) : ''}</td>
                  <td className={styles.number}>{reading && <b>{signed(reading.errorSeconds, 1)} s</b>}</td>
                  <td className="quiet">{reading && `± ${reading.sigmaSeconds}`}</td>
                  <td>
                    <Button
                      variant="subtle"
                      size="compact-sm"
                      aria-label={`Take back the entry of ${whenShort(at)}`}
                      onClick={() =>
                        change.mutate({
                          method: 'DELETE',
                          path: `/jobs/${job.id}/${reading ? `readings/${reading.id}` : `events/${event?.id}`}`,
                        })
                      }
                    >
                      take back
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </section>
      <section>
        <h2>Next</h2>
        {book && <Advice book={book} onTurned={(turns) => putEvent('nut', turns)} />}
        <Did onEvent={putEvent} />
      </section>
    </div>
  )
}

const RECENT_SEGMENTS = 3

/** From where the chart begins: the last few changes, so that the present is not a speck at its end. */
function recentFrom(book: RateBook | null): number {
  const first = book?.segments.at(-RECENT_SEGMENTS)
  return first ? first.fromS * 1000 : 0
}

function expectedError(book: RateBook | null, readings: Reading[], atMs: number): number {
  const last = readings.at(-1)
  if (!last) return 0
  return last.errorSeconds + ((book?.rateSecondsPerDay ?? 0) * (atMs - Date.parse(last.at))) / 86_400_000
}

function summary(book: RateBook, readings: Reading[]): string {
  const last = book.segments.at(-1)
  const since = last ? readings.filter((r) => Date.parse(r.at) / 1000 >= last.fromS - 1).length : 0
  return `From ${count(readings.length, 'reading')}, ${since} since the last change.`
}

function Advice({ book, onTurned }: { book: RateBook; onTurned: (turns: number) => void }) {
  const turn = turnInWords(book)
  const next = book.nextReadingAtS === null ? null : whenAbout(book.nextReadingAtS * 1000)
  return (
    <>
      {turn !== null && book.move !== null ? (
        <>
          <p className={styles.instruction}>
            {turn}, to the {book.move === 'raise' ? 'right' : 'left'}
          </p>
          <div className={styles.turn}>
            <NutPicture turns={book.suggestedTurns} move={book.move} />
            <div>
              <p className={styles.fraction}>{turnFraction(book.suggestedTurns)} turn</p>
              <p className="quiet">
                {book.suggestedTurns.toFixed(2)} ± {Math.max(0.01, book.suggestedTurnsStandardError ?? 0).toFixed(2)},
                to the nearest eighth you can see. Seen from below;{' '}
                {book.move === 'raise' ? 'the bob goes up' : 'the bob goes down: lower is slower'}.
              </p>
              <Button
                variant="default"
                mt="xs"
                onClick={() =>
                  onTurned(
                    (book.move === 'raise' ? 1 : -1) * (Math.round(book.suggestedTurns * 8) / 8 || book.suggestedTurns),
                  )
                }
              >
                Done, {turnFraction(book.suggestedTurns)} turned
              </Button>
            </div>
          </div>
        </>
      ) : (
        <p className={styles.instruction}>{NO_TURN[book.advice]}</p>
      )}
      {book.secondsPerDayPerTurn !== null && book.perTurnStandardError !== null && (
        <p className={styles.rule}>
          <b>
            This clock gains {book.secondsPerDayPerTurn.toFixed(book.perTurnStandardError < 1 ? 1 : 0)} ±{' '}
            {book.perTurnStandardError.toFixed(book.perTurnStandardError < 1 ? 1 : 0)} s a day for a whole turn.
          </b>
          <br />
          {book.priorSecondsPerDayPerTurn !== null &&
            `By its thread and length it should be ${book.priorSecondsPerDayPerTurn.toFixed(1)}. `}
          {book.turnsLearntFrom === 0
            ? 'No turn has taught more yet.'
            : `${count(book.turnsLearntFrom, 'turn has', 'turns have')} taught the rest.`}
        </p>
      )}
      {next !== null && (
        <p className={styles.rule}>
          <b>{next === 'now' ? 'A reading is worth taking now.' : `Then leave it be until ${next}.`}</b>
          <br />
          Sooner, a reading could not tell the change from chance.
        </p>
      )}
      <details className={styles.rule}>
        <summary>Show the reckoning</summary>
        Straight lines are fitted to the readings between one change and the next, each reading weighed by how good it
        is. Between turns of the nut the lines differ by the turns times one figure, which begins as 43,200 × pitch /
        length. A turn is proposed only when the rate stands two standard errors from nought. Lower is slower.
      </details>
    </>
  )
}

const NO_TURN: Record<RateBook['advice'], string> = {
  turn: '',
  'within-tolerance': 'Leave the nut alone: it keeps time as well as this workshop asks',
  'not-told-from-zero': 'Leave the nut alone: the readings can’t tell its rate from nought yet',
  'too-few-readings': 'Leave the nut alone: too few readings since the last change',
  'nut-unknown': 'Give the pitch of the nut and the length of the pendulum under Arrive, and it says how far to turn',
}

function NewReading({ onKeep }: { onKeep: (at: number, error: number, way: ReadingChange['way']) => void }) {
  const [error, setError] = useState<number | null>(null)
  const [way, setWay] = useState<ReadingChange['way']>('eye')
  const [wrong, setWrong] = useState<string | null>(null)
  // A new field for each reading: what was typed for the last one is not laid over the next.
  const [turn, setTurn] = useState(0)
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault()
        if (error === null || !Number.isFinite(error)) {
          setWrong('Error: say how many seconds, or minutes and seconds such as 2:30; − when the clock is behind')
          return
        }
        if (!ReadingChange.pick(['errorSeconds']).isValidSync({ errorSeconds: error })) {
          setWrong('Error: at most twelve hours')
          return
        }
        onKeep(Date.now(), error, way)
        setError(null)
        setWrong(null)
        setTurn(turn + 1)
      }}
    >
      <Group align="end" my="sm">
        <Figure
          key={turn}
          label="The clock is ahead by"
          unit="s"
          description="− when it is behind; 2:30 is two and a half minutes"
          w="17rem"
          value={error}
          error={wrong}
          onKeep={(v) => {
            setError(v)
            setWrong(null)
          }}
          atOnce
        />
        <NativeSelect
          label="Read"
          value={way}
          onChange={(e) => setWay(e.currentTarget.value as 'eye')}
          data={READING_WAYS.map((w) => ({ value: w, label: READING_WAY_TITLES[w] }))}
        />
        <Button type="submit" variant="default">
          Keep this reading
        </Button>
      </Group>
    </form>
  )
}

/** What was done to the clock between readings. */
function Did({ onEvent }: { onEvent: (kind: RateEventRow['kind'], turns?: number | null) => void }) {
  const [turns, setTurns] = useState<number | null>(null)
  const [kind, setKind] = useState<RateEventRow['kind']>('winding')
  return (
    <div className={styles.rule}>
      <h3>What you did</h3>
      <Group align="end" mt="xs">
        <NativeSelect
          label="Event"
          value={kind}
          onChange={(e) => setKind(e.currentTarget.value as 'nut')}
          data={EVENT_KINDS.map((k) => ({ value: k, label: EVENT_TITLES[k] }))}
        />
        {kind === 'nut' && (
          <Figure
            label="Turns, + raises"
            w="9rem"
            of={[RateEventChange, 'turns']}
            value={turns}
            onKeep={setTurns}
            atOnce
          />
        )}
        <Button
          variant="default"
          disabled={kind === 'nut' && !turns}
          onClick={() => {
            onEvent(kind, kind === 'nut' ? turns : null)
            setTurns(null)
          }}
        >
          Write it down
        </Button>
      </Group>
    </div>
  )
}

function eventWords({ kind, turns, note }: RateEventRow): string {
  const what =
    kind === 'nut' && turns !== null
      ? `nut ${turns > 0 ? 'raised' : 'lowered'} ${turnFraction(turns)} turn`
      : EVENT_TITLES[kind]
  return note === '' ? what : `${what}: ${note}`
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
