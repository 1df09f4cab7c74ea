import { stockTitle } from '@treadle/contract'
import { and, asc, eq } from 'drizzle-orm'
import type { JobDoing } from '../door/jobChange.ts'
import { reservations } from '../db/schema.ts'
import { enterDrawers, holdRow, promisedOf } from './hold.ts'

/** What is promised to a job and still in its drawers. */
async function promises({ tx, job }: JobDoing) {
  return tx
    .select()
    .from(reservations)
    .where(and(eq(reservations.jobId, job.id), eq(reservations.taken, false)))
    .orderBy(asc(reservations.at), asc(reservations.id))
}

/** What a job that is called off lets go of, in words: from now on others may have it. */
export async function letGo(doing: JobDoing): Promise<string[]> {
  const names = []
  for (const { stockId, count } of await promises(doing)) {
    const row = await holdRow(doing.tx, stockId)
    if (row) names.push(`${count} × ${stockTitle(row)}`)
  }
  return names
}

/**
 * Promises anew what was promised to a job before it was closed, as far as it is still to be had; the rest is let go for
 * good. Gives that in words. The job is open again already.
 */
export async function promiseAgain(doing: JobDoing): Promise<string[]> {
  const { tx } = doing
  await enterDrawers(tx)
  const mine = await promises(doing)
  const left = new Map<string, number>()
  const lost = []
  // What was promised first is had first.
  for (const { id, stockId, count } of mine) {
    const row = await holdRow(tx, stockId)
    if (!row) continue
    const own = mine.filter((p) => p.stockId === stockId).reduce((sum, p) => sum + p.count, 0)
    const there = left.get(stockId) ?? row.count - ((await promisedOf(tx, stockId)) - own)
    left.set(stockId, count <= there ? there - count : there)
    if (count <= there) continue
    await tx.delete(reservations).where(eq(reservations.id, id))
    lost.push(`${count} × ${stockTitle(row)}`)
  }
  return lost
}
