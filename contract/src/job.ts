import type { Brought } from './brought.ts'
import type { UnreadableRow } from './unreadable.ts'
import type { Bay, Ending, Gate, Owed, ScopeKind, WaitsFor } from '@treadle/core'
import { BAY_NAMES, GATE_NAMES, POWER_METHODS, SCOPES, TRAIN_NAMES, WAITS } from '@treadle/core/choices'
import { type Clock, type ClockKind, NewClock, Owner } from './clock.ts'
import {
  array,
  boolean,
  day,
  id,
  idOrNone,
  line,
  measured,
  only,
  requiredLine,
  ruled,
  string,
  text,
  version,
  type InferType,
} from './fields.ts'
import type { ArborTestRow, BushedBefore, BushingRow, PivotRow } from './mend.ts'
import type { PlateMapRow } from './plateMap.ts'
import type { DepthTrialRow } from './depth.ts'
import type { EscapementSheetRow } from './escapement.ts'
import type { MadePartRow } from './made.ts'
import type { SpringSheetRow, SuspensionRow } from './spring.ts'
import type { ReservationRow } from './stock.ts'
import type { WheelSheetRow } from './wheel.ts'
import type { DryRunRow } from './dryRun.ts'
import type { OilSheetRow, WitnessRow } from './oil.ts'
import type { StrikeCountRow } from './strike.ts'
import type { WatchRow } from './watch.ts'
import type { FootingRow } from './footing.ts'
import type { PendulumSheetRow, RunDownRow } from './pendulum.ts'
import type { CleanPartRow, TimerRow } from './clean.ts'
import type { ConditionRow, ObservationRow } from './observe.ts'
import type { EstimateRow } from './estimate.ts'
import type { InvoiceRow } from './invoice.ts'
import type { Hole } from './hole.ts'
import type { ListeningSummary } from './listening.ts'
import type { RateEventRow, Reading, ThermometerRow } from './rate.ts'
import type { StripMarkRow, StripStepRow } from './strip.ts'
import type { TrainSheetRow } from './trainSheet.ts'
import type { ConfirmedCauseRow } from './trouble.ts'

export const PART_STATES = ['present', 'damaged', 'missing'] as const

/** A thing that came in with the clock. */
export const CameWith = only({
  name: requiredLine(80).label('What came with it'),
  state: string().oneOf(PART_STATES).required(),
  returned: boolean().required(),
  /** a weight: where it hung and what it weighs */
  hung: line(60).label('Where it hung'),
  massKg: measured(0.001, 2000).nullable().label('Mass'),
  photoId: idOrNone().notRequired(),
})
export type CameWith = InferType<typeof CameWith>

export const YES_NO_UNKNOWN = ['yes', 'no', 'unknown'] as const

/** What usually comes with a clock of each kind. */
export const USUAL_THINGS: Record<ClockKind, string[]> = {
  wall: ['key or crank', 'pendulum', 'weight', 'door key', 'glass', 'gong or bell', 'papers'],
  longcase: [
    'pendulum',
    'left weight',
    'right weight',
    'crank',
    'hood',
    'door key',
    'finials',
    'gong or bell',
    'papers',
  ],
  tower: ['crank', 'going weight', 'strike weight', 'pendulum', 'bell hammer', 'papers'],
  shelf: ['key', 'pendulum', 'gong or bell', 'glass', 'papers'],
  mantel: ['key', 'pendulum', 'gong or bell', 'glass', 'finials', 'papers'],
  bracket: ['key', 'pendulum', 'door key', 'gong or rods', 'bell', 'glass', 'papers'],
  other: ['key', 'pendulum', 'glass', 'papers'],
}

/** What the owner tells of the clock at home. */
const asked = {
  standsAt: line(300).defined().label('Where it stands'),
  movedLately: string().oneOf(YES_NO_UNKNOWN).required().label('Moved lately'),
  /** the year, as far as the owner knows */
  lastServiced: measured(1500, 2200).integer().nullable().defined().label('Last serviced, year'),
}

/** Taking in a clock: its owner and itself, new or known, and what the owner says of it. */
export const NewJob = only({
  id: id(),
  owner: Owner,
  clock: NewClock,
  complaint: text(2000).trim().min(1).required().label('In the owner’s words'),
  cameWith: array(CameWith).max(40).required().label('What came with it'),
  promisedOn: day().nullable().defined().label('Promised for'),
  ...asked,
})
export type NewJob = InferType<typeof NewJob>

export const RUNS = ['runs', 'stops', 'dead', 'not-tried'] as const
export const RUNS_TITLES: Record<(typeof RUNS)[number], string> = {
  runs: 'runs',
  stops: 'runs and stops',
  dead: 'does not run',
  'not-tried': 'not tried',
}

export const JobChange = only({
  version: version(),
  bay: string<Bay>().oneOf(BAY_NAMES).required().label('Bay'),
  complaint: text(2000).trim().min(1).required().label('In the owner’s words'),
  runs: string().oneOf(RUNS).required().label('Does it run'),
  cameWith: array(CameWith).max(40).required().label('What came with it'),
  promisedOn: day().nullable().defined().label('Promised for'),
  ...asked,
})
export type JobChange = InferType<typeof JobChange>

/** What a visit is for, and whether it waits. */
export const VisitChange = ruled(
  only({
    version: version(),
    scope: string<ScopeKind>().oneOf(SCOPES).required().label('What is done'),
    /** with one train only: which */
    scopeTrain: string()
      .oneOf(['', ...TRAIN_NAMES])
      .defined()
      .label('Which train'),
    scopeReason: text(300).defined().label('Why'),
    waitsFor: string<WaitsFor>().oneOf(WAITS).defined().label('Waits for'),
    waitsNote: text(300).defined().label('What it waits for'),
    waitsUntil: day().nullable().defined().label('Ask again on'),
  }),
  [
    'why',
    'Why: say in a few words why not the whole movement',
    (v) => v.scope === 'whole' || v.scopeReason.trim().length >= 4,
  ],
  ['train', 'Which train: say which one this visit is for', (v) => v.scope !== 'one-train' || v.scopeTrain !== ''],
)
export type VisitChange = InferType<typeof VisitChange>

/** What of a visit may be said of it, as it stands. */
export function visitChangeOf(job: JobRow): VisitChange {
  const { version, scope, scopeTrain, scopeReason, waitsFor, waitsNote, waitsUntil } = job
  return { version, scope, scopeTrain, scopeReason, waitsFor, waitsNote, waitsUntil }
}

/** A job that is called off: taken in by mistake, or withdrawn before anything was done. */
export const CallOff = only({ reason: text(300).trim().min(4, 'Why: say in a few words').required().label('Why') })

/** What may be changed of a job, as it stands: the start of every change. */
export function jobChangeOf(job: JobRow): JobChange {
  const { version, bay, complaint, runs, cameWith, promisedOn, standsAt, movedLately, lastServiced } = job
  return { version, bay, complaint, runs, cameWith, promisedOn, standsAt, movedLately, lastServiced }
}

export const POWER_METHOD_TITLES: Record<(typeof POWER_METHODS)[number], string> = {
  'let-down': 'let down by the click with a key',
  clamped: 'clamped, then let down into the clamp',
  'run-down': 'run down, the click out of reach',
  'weight-off': 'weight taken off',
  'never-wound': 'came in with no power, proved by hand',
}

/** One train confirmed off. */
export const PowerOff = only({
  id: id(),
  train: requiredLine(20).label('Train'),
  method: string().oneOf(POWER_METHODS).required().label('How it was let down'),
  /** the proofs of this train's power that were tried by hand, by their keys */
  proofs: array(requiredLine(30)).max(10).required().label('Proof'),
})
export type PowerOff = InferType<typeof PowerOff>

export const GateOverride = only({
  id: id(),
  gate: string().oneOf(GATE_NAMES).required(),
  reason: text(1000).trim().min(8, 'Reason: say in a sentence why it may go on').required().label('Reason'),
})
export type GateOverride = InferType<typeof GateOverride>
export type GateOverrideRow = GateOverride & {
  jobId: string
  at: string
  who: string
  whoId?: string | null
  /** an archive’s: it says what was decided elsewhere, and opens no gate here */
  brought: Brought | null
}

export const JournalNote = only({
  id: id(),
  text: text(2000).trim().min(1).required().label('Note'),
  corrects: idOrNone(),
})
export type JournalNote = InferType<typeof JournalNote>

export interface JournalEntry {
  id: string
  /** null: it is about the workshop itself, not about a job */
  jobId: string | null
  at: string
  who: string
  kind: string
  text: string
  figures: Record<string, unknown>
  corrects: string | null
  brought: Brought | null
}

export interface PhotoRow {
  id: string
  jobId: string
  caption: string
  width: number
  height: number
  takenAt: string
}

export interface JobRow {
  id: string
  number: number
  /** what it was where it came from, where that is another’s here */
  numberElsewhere: number | null
  clockId: string
  bay: Bay
  complaint: string
  runs: (typeof RUNS)[number]
  cameWith: CameWith[]
  promisedOn: string | null
  standsAt: string
  movedLately: (typeof YES_NO_UNKNOWN)[number]
  lastServiced: number | null
  receivedAt: string
  partedAt: string | null
  closedAt: string | null
  /** how it came to its end, where it was not handed over */
  ending: Ending
  scope: ScopeKind
  scopeTrain: VisitChange['scopeTrain']
  scopeReason: string
  waitsFor: WaitsFor
  waitsNote: string
  waitsUntil: string | null
  version: number
}

export interface PowerOffRow extends PowerOff {
  jobId: string
  at: string
  who: string
}

/** What hangs on every row of a job; a change is answered with the row and this. */
export interface Standing {
  gates: Gate[]
  owed: Owed[]
}

/** A job that was opened again, and what was promised to it and can’t be had any more, in words. */
export type Reopened = JobPage & { noMore: string[] }

/** A whole job, as its pages need it. */
export interface JobPage {
  /** rows that can’t be read, left out of all else */
  unreadable: UnreadableRow[]
  job: JobRow
  clock: Clock
  owner: Owner
  powerOffs: PowerOffRow[]
  holes: Hole[]
  /** the clock's two plates; null: not set out yet */
  plateMap: PlateMapRow | null
  arborTests: ArborTestRow[]
  pivots: PivotRow[]
  bushings: BushingRow[]
  wheels: WheelSheetRow[]
  springs: SpringSheetRow[]
  suspensions: SuspensionRow[]
  escapements: EscapementSheetRow[]
  depths: DepthTrialRow[]
  madeParts: MadePartRow[]
  dryRuns: DryRunRow[]
  oilSheets: OilSheetRow[]
  witnesses: WitnessRow[]
  strikeCounts: StrikeCountRow[]
  watches: WatchRow[]
  footings: FootingRow[]
  /** the pendulum laid out; none or one */
  pendulums: PendulumSheetRow[]
  runDowns: RunDownRow[]
  /** how warm it was beside the clock; none or one */
  thermometers: ThermometerRow[]
  reservations: ReservationRow[]
  bushedBefore: BushedBefore[]
  listenings: ListeningSummary[]
  readings: Reading[]
  events: RateEventRow[]
  photos: PhotoRow[]
  overrides: GateOverrideRow[]
  observations: ObservationRow[]
  conditions: ConditionRow[]
  confirmedCauses: ConfirmedCauseRow[]
  trainSheets: TrainSheetRow[]
  estimates: EstimateRow[]
  invoices: InvoiceRow[]
  stripMarks: StripMarkRow[]
  stripSteps: StripStepRow[]
  cleanParts: CleanPartRow[]
  timers: TimerRow[]
  gates: Gate[]
  owed: Owed[]
}

/** A clock in the workshop as its tag shows it, and no more: the Bench has hundreds, and is asked for again and again. */
export interface BenchTag {
  job: Pick<JobRow, 'id' | 'number' | 'bay' | 'promisedOn' | 'waitsFor'>
  clock: Pick<Clock, 'id' | 'name' | 'kind'>
  owner: Pick<Owner, 'id' | 'name' | 'phone'>
  owed: Owed[]
  /** who worked on it last */
  by: string
}

/** A clock that is at home and due for oil or service; `job` is its last visit. */
export type Recall = Omit<BenchTag, 'by'>

export interface BenchPage {
  tags: BenchTag[]
  recalls: Recall[]
  at: string
}
