import { NowMark } from '@treadle/contract'
import { and, eq } from 'drizzle-orm'
import { Router } from 'express'
import { randomBytes } from 'node:crypto'
import type { Database } from '../db/connect.ts'
import { calendarKeys, nowMarks } from '../db/schema.ts'
import { bodyOf, idOf, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/problem.ts'
import { benchOf } from '../jobs/bench.ts'
import { openJob } from '../jobs/find.ts'
import { writeJournal } from '../journal/write.ts'
import { readSettings } from '../settings/store.ts'
import { calendarOf } from './calendar.ts'

const SAID = { done: 'Done', later: 'Put off', 'not-needed': 'Not needed' }

/** The list of what is owed: ticked off, put off, and carried away as a calendar. */
export function nowRoutes(db: Database): Router {
  const calendar = async (at: Date) => {
    const { workshop } = await readSettings(db)
    return calendarOf(workshop, (await benchOf(db, at)).tags)
  }
  return Router()
    .put('/jobs/:id/now', async (req, res) => {
      const mark = await bodyOf(NowMark, req)
      const who = whoOf(req)
      await db.transaction(async (tx) => {
        const job = await openJob(tx, idOf(req))
        const { kind, subject, ...rest } = mark
        await tx
          .insert(nowMarks)
          .values({ ...mark, jobId: job.id, who })
          .onConflictDoUpdate({ target: [nowMarks.jobId, nowMarks.kind, nowMarks.subject], set: { ...rest, who } })
        await writeJournal(tx, {
          jobId: job.id,
          at: nowOf(req),
          who,
          kind: 'now',
          text: `${SAID[mark.state]}: ${kind}${mark.untilS === null ? '' : `, until ${new Date(mark.untilS * 1000).toISOString().slice(0, 16)}Z`}.`,
          figures: { ...mark },
        })
      })
      res.json(mark)
    })
    .delete('/jobs/:id/now/:kind', async (req, res) => {
      const job = await openJob(db, idOf(req))
      const subject = typeof req.query.subject === 'string' ? req.query.subject : ''
      const mine = and(eq(nowMarks.jobId, job.id), eq(nowMarks.kind, req.params.kind), eq(nowMarks.subject, subject))
      await db.delete(nowMarks).where(mine)
      res.status(204).end()
    })
    .get('/now.ics', async (req, res) => {
      res
        .type('text/calendar')
        .set('Content-Disposition', 'attachment; filename="treadle-now.ics"')
        .send(await calendar(nowOf(req)))
    })
    .get('/calendar', async (_req, res) => {
      res.json({ secret: await secretOf(db) })
    })
    .post('/calendar/renew', async (_req, res) => {
      const secret = newSecret()
      await db
        .insert(calendarKeys)
        .values({ id: 1, secret })
        .onConflictDoUpdate({ target: calendarKeys.id, set: { secret } })
      res.json({ secret })
    })
    .get('/calendar/:secret/now.ics', async (req, res) => {
      const known = await db.select().from(calendarKeys).where(eq(calendarKeys.secret, req.params.secret))
      if (!known[0])
        throw new Refused(404, 'not-found', 'There is no such calendar; its address may have been changed.')
      res.type('text/calendar').send(await calendar(nowOf(req)))
    })
}

function newSecret(): string {
  return randomBytes(24).toString('base64url')
}

async function secretOf(db: Database): Promise<string> {
  await db.insert(calendarKeys).values({ id: 1, secret: newSecret() }).onConflictDoNothing()
  const found = await db.select().from(calendarKeys).where(eq(calendarKeys.id, 1))
  return found[0]?.secret ?? ''
}
