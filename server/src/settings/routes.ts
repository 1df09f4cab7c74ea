import { Settings, type UnreadableRow } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { settings } from '../db/schema.ts'
import { sameValues, stale } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import { bodyOf } from '../http/ask.ts'
import { apiRouter } from '../http/router.ts'
import { unreadableTables } from '../tables/store.ts'
import { readSettings, settingsAndFaults } from './store.ts'

export function settingsRoutes(db: Database): Router {
  return apiRouter()
    .get('/settings', async (_req, res) => {
      res.json(await readSettings(db))
    })
    .get('/unreadable', async (_req, res) => {
      const { faults } = await settingsAndFaults(db)
      const rows: UnreadableRow[] = faults.map((field) => ({ table: 'settings', id: '1', title: '', field }))
      res.json([...rows, ...(await unreadableTables(db))])
    })
    .put('/settings', async (req, res) => {
      const { version, ...values } = await bodyOf(Settings, req)
      const now = await shopChange(db, req, 'settings', async ({ tx, write }) => {
        // The first change makes the row; whoever comes second waits for it, and then sees it.
        await tx
          .insert(settings)
          .values({ id: 1, values: {} as typeof values, version: 0 })
          .onConflictDoNothing()
        await tx.select({ id: settings.id }).from(settings).where(eq(settings.id, 1)).for('no key update')
        const { settings: before, faults } = await settingsAndFaults(tx)
        // What stands for a setting that can't be read is kept when somebody keeps it.
        if (faults.length === 0 && sameValues(values, before)) return before
        if (before.version !== version) throw stale(before, 'Somebody changed the settings meanwhile.')
        await tx
          .update(settings)
          .set({ values, version: version + 1 })
          .where(eq(settings.id, 1))
        const after = await readSettings(tx)
        await write(null, 'The settings were changed.', differing(before, after))
        return after
      })
      res.json(now)
    })
}

/** Of two states only the fields that differ, so that a change can be read in a line. */
function differing(before: object, after: object): { before: object; after: object } {
  const names = Object.entries(after as Record<string, unknown>).flatMap(([name, value]) =>
    name !== 'version' && !sameValues({ [name]: value }, before) ? [name] : [],
  )
  const of = (all: object) => Object.fromEntries(names.map((name) => [name, (all as Record<string, unknown>)[name]]))
  return { before: of(before), after: of(after) }
}
