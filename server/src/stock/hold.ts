import type { ReservationChange } from '@treadle/contract'
import { and, eq, ne, sum } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import { reservations, stock } from '../db/schema.ts'
import { badField, Refused } from '../http/problem.ts'

/**
 * Keeps the drawers true while something is promised, taken, or put back: the stock’s row is held, so that two people
 * can't both have the last one.
 */
export async function holdStock(tx: Queries, jobId: string, id: string, body: ReservationChange | null): Promise<void> {
  const [was] = await tx
    .select()
    .from(reservations)
    .where(and(eq(reservations.id, id), eq(reservations.jobId, jobId)))
  const stockId = body?.stockId ?? was?.stockId
  if (stockId === undefined) return
  if (body && was && was.stockId !== body.stockId)
    throw badField('stockId', 'Stock: put the first one back before another is promised')
  const [row] = await tx.select().from(stock).where(eq(stock.id, stockId)).for('update')
  if (!row) throw badField('stockId', 'Stock: there is no such thing in the drawers')
  const [others] = await tx
    .select({ count: sum(reservations.count).mapWith(Number) })
    .from(reservations)
    .where(and(eq(reservations.stockId, stockId), eq(reservations.taken, false), ne(reservations.id, id)))
  const takenBefore = was?.taken === true ? was.count : 0
  const takenNow = body?.taken === true ? body.count : 0
  const left = row.count + takenBefore - (others?.count ?? 0)
  if (body && body.count > left)
    throw new Refused(409, 'none-left', 'The drawer has no more of these to give.', {
      detail:
        left > 0 ? `${left} can still be promised.` : 'All there are have been promised: order some, or turn one.',
    })
  if (takenBefore !== takenNow)
    await tx
      .update(stock)
      .set({ count: row.count + takenBefore - takenNow, version: row.version + 1 })
      .where(eq(stock.id, stockId))
}
