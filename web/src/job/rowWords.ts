import {
  ArborTestChange,
  BushingChange,
  CleanPart,
  ConditionItem,
  ConfirmedCause,
  DepthTrialChange,
  DryRunChange,
  EscapementSheetChange,
  Estimate,
  FootingChange,
  HoleChange,
  Invoice,
  MadePartChange,
  Observation,
  OilSheetChange,
  PendulumSheetChange,
  PivotChange,
  RateEventChange,
  ReadingChange,
  ReservationChange,
  RunDownChange,
  SpringSheetChange,
  StrikeCountChange,
  StripMark,
  StripStep,
  SuspensionChange,
  Timer,
  TrainSheetChange,
  WatchChange,
  WheelSheetChange,
  WitnessChange,
} from '@treadle/contract'
import { wordsOf, type FieldWords, type RowSchema } from '../parts/fieldWords.ts'

const SCHEMAS = {
  'arbor-tests': ArborTestChange,
  bushings: BushingChange,
  causes: ConfirmedCause,
  'clean-parts': CleanPart,
  conditions: ConditionItem,
  depths: DepthTrialChange,
  'dry-runs': DryRunChange,
  escapements: EscapementSheetChange,
  estimates: Estimate,
  events: RateEventChange,
  footings: FootingChange,
  holes: HoleChange,
  invoices: Invoice,
  'made-parts': MadePartChange,
  observations: Observation,
  'oil-sheets': OilSheetChange,
  pendulums: PendulumSheetChange,
  pivots: PivotChange,
  readings: ReadingChange,
  reservations: ReservationChange,
  'run-downs': RunDownChange,
  springs: SpringSheetChange,
  suspensions: SuspensionChange,
  'strike-counts': StrikeCountChange,
  'strip-marks': StripMark,
  'strip-steps': StripStep,
  timers: Timer,
  trains: TrainSheetChange,
  watches: WatchChange,
  wheels: WheelSheetChange,
  witnesses: WitnessChange,
} satisfies Record<string, RowSchema>

/** The kinds of rows that hang on a job, as their address names them. */
export type RowKind = keyof typeof SCHEMAS

export function isRowKind(kind: string): kind is RowKind {
  return Object.hasOwn(SCHEMAS, kind)
}

/** What the fields of a kind of row are called, by its own schema. */
export function wordsOfRows(kind: RowKind): Record<string, FieldWords> {
  return wordsOf(SCHEMAS[kind])
}
