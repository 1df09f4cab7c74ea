import { getTableColumns, is } from 'drizzle-orm'
import { getTableConfig, PgTable, type PgColumn } from 'drizzle-orm/pg-core'
import * as schema from '../db/schema.ts'

/** A table as an archive carries it: a row is an object by these names. */
export interface Carried {
  name: string
  table: PgTable
  columns: Record<string, PgColumn>
  /** of the primary key */
  keys: string[]
  /** columns that point at another table’s row */
  refs: { column: string; of: string }[]
}

/** A secret of this machine, and the bytes of files, which travel as files. */
const LEFT_HERE = new Set(['calendar_keys', 'file_chunks'])

/** Every table that an archive carries, each after those that it points at. */
export const CARRIED: Carried[] = inOrder(
  (Object.values(schema) as unknown[])
    .filter((one): one is PgTable => is(one, PgTable))
    .map(describe)
    .filter((one) => !LEFT_HERE.has(one.name)),
)

function describe(table: PgTable): Carried {
  const config = getTableConfig(table)
  const columns = getTableColumns(table) as Record<string, PgColumn>
  const nameOf = (column: PgColumn) => Object.keys(columns).find((key) => columns[key]?.name === column.name) ?? ''
  const own = config.columns.filter((c) => c.primary)
  const keys = (own.length > 0 ? own : (config.primaryKeys[0]?.columns ?? [])).map(nameOf)
  const refs = config.foreignKeys.map((key) => {
    const { columns: from, foreignTable } = key.reference()
    return { column: nameOf(from[0] as PgColumn), of: getTableConfig(foreignTable).name }
  })
  return { name: config.name, table, columns, keys, refs }
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
