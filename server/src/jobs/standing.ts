import { rateBookInput, turnInWords, type Settings } from '@treadle/contract'
import {
  bushingPlan,
  gatesOf,
  gradeBeat,
  owedTo,
  rateBook,
  type Gate,
  type GateFacts,
  type GateName,
  type Owed,
  type RateBook,
} from '@treadle/core'
import type { clocks, gateOverrides, holes, listenings, powerOffs, rateEvents, readings } from '../db/schema.ts'
import type { JobRecord } from './find.ts'

/** Rows of one job, as far as its gates and what is owed to it ask. */
export interface JobRows {
  job: JobRecord
  clock: typeof clocks.$inferSelect
  powerOffs: (typeof powerOffs.$inferSelect)[]
  overrides: (typeof gateOverrides.$inferSelect)[]
  holes: (typeof holes.$inferSelect)[]
  listenings: Omit<typeof listenings.$inferSelect, 'beatTimesS'>[]
  readings: (typeof readings.$inferSelect)[]
  events: (typeof rateEvents.$inferSelect)[]
}

const DAY_S = 86_400
const BEAT_CHANGES = new Set(['beat', 'moved', 'weight', 'arc'])

/** The gates of a job and all that is owed to it at `now`, reckoned by the core from its rows. */
export function standingOf(rows: JobRows, settings: Settings, now: Date): { gates: Gate[]; owed: Owed[] } {
  const { job, clock } = rows
  const nowS = now.getTime() / 1000
  const off = new Set(rows.powerOffs.map((p) => p.train))
  const plans = rows.holes.map((hole) => planOf(hole, settings))
  const book = bookOf(rows, settings)
  const last = latest(rows.listenings)
  const lastChange = latest(rows.events.filter((e) => e.kind !== 'winding' && e.kind !== 'trial'))
  const trialBegan = latest(rows.events.filter((e) => e.kind === 'trial'))
  // A change after the trial began starts its count anew.
  const trialFromS = trialBegan ? Math.max(seconds(trialBegan.at), lastChange ? seconds(lastChange.at) : 0) : null
  const facts: GateFacts = {
    trains: clock.trains.map(({ train }) => ({ train, powerOff: off.has(train) })),
    parted: job.partedAt !== null,
    holes: rows.holes.map((hole, i) => ({ verdict: plans[i]?.verdict ?? null, bushed: hole.bushed })),
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
    nowS,
    overridden: Object.fromEntries(rows.overrides.map((o) => [o.gate as GateName, o.reason])),
  }
  const gates = gatesOf(facts)
  const gate = (name: GateName) => gates.find((g) => g.name === name) as Gate
  const open = rows.holes.filter((_, i) => !plans[i]).length
  const toBush = rows.holes.filter((h, i) => plans[i]?.verdict === 'bush' && !h.bushed)
  const owed = owedTo({
    bay: job.bay,
    listenings: rows.listenings.length,
    woundTrains: facts.trains.filter((t) => !t.powerOff).map((t) => t.train),
    parted: facts.parted,
    powerOverridden: facts.overridden.power !== undefined,
    holesOpen: open,
    holesTotal: rows.holes.length,
    holesToBush: toBush.length,
    holesWithoutCutter: rows.holes.filter(
      (h, i) => plans[i]?.verdict === 'bush' && plans[i].cutterMm === null && !h.bushed,
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
  return { gates, owed }
}

function planOf(hole: JobRows['holes'][number], settings: Settings) {
  const { longAxisMm, shortAxisMm, pivotMm, plateMm } = hole
  if (longAxisMm === null || shortAxisMm === null || pivotMm === null || plateMm === null) return null
  const plan = bushingPlan(
    {
      longAxisMm,
      shortAxisMm,
      pivotMm,
      plateMm,
      role: hole.role as 'escape' | 'pallet' | 'other',
      moduleMm: hole.moduleMm ?? undefined,
      depthShiftMm: hole.depthShiftMm ?? undefined,
    },
    settings.cuttersMm,
    settings.bushing,
  )
  return hole.verdictOverride === null ? plan : { ...plan, verdict: hole.verdictOverride as 'bush' | 'leave' }
}

function bookOf({ readings: all, events, clock }: JobRows, settings: Settings): RateBook | null {
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
