import { EMPTY_PENDULUM, fieldsOf, PLAIN_WORK, shapeFault, type UnreadableRow } from '@treadle/contract'
import { getTableColumns } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { SchemaFieldDescription } from 'yup'
import { ROW_SCHEMAS } from './rowSchemas.ts'
import type { CarriedName } from './tableNames.ts'

type Row = Record<string, unknown>
type Field = [key: string, description: SchemaFieldDescription]

const known = new Map<CarriedName, Field[]>()

/**
 * The columns of a table that may hold what nobody can read: JSON, and words that must be one of a few. Numbers, moments and
 * the like are what the database says they are.
 */
function doubtful(name: CarriedName, table: PgTable): Field[] {
  const there = known.get(name)
  if (there) return there
  const fields = fieldsOf(ROW_SCHEMAS[name])
  const columns = getTableColumns(table) as Record<string, PgColumn>
  const found = Object.entries(fields).filter(([key, field]) => {
    const column = columns[key]
    const few = 'oneOf' in field && field.oneOf.length > 0
    return column?.columnType === 'PgJsonb' || (column?.columnType === 'PgText' && few)
  })
  known.set(name, found)
  return found
}

/** The first field of a row that can't be read; null: all of it can. */
export function unreadableField(name: CarriedName, table: PgTable, row: object): string | null {
  for (const [key, description] of doubtful(name, table)) {
    const value = (row as Row)[key]
    // A column that was not asked for, or never told.
    if (value === undefined || value === null) continue
    const fault = shapeFault(description, value, key)
    if (fault !== null) return fault
  }
  return null
}

/** Those of rows that can be read; the others are told of, and nothing else is lost with them. */
export function readableRows<R extends object>(
  name: CarriedName,
  table: PgTable,
  rows: R[],
  told: UnreadableRow[],
): R[] {
  const faults = rows.map((row) => unreadableField(name, table, row))
  if (faults.every((fault) => fault === null)) return rows
  return rows.filter((row, i) => {
    const fault = faults[i] ?? null
    if (fault !== null) told.push(unreadableRow(name, row, fault))
    return fault === null
  })
}

function unreadableRow(name: CarriedName, row: object, field: string): UnreadableRow {
  const { id, ...rest } = row as Row
  const title = ['name', 'title', 'part', 'arbor', 'key', 'kind', 'train'].map((key) => rest[key]).find(isWords)
  return { table: name, id: typeof id === 'string' ? id : '', title: title?.slice(0, 80) ?? '', field }
}

const isWords = (value: unknown): value is string => typeof value === 'string' && value !== ''

/** What stands for a field of a clock or a visit that can’t be read, so that all else of it can be. */
const BLANK: Partial<Record<CarriedName, Row>> = {
  clocks: { kind: 'other', trains: [], pendulum: EMPTY_PENDULUM, work: PLAIN_WORK, home: null, card: null },
  jobs: {
    ...{ bay: 'arrive', runs: 'not-tried', cameWith: [], movedLately: 'unknown', ending: '' },
    ...{ scope: 'whole', scopeTrain: '', waitsFor: '' },
  },
}

/** A clock or a visit with a blank for each of its fields that can’t be read; those are told of. */
export function withBlanks<R extends object>(
  name: 'clocks' | 'jobs',
  table: PgTable,
  row: R,
  told: UnreadableRow[] = [],
): R {
  let now = row
  for (let fault = unreadableField(name, table, now); fault !== null; fault = unreadableField(name, table, now)) {
    const key = fault.split(/[.[]/)[0] ?? fault
    const blank = BLANK[name] ?? {}
    if (!(key in blank)) return now
    told.push(unreadableRow(name, row, fault))
    now = { ...now, [key]: blank[key] }
  }
  return now
}

/** What stands for such a field where it is mended for good. */
export function blankOf(name: 'clocks' | 'jobs', key: string): unknown {
  return BLANK[name]?.[key]
}
