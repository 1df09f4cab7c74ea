import { NO_HOME, USUAL_CARD, type CardChoices, type JobPage, type OilRow, type Settings } from '@treadle/contract'
import {
  aheadOf,
  dayThere,
  DRIVE_AGAIN,
  DRIVE_KEY,
  driveCompared,
  FieldError,
  gradeHeard,
  guaranteeUntil,
  mendDone,
  outOfBeatMs,
  pendulumTells,
  perDegreeOf,
  rateBookOf,
  secondsOf,
  splitTold,
  STRIKE_KIND_FACTS,
  strikeWanted,
  type RateBook,
  type SeasonAhead,
} from '@treadle/core'
import { oilDueOf } from '../../job/oilDueOf.ts'

/** What the card of a clock tells, as figures and yes or no: the same for every language. */
export interface CardFacts {
  choices: CardChoices
  hangs: boolean
  tall: boolean
  weights: boolean
  springs: boolean
  strikes: boolean
  trains: number
  days: number | null
  /** a count wheel may get out of step with the hands */
  countWheel: boolean
  moon: 'none' | 'goes' | 'stands'
  calendar: 'none' | 'goes' | 'stands'
  mercury: boolean
  /** it left even: somebody set it, and heard it even afterwards */
  set: boolean
  /** it was set up and heard even in its place */
  inPlace: boolean
  perTurn: number | null
  season: SeasonAhead | null
  guarantee: { from: string; until: string } | null
  due: { checkOn: string; serviceOn: string; stopGap: boolean } | null
  done: CardDone
}

/** What was done and proved; null or nought: it was not. */
export interface CardDone {
  untouched: boolean
  parted: boolean
  cleaned: boolean
  /** worn holes bushed, and where in the workshop’s words */
  bushed: { holes: number; where: string }
  mended: string[]
  beat: { before: string; after: string } | null
  oiled: boolean
  drive: { before: number; now: number; unit: string } | null
  strikeCounted: boolean
  rate: { nut: boolean; secondsPerDay: number; error: number; readings: number } | null
}

export function cardFacts(data: JobPage, oils: OilRow[], settings: Settings, today: string): CardFacts {
  const { clock } = data
  const untouched = data.job.scope === 'untouched' && data.job.partedAt === null
  const { work } = clock
  const last = data.listenings.filter(splitTold).at(-1)
  const book = bookOf(data, settings)
  const dayOf = (at: string) => dayThere(secondsOf(at), settings.timeZone)
  const from = data.job.closedAt === null ? today : dayOf(data.job.closedAt)
  const until = untouched ? null : guaranteeUntil(from, settings.guaranteeMonths)
  const perC = perDegreeOf(book, pendulumTells(data.pendulums.at(-1)?.parts)?.warmth ?? null)
  const month = Number(today.slice(5, 7))
  const even = last !== undefined && gradeHeard(last, settings.beat) !== 'must'
  return {
    choices: clock.card ?? USUAL_CARD,
    hangs: clock.kind === 'wall',
    tall: clock.kind === 'longcase',
    weights: clock.trains.some((t) => t.power === 'weight'),
    springs: clock.trains.some((t) => t.power !== 'weight'),
    strikes: clock.trains.some((t) => t.train !== 'going'),
    trains: clock.trains.length,
    days: clock.pendulum.windsEveryDays,
    countWheel: work.strike
      ? STRIKE_KIND_FACTS[work.strike.kind].counts === 'count wheel'
      : work.strikeWork === 'count-wheel',
    moon: !work.moon ? 'none' : (work.moonWork?.state ?? 'works') === 'works' ? 'goes' : 'stands',
    calendar: !work.calendar ? 'none' : (work.calendarWork?.state ?? 'works') === 'works' ? 'goes' : 'stands',
    mercury: work.mercury,
    set: !untouched && even,
    inPlace: !untouched && even && last.purpose === 'in-place',
    perTurn: book?.secondsPerDayPerTurn ?? null,
    season: aheadOf(settings, null, clock.home ?? NO_HOME, perC, month)?.season ?? null,
    guarantee: until === null ? null : { from, until },
    due: oilDueOf(data, oils, settings),
    done: doneOf(data, settings, book, untouched),
  }
}

function bookOf(data: JobPage, settings: Settings): RateBook | null {
  try {
    return rateBookOf(data, { pendulum: data.clock.pendulum, settings })
  } catch (error) {
    if (error instanceof FieldError) return null
    throw error
  }
}

function doneOf(data: JobPage, settings: Settings, book: RateBook | null, untouched: boolean): CardDone {
  const bushed = data.holes.filter((h) => h.bushed)
  const told = data.listenings.filter(splitTold)
  const [first, last] = [told[0], told.at(-1)]
  const of = (key: string) => data.observations.find((o) => o.key === key)
  const drive = driveCompared(of(DRIVE_KEY), of(DRIVE_AGAIN))
  const { strike } = data.clock.work
  return {
    untouched,
    parted: data.job.partedAt !== null,
    cleaned: data.cleanParts.length > 0 && data.cleanParts.every((p) => p.done),
    bushed: {
      holes: bushed.length,
      where: [...new Set(bushed.map((h) => `${h.arbor.toLowerCase()}, ${h.plate}`))].join('; '),
    },
    mended: mendDone(data),
    beat:
      first && last && first !== last && gradeHeard(last, settings.beat) !== 'must'
        ? { before: outOfBeatMs(first).toFixed(0), after: outOfBeatMs(last).toFixed(1) }
        : null,
    oiled: data.events.some((e) => e.kind === 'oiled'),
    drive: drive && drive.changePercent < 0 ? { before: drive.before, now: drive.now, unit: drive.unit } : null,
    strikeCounted: !!strike && data.strikeCounts.length > 0 && strikeWanted(strike, data.strikeCounts).length === 0,
    rate:
      book?.rateSecondsPerDay != null && book.standardError !== null && book.suspects.length === 0
        ? {
            nut: data.events.some((e) => e.kind === 'nut'),
            secondsPerDay: book.rateSecondsPerDay,
            error: book.standardError,
            readings: data.readings.length,
          }
        : null,
  }
}
