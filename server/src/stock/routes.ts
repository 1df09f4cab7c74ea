import {
  stockTitle,
  StockChange,
  StockCsv,
  type StockImport,
  type StockPreview,
  type StockPromise,
} from '@treadle/contract'
import { asc, eq, inArray } from 'drizzle-orm'
import type { Router } from 'express'
import { createHash } from 'node:crypto'
import type { Database, Queries } from '../db/connect.ts'
import { bushings, clocks, holes, jobs, reservations, springSheets, stock, stockImports } from '../db/schema.ts'
import { saveVersioned, stale } from '../db/versioned.ts'
import { shopChange, type ShopDoing } from '../door/shopChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { badField } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { inNextRound } from '../http/rounds.ts'
import { apiRouter } from '../http/router.ts'
import { identity, readStockCsv, stockCsv } from './csv.ts'
import { enterDrawers, holdDrawers, holdRow, promisedOf } from './hold.ts'
import { isPromised } from './promised.ts'
import { readStock } from './store.ts'

/** The drawers: a row at a time, or whole lists in and out. */
export function stockRoutes(db: Database): Router {
  const drawers = inNextRound(() => readStock(db))
  return apiRouter()
    .get('/stock', async (_req, res) => {
      res.type('json').send(await drawers('', null))
    })
    .get('/stock/promises', async (_req, res) => {
      const found: StockPromise[] = await db
        .select({
          id: reservations.id,
          stockId: reservations.stockId,
          count: reservations.count,
          jobId: jobs.id,
          number: jobs.number,
          clock: clocks.name,
          arbor: holes.arbor,
          plate: holes.plate,
        })
        .from(reservations)
        .innerJoin(jobs, eq(jobs.id, reservations.jobId))
        .innerJoin(clocks, eq(clocks.id, jobs.clockId))
        .leftJoin(holes, eq(holes.id, reservations.holeId))
        .where(isPromised(db))
        .orderBy(asc(jobs.number))
        .limit(500)
      res.json(found)
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
      const saved = await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        await enterDrawers(tx)
        const before = await holdRow(tx, id)
        const promised = before ? await promisedOf(tx, id) : 0
        const done = await saveVersioned(tx, stock, { id, version }, row)
        if (done.state === 'same') return done
        if (row.count < promised)
          throw badField('count', `Count: ${promised} of these are promised to jobs; it can’t be ${row.count}`)
        await write(id, `${before ? 'Changed' : 'Put in'}: ${stockTitle(row)}, ${row.count}.`, {
          before,
          after: done.row,
        })
        return done
      })
      sendSaved(res, saved)
    })
    .delete('/stock/:row', async (req, res) => {
      const id = idOf(req, 'row')
      await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        await enterDrawers(tx)
        const before = await holdRow(tx, id)
        if (!before) return
        const [held] = await tx
          .select({ id: reservations.id })
          .from(reservations)
          .where(eq(reservations.stockId, id))
          .limit(1)
        if (held) throw new Refused('promised')
        const [used] = await tx.select({ id: bushings.id }).from(bushings).where(eq(bushings.stockId, id)).limit(1)
        if (used) throw new Refused('in-a-plan')
        const [fitted] = await tx
          .select({ id: springSheets.id })
          .from(springSheets)
          .where(eq(springSheets.stockId, id))
          .limit(1)
        if (fitted) throw new Refused('in-a-spring-sheet')
        await tx.delete(stock).where(eq(stock.id, id))
        await write(id, `Taken off the list: ${stockTitle(before)}.`, { before })
      })
      res.status(204).end()
    })
    .post('/stock/lists', async (req, res) => {
      const { id, csv, keep } = await bodyOf(StockCsv, req)
      const read = await readStockCsv(csv)
      if (!keep) {
        res.json({ ...(await planOf(db, read)), kept: null })
        return
      }
      const digest = createHash('sha256').update(csv).digest('hex')
      res.json(await shopChange(db, req, 'drawers', (doing) => takeList(doing, id, digest, read)))
    })
    .post('/stock/lists/:row/undo', async (req, res) => {
      const id = idOf(req, 'row')
      res.json(await shopChange(db, req, 'drawers', (doing) => undoList(doing, id)))
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
  { tx, person, at, write }: ShopDoing,
  id: string,
  digest: string,
  read: Awaited<ReturnType<typeof readStockCsv>>,
): Promise<StockPreview & { kept: StockImport }> {
  await holdDrawers(tx)
  const [known] = await tx.select().from(stockImports).where(eq(stockImports.id, id))
  if (known) {
    if (known.digest !== null && known.digest !== digest) throw stale(known, 'Another list has this id already.')
    // A repeated request finds its own list there already, and what it did then.
    const kept = { id, added: known.added.length, changed: known.before.length }
    return { ...(await planOf(tx, read)), kept }
  }
  const plan = await planOf(tx, read)
  const { added, changed } = plan
  await tx.insert(stockImports).values({
    id,
    at,
    ...person,
    added: added.map((r) => r.id),
    before: changed.map((c) => c.before),
    undone: false,
    digest,
  })
  for (let i = 0; i < added.length; i += 500)
    await tx.insert(stock).values(added.slice(i, i + 500).map((row) => ({ ...row, version: 1 })))
  for (const { before, after } of changed) {
    const { count, lowAt, drawer } = after
    await tx
      .update(stock)
      .set({ count, lowAt, drawer, version: before.version + 1 })
      .where(eq(stock.id, before.id))
  }
  await write(id, `A list taken in: ${added.length} new, ${changed.length} changed.`, { before: changed })
  return { ...plan, kept: { id, added: added.length, changed: changed.length } }
}

/** Takes a list back out: what it added goes, what it changed is as it was. */
async function undoList({ tx, write }: ShopDoing, id: string): Promise<StockImport> {
  await holdDrawers(tx)
  const [list] = await tx.select().from(stockImports).where(eq(stockImports.id, id))
  if (!list) throw new Refused('no-such-list')
  if (list.undone) return { id, added: 0, changed: 0 }
  const touched = [...list.added, ...list.before.map((b) => b.id)]
  const now = touched.length === 0 ? [] : await tx.select().from(stock).where(inArray(stock.id, touched))
  const later = now.find((row) => {
    const before = list.before.find((b) => b.id === row.id)
    return row.version !== (before ? before.version + 1 : 1)
  })
  const of = <T extends typeof reservations | typeof bushings>(table: T) =>
    list.added.length === 0
      ? []
      : tx
          .select({ id: table.id })
          .from(table as typeof bushings)
          .where(inArray(table.stockId, list.added))
          .limit(1)
  const held = [...(await of(reservations)), ...(await of(bushings))]
  if (later || held[0])
    throw new Refused('list-used', {
      detail: 'Change those rows one by one instead.',
    })
  for (const { id: row, version, ...before } of list.before) {
    const promised = await promisedOf(tx, row)
    if (before.count < promised)
      throw new Refused('list-promised', {
        title: `${promised} of what this list brought are promised to jobs since.`,
        detail: 'Change those rows one by one instead.',
      })
    await tx
      .update(stock)
      .set({ ...before, version: version + 2 })
      .where(eq(stock.id, row))
  }
  if (list.added.length > 0) await tx.delete(stock).where(inArray(stock.id, list.added))
  await tx.update(stockImports).set({ undone: true }).where(eq(stockImports.id, id))
  await write(id, `A list taken back: ${list.added.length} out, ${list.before.length} as they were.`)
  return { id, added: list.added.length, changed: list.before.length }
}
