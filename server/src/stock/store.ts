import { cuttersOf, type Settings, type StockRow } from '@treadle/contract'
import { type HoleRules } from '@treadle/core'
import { asc, eq, sql, sum } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { reservations, stock } from '../db/schema.ts'
import { isPromised } from './promised.ts'

/** Everything in the drawers, and how many of each are promised. */
export async function readStock(queries: Queries): Promise<StockRow[]> {
  const rows = await queries
    .select()
    .from(stock)
    .orderBy(
      asc(stock.kind),
      sql`coalesce(${stock.measuredMm}, ${stock.outsideMm})`,
      asc(stock.insideMm),
      asc(stock.lengthMm),
      asc(stock.id),
    )
  const promised = await queries
    .select({ stockId: reservations.stockId, count: sum(reservations.count).mapWith(Number) })
    .from(reservations)
    .where(isPromised(queries))
    .groupBy(reservations.stockId)
  const counts = new Map(promised.map((p) => [p.stockId, p.count]))
  return rows.map((row) => ({ ...(row as Omit<StockRow, 'reserved'>), reserved: counts.get(row.id) ?? 0 }))
}

/** The rules that a hole is judged by: the settings', with the cutters of the drawers. */
export async function readHoleRules(queries: Queries, settings: Settings): Promise<HoleRules> {
  const cutters = await queries.select().from(stock).where(eq(stock.kind, 'cutter'))
  return { bushing: settings.bushing, cuttersMm: cuttersOf(cutters) }
}
