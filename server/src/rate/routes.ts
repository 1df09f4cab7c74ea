import { EVENT_TITLES, RateEventChange, READING_WAY_TITLES, ReadingChange } from '@treadle/contract'
import { turnFraction } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { rateEvents, readings } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { openJob } from '../jobs/find.ts'
import { writeJournal } from '../journal/write.ts'

export function rateRoutes(db: Database): Router {
  return Router()
    .put('/jobs/:id/readings/:row', async (req, res) => {
      const { version, ...body } = await bodyOf(ReadingChange, req)
      sameId(idOf(req, 'row'), body.id)
      const who = whoOf(req)
      const saved = await db.transaction(async (tx) => {
        const job = await openJob(tx, idOf(req))
        const done = await saveVersioned(
          tx,
          readings,
          { id: body.id, version, within: eq(readings.jobId, job.id) },
          { ...body, at: new Date(body.at), jobId: job.id, who },
        )
        if (done.state === 'created' || done.state === 'changed') {
          const verb = done.state === 'created' ? 'Read' : 'Corrected a reading'
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who,
            kind: 'reading',
            text: `${verb}: ${signed(body.errorSeconds)} s, ${READING_WAY_TITLES[body.way]} (±${body.sigmaSeconds} s).`,
            figures: { ...body },
          })
        }
        return done
      })
      sendSaved(res, saved)
    })
    .delete('/jobs/:id/readings/:row', async (req, res) => {
      const job = await openJob(db, idOf(req))
      await db.transaction(async (tx) => {
        const gone = await tx
          .delete(readings)
          .where(and(eq(readings.id, idOf(req, 'row')), eq(readings.jobId, job.id)))
          .returning()
        if (gone[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: 'reading',
            text: `Taken back: the reading of ${gone[0].at.toISOString()}, ${signed(gone[0].errorSeconds)} s.`,
          })
      })
      res.status(204).end()
    })
    .put('/jobs/:id/events/:row', async (req, res) => {
      const { version, ...body } = await bodyOf(RateEventChange, req)
      sameId(idOf(req, 'row'), body.id)
      const who = whoOf(req)
      const saved = await db.transaction(async (tx) => {
        const job = await openJob(tx, idOf(req))
        const done = await saveVersioned(
          tx,
          rateEvents,
          { id: body.id, version, within: eq(rateEvents.jobId, job.id) },
          { ...body, at: new Date(body.at), jobId: job.id, who },
        )
        if (done.state === 'created' || done.state === 'changed')
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who,
            kind: 'event',
            text: eventSentence(body),
            figures: { ...body },
          })
        return done
      })
      sendSaved(res, saved)
    })
    .delete('/jobs/:id/events/:row', async (req, res) => {
      const job = await openJob(db, idOf(req))
      await db.transaction(async (tx) => {
        const gone = await tx
          .delete(rateEvents)
          .where(and(eq(rateEvents.id, idOf(req, 'row')), eq(rateEvents.jobId, job.id)))
          .returning()
        if (gone[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: 'event',
            text: `Taken back: ${EVENT_TITLES[gone[0].kind as RateEventChange['kind']]} of ${gone[0].at.toISOString()}.`,
          })
      })
      res.status(204).end()
    })
}

function signed(value: number): string {
  return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`
}

function eventSentence({ kind, turns, note }: Omit<RateEventChange, 'version'>): string {
  const what =
    kind === 'nut' && turns !== null
      ? `Nut ${turns > 0 ? 'raised' : 'lowered'} ${turnFraction(turns)} turn`
      : EVENT_TITLES[kind].replace(/^./, (c) => c.toUpperCase())
  return `${what}.${note === '' ? '' : ` ${note}`}`
}
