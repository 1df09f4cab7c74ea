import { RateEventChange, ReadingChange, READING_WAY_TITLES } from '@treadle/contract'
import { EVENT_KINDS, READING_SIGMAS, READING_WAYS, readFigure, timeThere, type ReadingWay } from '@treadle/core'
import { stringify } from 'csv-stringify/sync'
import { v5 as uuid } from 'uuid'
import { momentOf } from '../http/sheetMoment.ts'
import { sheetRecords } from '../http/sheetRecords.ts'

const COLUMNS = [
  'when',
  'ahead s',
  'good to s',
  'how',
  'event',
  'turns',
  'showed',
  'note',
  'warmth °C',
  'semi-arc °',
  'pressure hPa',
  'grams',
] as const
type Column = (typeof COLUMNS)[number]
const MOST_ROWS = 2000
const NAMESPACE = '5b0f3a52-8f0e-4b0a-9a57-0e9d6a0c6f11'

interface LogRows {
  readings: {
    at: Date
    errorSeconds: number
    sigmaSeconds: number
    way: ReadingWay
    temperatureC: number | null
    semiArcDeg: number | null
    pressureHpa: number | null
  }[]
  events: { at: Date; kind: string; turns: number | null; grams: number | null; showed: string; note: string }[]
}

export interface ReadSheet {
  readings: ReadingChange[]
  events: RateEventChange[]
  wrong: { line: number; message: string }[]
}

/** A job's log as a sheet with a heading: moments by the workshop's clock, errors in seconds, + ahead. */
export function logCsv({ readings, events }: LogRows, timeZone: string): string {
  const rows = [
    ...readings.map((r) => ({
      at: r.at,
      row: [
        ...[r.errorSeconds, r.sigmaSeconds, r.way, '', '', '', ''],
        ...[r.temperatureC ?? '', r.semiArcDeg ?? '', r.pressureHpa ?? '', ''],
      ],
    })),
    ...events.map((e) => ({
      at: e.at,
      row: ['', '', '', e.kind, e.turns ?? '', e.showed, e.note, '', '', '', e.grams ?? ''],
    })),
  ].sort((a, b) => a.at.getTime() - b.at.getTime())
  return stringify(
    rows.map(({ at, row }) => [timeThere(at.getTime() / 1000, timeZone, 'second'), ...row]),
    { header: true, columns: [...COLUMNS], escape_formulas: true },
  )
}

/**
 * Readings and events from a sheet or from pasted lines: "2026-11-27 09:05, -12.5". With a heading the columns are found
 * by their names; without one they are when, ahead, how, warmth. Times without a zone are the workshop's. What can't be read is
 * named by its line and left out. The same line read twice is the same reading.
 */
export function readLogSheet(text: string, jobId: string, timeZone: string, now: Date): ReadSheet {
  const out: ReadSheet = { readings: [], events: [], wrong: [] }
  // A heading, and one to see that there are more.
  const records = sheetRecords(text, MOST_ROWS + 2)
  if (typeof records === 'string') return { ...out, wrong: [{ line: 1, message: records }] }
  const heading = records[0]?.record.map((cell) => cell.toLowerCase().trim()) ?? []
  const headed = heading.includes('when')
  const place = (name: Column, without: number) => (headed ? heading.indexOf(name.toLowerCase()) : without)
  const places: Record<Column, number> = {
    when: place('when', 0),
    'ahead s': place('ahead s', 1),
    'good to s': place('good to s', -1),
    how: place('how', 2),
    event: place('event', -1),
    turns: place('turns', -1),
    showed: place('showed', -1),
    note: place('note', -1),
    'warmth °C': place('warmth °C', 3),
    'semi-arc °': place('semi-arc °', -1),
    'pressure hPa': place('pressure hPa', -1),
    grams: place('grams', -1),
  }
  const lines = headed ? records.slice(1) : records
  if (lines.length > MOST_ROWS)
    return { ...out, wrong: [{ line: MOST_ROWS + 1, message: `At most ${MOST_ROWS} lines at once` }] }
  for (const { record, info } of lines) {
    const cell = (name: Column) => (places[name] < 0 ? '' : (record[places[name]] ?? '').replace(/^'/, '').trim())
    const said = lineOf(cell, jobId, timeZone, now)
    if (typeof said === 'string') out.wrong.push({ line: info.lines, message: said })
    else if ('kind' in said) out.events.push(said)
    else out.readings.push(said)
  }
  return out
}

/** What of a sheet is not in the log yet: the log itself, saved and sent back, adds nothing. */
export function newIn(sheet: ReadSheet, log: LogRows): Pick<ReadSheet, 'readings' | 'events'> {
  const second = (at: Date | string) => Math.floor(new Date(at).getTime() / 1000)
  const reading = (r: { at: Date | string; errorSeconds: number }) => `${second(r.at)} ${r.errorSeconds}`
  const event = (e: { at: Date | string; kind: string; turns: number | null; grams?: number | null | undefined }) =>
    `${second(e.at)} ${e.kind} ${e.turns} ${e.grams ?? null}`
  const [read, happened] = [new Set(log.readings.map(reading)), new Set(log.events.map(event))]
  return {
    readings: sheet.readings.filter((r) => !read.has(reading(r))),
    events: sheet.events.filter((e) => !happened.has(event(e))),
  }
}

/** One line as a reading or an event, or what is wrong with it. */
function lineOf(
  cell: (name: Column) => string,
  jobId: string,
  timeZone: string,
  now: Date,
): ReadingChange | RateEventChange | string {
  const at = momentOf(cell('when'), timeZone)
  if (typeof at === 'string') return at
  if (at.getTime() > now.getTime() + 60_000) return `When: ${cell('when')} is still to come`
  const iso = at.toISOString()
  const idOf = (what: string) => uuid(`${jobId} ${iso} ${what}`, NAMESPACE)
  if (cell('event') !== '') {
    const kind = EVENT_KINDS.find((k) => k === cell('event').toLowerCase())
    if (!kind) return `Event: “${cell('event')}” is none of ${EVENT_KINDS.join(', ')}`
    const turns = readFigure(cell('turns'), '', { named: ['turns', 'turn'] })
    if (!turns.read) return `Turns: ${turns.sentence}`
    const grams = readFigure(cell('grams'), '', { named: ['g'] })
    if (!grams.read) return `Grams: ${grams.sentence}`
    return checked(RateEventChange, {
      id: idOf(kind),
      version: 0,
      at: iso,
      kind,
      turns: kind === 'nut' ? turns.value : null,
      grams: kind === 'tray' ? grams.value : null,
      showed: kind === 'stopped' ? cell('showed') : '',
      note: cell('note').slice(0, 500),
    })
  }
  const error = readFigure(cell('ahead s'), 's')
  if (!error.read) return `Ahead: ${error.sentence}`
  if (error.value === null) return 'Ahead: say how many seconds; − when the clock is behind'
  const way = wayOf(cell('how'))
  if (way === null) return `How: “${cell('how')}” is none of ${READING_WAYS.join(', ')}`
  const sigma = readFigure(cell('good to s'), 's')
  if (!sigma.read) return `Good to: ${sigma.sentence}`
  const beside = { warmth: figureOf('warmth °C'), arc: figureOf('semi-arc °'), pressure: figureOf('pressure hPa') }
  for (const [what, said] of Object.entries(beside))
    if (!said.read) return `${what.replace(/^./, (c) => c.toUpperCase())}: ${said.sentence}`
  return checked(ReadingChange, {
    id: idOf('reading'),
    version: 0,
    at: iso,
    errorSeconds: error.value,
    sigmaSeconds: sigma.value ?? READING_SIGMAS[way],
    way,
    temperatureC: valueOf(beside.warmth),
    semiArcDeg: valueOf(beside.arc),
    pressureHpa: valueOf(beside.pressure),
  })

  function figureOf(name: Column) {
    return readFigure(cell(name), '', { named: ['°C', 'C', '°', 'hPa'] })
  }
}

function valueOf(said: ReturnType<typeof readFigure>): number | null {
  return said.read ? said.value : null
}

function checked<T>(schema: { validateSync: (value: unknown, options: object) => T }, row: unknown): T | string {
  try {
    return schema.validateSync(row, { strict: true })
  } catch (error) {
    return (error as Error).message
  }
}

function wayOf(said: string): ReadingWay | null {
  if (said === '') return 'eye'
  const low = said.toLowerCase()
  return READING_WAYS.find((w) => w === low || READING_WAY_TITLES[w] === low || low === `by ${w}`) ?? null
}
