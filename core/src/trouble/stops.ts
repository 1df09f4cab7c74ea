import { latest, secondsOf, type Moment } from '../care/moment.ts'
import { FieldError } from '../check/require.ts'
import { unlessRefused } from '../check/unlessRefused.ts'
import { dialMinutes } from '../hands/dialTime.ts'
import type { CountedTrain } from '../movement/trains.ts'
import type { Halves } from '../strike/blows.ts'
import { STRIKE_KIND_FACTS, type StrikeKind } from '../strike/kinds.ts'
import { trainSheet } from '../train/sheet.ts'
import { timeThere } from '../care/workshopTime.ts'
import type { RateEventKind } from '../rate/kinds.ts'

/** A stop of a clock on trial: what its dial showed, and for how long it had run since it was started, s. */
export interface Stop {
  /** minutes past twelve that the dial showed, 0 to 719; null: nobody saw */
  showedMinutes: number | null
  /** seconds that its hands had gone since the stop before; null: not known */
  ranS: number | null
}

/**
 * When a clock stopped that was found at `foundS`, Unix s: the last time that its dial was right with what it shows.
 *
 * @param rightMinutes - minutes past twelve that it should have shown as it was found
 */
export function stoppedAtS(foundS: number, showedMinutes: number, rightMinutes: number): number {
  const back = (((rightMinutes - showedMinutes) % 720) + 720) % 720
  return foundS - 60 * back
}

/**
 * The stops of a job’s log: what each showed, and for how long the hands had gone since the clock was started before it.
 *
 * A stop is noted as the clock is found and started again; when it stopped is told by its dial.
 *
 * @param timeZone - of the workshop, whose time the dial shows
 */
export function stopsOf(events: { at: Moment; kind: RateEventKind; showed: string }[], timeZone: string): Stop[] {
  const found = events.filter((e) => e.kind === 'stopped').sort((a, b) => secondsOf(a.at) - secondsOf(b.at))
  return found.map((stop, i) => {
    const foundS = secondsOf(stop.at)
    const showedMinutes = dialMinutes(stop.showed)
    const before = found[i - 1]
    if (showedMinutes === null || !before) return { showedMinutes, ranS: null }
    const right = dialMinutes(timeOnDial(foundS, timeZone)) ?? 0
    const ranS = stoppedAtS(foundS, showedMinutes, right) - secondsOf(before.at)
    return { showedMinutes, ranS: ranS > 0 ? ranS : null }
  })
}

/** By which key it is kept what was found of a stop. */
export function stopKey(eventId: string): string {
  return `stop:${eventId}`
}

/**
 * The last stop of a clock on its trial of which nobody has said what it was; null: there is none. A clock that is stopped
 * while it is still worked on is asked about by nobody.
 */
export function openStop<E extends { id: string; at: Moment; kind: RateEventKind }>(
  events: E[],
  observations: { key: string; answer: string }[],
): E | null {
  const begun = latest(events.filter((e) => e.kind === 'trial'))
  const stop = latest(events.filter((e) => e.kind === 'stopped'))
  if (!begun || !stop || secondsOf(stop.at) < secondsOf(begun.at)) return null
  return observations.some((o) => o.key === stopKey(stop.id) && o.answer !== '') ? null : stop
}

/** What a dial that is right shows at a moment, such as 3:47. */
export function timeOnDial(atS: number, timeZone: string): string {
  const [hour = 0, minute = 0] = timeThere(atS, timeZone).slice(11).split(':').map(Number)
  return `${hour % 12 === 0 ? 12 : hour % 12}:${String(minute).padStart(2, '0')}`
}

/** By eye a stop is told to the minute. */
const SURE_S = 60
/** An arbor that comes round sooner than this can’t be told by the minute. */
const LEAST_PERIOD_S = 15 * 60

/** What a clock has that may stop it by itself, and its arbors with the seconds of one turn; null: not known. */
export interface StoppingWork {
  arbors: { name: string; periodS: number | null }[]
  strikes: boolean
  halves: boolean
  quarters: boolean
  moon: boolean
  calendar: boolean
}

export interface StopsFound {
  /** arbors at whose same turn it stopped each time; null: its stops can't tell */
  sameTurnOf: string[] | null
  /** the last stop was just before a time at which it lifts its strike; null: nobody saw its dial */
  inWarning: boolean | null
  /** the last stop was while moon or calendar change; null: nobody saw, or it has neither */
  atChange: boolean | null
}

/** What the stops of a clock tell by what its dial showed. */
export function stopsFound(stops: Stop[], work: StoppingWork): StopsFound {
  const again = stops.slice(1).flatMap((s) => (s.ranS === null || s.ranS < LEAST_PERIOD_S ? [] : [s.ranS]))
  const told = again.length > 0 && again.length === stops.length - 1
  const sameTurnOf = work.arbors.flatMap(({ name, periodS }) => {
    if (periodS === null || periodS < LEAST_PERIOD_S) return []
    const same = again.every((ran) => {
      const turns = Math.round(ran / periodS)
      return turns > 0 && Math.abs(ran - turns * periodS) <= SURE_S
    })
    return same ? [name] : []
  })
  const last = stops.at(-1)?.showedMinutes ?? null
  const known = work.arbors.some((a) => a.periodS !== null)
  return {
    sameTurnOf: told && known ? sameTurnOf : null,
    inWarning: last === null ? null : beforeItLifts(last % 60, work),
    atChange: last === null || !(work.calendar || work.moon) ? null : Math.min(last, 720 - last) <= CHANGE_MINUTES,
  }
}

/** The lift begins some minutes before it drops. */
const LIFT_MINUTES = 10
/** Moon and calendar change about twelve. */
const CHANGE_MINUTES = 90

function beforeItLifts(minute: number, { strikes, halves, quarters }: StoppingWork): boolean {
  const lifts = [...(strikes ? [0] : []), ...(halves ? [30] : []), ...(quarters ? [15, 30, 45] : [])]
  return lifts.some((at) => (at - minute + 60) % 60 <= LIFT_MINUTES)
}

/** What the stops of a clock tell, in sentences, the surest first. */
export function stopsTell(stops: Stop[], work: StoppingWork): string[] {
  const { sameTurnOf, inWarning, atChange } = stopsFound(stops, work)
  const out = (sameTurnOf ?? []).map(
    (name) =>
      `It stopped at the same turn of the ${name} each time: look at its teeth, its pivots and what meshes with it.`,
  )
  if (inWarning === true)
    out.push(
      'It stopped while it lifts its strike or stands in warning: the lift, a hammer tail on its pin, a rack held by its pallet.',
    )
  if (atChange === true)
    out.push(`It stopped near twelve: ${work.calendar ? 'the calendar' : 'the moon'} at its change.`)
  if (out.length > 0 || inWarning === null) return out
  return [
    stops.length > 1
      ? 'Its stops have no turn in common: the cause is not one tooth or one wheel; beat, power and dirt come first.'
      : 'One stop names no wheel: note what the dial shows if it stops again.',
  ]
}

/** What of a clock may stop it, from its sheets. */
export function stoppingWork(
  clock: {
    trains: { train: string }[]
    work: { moon: boolean; calendar: boolean; strike?: { kind: StrikeKind; halves: Halves } | undefined }
  },
  sheets: CountedTrain[],
): StoppingWork {
  const { moon, calendar, strike } = clock.work
  const arbors = sheets.flatMap((s) => {
    const sheet = unlessRefused(() => trainSheet(s.arbors, s.hourly, s.escape))
    return sheet instanceof FieldError
      ? []
      : sheet.arbors.map((a) => ({ name: a.name.toLowerCase(), periodS: a.periodS }))
  })
  return {
    arbors,
    strikes: clock.trains.some((t) => t.train !== 'going'),
    halves: strike !== undefined && strike.halves !== 'none',
    quarters: strike !== undefined && STRIKE_KIND_FACTS[strike.kind].quarters !== 'none',
    moon,
    calendar,
  }
}
