import { getTableColumns, is } from 'drizzle-orm'
import { getTableConfig, PgTable, type PgColumn } from 'drizzle-orm/pg-core'
import * as schema from '../db/schema.ts'
import { LEFT_HERE, type CarriedName } from '../db/tableNames.ts'

export type { CarriedName }

/** What is of this machine alone, and no part of a row elsewhere. */
const OWN_COLUMNS: Partial<Record<CarriedName, string[]>> = { files: ['staged'] }

/** A table as an archive carries it: a row is an object by these names. */
export interface Carried {
  name: CarriedName
  table: PgTable
  columns: Record<string, PgColumn>
  /** of the primary key */
  keys: string[]
  /** columns that point at another table’s row */
  refs: Ref[]
}

export interface Ref {
  column: string
  of: CarriedName
}

/** Every table that an archive carries, each after those that it points at. */
export const CARRIED: Carried[] = inOrder(
  (Object.values(schema) as unknown[])
    .filter((one): one is PgTable => is(one, PgTable))
    .filter((one) => !LEFT_HERE.some((name) => name === getTableConfig(one).name))
    .map(describe),
)

/** The table of a name, or none. */
export function carriedBy(name: string): Carried | undefined {
  return CARRIED.find((one) => one.name === name)
}

/**
 * What is the shop’s own and no clock’s. A clock’s archive brings none of it; what its rows point at of these is linked
 * where it is known here.
 */
export const SHOPS: ReadonlySet<CarriedName> = new Set<CarriedName>([
  'people',
  'settings',
  'workshop_tables',
  'stock',
  'stock_imports',
  'reservations',
  'oils',
  'donors',
  'tools',
])

/** What a row belongs to for good: none is ever given another. */
const PARENTS: ReadonlySet<CarriedName> = new Set<CarriedName>(['jobs', 'clocks', 'watches'])

/** The column that says what a row belongs to; an owner is not what a clock belongs to: it may be sold. */
export function parentOf(one: Carried): Ref | undefined {
  return one.refs.find(({ of }) => PARENTS.has(of))
}

function describe(table: PgTable): Carried {
  const config = getTableConfig(table)
  const name = config.name as CarriedName
  const all = getTableColumns(table) as Record<string, PgColumn>
  const nameOf = (column: PgColumn) => Object.keys(all).find((key) => all[key]?.name === column.name) ?? ''
  const own = config.columns.filter((c) => c.primary)
  const keys = (own.length > 0 ? own : (config.primaryKeys[0]?.columns ?? [])).map(nameOf)
  const refs = config.foreignKeys.map((key): Ref => {
    const { columns: from, foreignTable } = key.reference()
    return { column: nameOf(from[0] as PgColumn), of: getTableConfig(foreignTable).name as CarriedName }
  })
  const columns = Object.fromEntries(Object.entries(all).filter(([key]) => !OWN_COLUMNS[name]?.includes(key)))
  return { name, table, columns, keys, refs }
}

function inOrder(all: Carried[]): Carried[] {
  const done: Carried[] = []
  const put = (one: Carried) => {
    if (done.includes(one)) return
    for (const { of } of one.refs) {
      const parent = all.find((c) => c.name === of)
      if (parent && parent !== one) put(parent)
    }
    done.push(one)
  }
  for (const one of all) put(one)
  return done
}
