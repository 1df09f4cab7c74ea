import { StockChange, StockCsv, type StockImport, type StockPreview } from '@treadle/contract'
import { eq, inArray } from 'drizzle-orm'
import { Router } from 'express'
import type { Database, Queries } from '../db/connect.ts'
import { reservations, stock, stockImports } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/problem.ts'
import { identity, readStockCsv, stockCsv } from './csv.ts'
import { readStock } from './store.ts'

/** The drawers: a row at a time, or whole lists in and out. */
export function stockRoutes(db: Database): Router {
  return Router()
    .get('/stock', async (_req, res) => {
      res.json(await readStock(db))
    })
    .get('/stock.csv', async (_req, res) => {
      res
        .type('text/csv')
        .attachment('drawers.csv')
        .send(stockCsv(await readStock(db)))
    })
    .put('/stock/:row', async (req, res) => {
      const { id, version, ...row } = await bodyOf(StockChange, req)
      sameId(idOf(req, 'row'), id)
      sendSaved(res, await saveVersioned(db, stock, { id, version }, row))
    })
    .delete('/stock/:row', async (req, res) => {
      const id = idOf(req, 'row')
      const [held] = await db
        .select({ id: reservations.id })
        .from(reservations)
        .where(eq(reservations.stockId, id))
        .limit(1)
      if (held) throw new Refused(409, 'promised', 'Jobs have some of these; set its count to 0 instead.')
      await db.delete(stock).where(eq(stock.id, id))
      res.status(204).end()
    })
    .post('/stock/lists', async (req, res) => {
      const { id, csv, keep } = await bodyOf(StockCsv, req)
      const read = await readStockCsv(csv)
      const answer = await db.transaction(async (tx) => {
        const plan = await planOf(tx, read)
        return keep ? { ...plan, kept: await takeList(tx, id, plan, whoOf(req), nowOf(req)) } : { ...plan, kept: null }
      })
      res.json(answer)
    })
    .post('/stock/lists/:row/undo', async (req, res) => {
      res.json(await db.transaction((tx) => undoList(tx, idOf(req, 'row'))))
    })
}

/** What a list would do to the drawers: rows that are the same thing are changed, others added. */
async function planOf(tx: Queries, read: Awaited<ReturnType<typeof readStockCsv>>): Promise<StockPreview> {
  const now = new Map((await readStock(tx)).map((row) => [identity(row), row]))
  const preview: StockPreview = { added: [], changed: [], same: 0, wrong: read.wrong }
  for (const { row, line } of read.rows) {
    const { reserved = 0, ...before } = now.get(identity(row)) ?? {}
    const there = 'id' in before ? before : null
    if (!there) preview.added.push(row)
    else if (row.count < reserved)
      preview.wrong.push({
        line,
        message: `${reserved} of these are promised to jobs; the count can’t be ${row.count}.`,
      })
    else if (there.count === row.count && there.lowAt === row.lowAt && there.drawer === row.drawer) preview.same++
    else preview.changed.push({ before: there, after: { ...row, id: there.id, version: there.version } })
  }
  return preview
}

async function takeList(
  tx: Queries,
  id: string,
  { added, changed }: StockPreview,
  who: string,
  at: Date,
): Promise<StockImport> {
  const made = await tx
    .insert(stockImports)
    .values({ id, at, who, added: added.map((r) => r.id), before: changed.map((c) => c.before), undone: false })
    .onConflictDoNothing()
    .returning()
  // A repeated request finds its own list there already.
  if (!made[0]) return { id, added: 0, changed: 0 }
  for (let i = 0; i < added.length; i += 500)
    await tx.insert(stock).values(added.slice(i, i + 500).map((row) => ({ ...row, version: 1 })))
  for (const { before, after } of changed) {
    const { count, lowAt, drawer } = after
    const done = await tx
      .update(stock)
      .set({ count, lowAt, drawer, version: before.version + 1 })
      .where(eq(stock.id, before.id))
      .returning()
    if (!done[0]) throw new Refused(409, 'stale', 'Somebody changed the drawers meanwhile; look at the list again.')
  }
  return { id, added: added.length, changed: changed.length }
}

/** Takes a list back out: what it added goes, what it changed is as it was. */
async function undoList(tx: Queries, id: string): Promise<StockImport> {
  const [list] = await tx.select().from(stockImports).where(eq(stockImports.id, id)).for('update')
  if (!list) throw new Refused(404, 'not-found', 'There is no such list.')
  if (list.undone) return { id, added: 0, changed: 0 }
  const touched = [...list.added, ...list.before.map((b) => b.id)]
  const now = touched.length === 0 ? [] : await tx.select().from(stock).where(inArray(stock.id, touched))
  const later = now.find((row) => {
    const before = list.before.find((b) => b.id === row.id)
    return row.version !== (before ? before.version + 1 : 1)
  })
  const held =
    list.added.length === 0
      ? []
      : await tx.select().from(reservations).where(inArray(reservations.stockId, list.added)).limit(1)
  if (later || held[0])
    throw new Refused(409, 'used', 'Some of what this list brought was changed or promised since.', {
      detail: 'Change those rows one by one instead.',
    })
  if (list.added.length > 0) await tx.delete(stock).where(inArray(stock.id, list.added))
  for (const { id: row, version, ...before } of list.before)
    await tx
      .update(stock)
      .set({ ...before, version: version + 2 })
      .where(eq(stock.id, row))
  await tx.update(stockImports).set({ undone: true }).where(eq(stockImports.id, id))
  return { id, added: list.added.length, changed: list.before.length }
}
