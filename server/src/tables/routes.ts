import { check, TableChange, WORKSHOP_TABLES, type TableName } from '@treadle/contract'
import { eq, sql } from 'drizzle-orm'
import type { Router, Request } from 'express'
import type { Schema } from 'yup'
import type { Database } from '../db/connect.ts'
import { confirmedCauses, workshopTables } from '../db/schema.ts'
import { sameValues, stale } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import { bodyOf } from '../http/ask.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { readTable } from './store.ts'

/** Prices, baths and the trouble finder's table, which the workshop writes for itself. */
export function tableRoutes(db: Database): Router {
  return apiRouter()
    .get('/tables/:name', async (req, res) => {
      res.json(await readTable(db, nameOf(req)))
    })
    .put('/tables/:name', async (req, res) => {
      const name = nameOf(req)
      const { version, values } = await bodyOf(TableChange, req)
      const checked = await check(WORKSHOP_TABLES[name].schema as Schema<object>, values)
      if (!checked.ok) throw new Refused('bad-fields', { errors: checked.errors })
      const now = await shopChange(db, req, 'table', async ({ tx, write }) => {
        // As with the settings: the row is made by the first change, and held by each.
        await tx
          .insert(workshopTables)
          .values({ name, values: WORKSHOP_TABLES[name].start, version: 0 })
          .onConflictDoNothing()
        await tx
          .select({ name: workshopTables.name })
          .from(workshopTables)
          .where(eq(workshopTables.name, name))
          .for('no key update')
        const before = await readTable(tx, name)
        if (sameValues({ values: checked.value }, before)) return before
        if (before.version !== version) throw stale(before, 'Somebody changed this table meanwhile.')
        await tx
          .update(workshopTables)
          .set({ values: checked.value, version: version + 1 })
          .where(eq(workshopTables.name, name))
        await write(name, `The workshop’s table of ${name} was changed.`, {
          before: before.values,
          after: checked.value,
        })
        return readTable(tx, name)
      })
      res.json(now)
    })
    .get('/causes/counts', async (_req, res) => {
      const counted = await db
        .select({ cause: confirmedCauses.cause, count: sql<number>`count(*)::int` })
        .from(confirmedCauses)
        .groupBy(confirmedCauses.cause)
      res.json(Object.fromEntries(counted.map((c) => [c.cause, c.count])))
    })
}

function nameOf(req: Request): TableName {
  const { name } = req.params
  if (typeof name !== 'string' || !Object.hasOwn(WORKSHOP_TABLES, name)) throw new Refused('no-such-table')
  return name as TableName
}
