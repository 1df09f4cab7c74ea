import { TrainSheetChange } from '@treadle/contract'
import { and, eq } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { trainSheets } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { holdClock, jobChange } from '../door/jobChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { apiRouter } from '../http/router.ts'

/** The counts of a clock's trains, written from one of its jobs, kept for all. */
export function trainRoutes(db: Database): Router {
  return apiRouter().put('/jobs/:id/trains/:row', async (req, res) => {
    const { id, version, ...sheet } = await bodyOf(TrainSheetChange, req)
    sameId(idOf(req, 'row'), id)
    const saved = await jobChange(db, req, idOf(req), { kind: 'train' }, async (doing) => {
      const { tx, job, write } = doing
      await holdClock(doing)
      const within = eq(trainSheets.clockId, job.clockId)
      const key = { id, version, within, place: and(within, eq(trainSheets.train, sheet.train)) }
      const done = await saveVersioned(tx, trainSheets, key, { ...sheet, clockId: job.clockId })
      if (done.state !== 'same') {
        const counts = sheet.arbors.map((a) => `${a.name} ${a.pinion ?? '–'}/${a.wheel ?? '–'}`).join(', ')
        await write(`Counts of the ${sheet.train} train, pinion/wheel: ${counts}.`, { id, ...sheet })
      }
      return done
    })
    sendSaved(res, saved)
  })
}
