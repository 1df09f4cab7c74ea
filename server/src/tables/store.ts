import { shapeFault, WORKSHOP_TABLES, type TableAnswer, type TableName, type UnreadableRow } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import type { SchemaFieldDescription } from 'yup'
import type { Queries } from '../db/connect.ts'
import { workshopTables } from '../db/schema.ts'

/** A table of the workshop, or the craft's own while it has none; that one has version 0. */
export async function readTable<N extends TableName>(queries: Queries, name: N): Promise<TableAnswer<N>> {
  const found = await queries.select().from(workshopTables).where(eq(workshopTables.name, name))
  const row = found[0]
  const kept = row && isReadable(name, row.values) ? row.values : null
  const values = (kept ?? WORKSHOP_TABLES[name].start) as TableAnswer<N>['values']
  return { name, version: row?.version ?? 0, values }
}

/** Tables that can’t be read: for those the craft’s own stand until they are kept anew. */
export async function unreadableTables(queries: Queries): Promise<UnreadableRow[]> {
  const rows = await queries.select().from(workshopTables)
  return rows.flatMap(({ name, values }) =>
    Object.hasOwn(WORKSHOP_TABLES, name) && !isReadable(name as TableName, values)
      ? [{ table: 'workshop_tables', id: name, title: name, field: 'values' }]
      : [],
  )
}

const described = new Map<TableName, SchemaFieldDescription>()

function isReadable(name: TableName, values: unknown): boolean {
  const description = described.get(name) ?? WORKSHOP_TABLES[name].schema.describe()
  described.set(name, description)
  return shapeFault(description, values) === null
}
