import type { BushingChange, ReservationChange } from '@treadle/contract'
import { and, eq, ne, sql, sum } from 'drizzle-orm'
import { v5 } from 'uuid'
import type { Queries } from '../db/connect.ts'
import { reservations, stock } from '../db/schema.ts'
import type { JobDoing } from '../door/jobChange.ts'
import { badField } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { isPromised } from './promised.ts'

/** The ids of bushes that went in without having been promised are made from their holes' ids by this. */
const FITTED = '7c0a1a3e-51d5-4c0f-9d3b-8a5a6c6f2f10'

const fittedId = (holeId: string, stockId: string) => v5(`${holeId} ${stockId}`, FITTED)

type Held = Pick<ReservationChange, 'stockId' | 'count' | 'taken'>

/**
 * Comes before any row of the drawers is touched, in every change but of a whole list: whoever takes a list in or out holds
 * the drawers whole, and each of them would otherwise wait for what the other has.
 */
export async function enterDrawers(tx: Queries): Promise<void> {
  await tx.execute(sql`lock table ${stock} in row exclusive mode`)
}

/** Holds all the drawers at once: while a list is taken in or out nobody promises or takes from them. */
export async function holdDrawers(tx: Queries): Promise<void> {
  await tx.execute(sql`lock table ${stock} in share row exclusive mode`)
}

/** A row of the drawers, held: nobody else takes from it until this is kept or undone. */
export async function holdRow(tx: Queries, stockId: string) {
  const [row] = await tx.select().from(stock).where(eq(stock.id, stockId)).for('no key update')
  return row
}

/** How many of a thing are promised to open jobs and still in the drawer. */
export async function promisedOf(tx: Queries, stockId: string, besides?: string): Promise<number> {
  const mine = and(
    eq(reservations.stockId, stockId),
    isPromised(tx),
    besides === undefined ? undefined : ne(reservations.id, besides),
  )
  const [all] = await tx
    .select({ count: sum(reservations.count).mapWith(Number) })
    .from(reservations)
    .where(mine)
  return all?.count ?? 0
}

/**
 * Keeps the drawers true after a promise was made, changed, taken or put back: what was `was` (none: new) is now `now`
 * (none: gone). The job is held and the row was written; the drawer's row is held here, so that two jobs can't both have
 * the last one. A refusal undoes it all.
 */
export async function holdStock(
  tx: Queries,
  was: (Held & { id: string }) | null,
  now: (Held & { id: string }) | null,
): Promise<void> {
  const stockId = now?.stockId ?? was?.stockId
  if (stockId === undefined) return
  if (now && was && was.stockId !== now.stockId)
    throw badField('stockId', 'Stock: put the first one back before another is promised')
  const row = await holdRow(tx, stockId)
  if (!row) throw badField('stockId', 'Stock: there is no such thing in the drawers')
  const takenBefore = was?.taken === true ? was.count : 0
  const takenNow = now?.taken === true ? now.count : 0
  const left = row.count + takenBefore - (await promisedOf(tx, stockId, now?.id))
  if (now && now.count > left)
    throw new Refused('none-left', {
      detail:
        left > 0 ? `${left} can still be promised.` : 'All there are have been promised: order some, or turn one.',
    })
  if (takenBefore !== takenNow)
    await tx
      .update(stock)
      .set({ count: row.count + takenBefore - takenNow, version: row.version + 1 })
      .where(eq(stock.id, stockId))
}

type FittingWork = Pick<BushingChange, 'holeId' | 'stockId' | 'done'> & { source: string }

/** What of a drawer is in a hole: its bush, from when it is in hand; none while it is turned, or not yet taken. */
function bushInHand(work: FittingWork | null): string | null {
  if (work?.source !== 'stock') return null
  return work.done.includes('bush') || work.done.includes('press') ? work.stockId : null
}

/** Takes the bush that goes into a hole from its drawer, promised or not, and puts it back when the step is taken back. */
export async function followBush(doing: JobDoing, was: FittingWork | null, now: FittingWork | null): Promise<void> {
  const [before, after] = [bushInHand(was), bushInHand(now)]
  if (before === after && was?.holeId === now?.holeId) return
  if (was && before) await putBack(doing, was.holeId, before)
  if (now && after) await takeOut(doing, now.holeId, after)
}

async function ofHole({ tx, job }: JobDoing, holeId: string, stockId: string, taken: boolean) {
  const mine = and(eq(reservations.jobId, job.id), eq(reservations.holeId, holeId), eq(reservations.stockId, stockId))
  const [row] = await tx
    .select()
    .from(reservations)
    .where(and(mine, eq(reservations.taken, taken)))
  return row ?? null
}

async function takeOut(doing: JobDoing, holeId: string, stockId: string): Promise<void> {
  const { tx, job, person, at, write } = doing
  // Taken by hand before.
  if (await ofHole(doing, holeId, stockId, true)) return
  const promised = await ofHole(doing, holeId, stockId, false)
  const [row] = promised
    ? await tx
        .update(reservations)
        .set({ taken: true, version: promised.version + 1 })
        .where(eq(reservations.id, promised.id))
        .returning()
    : await tx
        .insert(reservations)
        .values({ id: fittedId(holeId, stockId), jobId: job.id, stockId, holeId, count: 1, taken: true, at, ...person })
        .returning()
  if (!row) return
  await holdStock(tx, promised, row)
  await write(`Taken from the drawer for the hole: ${row.count}.`, { holeId, stockId })
}

async function putBack(doing: JobDoing, holeId: string, stockId: string): Promise<void> {
  const { tx, write } = doing
  const row = await ofHole(doing, holeId, stockId, true)
  if (!row) return
  if (row.id === fittedId(holeId, stockId)) {
    await tx.delete(reservations).where(eq(reservations.id, row.id))
    await holdStock(tx, row, null)
  } else {
    await tx
      .update(reservations)
      .set({ taken: false, version: sql`${reservations.version} + 1` })
      .where(eq(reservations.id, row.id))
    await holdStock(tx, row, { ...row, taken: false })
  }
  await write(`Back in the drawer from the hole: ${row.count}.`, { holeId, stockId })
}

/**
 * Takes something out of its drawer for a row of a job that is no hole's, or puts it back: `owner` is the row, `before`
 * and `now` what it had and has in hand.
 */
export async function followTaken(
  { tx, job, person, at, write }: JobDoing,
  owner: { id: string } | null,
  before: string | null,
  now: string | null,
): Promise<void> {
  if (!owner || before === now) return
  if (before !== null) {
    const [row] = await tx
      .delete(reservations)
      .where(eq(reservations.id, fittedId(owner.id, before)))
      .returning()
    if (row) {
      await holdStock(tx, row, null)
      await write('Back in the drawer: 1.', { stockId: before })
    }
  }
  if (now !== null) {
    const [row] = await tx
      .insert(reservations)
      .values({
        id: fittedId(owner.id, now),
        jobId: job.id,
        stockId: now,
        holeId: null,
        count: 1,
        taken: true,
        at,
        ...person,
      })
      .returning()
    if (row) await holdStock(tx, null, row)
    await write('Taken from the drawer: 1.', { stockId: now })
  }
}
