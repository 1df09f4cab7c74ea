import { gradeHeard, type HeardIntervals } from '../beat/heard.ts'
import type { BeatTolerance } from '../beat/tolerance.ts'
import { heedMarks, type OwedMark } from '../care/marks.ts'
import { latest, secondsOf, type Moment } from '../care/moment.ts'
import { owedTo, type Owed, type OwedFacts } from '../care/now.ts'
import { whenThere } from '../care/workshopTime.ts'
import { estimateSpan, type EstimateLine } from '../estimate/revision.ts'
import { gatesOf, type Bay, type Gate, type GateFacts, type GateName } from '../gates/gates.ts'
import { isOurs, type SetAside } from '../gates/setAside.ts'
import type { HoleFacts } from '../hole/facts.ts'
import type { HoleRules, PivotEnd } from '../hole/judge.ts'
import { movementOfJob, type MovementFacts } from '../hole/ofMovement.ts'
import { endsOf, lookedKey, type ArborEnd } from '../movement/ends.ts'
import { sameArbor, samePlace } from '../plate/samePlace.ts'
import { rateBookOf, type RateLog, type WatchHeard } from '../rate/fromLog.ts'
import type { RateEventKind } from '../rate/kinds.ts'
import { turnInWords } from '../rate/words.ts'
import type { Ticks } from '../listen/hearing.ts'
import { partsCount, type LoggedStep } from '../strip/assembly.ts'
import { markedWork } from '../strip/markedWork.ts'
import { meshMarks, type MarkedWork } from '../strip/meshMarks.ts'
import { clicksOf } from '../wheel/clicks.ts'
import { oilOpen, type OilTicks } from '../oil/ticks.ts'
import type { Halves } from '../strike/blows.ts'
import type { StrikeKind } from '../strike/kinds.ts'
import { strikeWanted, trialDaysFor, trialOf, type StrikeCounted } from '../trial/ofJob.ts'
import { openStop } from '../trouble/stops.ts'
import { dryStanding, type DryRun } from './dryRuns.ts'
import type { ScopeKind, WaitsFor } from './scope.ts'

/** What of a clock's events changes its beat, so that it has to be heard again. */
const BEAT_CHANGES = new Set<RateEventKind>(['beat', 'moved', 'weight', 'arc'])
/** The hour of the day by which a clock promised for that day is owed, by the workshop's clock. */
const PROMISED_BY_HOUR = 17
/** What waits until a day is looked at when that day begins at the bench. */
const WORK_BEGINS_HOUR = 9

/** A clock, as far as the standing of its job asks. */
export interface ClockFacts {
  trains: MarkedWork['trains']
  work: Pick<MarkedWork, 'strikeWork' | 'moon' | 'calendar'> & {
    strike?: { kind: StrikeKind; halves: Halves } | undefined
  }
  pendulum: {
    beatsPerHour: number | null
    lengthMm: number | null
    pitchMm: number | null
    windsEveryDays: number | null
    ticks?: Ticks | undefined
  }
}

/** All rows of a job that its gates and what is owed to it ask for. */
export interface JobFacts extends MovementFacts {
  job: {
    bay: Bay
    partedAt: Moment | null
    /** a day, ISO 8601 */
    promisedOn: string | null
    cameWith: GateFacts['cameWith']
    scope: ScopeKind
    /** with one train only: which */
    scopeTrain: string
    scopeReason: string
    waitsFor: WaitsFor
    waitsNote: string
    /** a day, ISO 8601 */
    waitsUntil: string | null
  }
  clock: ClockFacts
  powerOffs: { train: string }[]
  overrides: SetAside[]
  holes: (HoleFacts & { id: string; sinkMm?: number | null | undefined })[]
  pivots: PivotEnd[]
  bushings: { holeId: string; done: string[] }[]
  listenings: (Pick<HeardIntervals, 'firstToSecondMs' | 'secondToFirstMs'> & { at: Moment })[]
  readings: RateLog['readings']
  watches?: WatchHeard[]
  events: { id: string; at: Moment; kind: RateEventKind; turns: number | null; showed: string }[]
  estimates: {
    state: 'draft' | 'sent' | 'accepted' | 'declined'
    sentAt: Moment | null
    revision: number
    lines: (EstimateLine & { order: boolean })[]
    taxPercent: string
    currency: string
  }[]
  arborTests: { train: string; arbor: string; tried: boolean }[]
  observations: { key: string; answer: string; note: string; at?: Moment }[]
  stripMarks: { key: string }[]
  stripSteps: LoggedStep[]
  dryRuns: DryRun[]
  oilSheets: OilTicks[]
  strikeCounts: StrikeCounted[]
  cleanParts: { done: boolean }[]
  timers: { id: string; title: string; endsAt: Moment; stopped: boolean }[]
  nowMarks: OwedMark[]
  wheels: Parameters<typeof clicksOf>[1]
}

/** The workshop's ways, as far as the standing of a job asks. */
export interface StandingWays {
  beat: BeatTolerance
  rateToleranceSecondsPerDay: number
  rateGoalSecondsPerDay: number
  trialDays: number
  trialDaysLong: number
  /** hours of the day at which somebody is at the bench */
  openFrom?: number
  openUntil?: number
  /** IANA name: times of day are the workshop's */
  timeZone: string
}

/** What holds a job, and what is owed to it. */
export interface JobStanding {
  gates: Gate[]
  owed: Owed[]
}

/** The gates of a job and all that is owed to it at `nowS`, Unix s. */
export function standingOf(rows: JobFacts, ways: StandingWays, rules: HoleRules, nowS: number): JobStanding {
  return standingOver(rows, ways, rules)(nowS)
}

/**
 * How a job stands at any moment, Unix s, as long as nothing of it is changed: holes, rate book and all that waiting does not
 * change are reckoned once, here; to ask again costs little.
 */
export function standingOver(rows: JobFacts, ways: StandingWays, rules: HoleRules): (nowS: number) => JobStanding {
  const { job, clock } = rows
  const { judged } = movementOfJob(rows, rules)
  const trains = clock.trains.map((t) => t.train)
  const looked = lookedAt(rows, job.scope === 'one-train' ? trains.filter((t) => t === job.scopeTrain) : trains, judged)
  const lastOf = (kind: RateEventKind) => secondsOrNull(latest(rows.events.filter((e) => e.kind === kind)))
  const holes = rows.holes.map((hole) => {
    const { verdict, done, plan } = judged(hole)
    // What was waived is left as it is.
    return { hole, done, plan, verdict: verdict ?? (done ? ('leave' as const) : null) }
  })
  const toBush = holes.filter((h) => h.verdict === 'bush' && !h.hole.bushed)
  const unfinished = rows.pivots.filter((p) => p.finishedMm === null)
  const book = rateBookOf(rows, { pendulum: clock.pendulum, settings: ways })
  const heard = latest(rows.listenings)
  const byEye = clock.pendulum.ticks === 'once a period'
  const trialDays = trialDaysFor(clock, ways)
  const worked = trains.filter((t) => job.scope !== 'one-train' || t === job.scopeTrain)
  const dryRuns = dryStanding(worked, rows.dryRuns)
  const leftOver = partsCount(rows.stripSteps).leftOver.map((s) => s.part)
  const off = new Set(rows.powerOffs.map((p) => p.train))
  const losses = lossesOf(rows.observations).filter((l) => !l.told)
  const still: Omit<GateFacts, 'beat' | 'trial' | 'nowS'> = {
    trains: clock.trains.map(({ train }) => ({ train, powerOff: off.has(train) })),
    parted: job.partedAt !== null,
    holes: holes.map(({ hole, verdict }) => ({ verdict, bushed: hole.bushed })),
    scope: { kind: job.scope, reason: job.scopeReason },
    holesNotLooked: looked.holes.map(nameOf),
    pivots: {
      unfinished: unfinished.map(nameOf),
      sizedBefore: sizedBeforePivot(rows).map(nameOf),
      notLooked: looked.pivots.map(nameOf),
    },
    unknownTrains: looked.unknown,
    dry: dryRuns,
    oiledAtS: lastOf('oiled'),
    oilOpen: oilOpen(rows.oilSheets.at(-1), {
      ...rows,
      trains: clock.trains,
      work: clock.work,
      pendulum: clock.pendulum,
      scopeTrain: job.scope === 'one-train' ? job.scopeTrain : '',
    }),
    notAgreed: notAgreed(rows.estimates),
    untold: losses.map((l) => l.what),
    beatByEye: byEye,
    lastBeatChangeS: secondsOrNull(latest(rows.events.filter((e) => BEAT_CHANGES.has(e.kind)))),
    rate: {
      secondsPerDay: book?.rateSecondsPerDay ?? null,
      standardError: book?.standardError ?? null,
      toleranceSecondsPerDay: ways.rateToleranceSecondsPerDay,
    },
    cameWith: job.cameWith,
    leftOver,
    overridden: Object.fromEntries(rows.overrides.filter(isOurs).map((o) => [o.gate, o.reason])),
  }
  const heardBeat = heard ? { splitGrade: gradeHeard(heard, ways.beat), atS: secondsOf(heard.at) } : null
  const owing: Omit<OwedFacts, 'dry' | 'oil' | 'beat' | 'trial' | 'trialAt' | 'nowS'> = {
    bay: job.bay,
    listenings: rows.listenings.length,
    waits:
      job.waitsFor === ''
        ? null
        : {
            for: job.waitsFor,
            note: job.waitsNote,
            untilS: job.waitsUntil === null ? null : whenThere(job.waitsUntil, WORK_BEGINS_HOUR, ways.timeZone),
          },
    scope: job.scope,
    untold: losses,
    answerAwaitedSinceS: answerAwaitedSince(rows.estimates),
    toOrder: toOrder(rows.estimates),
    timers: rows.timers
      .filter((t) => !t.stopped)
      .map((t) => ({ id: t.id, title: t.title, endsS: secondsOf(t.endsAt) })),
    marksOpen: meshMarks(markedWork(clock)).filter((m) => !rows.stripMarks.some((made) => made.key === m.key)).length,
    stripSteps: rows.stripSteps.length,
    partsToClean: rows.cleanParts.filter((p) => !p.done).length,
    woundTrains: still.trains.filter((t) => !t.powerOff).map((t) => t.train),
    parted: still.parted,
    powerOverridden: still.overridden.power !== undefined,
    pivotsOpen: unfinished.length,
    unknownTrains: looked.unknown,
    pivotsNotLooked: looked.pivots.length,
    holesNotLooked: looked.holes.length,
    holesOpen: holes.filter((h) => !h.done).length,
    holesTotal: holes.length,
    holesToBush: toBush.length,
    clicks: clicksOf(
      clock.trains.filter((t) => job.scope !== 'one-train' || t.train === job.scopeTrain),
      rows.wheels,
    ),
    holesWithoutCutter: toBush.filter((h) => h.plan?.cutterMm === null).length,
    rateAdvice: book?.advice ?? null,
    turnSentence: book ? turnInWords(book) : null,
    nextReadingAtS: book?.nextReadingAtS ?? null,
    lastWoundS: secondsOrNull(latest(rows.events.filter((e) => e.kind === 'winding'))),
    windsEveryDays: clock.pendulum.windsEveryDays,
    partsToGoBack: still.parted ? leftOver.length : 0,
    strikeWanted:
      clock.work.strike && worked.includes('strike') ? strikeWanted(clock.work.strike, rows.strikeCounts) : [],
    stopUnanswered: openStop(rows.events, rows.observations),
    promisedS: job.promisedOn === null ? null : whenThere(job.promisedOn, PROMISED_BY_HOUR, ways.timeZone),
  }
  return (nowS) => {
    const trial = trialOf({
      events: rows.events,
      strikeCounts: rows.strikeCounts,
      strike: clock.work.strike ?? null,
      moon: clock.work.moon,
      days: trialDays,
      nowS,
    })
    const beat = byEye ? evenToTheEye(rows.observations, nowS) : heardBeat
    // What is many is put in last: an object that grows after it was copied is made ten times as slowly.
    const gates = gatesOf({ beat, trial, nowS, ...still })
    const owed = owedTo({
      dry: gateOf(gates, 'dry'),
      oil: gateOf(gates, 'oil'),
      beat: gateOf(gates, 'beat'),
      trial: gateOf(gates, 'trial'),
      trialAt: trial,
      nowS,
      ...owing,
    })
    return { gates, owed: heedMarks(owed, rows.nowMarks, nowS) }
  }
}

/** Ends of the arbors that nobody has judged, tried between the plates, or said to be sound with their train. */
function lookedAt(rows: JobFacts, trains: string[], judged: (hole: HoleFacts) => { done: boolean }) {
  const { ends, unknown } = endsOf(trains, rows)
  const said = (what: 'holes' | 'pivots', train: string) =>
    rows.observations.some((o) => o.key === lookedKey(what, train) && o.answer !== '')
  const tried = (end: ArborEnd) => rows.arborTests.some((t) => sameArbor(t, end) && t.tried)
  return {
    unknown: unknown.filter((train) => !said('holes', train) || !said('pivots', train)),
    holes: ends.filter((end) => {
      const hole = rows.holes.find((h) => samePlace(h, end))
      return !(hole && judged(hole).done) && !tried(end) && !said('holes', end.train)
    }),
    pivots: ends.filter((end) => !rows.pivots.some((p) => samePlace(p, end)) && !said('pivots', end.train)),
  }
}

/** What of the estimates the owner has not agreed to, in a sentence; null: nothing. */
function notAgreed(all: JobFacts['estimates']): string | null {
  const last = all.at(-1)
  if (!last || last.state === 'accepted') return null
  const sum = (e: JobFacts['estimates'][number]) => Number(estimateSpan(e.lines, e.taxPercent).most.gross)
  const agreed = all.findLast((e) => e.state === 'accepted')
  const figure = `Estimate ${last.revision}, ${sum(last).toFixed(2)} ${last.currency},`
  // What is no dearer than what was agreed to needs no new answer.
  if (agreed && sum(last) <= sum(agreed)) return null
  if (last.state === 'declined')
    return agreed ? null : `${figure} was declined: it goes back as it came, or a new one is agreed to.`
  return `${figure} is ${last.state === 'sent' ? 'with the owner and not answered' : 'written and was not sent'}${agreed ? `; ${sum(agreed).toFixed(2)} was agreed to` : ''}.`
}

/** By which key it is kept that the beat of a clock that ticks once a period is even to the eye. */
export const EYE_KEY = 'beat-by-eye'

function evenToTheEye(observations: JobFacts['observations'], nowS: number): GateFacts['beat'] {
  const seen = observations.find((o) => o.key === EYE_KEY && o.answer === 'even')
  return seen ? { splitGrade: 'sound', atS: seen.at === undefined ? nowS : secondsOf(seen.at) } : null
}

/** By which keys it is kept that something was lost or broken in our hands, and that the owner was told. */
export const LOSS_KEY = 'loss:'

export interface Loss {
  key: string
  what: string
  told: boolean
}

/** What was lost or broken in our hands on this visit. */
export function lossesOf(observations: { key: string; answer: string; note: string }[]): Loss[] {
  return observations
    .filter((o) => o.key.startsWith(LOSS_KEY))
    .map((o) => ({ key: o.key, what: o.note, told: o.answer === 'told' }))
}

/** Holes that were cut for a bush before their pivot was finished. */
function sizedBeforePivot({ bushings, holes, pivots }: JobFacts) {
  const cut = new Set(bushings.filter((b) => b.done.includes('cut')).map((b) => b.holeId))
  return holes.filter((h) => cut.has(h.id) && pivots.some((p) => samePlace(p, h) && p.finishedMm === null))
}

function answerAwaitedSince(all: JobFacts['estimates']): number | null {
  const last = all.at(-1)
  return last?.state === 'sent' && last.sentAt !== null ? secondsOf(last.sentAt) : null
}

function toOrder(all: JobFacts['estimates']): { id: string; title: string }[] {
  const accepted = all.findLast((e) => e.state === 'accepted')
  return (accepted?.lines ?? []).filter((l) => l.order).map((l) => ({ id: l.id, title: l.title }))
}

function gateOf(gates: Gate[], name: GateName): Gate {
  const gate = gates.find((g) => g.name === name)
  if (!gate) throw new RangeError(`There is no gate ${name}.`)
  return gate
}

function nameOf({ arbor, plate }: { arbor: string; plate: string }): string {
  return `${arbor}, ${plate}`
}

function secondsOrNull(row: { at: Moment } | undefined): number | null {
  return row ? secondsOf(row.at) : null
}
