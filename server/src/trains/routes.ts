import { TrainSheetChange } from '@treadle/contract'
import { eq } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { trainSheets } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { openJob } from '../jobs/find.ts'
import { writeJournal } from '../journal/write.ts'

/** The counts of a clock's trains, written from one of its jobs, kept for all. */
export function trainRoutes(db: Database): Router {
  return Router().put('/jobs/:id/trains/:row', async (req, res) => {
    const { id, version, ...sheet } = await bodyOf(TrainSheetChange, req)
    sameId(idOf(req, 'row'), id)
    const saved = await db.transaction(async (tx) => {
      const job = await openJob(tx, idOf(req))
      const key = { id, version, within: eq(trainSheets.clockId, job.clockId) }
      const done = await saveVersioned(tx, trainSheets, key, { ...sheet, clockId: job.clockId })
      if (done.state === 'created' || done.state === 'changed') {
        const counts = sheet.arbors.map((a) => `${a.name} ${a.pinion ?? '–'}/${a.wheel ?? '–'}`).join(', ')
        await writeJournal(tx, {
          jobId: job.id,
          at: nowOf(req),
          who: whoOf(req),
          kind: 'train',
          text: `Counts of the ${sheet.train} train, pinion/wheel: ${counts}.`,
          figures: { id, ...sheet },
        })
      }
      return done
    })
    sendSaved(res, saved)
  })
}
