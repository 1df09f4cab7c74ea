import {
  placeOfHole,
  judgeHole,
  movementOf,
  rateBookInput,
  turnInWords,
  withFinishedPivot,
  type Hole,
  type HoleRules,
  type Settings,
} from '@treadle/contract'
import {
  gatesOf,
  gradeBeat,
  heedMarks,
  meshMarks,
  owedTo,
  rateBook,
  type Gate,
  type GateFacts,
  type GateName,
  type MarkedWork,
  type Owed,
  type RateBook,
} from '@treadle/core'
import type { JobRows } from './gather.ts'

const DAY_S = 86_400
const BEAT_CHANGES = new Set(['beat', 'moved', 'weight', 'arc'])

/** The gates of a job and all that is owed to it at `now`, reckoned by the core from its rows. */
export function standingOf(
  rows: JobRows,
  settings: Settings,
  rules: HoleRules,
  now: Date,
): { gates: Gate[]; owed: Owed[] } {
  const { job, clock } = rows
  const nowS = now.getTime() / 1000
  const off = new Set(rows.powerOffs.map((p) => p.train))
  const movement = movementOf(rows.plateMap, rows.trainSheets as never)
  const judged = rows.holes.map((hole) =>
    judgeHole(withFinishedPivot(hole as Hole, rows.pivots), rules, placeOfHole(movement, hole as Hole)),
  )
  const verdicts = judged.map((j) => j.verdict ?? (j.done ? ('leave' as const) : null))
  const book = bookOf(rows, settings)
  const last = latest(rows.listenings)
  const lastChange = latest(rows.events.filter((e) => e.kind !== 'winding' && e.kind !== 'trial'))
  const trialBegan = latest(rows.events.filter((e) => e.kind === 'trial'))
  // A change after the trial began starts its count anew.
  const trialFromS = trialBegan ? Math.max(seconds(trialBegan.at), lastChange ? seconds(lastChange.at) : 0) : null
  const facts: GateFacts = {
    trains: clock.trains.map(({ train }) => ({ train, powerOff: off.has(train) })),
    parted: job.partedAt !== null,
    holes: rows.holes.map((hole, i) => ({ verdict: verdicts[i] ?? null, bushed: hole.bushed })),
    pivots: {
      unfinished: rows.pivots.filter((p) => p.finishedMm === null).map((p) => `${p.arbor}, ${p.plate}`),
      sizedBefore: sizedBeforePivot(rows),
    },
    beat: last
      ? {
          splitGrade: gradeBeat(
            (100 * Math.max(last.firstToSecondMs, last.secondToFirstMs)) /
              (last.firstToSecondMs + last.secondToFirstMs),
            Math.abs(last.firstToSecondMs - last.secondToFirstMs) / 2,
            settings.beat,
          ),
          atS: seconds(last.at),
        }
      : null,
    lastBeatChangeS: secondsOrNull(latest(rows.events.filter((e) => BEAT_CHANGES.has(e.kind)))?.at),
    rate: {
      secondsPerDay: book?.rateSecondsPerDay ?? null,
      standardError: book?.standardError ?? null,
      toleranceSecondsPerDay: settings.rateToleranceSecondsPerDay,
    },
    trialFromS,
    trialDays: settings.trialDays,
    cameWith: job.cameWith,
    leftOver: rows.stripSteps.filter((s) => !s.back).map((s) => s.part),
    nowS,
    overridden: Object.fromEntries(rows.overrides.map((o) => [o.gate as GateName, o.reason])),
  }
  const gates = gatesOf(facts)
  const gate = (name: GateName) => gates.find((g) => g.name === name) as Gate
  const open = judged.filter((j) => !j.done).length
  const toBush = rows.holes.filter((h, i) => verdicts[i] === 'bush' && !h.bushed)
  const owed = owedTo({
    bay: job.bay,
    listenings: rows.listenings.length,
    answerAwaitedSinceS: answerAwaitedSince(rows.estimates),
    toOrder: toOrder(rows.estimates),
    timers: rows.timers.filter((t) => !t.stopped).map((t) => ({ id: t.id, title: t.title, endsS: seconds(t.endsAt) })),
    marksOpen: meshMarks(markedWork(clock)).filter((m) => !rows.stripMarks.some((made) => made.key === m.key)).length,
    stripSteps: rows.stripSteps.length,
    partsToClean: rows.cleanParts.filter((p) => !p.done).length,
    woundTrains: facts.trains.filter((t) => !t.powerOff).map((t) => t.train),
    parted: facts.parted,
    powerOverridden: facts.overridden.power !== undefined,
    pivotsOpen: rows.pivots.filter((p) => p.finishedMm === null).length,
    holesOpen: open,
    holesTotal: rows.holes.length,
    holesToBush: toBush.length,
    holesWithoutCutter: rows.holes.filter(
      (h, i) => verdicts[i] === 'bush' && judged[i]?.plan?.cutterMm === null && !h.bushed,
    ).length,
    beat: gate('beat'),
    rateAdvice: book?.advice ?? null,
    turnSentence: book ? turnInWords(book) : null,
    nextReadingAtS: book?.nextReadingAtS ?? null,
    lastWoundS: secondsOrNull(latest(rows.events.filter((e) => e.kind === 'winding'))?.at),
    windsEveryDays: clock.pendulum.windsEveryDays,
    trial: gate('trial'),
    trialDay: trialFromS === null ? null : Math.floor((nowS - trialFromS) / DAY_S) + 1,
    trialDays: settings.trialDays,
    promisedS: job.promisedOn === null ? null : Date.parse(`${job.promisedOn}T17:00:00Z`) / 1000,
    nowS,
  })
  const marks = rows.nowMarks.map((m) => ({ ...m, state: m.state as 'done' }))
  return { gates, owed: heedMarks(owed, marks, nowS) }
}

/** Holes that were cut for a bush before their pivot was finished, by name. */
function sizedBeforePivot({ bushings: work, holes: all, pivots: ends }: JobRows): string[] {
  return work
    .filter((b) => b.done.includes('cut'))
    .flatMap((b) => all.filter((h) => h.id === b.holeId))
    .filter((h) =>
      ends.some((p) => p.train === h.train && p.arbor === h.arbor && p.plate === h.plate && p.finishedMm === null),
    )
    .map((h) => `${h.arbor}, ${h.plate}`)
}

/** What of a clock's work asks for marks before its plates are parted. */
export function markedWork({ trains, work, pendulum }: JobRows['clock']): MarkedWork {
  const { strikeWork, moon, calendar } = work
  return { trains, strikeWork, moon, calendar, pendulum: pendulum.beatsPerHour !== null || pendulum.lengthMm !== null }
}

function answerAwaitedSince(all: JobRows['estimates']): number | null {
  const last = all.at(-1)
  return last?.state === 'sent' ? secondsOrNull(last.sentAt ?? undefined) : null
}

function toOrder(all: JobRows['estimates']): { id: string; title: string }[] {
  const accepted = all.filter((e) => e.state === 'accepted').at(-1)
  return (accepted?.lines ?? []).filter((l) => l.order).map((l) => ({ id: l.id, title: l.title }))
}

/** The rate book of a job; null without readings. */
export function bookOf({ readings: all, events, clock }: JobRows, settings: Settings): RateBook | null {
  if (all.length === 0) return null
  const iso = <T extends { at: Date }>(row: T) => ({ ...row, at: row.at.toISOString() })
  return rateBook(
    rateBookInput(
      all.map(iso),
      events.map((e) => ({ ...iso(e), kind: e.kind as 'nut' })),
      {
        pitchMm: clock.pendulum.pitchMm ?? undefined,
        lengthMm: clock.pendulum.lengthMm ?? undefined,
        toleranceSecondsPerDay: settings.rateToleranceSecondsPerDay,
        goalSecondsPerDay: settings.rateGoalSecondsPerDay,
      },
    ),
  )
}

function latest<T extends { at: Date }>(rows: T[]): T | undefined {
  return rows.reduce<T | undefined>((best, row) => (!best || row.at >= best.at ? row : best), undefined)
}

function seconds(at: Date): number {
  return at.getTime() / 1000
}

function secondsOrNull(at: Date | undefined): number | null {
  return at ? seconds(at) : null
}
