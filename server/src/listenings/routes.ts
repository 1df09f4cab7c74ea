import { NewListening } from '@treadle/contract'
import { outOfBeatMs, splitTold, type SideSound } from '@treadle/core'
import { and, desc, eq, isNotNull, lt, ne } from 'drizzle-orm'
import type { Router, RequestHandler } from 'express'
import { v7 as uuid } from 'uuid'
import type { Database } from '../db/connect.ts'
import { clocks, files, footings, jobs, listenings } from '../db/schema.ts'
import { sameValues, stale } from '../db/versioned.ts'
import { jobChange } from '../door/jobChange.ts'
import type { Receive } from '../files/receive.ts'
import { sendFile } from '../files/send.ts'
import { digestOf, storeFile } from '../files/store.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { findOpenJob } from '../jobs/find.ts'
import { requireWave } from './requireWave.ts'

const MOST_SOUND_BYTES = 80_000_000

export function listeningRoutes(db: Database, receive: Receive, aMinute: RequestHandler): Router {
  return apiRouter()
    .put('/jobs/:id/listenings/:row', async (req, res) => {
      const body = await bodyOf(NewListening, req)
      sameId(idOf(req, 'row'), body.id)
      const { sides, ...figures } = body
      const values = { ...figures, sides: (sides ?? null) as [SideSound, SideSound] | null, at: new Date(body.at) }
      const made = await jobChange(db, req, idOf(req), { kind: 'listening' }, async ({ tx, job, person, write }) => {
        const [clock] = await tx.select({ pendulum: clocks.pendulum }).from(clocks).where(eq(clocks.id, job.clockId))
        const semiArcDeg = clock?.pendulum.semiArcDeg ?? null
        const [row] = await tx
          .insert(listenings)
          .values({ ...values, semiArcDeg, jobId: job.id, ...person })
          .onConflictDoNothing()
          .returning({ id: listenings.id })
        if (row) {
          await write(sentence(body), { ...figures, beatTimesS: undefined })
          return true
        }
        const [there] = await tx.select().from(listenings).where(eq(listenings.id, body.id))
        if (!there || !sameValues({ ...values, jobId: job.id }, there))
          throw stale(there, 'Another listening has this id already.')
        return false
      })
      res.status(made ? 201 : 200).json({ id: body.id })
    })
    .get('/listenings/:row', async (req, res) => {
      const found = await db
        .select()
        .from(listenings)
        .where(eq(listenings.id, idOf(req, 'row')))
      if (!found[0]) throw new Refused('no-such-listening')
      res.json(found[0])
    })
    .get('/jobs/:id/sound-before', async (req, res) => {
      const [job] = await db
        .select({ clockId: jobs.clockId, receivedAt: jobs.receivedAt })
        .from(jobs)
        .where(eq(jobs.id, idOf(req)))
      if (!job) throw new Refused('no-such-job')
      const [last] = await db
        .select({ at: listenings.at, firstSide: listenings.firstSide, sides: listenings.sides })
        .from(listenings)
        .innerJoin(jobs, eq(jobs.id, listenings.jobId))
        .where(
          and(
            eq(jobs.clockId, job.clockId),
            ne(jobs.id, idOf(req)),
            lt(listenings.at, job.receivedAt),
            isNotNull(listenings.sides),
          ),
        )
        .orderBy(desc(listenings.at))
        .limit(1)
      res.json(last ?? null)
    })
    .get('/clocks/:id/fingerprint', async (req, res) => {
      const [last] = await db
        .select({
          at: listenings.at,
          firstToSecondMs: listenings.firstToSecondMs,
          secondToFirstMs: listenings.secondToFirstMs,
          outOfBeatStandardError: listenings.outOfBeatStandardError,
          rateSecondsPerDay: listenings.rateSecondsPerDay,
          rateStandardError: listenings.rateStandardError,
          scatterMs: listenings.scatterMs,
          sides: listenings.sides,
          semiArcDeg: listenings.semiArcDeg,
          jobId: listenings.jobId,
          pendulum: clocks.pendulum,
        })
        .from(listenings)
        .innerJoin(jobs, eq(jobs.id, listenings.jobId))
        .innerJoin(clocks, eq(clocks.id, jobs.clockId))
        .where(and(eq(jobs.clockId, idOf(req)), isNotNull(jobs.closedAt), isNotNull(listenings.sides)))
        .orderBy(desc(listenings.at))
        .limit(1)
      if (!last) {
        res.json(null)
        return
      }
      const { jobId, pendulum, ...print } = last
      const [footing] = await db
        .select({ evenAtDeg: footings.evenAtDeg, standardError: footings.standardError, way: footings.way })
        .from(footings)
        .where(eq(footings.jobId, jobId))
        .orderBy(desc(footings.at))
        .limit(1)
      res.json({ ...print, semiArcDeg: print.semiArcDeg ?? pendulum.semiArcDeg, footing: footing ?? null })
    })
    .delete('/jobs/:id/listenings/:row', async (req, res) => {
      const mine = and(eq(listenings.id, idOf(req, 'row')), eq(listenings.jobId, idOf(req)))
      await jobChange(db, req, idOf(req), { kind: 'listening' }, async ({ tx, write }) => {
        const [gone] = await tx
          .delete(listenings)
          .where(mine)
          .returning({ at: listenings.at, soundId: listenings.soundId })
        if (!gone) return
        // Its sound goes with it.
        if (gone.soundId !== null) await tx.delete(files).where(eq(files.id, gone.soundId))
        await write(`Taken back: the listening of ${gone.at.toISOString()}.`)
      })
      res.status(204).end()
    })
    .put('/listenings/:row/sound', aMinute, async (req, res) => {
      const id = idOf(req, 'row')
      if (!/^audio\/(wav|x-wav|wave|vnd\.wave)$/.test(req.headers['content-type'] ?? '')) throw new Refused('not-sound')
      const mine = eq(listenings.id, id)
      const [found] = await db.select({ jobId: listenings.jobId }).from(listenings).where(mine)
      if (!found) throw new Refused('no-such-listening')
      await findOpenJob(db, found.jobId)
      await receive(req, res, MOST_SOUND_BYTES, async ({ path, digest }) => {
        await requireWave(path)
        await jobChange(db, req, found.jobId, { kind: 'listening' }, async ({ tx }) => {
          const [row] = await tx.select({ soundId: listenings.soundId }).from(listenings).where(mine)
          if (!row) throw new Refused('no-such-listening')
          if (row.soundId !== null) {
            if ((await digestOf(tx, row.soundId)) === digest) return
            throw stale({ id, soundId: row.soundId }, 'Another sound is kept of this listening already.')
          }
          const soundId = uuid()
          await storeFile(tx, soundId, 'audio/wav', path)
          await tx.update(listenings).set({ soundId }).where(mine)
        })
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
      if (!row?.soundId) throw new Refused('no-sound-of-listening')
      await sendFile(db, res, row.soundId, `listening-${row.at.toISOString().slice(0, 16).replace(':', '')}.wav`)
    })
}

function sentence(l: NewListening): string {
  const rest = `${l.beatsPerHour.toFixed(1)} beats an hour, steady to ${l.scatterMs.toFixed(2)} ms; ${l.beatsHeard} ${splitTold(l) ? 'beats' : 'ticks'} heard, ${l.rejected} left out.`
  if (!splitTold(l)) return `Listened by ${l.pickup}: one tick a period, so nothing of its beat; ${rest}`
  return `Listened by ${l.pickup}: ${outOfBeatMs(l).toFixed(1)} ± ${l.outOfBeatStandardError.toFixed(1)} ms out of beat, ${rest}`
}
