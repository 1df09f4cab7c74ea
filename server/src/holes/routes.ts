import { HoleChange } from '@treadle/contract'
import { checkHole, FieldError } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { holes } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/problem.ts'
import { openJob } from '../jobs/find.ts'
import { writeJournal } from '../journal/write.ts'

export function holeRoutes(db: Database): Router {
  return Router()
    .put('/jobs/:id/holes/:hole', async (req, res) => {
      const { version, ...hole } = await bodyOf(HoleChange, req)
      sameId(idOf(req, 'hole'), hole.id)
      refuseImpossible(hole)
      const who = whoOf(req)
      const saved = await db.transaction(async (tx) => {
        const job = await openJob(tx, idOf(req))
        const done = await saveVersioned(
          tx,
          holes,
          { id: hole.id, version, within: eq(holes.jobId, job.id) },
          { ...hole, jobId: job.id, measuredBy: who },
        )
        if (done.state === 'created' || done.state === 'changed')
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who,
            kind: 'hole',
            text: sentence(hole, done.state),
            figures: { ...hole },
          })
        return done
      })
      sendSaved(res, saved)
    })
    .delete('/jobs/:id/holes/:hole', async (req, res) => {
      const job = await openJob(db, idOf(req))
      await db.transaction(async (tx) => {
        const gone = await tx
          .delete(holes)
          .where(and(eq(holes.id, idOf(req, 'hole')), eq(holes.jobId, job.id)))
          .returning()
        if (gone[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: 'hole',
            text: `Off the list: ${gone[0].arbor}, ${gone[0].plate} plate.`,
          })
      })
      res.status(204).end()
    })
}

/** What no caliper can find is refused here as it is at the field: by the core's own rule. */
function refuseImpossible(hole: Omit<HoleChange, 'version'>): void {
  const { longAxisMm, shortAxisMm, pivotMm } = hole
  try {
    if (longAxisMm !== null && shortAxisMm !== null)
      checkHole({ longAxisMm, shortAxisMm, pivotMm: pivotMm ?? shortAxisMm })
  } catch (error) {
    if (!(error instanceof FieldError)) throw error
    throw new Refused(400, 'bad-fields', 'Some of what was typed can’t be right.', {
      errors: [{ field: error.field, message: error.message }],
    })
  }
}

function sentence(hole: Omit<HoleChange, 'version'>, state: 'created' | 'changed'): string {
  const place = `${hole.arbor}, ${hole.plate} plate`
  const { longAxisMm: a, shortAxisMm: b, pivotMm: d } = hole
  const figures =
    a !== null && b !== null
      ? `: ${a.toFixed(2)} by ${b.toFixed(2)} mm${d === null ? '' : `, pivot ${d.toFixed(2)}`}`
      : ''
  if (hole.bushed) return `Bushed: ${place}${figures}.`
  if (hole.verdictOverride !== null)
    return `Verdict on ${place} overridden: ${hole.verdictOverride}. Reason: ${hole.overrideReason}${figures}.`
  return state === 'created' && figures === '' ? `On the list: ${place}.` : `Measured ${place}${figures}.`
}
