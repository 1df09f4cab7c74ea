import { boundsOf, type Settings } from '@treadle/contract'
import { ValidationError, type Schema } from 'yup'
import { settingsFrom } from '../settings/store.ts'
import { ROW_SCHEMAS } from '../db/rowSchemas.ts'
import { isRequired } from './schemaOfTables.ts'
import type { Carried, CarriedName } from './tables.ts'
import { unreadable } from './zip.ts'

export type Row = Record<string, unknown>

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,9})?Z$/
const DAY = /^\d{4}-\d\d-\d\d$/
/** Of a column that no schema speaks of, such as who did it: the longest name, with room. */
const MOST_NAME = 400
const MOST_TEXT = 200_000
const MOST_INTEGER = 2_147_483_646
const DEEPEST = 12

/**
 * A row of an archive as it may be put in: by its columns, and by the schema that it was made by.
 *
 * @throws Refused naming table, row and field
 */
export function checkedRow(one: Carried, row: unknown, line: number): Row {
  const where = `${one.name}, line ${line}`
  if (typeof row !== 'object' || row === null || Array.isArray(row)) throw unreadable(`${where} is no row.`)
  const given = row as Row
  const { picked, keys } = schemaOf(one.name, one)
  for (const key of Object.keys(given))
    if (!Object.hasOwn(one.columns, key))
      throw unreadable(`${where}: it has a field “${key.slice(0, 60)}” that is not known.`)
  for (const [key, column] of Object.entries(one.columns)) {
    const value = given[key]
    if (value === undefined || value === null) {
      if (value === null ? column.notNull : isRequired(column)) throw unreadable(`${where}: it lacks ${key}.`)
      continue
    }
    if (!FITS[column.columnType]?.(value)) throw unreadable(`${where}: ${key} is not what it must be.`)
    if (typeof value === 'string' && !keys.includes(key) && value.length > MOST_NAME)
      throw unreadable(`${where}: ${key} is far too long.`)
  }
  // A row is made with 1; a table of the workshop is kept by what it was read at, which may be none.
  if (typeof given.version === 'number' && given.version < (one.keys.includes('id') ? 1 : 0))
    throw unreadable(`${where}: version is not what it must be.`)
  // What was never told stands as null in its column, and is left out where one sends it.
  const isTold = (key: string) => given[key] !== undefined && (given[key] !== null || mayBeNull(one.name, key))
  const told = Object.fromEntries(keys.filter(isTold).map((key) => [key, given[key]]))
  // Settings that a later version added have their defaults.
  if (one.name === 'settings') told.values = settingsFrom(given.values as Partial<Settings>, 1)
  validate(picked, told, where)
  return given
}

function mayBeNull(name: CarriedName, key: string): boolean {
  const fields = ROW_SCHEMAS[name].fields as Record<string, { spec?: { nullable?: boolean } }>
  return fields[key]?.spec?.nullable === true
}

const known = new Map<CarriedName, { picked: Schema<unknown>; keys: string[] }>()

/** The schema of a table, as far as its rows have its fields; a watch has ten thousand minutes, so it is picked once. */
function schemaOf(name: CarriedName, one: Carried): { picked: Schema<unknown>; keys: string[] } {
  const there = known.get(name)
  if (there) return there
  const schema = ROW_SCHEMAS[name]
  const keys = Object.keys(schema.fields).filter((key) => Object.hasOwn(one.columns, key))
  const made = { picked: schema.pick(keys as never[]), keys }
  known.set(name, made)
  return made
}

/** By a column's own type. */
const FITS: Record<string, (value: unknown) => boolean> = {
  PgUUID: (v) => typeof v === 'string' && UUID.test(v),
  PgText: (v) => typeof v === 'string' && v.length <= MOST_TEXT,
  PgInteger: (v) => Number.isInteger(v) && Math.abs(v as number) <= MOST_INTEGER,
  PgDoublePrecision: (v) => typeof v === 'number' && Number.isFinite(v),
  PgReal: (v) => typeof v === 'number' && Number.isFinite(v) && Math.abs(v) < 3e38,
  PgBoolean: (v) => typeof v === 'boolean',
  PgTimestamp: (v) => typeof v === 'string' && MOMENT.test(v) && isDay(v.slice(0, 10)) && !Number.isNaN(Date.parse(v)),
  PgDateString: (v) => typeof v === 'string' && DAY.test(v) && isDay(v),
  PgJsonb: (v) => isShallow(v, DEEPEST),
}

/** Whether the calendar has this day: one that it has not is another once it was read. */
function isDay(words: string): boolean {
  const there = new Date(`${words}T00:00:00Z`)
  return !Number.isNaN(there.getTime()) && there.toISOString().slice(0, 10) === words
}

function isShallow(value: unknown, deep: number): boolean {
  if (typeof value !== 'object' || value === null) return true
  return deep > 0 && Object.values(value).every((v) => isShallow(v, deep - 1))
}

function validate(schema: Schema<unknown>, value: Row, where: string): void {
  const outside = boundsOf(schema)(value)
  if (outside) throw unreadable(`${where}: ${outside.message}.`)
  try {
    schema.validateSync(value, { strict: true })
  } catch (error) {
    if (error instanceof ValidationError) throw unreadable(`${where}: ${error.message}.`)
    throw error
  }
}
