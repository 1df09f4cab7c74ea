import { NewListening } from '@treadle/contract'
import { and, eq, isNull } from 'drizzle-orm'
import { Router } from 'express'
import { v7 as uuid } from 'uuid'
import type { Database } from '../db/connect.ts'
import { listenings } from '../db/schema.ts'
import { sendFile } from '../files/send.ts'
import { storeFile } from '../files/store.ts'
import { bodyOf, idOf, sameId, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/problem.ts'
import { openJob } from '../jobs/find.ts'
import { writeJournal } from '../journal/write.ts'

const MOST_SOUND_BYTES = 80_000_000

export function listeningRoutes(db: Database): Router {
  return Router()
    .put('/jobs/:id/listenings/:row', async (req, res) => {
      const body = await bodyOf(NewListening, req)
      sameId(idOf(req, 'row'), body.id)
      const who = whoOf(req)
      const made = await db.transaction(async (tx) => {
        const job = await openJob(tx, idOf(req))
        const rows = await tx
          .insert(listenings)
          .values({ ...body, at: new Date(body.at), jobId: job.id, who })
          .onConflictDoNothing()
          .returning()
        if (rows[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who,
            kind: 'listening',
            text: sentence(body),
            figures: { ...body, beatTimesS: undefined },
          })
        return rows[0]
      })
      res.status(made ? 201 : 200).json({ id: body.id })
    })
    .get('/listenings/:row', async (req, res) => {
      const found = await db
        .select()
        .from(listenings)
        .where(eq(listenings.id, idOf(req, 'row')))
      if (!found[0]) throw new Refused(404, 'not-found', 'There is no such listening.')
      res.json(found[0])
    })
    .delete('/jobs/:id/listenings/:row', async (req, res) => {
      const job = await openJob(db, idOf(req))
      await db.transaction(async (tx) => {
        const gone = await tx
          .delete(listenings)
          .where(and(eq(listenings.id, idOf(req, 'row')), eq(listenings.jobId, job.id)))
          .returning({ at: listenings.at })
        if (gone[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: 'listening',
            text: `Taken back: the listening of ${gone[0].at.toISOString()}.`,
          })
      })
      res.status(204).end()
    })
    .put('/listenings/:row/sound', async (req, res) => {
      const id = idOf(req, 'row')
      if (!/^audio\/(wav|x-wav|wave|vnd\.wave)$/.test(req.headers['content-type'] ?? ''))
        throw new Refused(415, 'not-sound', 'A sound is kept as WAV (audio/wav).')
      await db.transaction(async (tx) => {
        const found = await tx
          .select({ jobId: listenings.jobId, soundId: listenings.soundId })
          .from(listenings)
          .where(eq(listenings.id, id))
        if (!found[0]) throw new Refused(404, 'not-found', 'There is no such listening.')
        if (found[0].soundId) {
          req.resume()
          return
        }
        await openJob(tx, found[0].jobId)
        const soundId = uuid()
        await storeFile(tx, soundId, 'audio/wav', req, { mostBytes: MOST_SOUND_BYTES, checkStart: requireWave })
        await tx
          .update(listenings)
          .set({ soundId })
          .where(and(eq(listenings.id, id), isNull(listenings.soundId)))
      })
      res.status(204).end()
    })
    .get('/listenings/:row/sound', async (req, res) => {
      const id = idOf(req, 'row')
      const found = await db
        .select({ soundId: listenings.soundId, at: listenings.at })
        .from(listenings)
        .where(eq(listenings.id, id))
      const row = found[0]
      if (!row?.soundId) throw new Refused(404, 'not-found', 'No sound was kept of that listening.')
      await sendFile(db, res, row.soundId, `listening-${row.at.toISOString().slice(0, 16).replace(':', '')}.wav`)
    })
}

function requireWave(start: Buffer): void {
  if (start.subarray(0, 4).toString('latin1') !== 'RIFF' || start.subarray(8, 12).toString('latin1') !== 'WAVE')
    throw new Refused(415, 'not-sound', 'That is not a WAV file: it does not begin with RIFF and WAVE.')
}

function sentence(l: NewListening): string {
  const out = Math.abs(l.firstToSecondMs - l.secondToFirstMs) / 2
  return `Listened by ${l.pickup}: ${out.toFixed(1)} ± ${l.outOfBeatStandardError.toFixed(1)} ms out of beat, ${l.beatsPerHour.toFixed(1)} beats an hour, steady to ${l.scatterMs.toFixed(2)} ms; ${l.beatsHeard} beats heard, ${l.rejected} left out.`
}
