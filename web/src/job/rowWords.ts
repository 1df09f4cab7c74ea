import {
  ArborTestChange,
  BushingChange,
  CleanPart,
  ConditionItem,
  ConfirmedCause,
  DepthTrialChange,
  EscapementSheetChange,
  Estimate,
  HoleChange,
  MadePartChange,
  Observation,
  PivotChange,
  RateEventChange,
  ReadingChange,
  ReservationChange,
  SpringSheetChange,
  StripMark,
  StripStep,
  SuspensionChange,
  Timer,
  TrainSheetChange,
  WheelSheetChange,
} from '@treadle/contract'
import { wordsOf, type FieldWords, type RowSchema } from '../parts/fieldWords.ts'

const SCHEMAS = {
  'arbor-tests': ArborTestChange,
  bushings: BushingChange,
  causes: ConfirmedCause,
  'clean-parts': CleanPart,
  conditions: ConditionItem,
  depths: DepthTrialChange,
  escapements: EscapementSheetChange,
  estimates: Estimate,
  events: RateEventChange,
  holes: HoleChange,
  'made-parts': MadePartChange,
  observations: Observation,
  pivots: PivotChange,
  readings: ReadingChange,
  reservations: ReservationChange,
  springs: SpringSheetChange,
  suspensions: SuspensionChange,
  'strip-marks': StripMark,
  'strip-steps': StripStep,
  timers: Timer,
  trains: TrainSheetChange,
  wheels: WheelSheetChange,
} satisfies Record<string, RowSchema>

/** The kinds of rows that hang on a job, as their address names them. */
export type RowKind = keyof typeof SCHEMAS

/** What the fields of a kind of row are called, by its own schema. */
export function wordsOfRows(kind: RowKind): Record<string, FieldWords> {
  return wordsOf(SCHEMAS[kind])
}
