import { GateOverride, JobChange, NewJob, PowerOff, RUNS_TITLES } from '@treadle/contract'
import { BAYS, GATE_TITLES, mayClose } from '@treadle/core'
import { and, asc, eq, getTableColumns } from 'drizzle-orm'
import { Router } from 'express'
import type { Database, Queries } from '../db/connect.ts'
import { conditions, confirmedCauses, gateOverrides, jobs, observations, photos, powerOffs } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { savedRow, sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/problem.ts'
import { writeJournal } from '../journal/write.ts'
import { readSettings } from '../settings/store.ts'
import { readHoleRules } from '../stock/store.ts'
import { benchOf } from './bench.ts'
import { bushedBefore } from './bushedBefore.ts'
import { openJob } from './find.ts'
import { gatherJobs } from './gather.ts'
import { partPlates, powerOff } from './power.ts'
import { standingOf } from './standing.ts'
import { takeIn } from './takeIn.ts'

export function jobRoutes(db: Database): Router {
  return Router()
    .get('/bench', async (req, res) => {
      res.json(await benchOf(db, nowOf(req)))
    })
    .post('/jobs', async (req, res) => {
      const { created, id } = await takeIn(db, await bodyOf(NewJob, req), whoOf(req), nowOf(req))
      res
        .status(created ? 201 : 200)
        .location(`/api/jobs/${id}`)
        .json(await jobPage(db, id, nowOf(req)))
    })
    .get('/jobs/:id', async (req, res) => {
      res.json(await jobPage(db, idOf(req), nowOf(req)))
    })
    .patch('/jobs/:id', async (req, res) => {
      const { version, ...change } = await bodyOf(JobChange, req)
      const id = idOf(req)
      const saved = await db.transaction(async (tx) => {
        const before = await openJob(tx, id)
        const done = await saveVersioned(tx, jobs, { id, version: Math.max(1, version) }, change as never)
        if (done.state === 'changed') await writeJobChange(tx, before, change, whoOf(req), nowOf(req))
        return done
      })
      sendSaved(res, saved)
    })
    .post('/jobs/:id/power', async (req, res) => {
      const body = await bodyOf(PowerOff, req)
      await powerOff(db, idOf(req), body, whoOf(req), nowOf(req))
      res.status(201).json(await jobPage(db, idOf(req), nowOf(req)))
    })
    .delete('/jobs/:id/power/:row', async (req, res) => {
      const job = await openJob(db, idOf(req))
      if (job.partedAt) throw new Refused(409, 'parted', 'The plates are parted; that confirmation stands.')
      await db.transaction(async (tx) => {
        const gone = await tx
          .delete(powerOffs)
          .where(and(eq(powerOffs.id, idOf(req, 'row')), eq(powerOffs.jobId, job.id)))
          .returning()
        if (gone[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: 'power',
            text: `Taken back: the ${gone[0].train} train is off. Treat it as wound.`,
          })
      })
      res.json(await jobPage(db, job.id, nowOf(req)))
    })
    .post('/jobs/:id/part', async (req, res) => {
      const id = idOf(req)
      await partPlates(db, id, whoOf(req), nowOf(req))
      res.json(await jobPage(db, id, nowOf(req)))
    })
    .post('/jobs/:id/overrides', async (req, res) => {
      const body = await bodyOf(GateOverride, req)
      const job = await openJob(db, idOf(req))
      await db.transaction(async (tx) => {
        const made = await tx
          .insert(gateOverrides)
          .values({ ...body, jobId: job.id, at: nowOf(req), who: whoOf(req) })
          .onConflictDoNothing()
          .returning()
        if (made[0])
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: 'override',
            text: `Gate overridden: “${GATE_TITLES[body.gate]}”. Reason: ${body.reason}`,
            figures: { gate: body.gate },
          })
      })
      res.status(201).json(await jobPage(db, job.id, nowOf(req)))
    })
    .post('/jobs/:id/close', async (req, res) => {
      const id = idOf(req)
      await closeJob(db, id, whoOf(req), nowOf(req))
      res.json(await jobPage(db, id, nowOf(req)))
    })
    .post('/jobs/:id/reopen', async (req, res) => {
      const job = await openJob(db, idOf(req), { closedToo: true })
      await db.transaction(async (tx) => {
        const opened = await tx
          .update(jobs)
          .set({ closedAt: null, version: job.version + 1 })
          .where(and(eq(jobs.id, job.id), eq(jobs.version, job.version)))
          .returning()
        if (opened[0] && job.closedAt)
          await writeJournal(tx, { jobId: job.id, at: nowOf(req), who: whoOf(req), kind: 'job', text: 'Reopened.' })
      })
      res.json(await jobPage(db, job.id, nowOf(req)))
    })
}

type JobTable = typeof observations | typeof conditions | typeof confirmedCauses

/** Everything a job's pages show. */
async function jobPage(db: Database, id: string, now: Date) {
  const gathered = await gatherJobs(db, [id])
  const rows = gathered[0]
  if (!rows) throw new Refused(404, 'not-found', 'There is no such job.')
  const settings = await readSettings(db)
  const rules = await readHoleRules(db, settings)
  const { gates, owed } = standingOf(rows, settings, rules, now)
  const { originalId: _o, screenId: _s, thumbId: _t, ...photoColumns } = getTableColumns(photos)
  const ofJob = (table: JobTable) => db.select().from(table).where(eq(table.jobId, id)).orderBy(asc(table.at))
  const [pictures, seen, condition, causes, before] = await Promise.all([
    db.select(photoColumns).from(photos).where(eq(photos.jobId, id)).orderBy(asc(photos.takenAt)),
    ofJob(observations),
    ofJob(conditions),
    ofJob(confirmedCauses),
    bushedBefore(db, rows.clock.id, id),
  ])
  const { nowMarks: _n, ...shown } = rows
  return {
    ...shown,
    listenings: rows.listenings.map(({ soundId, ...l }) => ({ ...l, soundStored: soundId !== null })),
    photos: pictures,
    observations: seen,
    conditions: condition,
    confirmedCauses: causes,
    bushedBefore: before,
    gates,
    owed,
  }
}

async function writeJobChange(
  tx: Queries,
  before: typeof jobs.$inferSelect,
  change: Omit<JobChange, 'version'>,
  who: string,
  at: Date,
) {
  const write = (text: string, figures?: Record<string, unknown>) =>
    writeJournal(tx, { jobId: before.id, at, who, kind: 'job', text, figures })
  if (before.bay !== change.bay) await write(`Moved to ${BAYS.find((b) => b.bay === change.bay)?.title ?? change.bay}.`)
  if (before.runs !== change.runs) await write(`Observed before touching: ${RUNS_TITLES[change.runs]}.`)
  if (before.complaint !== change.complaint)
    await write(`The owner’s words now read: “${change.complaint}” (were: “${before.complaint}”).`)
  if (
    before.standsAt !== change.standsAt ||
    before.movedLately !== change.movedLately ||
    before.lastServiced !== change.lastServiced
  )
    await write(
      `At home: stands ${change.standsAt || 'nobody said where'}; moved lately: ${change.movedLately}; last serviced: ${change.lastServiced ?? 'not known'}.`,
    )
  if (before.promisedOn !== (change.promisedOn ?? null)) await write(`Promised for ${change.promisedOn ?? 'no day'}.`)
  if (JSON.stringify(before.cameWith) !== JSON.stringify(change.cameWith)) {
    const list = change.cameWith.map((c) => `${c.name} (${c.returned ? 'ticked off' : c.state})`)
    await write(`What came with it: ${list.join(', ') || 'nothing'}.`)
  }
}

async function closeJob(db: Database, id: string, who: string, at: Date): Promise<void> {
  const job = await openJob(db, id, { closedToo: true })
  if (job.closedAt) return
  const [rows] = await gatherJobs(db, [id])
  if (!rows) return
  const settings = await readSettings(db)
  const { gates } = standingOf(rows, settings, await readHoleRules(db, settings), at)
  if (!mayClose(gates)) {
    const held = gates.filter((g) => !g.passed && g.overriddenBecause === null)
    throw new Refused(422, 'gate', 'This job may not be closed yet.', { detail: held.map((g) => g.reason).join(' ') })
  }
  await db.transaction(async (tx) => {
    const saved = await saveVersioned(tx, jobs, { id, version: job.version }, { closedAt: at } as never)
    savedRow(saved)
    await writeJournal(tx, { jobId: id, at, who, kind: 'job', text: 'Handed over; the job is closed.' })
  })
}
