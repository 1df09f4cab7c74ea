import { ToolChange } from '@treadle/contract'
import { asc, eq } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { tools } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { apiRouter } from '../http/router.ts'

/** The drawer of files, abrasives and stones. */
export function toolRoutes(db: Database): Router {
  return apiRouter()
    .get('/tools', async (_req, res) => {
      res.json(
        await db
          .select()
          .from(tools)
          .orderBy(asc(tools.kind), asc(tools.shape), asc(tools.cut), asc(tools.grit), asc(tools.id))
          .limit(2000),
      )
    })
    .put('/tools/:row', async (req, res) => {
      const { id, version, ...row } = await bodyOf(ToolChange, req)
      sameId(idOf(req, 'row'), id)
      const saved = await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        const [before] = await tx.select().from(tools).where(eq(tools.id, id)).for('no key update')
        const done = await saveVersioned(tx, tools, { id, version }, row)
        if (done.state !== 'same')
          await write(id, `${before ? 'Changed' : 'Put in'}: ${toolTitle(row)}.`, { before, after: done.row })
        return done
      })
      sendSaved(res, saved)
    })
    .delete('/tools/:row', async (req, res) => {
      const id = idOf(req, 'row')
      await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        const [before] = await tx.delete(tools).where(eq(tools.id, id)).returning()
        if (before) await write(id, `Taken out: ${toolTitle(before)}.`, { before })
      })
      res.status(204).end()
    })
}

function toolTitle(t: Pick<ToolChange, 'kind' | 'shape' | 'cut' | 'grit' | 'name'>): string {
  const words = t.kind === 'file' ? [`${t.shape} file`, `cut ${t.cut}`, t.name] : [t.kind, `${t.grit ?? '?'}`, t.name]
  return words.filter((w) => w !== '').join(', ')
}
