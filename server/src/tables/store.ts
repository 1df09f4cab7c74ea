import { WORKSHOP_TABLES, type TableAnswer, type TableName } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { workshopTables } from '../db/schema.ts'

/** A table of the workshop, or the craft's own while it has none; that one has version 0. */
export async function readTable<N extends TableName>(queries: Queries, name: N): Promise<TableAnswer<N>> {
  const found = await queries.select().from(workshopTables).where(eq(workshopTables.name, name))
  const row = found[0]
  const values = (row?.values ?? WORKSHOP_TABLES[name].start) as TableAnswer<N>['values']
  return { name, version: row?.version ?? 0, values }
}
