import { secondsOf, type Moment } from '../care/moment.ts'
import { whenOpen, type WorkshopHours } from '../care/workshopHours.ts'
import { rateBook, type RateBook, type RateBookInput } from './book.ts'
import { pendulumTells } from './pendulumTells.ts'
import type { SheetPart } from '../pendulum/sheet.ts'
import { SECONDS_PER_PPM } from '../sound/ownClock.ts'
import type { WatchRun } from '../watch/tells.ts'
import { isChange, type RateEventKind, type ReadingWay } from './kinds.ts'
import type { RateEvent, RateRun } from './log.ts'

/** A watch as the rate book asks for it. */
export interface WatchHeard {
  beganAt: Moment
  pickup: 'microphone' | 'practice' | 'file'
  device: string
  /** how far its sound card was known, parts per million; null: not compared */
  ppmError: number | null
  run: WatchRun | null
}

/** How far a sound card that was never compared may be off, parts per million: one standard deviation. */
const CARD_PPM = 40
/** No clock keeps its rate better from one half hour to the next, s/day. */
const LEAST_RUN_ERROR = 0.02

/** A job’s log: what the clock showed, and what was done to it between. */
export interface RateLog {
  readings: {
    at: Moment
    errorSeconds: number
    sigmaSeconds: number
    way?: ReadingWay
    temperatureC?: number | null | undefined
    semiArcDeg?: number | null | undefined
    pressureHpa?: number | null | undefined
  }[]
  /** listenings to it; short ones tell nothing of a rate */
  listenings?: {
    at: Moment
    pickup?: string
    fileName?: string
    rateSecondsPerDay?: number
    rateStandardError?: number
    secondsAnalysed?: number
  }[]
  /** watches kept on it, with the rate that each heard */
  watches?: WatchHeard[]
  events: { at: Moment; kind: RateEventKind; turns: number | null; grams?: number | null | undefined }[]
  /** of the thermometer beside it */
  thermometers?: { temperatures: { at: Moment; celsius: number }[] }[]
  /** its pendulum as it was laid out on the bench */
  pendulums?: { parts: SheetPart[] }[]
}

/** What else the rate book asks for: of the pendulum, and how well the workshop wants to know the rate. */
export interface RateAims {
  pendulum: { pitchMm: number | null; lengthMm: number | null }
  settings: { rateToleranceSecondsPerDay: number; rateGoalSecondsPerDay: number } & Partial<WorkshopHours>
}

/** A job’s log as the rate book reckons with it. */
export function rateBookInput(log: RateLog, { pendulum, settings }: RateAims): RateBookInput {
  const { readings, events, watches = [], thermometers = [], pendulums = [] } = log
  const tells = pendulumTells(pendulums.at(-1)?.parts)
  return {
    pitchMm: pendulum.pitchMm ?? undefined,
    lengthMm: pendulum.lengthMm ?? undefined,
    toleranceSecondsPerDay: settings.rateToleranceSecondsPerDay,
    goalSecondsPerDay: settings.rateGoalSecondsPerDay,
    readings: readings.map((r) => ({
      atS: secondsOf(r.at),
      errorS: r.errorSeconds,
      sigmaS: r.sigmaSeconds,
      temperatureC: r.temperatureC ?? undefined,
      semiArcDeg: r.semiArcDeg ?? undefined,
      pressureHpa: r.pressureHpa ?? undefined,
      by: r.way,
      ...(r.way === 'strike' && { byStrike: true }),
    })),
    temperatures: thermometers.flatMap((t) =>
      t.temperatures.map(({ at, celsius }) => ({ atS: secondsOf(at), celsius })),
    ),
    windingsS: events.filter((e) => e.kind === 'winding').map((e) => secondsOf(e.at)),
    warmth: tells?.warmth,
    runs: [...watches.flatMap(runsOf), ...heardRuns(log)],
    events: events.flatMap((e): RateEvent[] => {
      const atS = secondsOf(e.at)
      if (!isChange(e.kind)) return []
      if (e.kind === 'nut') return [{ atS, kind: 'nut', turns: e.turns ?? 0 }]
      // Without its tray in the drawing nobody knows how deep the gram lies.
      if (e.kind === 'tray' && tells?.hasTray)
        return [{ atS, kind: 'known', secondsPerDay: (e.grams ?? 0) * tells.secondsPerDayPerGram }]
      return [{ atS, kind: e.kind === 'hands' ? 'hands' : 'change' }]
    }),
  }
}

/** A listening shorter than this tells less of a rate than an hour's reading by eye, s. */
const LEAST_LISTENED_S = 300

/**
 * Long listenings as runs beside what else was read: alone they begin no book. What listened is not known by name, so
 * all of the microphone's are taken to share one sound card's error, and each file has its own recorder's.
 */
function heardRuns({ readings, watches = [], listenings = [] }: RateLog): RateRun[] {
  if (readings.length === 0 && !watches.some((w) => w.run !== null)) return []
  return listenings.flatMap((l) => {
    const { rateSecondsPerDay, rateStandardError, secondsAnalysed = 0 } = l
    if (secondsAnalysed < LEAST_LISTENED_S || l.pickup === 'practice') return []
    if (rateSecondsPerDay === undefined || rateStandardError === undefined) return []
    const toS = secondsOf(l.at)
    return [
      {
        fromS: toS - secondsAnalysed,
        toS,
        secondsPerDay: rateSecondsPerDay,
        standardError: Math.max(rateStandardError, LEAST_RUN_ERROR),
        device: l.pickup === 'file' ? `a file, ${l.fileName ?? ''}` : 'listening by microphone',
        deviceError: SECONDS_PER_PPM * CARD_PPM,
      },
    ]
  })
}

/** The practice clock’s rate is nobody’s. */
function runsOf({ beganAt, pickup, device, ppmError, run }: WatchHeard): RateRun[] {
  if (run === null || pickup === 'practice') return []
  const began = secondsOf(beganAt)
  return [
    {
      fromS: began + run.fromS,
      toS: began + run.toS,
      secondsPerDay: run.secondsPerDay,
      standardError: Math.max(run.standardError, LEAST_RUN_ERROR),
      device: `${pickup} ${device}`,
      deviceError: SECONDS_PER_PPM * (ppmError ?? CARD_PPM),
    },
  ]
}

/** So many books are remembered: the bench asks for those of all its clocks each time it is looked at. */
const REMEMBERED = 300
const books = new Map<string, RateBook>()

/** A book is what its readings and events make it, so that it is reckoned once for as long as they stay as they are. */
function remembered(input: RateBookInput): RateBook {
  const key = JSON.stringify(input)
  const known = books.get(key)
  const book = known ?? rateBook(input)
  // Asked for last, forgotten last.
  books.delete(key)
  books.set(key, book)
  const oldest = books.keys().next()
  if (books.size > REMEMBERED && !oldest.done) books.delete(oldest.value)
  return book
}

/** The rate book of a job’s log, its next reading while somebody is at the bench; null where nothing was read or heard. */
export function rateBookOf(log: RateLog, aims: RateAims): RateBook | null {
  const input = rateBookInput(log, aims)
  if (input.readings.length === 0 && input.runs?.length === 0) return null
  return whileOpen(remembered(input), aims.settings)
}

/** The same book with its next reading while somebody is at the bench. */
export function whileOpen(book: RateBook, { openFrom, openUntil, timeZone }: RateAims['settings']): RateBook {
  if (book.nextReadingAtS === null || openFrom === undefined || openUntil === undefined || timeZone === undefined)
    return book
  return { ...book, nextReadingAtS: whenOpen(book.nextReadingAtS, { openFrom, openUntil, timeZone }) }
}
