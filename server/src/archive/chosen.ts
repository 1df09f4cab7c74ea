import { and, eq, inArray, or, sql, type SQL } from 'drizzle-orm'
import type { Database, Queries } from '../db/connect.ts'
import { journal } from '../db/schema.ts'
import { CARRIED, SHOPS, type Carried } from './tables.ts'

/** The rows of a table that go into an archive: a condition; null: none of it. */
export type Chosen = Map<string, SQL | null | undefined>

/** Rows that belong to one of these belong to its clock. */
const OWNERS = ['clocks', 'jobs', 'watches']

/** The whole workshop. */
export function allRows(): Chosen {
  return new Map(CARRIED.map(({ name }) => [name, undefined]))
}

/**
 * One clock and its whole history: its visits and all that hangs on them, and then what those rows point at: its owner,
 * pictures and sounds. What is the shop’s own, its people, oils and drawers, stays here: the rows still say which it was.
 */
export async function rowsOfClock(tx: Queries & Pick<Database, 'selectDistinct'>, clockId: string): Promise<Chosen> {
  const ids = new Map<string, Set<string>>([['clocks', new Set([clockId])]])
  const chosen: Chosen = new Map()
  for (const one of CARRIED) {
    if (one.name === 'clocks' || SHOPS.has(one.name)) continue
    const ref = one.refs.find((r) => OWNERS.includes(r.of))
    const owners = ref && ids.get(ref.of)
    if (!ref || !owners) continue
    const within = owners.size === 0 ? sql`false` : inArray(column(one, ref.column), [...owners])
    const where =
      one.name === 'journal' ? or(within, and(eq(journal.about, 'clock'), eq(journal.aboutId, clockId))) : within
    chosen.set(one.name, where)
    if (!one.keys.includes('id')) continue
    const found = await tx
      .select({ id: column(one, 'id') })
      .from(one.table)
      .where(where)
    ids.set(one.name, new Set(found.map((f) => String(f.id))))
  }
  const pointed = new Map<string, Set<string>>()
  for (const one of [...CARRIED].reverse()) {
    if (SHOPS.has(one.name)) {
      chosen.set(one.name, null)
      continue
    }
    const mine = one.name === 'clocks' ? inArray(column(one, 'id'), [clockId]) : chosen.get(one.name)
    const more = [...(pointed.get(one.name) ?? [])].filter((id) => !ids.get(one.name)?.has(id))
    const where = more.length === 0 ? mine : or(mine ?? undefined, inArray(column(one, 'id'), more))
    chosen.set(one.name, where ?? null)
    if (!where) continue
    for (const { column: key, of } of one.refs) {
      const found = await tx
        .selectDistinct({ id: column(one, key) })
        .from(one.table)
        .where(where)
      const set = pointed.get(of) ?? new Set()
      for (const { id } of found) if (typeof id === 'string') set.add(id)
      pointed.set(of, set)
    }
  }
  return chosen
}

function column(one: Carried, key: string) {
  const found = one.columns[key]
  if (!found) throw new Error(`${one.name} has no ${key}.`)
  return found
}
