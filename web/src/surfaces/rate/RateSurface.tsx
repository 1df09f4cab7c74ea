import type { RateEventRow, Reading, ReadingChange, WatchRow } from '@treadle/contract'
import {
  errorAtMinuteMark,
  isChange,
  nextMove,
  pendulumTells,
  type RateBook,
  rateBookInput,
  rateInWords,
  rateLimitFor,
  READING_SIGMAS,
  whileOpen,
} from '@treadle/core'
import { SegmentedControl } from '@mantine/core'
import { lazy, Suspense, useDeferredValue, useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { useRowsSaid } from '../../data/onTheWay.ts'
import { useChange, useSettings } from '../../data/queries.ts'
import { useHappened } from '../../job/useHappened.ts'
import { useJobData } from '../../job/useJobData.ts'
import { count } from '../../parts/say.ts'
import { usePedalAction } from '../../pedal/Pedal.tsx'
import { useAnswer } from '../../parts/useAnswer.ts'
import { Advice } from './Advice.tsx'
import { AheadOfIt } from '../../job/AheadOfIt.tsx'
import type { BookAsked, BookFound } from './book.worker.ts'
import { Causes } from './Causes.tsx'
import { Foretold } from './Foretold.tsx'
import { Did } from './Did.tsx'
import { Doubts } from './Doubts.tsx'
import { Log } from './Log.tsx'
import { ManyReadings } from './ManyReadings.tsx'
import { NewReading, type BesideReading } from './NewReading.tsx'
import { Thermometer } from './Thermometer.tsx'
import styles from './Rate.module.css'

const RateChart = lazy(() => import('./RateChart.tsx'))
const bookWorker = () => new Worker(new URL('./book.worker.ts', import.meta.url), { type: 'module' })

/** The readings that a book was reckoned of: its doubts and its chart speak of those. */
interface Of {
  readings: Reading[]
}

/** The rate book: readings and what was done between them, the rate now, the next turn, the next reading. */
export function RateSurface() {
  const data = useJobData()
  const { job, clock, events, watches, listenings, thermometers, pendulums } = data
  const { data: settings } = useSettings()
  const change = useChange()
  const said = useRowsSaid(data, 'readings', data.readings)
  const { pendulum } = clock
  // What was pressed stands in the log at once; the rate is reckoned of it beside the page.
  const input = useMemo(() => {
    if (!settings) return null
    const log = { readings: said, events, watches, listenings, thermometers, pendulums }
    const input = rateBookInput(log, { pendulum, settings })
    return input.readings.length > 0 || (input.runs ?? []).length > 0 ? input : null
  }, [said, events, watches, listenings, thermometers, pendulums, pendulum, settings])
  // A row that only came back from the server changes nothing of the rate: the same figures are the same question.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const asked = useMemo(() => input && { input, readings: said }, [JSON.stringify(input)])
  const told = useAnswer<BookAsked & Of, BookFound>(bookWorker, asked)
  const reckoned = useMemo(
    () =>
      asked && settings && told
        ? { ...told.of, book: whileOpen(told.answer.book, settings), expected: told.answer.expected }
        : null,
    [asked, settings, told],
  )
  const readings = reckoned?.readings ?? said
  const book = reckoned?.book ?? null
  const doubted = useMemo(
    () => new Set(reckoned?.book?.suspects.map(({ index }) => readings[index]?.id)),
    [reckoned, readings],
  )
  const charted = useDeferredValue(reckoned, null)
  const tells = pendulumTells(pendulums.at(-1)?.parts)
  const limit = rateLimitFor(pendulum.lengthMm)
  const putReading = (at: number, errorSeconds: number, way: ReadingChange['way'], beside: BesideReading = {}) => {
    const id = uuid()
    const body = {
      id,
      version: 0,
      at: new Date(at).toISOString(),
      errorSeconds: Math.round(errorSeconds * 100) / 100,
      sigmaSeconds: READING_SIGMAS[way],
      way,
      ...beside,
    }
    change.mutate({ method: 'PUT', path: `/jobs/${job.id}/readings/${id}`, body })
    return () => change.mutate({ method: 'DELETE', path: `/jobs/${job.id}/readings/${id}` })
  }
  const happened = useHappened()
  const putEvent = (kind: RateEventRow['kind'], turns: number | null = null, at = '', grams: number | null = null) =>
    happened(kind, { turns, ...(grams !== null && { grams }), ...(at === '' ? {} : { at }) })
  usePedalAction({
    label: 'Press as the hand crosses a minute',
    hint: 'against this computer’s clock',
    press: (atMs) => putReading(atMs, errorAtMinuteMark(atMs / 1000, expectedError(book, said, atMs)), 'pedal'),
  })
  const [span, setSpan] = useState<'recent' | 'all'>('recent')
  const fromMs = span === 'all' ? 0 : recentFrom(book)
  const headline =
    book === null
      ? asked
        ? 'Its rate is being reckoned'
        : 'No reading yet'
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
          {asked
            ? summary(readings, events, watches)
            : 'Type what the clock is out, or press the pedal as its minute hand crosses a mark. Two readings some hours apart begin to tell its rate.'}
        </p>
        {charted && (
          <Suspense fallback={<div className={styles.chart} />}>
            <RateChart
              book={charted.book}
              readings={charted.readings}
              events={events}
              expected={charted.expected}
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
        {reckoned?.expected && <Foretold expected={reckoned.expected} />}
        <NewReading onKeep={putReading} />
        <Thermometer />
        <Log readings={said} events={events} doubted={doubted} />
        <ManyReadings />
      </section>
      <section>
        <h2>Next</h2>
        {book && book.suspects.length > 0 && (
          <Doubts suspects={book.suspects} readings={readings} onHands={(at) => putEvent('hands', null, at)} />
        )}
        {book && (
          <Advice
            book={book}
            move={nextMove(book, tells?.hasTray ? tells.secondsPerDayPerGram : null)}
            stands={told?.of === asked}
            onTurned={(turns) => putEvent('nut', turns)}
            onLaid={(grams) => putEvent('tray', null, '', grams)}
          />
        )}
        {limit && (
          <p className="quiet">
            What may be asked of it, {limit.words}.
            {book?.rateSecondsPerDay != null &&
              (Math.abs(book.rateSecondsPerDay) <= limit.secondsPerDay
                ? ' It keeps that.'
                : ' It does not keep that yet.')}
          </p>
        )}
        <Did onEvent={putEvent} />
        {reckoned && <Causes book={reckoned.book} input={reckoned.input} />}
        {reckoned && settings && (
          <AheadOfIt book={reckoned.book} input={reckoned.input} settings={settings} className={styles.rule} />
        )}
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

function summary(readings: Reading[], events: RateEventRow[], watches: WatchRow[]): string {
  const runs = watches.filter((w) => w.run !== null && w.pickup !== 'practice').length
  const heard = runs === 0 ? '' : ` and ${count(runs, 'watch', 'watches')}`
  const changed = events.filter((e) => isChange(e.kind))
  const lastMs = Math.max(-Infinity, ...changed.map((e) => Date.parse(e.at)))
  const since = readings.filter((r) => Date.parse(r.at) > lastMs).length
  return changed.length === 0
    ? `From ${count(readings.length, 'reading')}${heard}.`
    : `From ${count(readings.length, 'reading')}${heard}; ${count(since, 'reading')} since the last change.`
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
