import { and, eq, getTableColumns, type SQL } from 'drizzle-orm'
import type { AnyPgColumn, PgTable } from 'drizzle-orm/pg-core'
import { isDeepStrictEqual } from 'node:util'
import { Refused } from '../http/refusals.ts'
import type { Queries } from './connect.ts'

type Versioned = PgTable & { id: AnyPgColumn; version: AnyPgColumn }
type Row<T extends PgTable> = T['$inferSelect']

export interface Saved<R> {
  state: 'created' | 'changed' | 'same'
  row: R
}

interface Key {
  id: string
  version: number
  /** bounds which row it may be, as its job */
  within?: SQL | undefined
  /** finds the row that stands for the same thing under another id, where there can be one only */
  place?: SQL | undefined
}

/**
 * Makes a row (version 0) or changes the one of this version.
 *
 * What asks for the values that are there already is `same`, a repeated request too: nothing is written, and nothing is
 * told of it. A change made on an older version, an id that is
 * another row's, and a place that is taken are thrown as a refusal that carries the row as it stands: thrown, so that
 * whatever was done before it in the same transaction is undone with it. `stamp` is written with the values (who, when)
 * and says nothing about whether they are the same.
 */
export async function saveVersioned<T extends Versioned>(
  tx: Queries,
  table: T,
  { id, version, within, place }: Key,
  values: Omit<T['$inferInsert'], 'id' | 'version'>,
  stamp: object = {},
): Promise<Saved<Row<T>>> {
  const columns = Object.keys(getTableColumns(table))
  const wanted = Object.fromEntries(Object.entries(values).filter(([name]) => columns.includes(name)))
  const plainTable: PgTable = table
  const one = async (where: SQL | undefined) =>
    (await tx.select().from(plainTable).where(where).limit(1))[0] as Row<T> | undefined
  const mine = version === 0 ? undefined : await one(and(eq(table.id, id), within))
  if (mine && sameValues(wanted, mine)) return { state: 'same', row: mine }
  if (version === 0) {
    const made = (await tx
      .insert(table)
      .values({ ...wanted, ...stamp, id, version: 1 } as never)
      .onConflictDoNothing()
      .returning()) as Row<T>[]
    if (made[0]) return { state: 'created', row: made[0] }
  } else {
    const changed = (await tx
      .update(table)
      .set({ ...wanted, ...stamp, version: version + 1 } as never)
      .where(and(eq(table.id, id), within, eq(table.version, version)))
      .returning()) as Row<T>[]
    if (changed[0]) return { state: 'changed', row: changed[0] }
  }
  const standing = await one(and(eq(table.id, id), within))
  if (standing) {
    if (sameValues(wanted, standing)) return { state: 'same', row: standing }
    throw stale(standing)
  }
  const other = version === 0 ? ((await one(eq(table.id, id))) ?? (place && (await one(place)))) : undefined
  if (other) throw stale(other)
  throw new Refused('taken-back')
}

/** The refusal of what was meant for another state of things, with the row as it stands. */
export function stale(current: unknown, title?: string): Refused {
  return new Refused('stale', title === undefined ? { current } : { title, current })
}

/** Whether a row has all these values, as they travel. */
export function sameValues(wanted: object, row: object): boolean {
  const now = plain(row)
  return Object.entries(plain(wanted)).every(([name, value]) => isDeepStrictEqual(now[name], value))
}

function plain(value: object): Record<string, unknown> {
  return JSON.parse(JSON.stringify(value)) as Record<string, unknown>
}
