import {
  CallOff,
  GateOverride,
  JobChange,
  NewJob,
  PowerOff,
  UnreadableChoice,
  VisitChange,
  type JobPage,
  type Reopened,
} from '@treadle/contract'
import { GATE_TITLES } from '@treadle/core'
import { eq } from 'drizzle-orm'
import type { Router, Request, Response } from 'express'
import type { Database } from '../db/connect.ts'
import { gateOverrides, jobs } from '../db/schema.ts'
import { sameValues, saveVersioned, stale } from '../db/versioned.ts'
import { jobChange, type JobDoing } from '../door/jobChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { inNextRound } from '../http/rounds.ts'
import { apiRouter } from '../http/router.ts'
import { benchOf } from './bench.ts'
import { callOffJob, closeJob, reopenJob, writeJobChange, writeVisitChange } from './changes.ts'
import { jobPage } from './page.ts'
import { partPlates, powerBack, powerOff } from './power.ts'
import { standingNow } from './standingNow.ts'
import { takeIn } from './takeIn.ts'
import { setAsideUnreadable } from './unreadable.ts'

export function jobRoutes(db: Database): Router {
  const bench = inNextRound((_key, now: Date) => benchOf(db, now))
  const page = inNextRound((id, now: Date) => jobPage(db, id, now))
  const sendPage = async (req: Request, res: Response, id: string) => {
    res.type('json').send(await page(id, nowOf(req)))
  }
  /** A change of a job that answers with the whole of it. */
  const change = async (
    req: Request,
    res: Response,
    kind: Parameters<typeof jobChange>[3],
    work: (doing: JobDoing) => Promise<void>,
  ) => {
    const id = idOf(req)
    await jobChange(db, req, id, kind, work)
    await sendPage(req, res, id)
  }
  return apiRouter()
    .get('/bench', async (req, res) => {
      res.type('json').send(await bench('', nowOf(req)))
    })
    .post('/jobs', async (req, res) => {
      const { created, id } = await takeIn(db, req, await bodyOf(NewJob, req))
      res.status(created ? 201 : 200).location(`/api/jobs/${id}`)
      await sendPage(req, res, id)
    })
    .get('/jobs/:id', (req, res) => sendPage(req, res, idOf(req)))
    .patch('/jobs/:id', async (req, res) => {
      const { version, ...body } = await bodyOf(JobChange, req)
      const values = { ...body, promisedOn: body.promisedOn || null }
      const id = idOf(req)
      const answer = await jobChange(db, req, id, { kind: 'job' }, async (doing) => {
        const saved = await saveVersioned(doing.tx, jobs, { id, version: Math.max(1, version) }, values as never)
        if (saved.state === 'changed') await writeJobChange(doing, values)
        return { saved, standing: await standingNow(doing.tx, id, doing.at) }
      })
      sendSaved(res, answer.saved, { standing: answer.standing })
    })
    .put('/jobs/:id/visit', async (req, res) => {
      const { version, ...body } = await bodyOf(VisitChange, req)
      const values = {
        ...body,
        scopeTrain: body.scope === 'one-train' ? body.scopeTrain : ('' as const),
        scopeReason: body.scope === 'whole' ? '' : body.scopeReason,
        waitsNote: body.waitsFor === '' ? '' : body.waitsNote,
        waitsUntil: body.waitsFor === '' ? null : body.waitsUntil || null,
      }
      const id = idOf(req)
      const answer = await jobChange(db, req, id, { kind: 'job' }, async (doing) => {
        const saved = await saveVersioned(doing.tx, jobs, { id, version: Math.max(1, version) }, values as never)
        if (saved.state === 'changed') await writeVisitChange(doing, values)
        return { saved, standing: await standingNow(doing.tx, id, doing.at) }
      })
      sendSaved(res, answer.saved, { standing: answer.standing })
    })
    .post('/jobs/:id/power', async (req, res) => {
      const body = await bodyOf(PowerOff, req)
      await change(req, res.status(201), { kind: 'power' }, (doing) => powerOff(doing, body))
    })
    .delete('/jobs/:id/power/:row', async (req, res) => {
      const row = idOf(req, 'row')
      await change(req, res, { kind: 'power' }, (doing) => powerBack(doing, row))
    })
    .post('/jobs/:id/part', (req, res) => change(req, res, { kind: 'power' }, partPlates))
    .post('/jobs/:id/overrides', async (req, res) => {
      const body = await bodyOf(GateOverride, req)
      await change(req, res.status(201), { kind: 'override' }, async ({ tx, job, person, at, write }) => {
        const [made] = await tx
          .insert(gateOverrides)
          .values({ ...body, jobId: job.id, at, ...person })
          .onConflictDoNothing()
          .returning()
        if (made) {
          await write(`Gate overridden: “${GATE_TITLES[body.gate]}”. Reason: ${body.reason}`, { gate: body.gate })
          return
        }
        const [there] = await tx.select().from(gateOverrides).where(eq(gateOverrides.id, body.id))
        if (!there || !sameValues({ ...body, jobId: job.id }, there))
          throw stale(there, 'Another override has this id already.')
      })
    })
    .post('/jobs/:id/unreadable', async (req, res) => {
      const body = await bodyOf(UnreadableChoice, req)
      await change(req, res, { kind: 'unreadable', closedToo: true }, (doing) => setAsideUnreadable(doing, body))
    })
    .post('/jobs/:id/close', (req, res) => change(req, res, { kind: 'job', closedToo: true }, closeJob))
    .post('/jobs/:id/call-off', async (req, res) => {
      const { reason } = await bodyOf(CallOff, req)
      await change(req, res, { kind: 'job' }, (doing) => callOffJob(doing, reason))
    })
    .post('/jobs/:id/reopen', async (req, res) => {
      const id = idOf(req)
      const noMore = await jobChange(db, req, id, { kind: 'job', closedToo: true }, reopenJob)
      const answer: Reopened = { ...(JSON.parse(await page(id, nowOf(req))) as JobPage), noMore }
      res.json(answer)
    })
}
