import { and, eq, getTableColumns, type SQL } from 'drizzle-orm'
import type { AnyPgColumn, PgTable } from 'drizzle-orm/pg-core'
import { isDeepStrictEqual } from 'node:util'
import type { Queries } from './connect.ts'

type Versioned = PgTable & { id: AnyPgColumn; version: AnyPgColumn }
type Row<T extends Versioned> = T['$inferSelect']

export type Saved<R> =
  { state: 'created' | 'changed' | 'same'; row: R } | { state: 'stale'; row: R } | { state: 'missing' }

/**
 * Makes a row (version 0) or changes the one of this version.
 *
 * A repeated request is `same`: it finds its own values there already. A change made on an older version is `stale`,
 * and carries the row as it stands now. `within` bounds which row it may be, as its job. `stamp` is written with the
 * values (who, when) and says nothing about whether they are the same.
 */
export async function saveVersioned<T extends Versioned>(
  queries: Queries,
  table: T,
  key: { id: string; version: number; within?: SQL | undefined },
  values: Omit<T['$inferInsert'], 'id' | 'version'>,
  stamp: Record<string, unknown> = {},
): Promise<Saved<Row<T>>> {
  const columns = Object.keys(getTableColumns(table))
  const wanted = Object.fromEntries(Object.entries(values).filter(([name]) => columns.includes(name)))
  const plainTable: PgTable = table
  const mine = and(eq(table.id, key.id), key.within)
  if (key.version === 0) {
    const made = (await queries
      .insert(table)
      .values({ ...wanted, ...stamp, id: key.id, version: 1 } as never)
      .onConflictDoNothing()
      .returning()) as Row<T>[]
    if (made[0]) return { state: 'created', row: made[0] }
  } else {
    const changed = (await queries
      .update(table)
      .set({ ...wanted, ...stamp, version: key.version + 1 } as never)
      .where(and(mine, eq(table.version, key.version)))
      .returning()) as Row<T>[]
    if (changed[0]) return { state: 'changed', row: changed[0] }
  }
  const now = await queries.select().from(plainTable).where(mine)
  const row = now[0] as Row<T> | undefined
  if (!row) return { state: 'missing' }
  const same = Object.entries(plain(wanted)).every(([name, value]) => isDeepStrictEqual(plain(row)[name], value))
  return { state: same ? 'same' : 'stale', row }
}

function plain(value: object): Record<string, unknown> {
  return JSON.parse(JSON.stringify(value)) as Record<string, unknown>
}
