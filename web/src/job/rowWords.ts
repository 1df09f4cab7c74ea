import {
  ArborTestChange,
  BushingChange,
  CleanPart,
  ConditionItem,
  ConfirmedCause,
  Estimate,
  HoleChange,
  Observation,
  PivotChange,
  RateEventChange,
  ReadingChange,
  ReservationChange,
  StripMark,
  StripStep,
  Timer,
  TrainSheetChange,
} from '@treadle/contract'
import { wordsOf, type FieldWords, type RowSchema } from '../parts/fieldWords.ts'

const SCHEMAS = {
  'arbor-tests': ArborTestChange,
  bushings: BushingChange,
  causes: ConfirmedCause,
  'clean-parts': CleanPart,
  conditions: ConditionItem,
  estimates: Estimate,
  events: RateEventChange,
  holes: HoleChange,
  observations: Observation,
  pivots: PivotChange,
  readings: ReadingChange,
  reservations: ReservationChange,
  'strip-marks': StripMark,
  'strip-steps': StripStep,
  timers: Timer,
  trains: TrainSheetChange,
} satisfies Record<string, RowSchema>

/** The kinds of rows that hang on a job, as their address names them. */
export type RowKind = keyof typeof SCHEMAS

/** What the fields of a kind of row are called, by its own schema. */
export function wordsOfRows(kind: RowKind): Record<string, FieldWords> {
  return wordsOf(SCHEMAS[kind])
}
