import { Settings } from '@treadle/contract'
import { and, eq } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { settings } from '../db/schema.ts'
import { bodyOf } from '../http/ask.ts'
import { Refused } from '../http/problem.ts'
import { readSettings } from './store.ts'

export function settingsRoutes(db: Database): Router {
  return Router()
    .get('/settings', async (_req, res) => {
      res.json(await readSettings(db))
    })
    .put('/settings', async (req, res) => {
      const { version, ...values } = await bodyOf(Settings, req)
      const done =
        version === 0
          ? await db.insert(settings).values({ id: 1, values }).onConflictDoNothing().returning()
          : await db
              .update(settings)
              .set({ values, version: version + 1 })
              .where(and(eq(settings.id, 1), eq(settings.version, version)))
              .returning()
      const now = await readSettings(db)
      if (!done[0] && JSON.stringify({ ...now, version }) !== JSON.stringify({ ...values, version }))
        throw new Refused(409, 'stale', 'Somebody changed the settings meanwhile.', { current: now })
      res.json(now)
    })
}
