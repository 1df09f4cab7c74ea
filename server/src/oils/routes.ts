import { OilChange } from '@treadle/contract'
import { oilingSeen } from '@treadle/core'
import { and, asc, count, desc, eq, getTableColumns, inArray, ne, or, type SQL } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { jobs, oils, oilSheets, photos, rateEvents, witnesses } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'

const MOST_WITNESSES = 2000

/** The oils of the workshop, and what pictures of the sinks tell of them. */
export function oilRoutes(db: Database): Router {
  return apiRouter()
    .get('/oils', async (_req, res) => {
      res.json(await db.select().from(oils).orderBy(asc(oils.kind), asc(oils.name), asc(oils.id)).limit(500))
    })
    .put('/oils/:row', async (req, res) => {
      const { id, version, ...row } = await bodyOf(OilChange, req)
      sameId(idOf(req, 'row'), id)
      const saved = await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        const [before] = await tx.select().from(oils).where(eq(oils.id, id)).for('no key update')
        const done = await saveVersioned(tx, oils, { id, version }, row)
        if (done.state !== 'same')
          await write(id, `${before ? 'Changed' : 'Put in'}: ${row.kind}, ${row.name}.`, { before, after: done.row })
        return done
      })
      sendSaved(res, saved)
    })
    .delete('/oils/:row', async (req, res) => {
      const id = idOf(req, 'row')
      await shopChange(db, req, 'drawers', async ({ tx, write }) => {
        const [before] = await tx.select().from(oils).where(eq(oils.id, id)).for('update')
        if (!before) return
        const used = await tx
          .select({ n: count() })
          .from(oilSheets)
          .where(or(eq(oilSheets.pivotOilId, id), eq(oilSheets.heavyOilId, id), eq(oilSheets.greaseId, id)))
        const n = used[0]?.n ?? 0
        if (n > 0)
          throw new Refused('in-a-clock', {
            title: `${before.name} stays: it is in ${n} ${n === 1 ? 'clock' : 'clocks'}, and its age there is told by it.`,
          })
        await tx.delete(oils).where(eq(oils.id, id))
        await write(id, `Taken out: ${before.kind}, ${before.name}.`, { before })
      })
      res.status(204).end()
    })
    .get('/oils/seen', async (_req, res) => {
      res.json(await listed(db, ne(witnesses.state, '')))
    })
    .get('/clocks/:id/witnesses', async (req, res) => {
      res.json(await listed(db, eq(jobs.clockId, idOf(req))))
    })
}

/** Pictures of sinks, the newest last, each with the oil that was in them and when it was put in. */
async function listed(db: Database, of: SQL | undefined): Promise<object[]> {
  const pictures = await db
    .select({ ...getTableColumns(witnesses), jobNumber: jobs.number, clockId: jobs.clockId, takenAt: photos.takenAt })
    .from(witnesses)
    .innerJoin(jobs, eq(jobs.id, witnesses.jobId))
    .innerJoin(photos, eq(photos.id, witnesses.photoId))
    .where(of)
    .orderBy(desc(photos.takenAt), desc(witnesses.id))
    .limit(MOST_WITNESSES)
  if (pictures.length === 0) return []
  const clocks = [...new Set(pictures.map((p) => p.clockId))]
  const oilings = await db
    .select({ clockId: jobs.clockId, jobId: jobs.id, oilId: oilSheets.pivotOilId, at: rateEvents.at })
    .from(rateEvents)
    .innerJoin(jobs, eq(jobs.id, rateEvents.jobId))
    .leftJoin(oilSheets, eq(oilSheets.jobId, jobs.id))
    .where(and(eq(rateEvents.kind, 'oiled'), inArray(jobs.clockId, clocks)))
  return pictures.toReversed().map(({ who: _w, whoId: _i, clockId, ...picture }) => {
    const seen = oilingSeen(
      picture,
      oilings.filter((o) => o.clockId === clockId),
    )
    return { ...picture, oilId: seen?.oilId ?? null, oiledAt: seen?.at ?? null }
  })
}
