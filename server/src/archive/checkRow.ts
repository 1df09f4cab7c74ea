import * as contract from '@treadle/contract'
import { ValidationError } from 'yup'
import { settingsFrom } from '../settings/store.ts'
import { isRequired } from './schemaOfTables.ts'
import type { Carried } from './tables.ts'
import { unreadable } from './zip.ts'

/** A schema of any row, as far as it is asked here. */
interface RowSchema {
  fields: object
  pick: (keys: never[]) => Validated
}
interface Validated {
  validateSync: (value: unknown, options: { strict: boolean }) => unknown
}

/** What the rows of a table must be besides what its columns ask: the schema that they were made by. */
const MADE_BY: Record<string, RowSchema> = {
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
  footings: contract.FootingChange,
  gate_overrides: contract.GateOverride,
  holes: contract.HoleChange,
  invoices: contract.Invoice,
  jobs: contract.JobChange.concat(contract.VisitChange),
  listenings: contract.NewListening,
  made_parts: contract.MadePartChange,
  now_marks: contract.NowMark,
  observations: contract.Observation,
  oil_sheets: contract.OilSheetChange,
  oils: contract.OilChange,
  owners: contract.Owner,
  pendulums: contract.PendulumSheetChange,
  people: contract.Person,
  pivots: contract.PivotChange,
  plate_maps: contract.PlateMapChange,
  power_offs: contract.PowerOff,
  rate_events: contract.RateEventChange,
  readings: contract.ReadingChange,
  reservations: contract.ReservationChange,
  run_downs: contract.RunDownChange,
  spring_sheets: contract.SpringSheetChange,
  stock: contract.StockChange,
  strike_counts: contract.StrikeCountChange,
  strip_marks: contract.StripMark,
  strip_steps: contract.StripStep,
  suspensions: contract.SuspensionChange,
  timers: contract.Timer,
  tools: contract.ToolChange,
  train_sheets: contract.TrainSheetChange,
  watch_marks: contract.WatchMark,
  watch_minutes: contract.WatchMinuteKept,
  watches: contract.WatchChange,
  wheel_sheets: contract.WheelSheetChange,
  witnesses: contract.WitnessChange,
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,9})?Z$/
const DAY = /^\d{4}-\d\d-\d\d$/
const MOST_TEXT = 200_000
const MOST_INTEGER = 2_147_483_647
const DEEPEST = 12

/**
 * A row of an archive as it may be put in, its moments as dates; what is left out has its default.
 *
 * @throws Refused naming table, row and field
 */
export function checkedRow(one: Carried, row: unknown, line: number): Record<string, unknown> {
  const where = `${one.name}, line ${line}`
  if (typeof row !== 'object' || row === null || Array.isArray(row)) throw unreadable(`${where} is no row.`)
  const given = row as Record<string, unknown>
  const values: Record<string, unknown> = {}
  for (const key of Object.keys(given))
    if (!Object.hasOwn(one.columns, key))
      throw unreadable(`${where}: it has a field “${key.slice(0, 60)}” that is not known.`)
  for (const [key, column] of Object.entries(one.columns)) {
    const value = given[key]
    if (value === undefined || value === null) {
      if (value === null ? column.notNull : isRequired(column)) throw unreadable(`${where}: it lacks ${key}.`)
      if (value === null) values[key] = null
      continue
    }
    if (!FITS[column.columnType]?.(value)) throw unreadable(`${where}: ${key} is not what it must be.`)
    values[key] = column.columnType === 'PgTimestamp' ? new Date(value as string) : value
  }
  asMade(one, given, where)
  return values
}

/** Refuses a row that its own schema would not have let in; of the settings and tables of the workshop, what they hold. */
function asMade(one: Carried, given: Record<string, unknown>, where: string): void {
  const made = MADE_BY[one.name]
  if (made) {
    const { picked, keys } = pickedFor(one, made)
    // What was never told stands as null in its column, and is left out where one sends it.
    const isTold = (key: string) => given[key] !== undefined && (given[key] !== null || mayBeNull(made.fields, key))
    validate(picked, Object.fromEntries(keys.filter(isTold).map((key) => [key, given[key]])), where)
  }
  if (one.name === 'settings')
    validate(contract.Settings, settingsFrom(given.values as Partial<contract.Settings>, Number(given.version)), where)
  if (one.name === 'workshop_tables') {
    const name = String(given.name)
    if (!Object.hasOwn(contract.WORKSHOP_TABLES, name))
      throw unreadable(`${where}: there is no table “${name.slice(0, 60)}”.`)
    validate(contract.WORKSHOP_TABLES[name as contract.TableName].schema, given.values, where)
  }
}

function mayBeNull(fields: object, key: string): boolean {
  return (fields as Record<string, { spec?: { nullable?: boolean } }>)[key]?.spec?.nullable === true
}

const known = new Map<string, { picked: Validated; keys: string[] }>()

/** The schema of a table, as far as its rows have its fields; a watch has ten thousand minutes, so it is picked once. */
function pickedFor(one: Carried, schema: RowSchema): { picked: Validated; keys: string[] } {
  const there = known.get(one.name)
  if (there) return there
  const keys = Object.keys(schema.fields).filter((key) => Object.hasOwn(one.columns, key))
  const made = { picked: schema.pick(keys as never[]), keys }
  known.set(one.name, made)
  return made
}

/** By a column's own type. */
const FITS: Record<string, (value: unknown) => boolean> = {
  PgUUID: (v) => typeof v === 'string' && UUID.test(v),
  PgText: (v) => typeof v === 'string' && v.length <= MOST_TEXT && !v.includes('\u0000'),
  PgInteger: (v) => Number.isInteger(v) && Math.abs(v as number) <= MOST_INTEGER,
  PgSerial: (v) => Number.isInteger(v) && (v as number) >= 1 && (v as number) <= MOST_INTEGER,
  PgDoublePrecision: (v) => typeof v === 'number' && Number.isFinite(v),
  PgReal: (v) => typeof v === 'number' && Number.isFinite(v),
  PgBoolean: (v) => typeof v === 'boolean',
  PgTimestamp: (v) => typeof v === 'string' && MOMENT.test(v) && !Number.isNaN(Date.parse(v)),
  PgDateString: (v) => typeof v === 'string' && DAY.test(v) && !Number.isNaN(Date.parse(`${v}T00:00:00Z`)),
  PgJsonb: (v) => isShallow(v, DEEPEST),
}

function isShallow(value: unknown, deep: number): boolean {
  if (typeof value === 'string') return !value.includes('\u0000')
  if (typeof value !== 'object' || value === null) return true
  return deep > 0 && Object.values(value).every((v) => isShallow(v, deep - 1))
}

function validate(schema: Validated, value: unknown, where: string): void {
  try {
    schema.validateSync(value, { strict: true })
  } catch (error) {
    if (error instanceof ValidationError) throw unreadable(`${where}: ${error.message}.`)
    throw error
  }
}
