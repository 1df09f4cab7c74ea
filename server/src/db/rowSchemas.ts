import * as contract from '@treadle/contract'
import type { Schema } from 'yup'
import type { CarriedName, TableOf } from './tableNames.ts'

/** Columns of a table that hold JSON: their own type says nothing of what is in them. */
type JsonColumn<N extends CarriedName> = {
  [C in keyof TableOf<N>['_']['columns']]: TableOf<N>['_']['columns'][C]['_']['dataType'] extends 'json' ? C : never
}[keyof TableOf<N>['_']['columns']]

/** A schema of rows, with a field for every column that holds JSON. */
export type RowSchema<N extends CarriedName = CarriedName> = {
  fields: Record<JsonColumn<N>, unknown>
  pick: (keys: never[]) => Schema<unknown>
  describe: () => unknown
}

/**
 * What the rows of each table must be besides what its columns ask: the schema that they were made by. A table that
 * travels and stands here with no schema, or whose schema leaves out a column of JSON, does not compile.
 */
export const ROW_SCHEMAS: { [N in CarriedName]: RowSchema<N> } = {
  arbor_tests: contract.ArborTestChange,
  bushings: contract.BushingChange,
  clean_parts: contract.CleanPart,
  clocks: contract.NewClock,
  conditions: contract.ConditionItem,
  confirmed_causes: contract.ConfirmedCause,
  depth_trials: contract.DepthTrialChange,
  donors: contract.DonorChange,
  dry_runs: contract.DryRunChange,
  escapement_sheets: contract.EscapementSheetChange,
  estimates: contract.Estimate,
  files: contract.FileKept,
  footings: contract.FootingChange,
  gate_overrides: contract.GateOverride.concat(contract.OverrideKept),
  holes: contract.HoleChange,
  invoices: contract.Invoice,
  jobs: contract.JobKept,
  journal: contract.JournalKept,
  listenings: contract.NewListening,
  made_parts: contract.MadePartChange,
  now_marks: contract.NowMark,
  observations: contract.Observation,
  oil_sheets: contract.OilSheetChange,
  oils: contract.OilChange,
  owners: contract.Owner,
  pendulums: contract.PendulumSheetChange,
  people: contract.Person,
  photos: contract.PhotoKept,
  pivots: contract.PivotChange,
  plate_maps: contract.PlateMapChange,
  power_offs: contract.PowerOff,
  rate_events: contract.RateEventChange,
  readings: contract.ReadingChange,
  reservations: contract.ReservationChange,
  run_downs: contract.RunDownChange,
  settings: contract.SettingsKept,
  spring_sheets: contract.SpringSheetChange,
  stock: contract.StockChange,
  stock_imports: contract.StockImportKept,
  strike_counts: contract.StrikeCountChange,
  strip_marks: contract.StripMark,
  strip_steps: contract.StripStep,
  suspensions: contract.SuspensionChange,
  thermometers: contract.ThermometerKept,
  timers: contract.Timer,
  tools: contract.ToolChange,
  train_sheets: contract.TrainSheetChange,
  watch_marks: contract.WatchMark,
  watch_minutes: contract.WatchMinuteKept,
  watches: contract.WatchKept,
  wheel_sheets: contract.WheelSheetChange,
  witnesses: contract.WitnessChange,
  workshop_tables: contract.TableKept,
}
