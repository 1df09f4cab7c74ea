import { PLATES, PlateMapChange } from '@treadle/contract'
import { outlinesOf } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { holes, jobs, photos, plateMaps } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { holdClock, jobChange } from '../door/jobChange.ts'
import { sendSaved } from '../http/answer.ts'
import { INERT } from '../files/send.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { badField } from '../http/problem.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { findJob } from '../jobs/find.ts'
import { plateDxf } from './dxf.ts'
import { plateSvg } from './svg.ts'

const FORMATS = {
  svg: { type: 'image/svg+xml', draw: plateSvg },
  dxf: { type: 'image/vnd.dxf', draw: plateDxf },
}

/** The two plates of a clock, set out from one of its jobs, kept for all. */
export function plateRoutes(db: Database): Router {
  return apiRouter()
    .get('/jobs/:id/plates/:drawing', async (req, res) => {
      const [name, ending] = (req.params.drawing ?? '').split('.')
      const plate = PLATES.find((p) => p === name)
      const format = Object.entries(FORMATS).find(([f]) => f === ending)?.[1]
      if (!plate || !format) throw new Refused('no-such-plate-drawing')
      const job = await findJob(db, idOf(req))
      const [map] = await db.select().from(plateMaps).where(eq(plateMaps.clockId, job.clockId))
      if (!map) throw new Refused('no-plates-yet')
      const measured = await db.select().from(holes).where(eq(holes.jobId, job.id))
      const drawing = format.draw(outlinesOf(map, measured, plate))
      res.set(INERT).type(format.type).attachment(`clock-${job.number}-${plate}-plate.${ending}`).send(drawing)
    })
    .put('/jobs/:id/plates/:row', async (req, res) => {
      const { id, version, ...map } = await bodyOf(PlateMapChange, req)
      sameId(idOf(req, 'row'), id)
      const saved = await jobChange(db, req, idOf(req), { kind: 'plates' }, async (doing) => {
        const { tx, job, write } = doing
        await holdClock(doing)
        if (map.photoId !== null) {
          const found = await tx
            .select({ id: photos.id })
            .from(photos)
            .innerJoin(jobs, eq(photos.jobId, jobs.id))
            .where(and(eq(photos.id, map.photoId), eq(jobs.clockId, job.clockId)))
          if (!found[0]) throw badField('photoId', 'Photo: it is not one of this clock')
        }
        // A clock has one map: whoever began another meanwhile is shown the one that stands.
        const ofClock = eq(plateMaps.clockId, job.clockId)
        const key = { id, version, within: ofClock, place: ofClock }
        const done = await saveVersioned(tx, plateMaps, key, { ...map, clockId: job.clockId })
        if (done.state !== 'same') {
          const placed = map.arbors.filter((a) => a.xMm !== null && a.yMm !== null)
          await write(
            `Plates set out: ${placed.length} of ${map.arbors.length} arbors have their places, ${map.fixtures.length} pillars and screws.`,
            { id, ...map },
          )
        }
        return done
      })
      sendSaved(res, saved)
    })
}
