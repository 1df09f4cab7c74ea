import { FieldError, requireFinite, requirePositive, requireWithin } from '../check/require.ts'
import { nutTurnFor, secondsPerDayPerTurn, type NutMove } from '../pendulum/nut.ts'
import { fitRates } from './average.ts'
import { influencesOf, type Beside, type Influence } from './influences.ts'
import type { RateEvent, RateReading, RateRun } from './log.ts'
import { gather, type Segment } from './segments.ts'
import { clear, type Suspect } from './suspects.ts'
import { RATE_GOAL, RATE_TOLERANCE } from './tolerance.ts'

const DAY_S = 86_400
/** By eye against a time signal, s. */
export const SIGMA_BY_EYE_S = 1
/** A rate worth acting on stands this many standard errors from 0. */
const SUPPORT = 2
const SETTLE_S = 1800
/** Where warmth or arc are told the rate now is that of so long before the latest reading, s: a single one is unsure. */
const LATELY_S = 3 * DAY_S
const LONGEST_WAIT_S = 7 * DAY_S
/** Worse known than this a rate is not told at all: two readings moments apart, s/day. */
const UNTOLD = 600
/** What a nut's thread lets a bob travel either way, mm, and turns where the pitch is not known. */
const TRAVEL_MM = 12
const TRAVEL_TURNS = 15

export interface RateBookInput extends Beside {
  readings: RateReading[]
  events: RateEvent[]
  runs?: RateRun[] | undefined
  pitchMm?: number | undefined
  lengthMm?: number | undefined
  /** a rate within this of 0 needs no turn, s/day */
  toleranceSecondsPerDay?: number | undefined
  /** the standard error worth waiting for, s/day */
  goalSecondsPerDay?: number | undefined
}

export interface FittedSegment {
  fromS: number
  toS: number
  readings: number
  meanS: number
  meanErrorS: number
  meanStandardErrorS: number
  rateSecondsPerDay: number | null
  standardError: number | null
}

export interface RateBook {
  /** rate now, s/day, + gains; null while the readings since the last change can't tell */
  rateSecondsPerDay: number | null
  standardError: number | null
  /** gain for one whole turn that raises the bob, s/day; null when neither log nor pitch and length tell */
  secondsPerDayPerTurn: number | null
  perTurnStandardError: number | null
  /** the figure from pitch and length alone */
  priorSecondsPerDayPerTurn: number | null
  /** for each °C warmer, + gains; null where the readings tell of no warmth, or of too little change of it */
  secondsPerDayPerC: number | null
  perCStandardError: number | null
  /** share of its circular error that it follows as its arc changes: 1 for a free pendulum; null where no arcs tell */
  arcShare: number | null
  arcShareStandardError: number | null
  /** for each hPa more of air, + gains; null where none was read */
  secondsPerDayPerHpa: number | null
  perHpaStandardError: number | null
  /** how much more it gains run down than wound, s/day; null where its readings can't tell of a rhythm */
  windingSecondsPerDay: number | null
  windingStandardError: number | null
  /** how the error walks by itself, s per √day */
  walk: number
  /** how many turns of the nut have taught the figure */
  turnsLearntFrom: number
  /** turns to give, ≥ 0; 0 when none is called for or the data can't support one */
  suggestedTurns: number
  suggestedTurnsStandardError: number | null
  move: NutMove | null
  /** why it proposes what it proposes */
  advice:
    | 'turn'
    | 'within-tolerance'
    | 'not-told-from-zero'
    | 'too-few-readings'
    | 'nut-unknown'
    | 'doubted'
    | 'beyond-the-nut'
  /** readings that don't belong with the others: the rate is reckoned without them, and no turn is proposed */
  suspects: Suspect[]
  /** when the next reading is worth taking, s; null with no readings */
  nextReadingAtS: number | null
  segments: FittedSegment[]
}

/**
 * The rate now, what a turn of the nut does on this clock, the turn to give and when to read again.
 *
 * Least squares of error = cₛ + (rₑ + k·turns)·t over all segments: each epoch between other changes has its own base
 * rate rₑ, one k for the nut has a prior from pitch and length, and the lines of two segments meet within a couple of
 * seconds where only the nut was turned. How a clock's error walks by itself and how good its readings are is judged
 * by the readings. Where readings tell of warmth or arc their figures are fitted as well, and the rate now is that at
 * the warmth and arc of the last three days. Those that don't belong are named in `suspects` and asked about. The order
 * of the readings changes nothing; centred in each segment, so times near one another and large epochs do no harm.
 *
 * @param book - times in seconds on one scale, errors in seconds
 * @throws FieldError naming the reading or event
 */
export function rateBook(book: RateBookInput): RateBook {
  check(book)
  const tolerance = book.toleranceSecondsPerDay ?? RATE_TOLERANCE
  const goal = book.goalSecondsPerDay ?? RATE_GOAL
  const prior =
    book.pitchMm !== undefined && book.lengthMm !== undefined ? secondsPerDayPerTurn(book.lengthMm, book.pitchMm) : null
  const runs = book.runs ?? []
  const influences = influencesOf(book.readings, book)
  const { suspects, readings, events } = clear(book.readings, book.events, prior, runs, influences)
  const segments = gather(readings, events, runs)
  const fit = fitRates(segments, prior, influences)
  const learned = (kind: Influence['kind']) => {
    const i = influences.findIndex((f) => f.kind === kind)
    return i === -1 ? null : fit.influences[i]!
  }
  const warmth = learned('warmth')
  const arc = learned('arc')
  const air = learned('air')
  const winding = learned('winding')
  const last = segments[segments.length - 1]
  const latestS = Math.max(...readings.map((r) => r.atS), ...runs.map((r) => r.toS))
  const lately = [Math.max(last?.fromS ?? latestS, latestS - LATELY_S), latestS] as const
  const over = last ? fit.rateOver(last, ...lately) : null
  const unsure = influences.map((f, i) => fit.influences[i]!.value * f.errorOver(...lately))
  const told = over && { ...over, standardError: Math.hypot(over.standardError, ...unsure) }
  const now = told && told.standardError <= UNTOLD ? told : null
  const perTurn = fit.perTurn

  const rate = now?.value ?? null
  const standardError = now?.standardError ?? null
  let advice: RateBook['advice'] = 'too-few-readings'
  let suggestedTurns = 0
  let move: NutMove | null = null
  let suggestedTurnsStandardError: number | null = null
  if (rate !== null && standardError !== null) {
    if (Math.abs(rate) < SUPPORT * standardError) advice = 'not-told-from-zero'
    else if (Math.abs(rate) <= tolerance) advice = 'within-tolerance'
    else if (perTurn === null || perTurn.value <= 0) advice = 'nut-unknown'
    else if (Math.abs(rate / perTurn.value) > mostTurns(book.pitchMm)) advice = 'beyond-the-nut'
    else {
      advice = 'turn'
      const turn = nutTurnFor(rate, perTurn.value)
      suggestedTurns = turn.turns
      move = turn.move
      suggestedTurnsStandardError = turn.turns * Math.hypot(standardError / rate, perTurn.standardError / perTurn.value)
    }
    if (Math.abs(rate) <= tolerance && tolerance > 0 && standardError <= tolerance) advice = 'within-tolerance'
  }
  if (suspects.length > 0) {
    advice = 'doubted'
    suggestedTurns = 0
    suggestedTurnsStandardError = null
    move = null
  }
  return {
    rateSecondsPerDay: rate,
    standardError,
    secondsPerDayPerTurn: perTurn?.value ?? null,
    perTurnStandardError: perTurn?.standardError ?? null,
    priorSecondsPerDayPerTurn: prior,
    secondsPerDayPerC: warmth?.value ?? null,
    perCStandardError: warmth?.standardError ?? null,
    arcShare: arc?.value ?? null,
    arcShareStandardError: arc?.standardError ?? null,
    secondsPerDayPerHpa: air?.value ?? null,
    perHpaStandardError: air?.standardError ?? null,
    windingSecondsPerDay: winding?.value ?? null,
    windingStandardError: winding?.standardError ?? null,
    walk: fit.walk,
    turnsLearntFrom: turnsBetweenReadings(book),
    suggestedTurns,
    suggestedTurnsStandardError,
    move,
    advice,
    suspects,
    nextReadingAtS: nextReading(segments, readings, goal),
    segments: segments
      .filter((s) => s.readings.length > 0)
      .map((s) => {
        const slope = fit.rateIn(s)
        const mean = fit.meanErrorIn(s)
        return {
          fromS: s.readings[0]?.atS ?? s.fromS,
          toS: s.readings[s.readings.length - 1]?.atS ?? s.fromS,
          readings: s.readings.length,
          meanS: s.meanS,
          meanErrorS: mean.value,
          meanStandardErrorS: mean.standardError,
          rateSecondsPerDay: slope?.value ?? null,
          standardError: slope?.standardError ?? null,
        }
      }),
  }
}

/** Days between two readings, each good to σ seconds, that give the rate to `goal` s/day: σ·√2/goal. */
export function daysToTellRate(sigmaS: number, goalSecondsPerDay: number): number {
  requirePositive('sigmaS', sigmaS)
  requirePositive('goalSecondsPerDay', goalSecondsPerDay)
  return (sigmaS * Math.SQRT2) / goalSecondsPerDay
}

function mostTurns(pitchMm: number | undefined): number {
  return pitchMm === undefined ? TRAVEL_TURNS : TRAVEL_MM / pitchMm
}

function check(book: RateBookInput): void {
  if (book.pitchMm !== undefined) requirePositive('pitchMm', book.pitchMm)
  if (book.lengthMm !== undefined) requirePositive('lengthMm', book.lengthMm)
  if (book.toleranceSecondsPerDay !== undefined)
    requireWithin('toleranceSecondsPerDay', book.toleranceSecondsPerDay, 0, 86_400)
  if (book.goalSecondsPerDay !== undefined) requirePositive('goalSecondsPerDay', book.goalSecondsPerDay)
  book.readings.forEach((r, i) => {
    requireFinite(`readings[${i}].at`, r.atS)
    requireFinite(`readings[${i}].errorSeconds`, r.errorS)
    if (r.sigmaS !== undefined) requirePositive(`readings[${i}].sigmaSeconds`, r.sigmaS)
    if (r.temperatureC !== undefined) requireWithin(`readings[${i}].temperatureC`, r.temperatureC, -60, 80)
    if (r.semiArcDeg !== undefined) requireWithin(`readings[${i}].semiArcDeg`, r.semiArcDeg, 0, 90)
    if (r.pressureHpa !== undefined) requireWithin(`readings[${i}].pressureHpa`, r.pressureHpa, 300, 1200)
  })
  book.events.forEach((e, i) => {
    requireFinite(`adjustments[${i}].at`, e.atS)
    if (e.kind === 'nut') requireFinite(`adjustments[${i}].turns`, e.turns)
    if (e.kind === 'known') requireFinite(`adjustments[${i}].secondsPerDay`, e.secondsPerDay)
  })
  book.runs?.forEach((r, i) => {
    requireFinite(`runs[${i}].rateSecondsPerDay`, r.secondsPerDay)
    requirePositive(`runs[${i}].standardError`, r.standardError)
    requirePositive(`runs[${i}].seconds`, r.toS - r.fromS)
    requireWithin(`runs[${i}].deviceError`, r.deviceError, 0, 86_400)
  })
  if (book.readings.length === 0 && (book.runs ?? []).length === 0)
    throw new FieldError('readings', 0, 'it needs at least one reading')
}

function turnsBetweenReadings({ readings, events }: RateBookInput): number {
  const times = readings.map((r) => r.atS)
  const first = Math.min(...times)
  const last = Math.max(...times)
  return events.filter((e) => e.kind === 'nut' && e.atS >= first && e.atS < last).length
}

/**
 * The earliest time at which one more reading gives the present segment's own rate to the goal, or halves its error
 * when the goal is met already; a first reading soon after a change, and never more than a week on.
 */
function nextReading(segments: Segment[], readings: RateReading[], goal: number): number | null {
  const last = segments[segments.length - 1]
  if (!last) return null
  const sigma = readings[readings.length - 1]?.sigmaS ?? SIGMA_BY_EYE_S
  if (last.readings.length === 0 && last.runs.length === 0) return last.fromS + SETTLE_S
  const latest = Math.max(last.readings.at(-1)?.atS ?? last.fromS, ...last.runs.map((r) => r.toS))
  const spreadWith = (atS: number) => {
    // Σwτ² after one more reading: the old spread, plus the new one against the old mean.
    const w = 1 / sigma ** 2
    const lever = (atS - (last.weight > 0 ? last.meanS : atS)) / DAY_S
    return last.spread + ((w * last.weight) / (w + last.weight)) * lever ** 2
  }
  const aim = last.spread > 0 && 1 / Math.sqrt(last.spread) <= goal ? 0.5 / Math.sqrt(last.spread) : goal
  let low = latest + SETTLE_S
  let high = latest + LONGEST_WAIT_S
  if (1 / Math.sqrt(spreadWith(low)) <= aim) return low
  if (1 / Math.sqrt(spreadWith(high)) > aim) return high
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    if (1 / Math.sqrt(spreadWith(middle)) > aim) low = middle
    else high = middle
  }
  return Math.round(high)
}
