import { NowMark } from '@treadle/contract'
import { timeThere } from '@treadle/core'
import { and, eq } from 'drizzle-orm'
import type { Router } from 'express'
import { randomBytes } from 'node:crypto'
import type { Database } from '../db/connect.ts'
import { calendarKeys, nowMarks } from '../db/schema.ts'
import { sameValues } from '../db/versioned.ts'
import { jobChange } from '../door/jobChange.ts'
import { shopChange } from '../door/shopChange.ts'
import { bodyOf, idOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { benchOf } from '../jobs/bench.ts'
import { readSettings } from '../settings/store.ts'
import { calendarOf } from './calendar.ts'

const SAID = { done: 'Done', later: 'Put off', 'not-needed': 'Not needed' }

/** The list of what is owed: ticked off, put off, and carried away as a calendar. */
export function nowRoutes(db: Database): Router {
  const calendar = async (at: Date) => {
    const { workshop } = await readSettings(db)
    const { tags, recalls } = await benchOf(db, at)
    return calendarOf(workshop, [...tags, ...recalls])
  }
  return apiRouter()
    .put('/jobs/:id/now', async (req, res) => {
      const mark = await bodyOf(NowMark, req)
      await jobChange(db, req, idOf(req), { kind: 'now', closedToo: true }, async ({ tx, job, person, write }) => {
        const { kind, subject, ...rest } = mark
        const [there] = await tx
          .select()
          .from(nowMarks)
          .where(markOf(job.id, kind, subject))
        if (there && sameValues(mark, there)) return
        await tx
          .insert(nowMarks)
          .values({ ...mark, jobId: job.id, ...person })
          .onConflictDoUpdate({
            target: [nowMarks.jobId, nowMarks.kind, nowMarks.subject],
            set: { ...rest, ...person },
          })
        const until = mark.untilS === null ? '' : `, until ${timeThere(mark.untilS, (await readSettings(tx)).timeZone)}`
        await write(`${SAID[mark.state]}: ${kind}${until}.`, { ...mark })
      })
      res.json(mark)
    })
    .delete('/jobs/:id/now/:kind', async (req, res) => {
      const subject = typeof req.query.subject === 'string' ? req.query.subject : ''
      const { kind } = req.params
      await jobChange(db, req, idOf(req), { kind: 'now', closedToo: true }, async ({ tx, job, write }) => {
        const gone = await tx
          .delete(nowMarks)
          .where(markOf(job.id, kind, subject))
          .returning()
        if (gone[0]) await write(`Owed again: ${kind}.`)
      })
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
    .post('/calendar/renew', async (req, res) => {
      const secret = newSecret()
      await shopChange(db, req, 'calendar', async ({ tx, write }) => {
        await tx
          .insert(calendarKeys)
          .values({ id: 1, secret })
          .onConflictDoUpdate({ target: calendarKeys.id, set: { secret } })
        await write(null, 'The calendar has a new address; the old one tells nothing any more.')
      })
      res.json({ secret })
    })
    .get('/calendar/:secret/now.ics', async (req, res) => {
      const known = await db.select().from(calendarKeys).where(eq(calendarKeys.secret, req.params.secret))
      if (!known[0]) throw new Refused('no-such-calendar')
      res.type('text/calendar').send(await calendar(nowOf(req)))
    })
}

const markOf = (jobId: string, kind: string, subject: string) =>
  and(eq(nowMarks.jobId, jobId), eq(nowMarks.kind, kind), eq(nowMarks.subject, subject))

function newSecret(): string {
  return randomBytes(24).toString('base64url')
}

async function secretOf(db: Database): Promise<string> {
  await db.insert(calendarKeys).values({ id: 1, secret: newSecret() }).onConflictDoNothing()
  const found = await db.select().from(calendarKeys).where(eq(calendarKeys.id, 1))
  return found[0]?.secret ?? ''
}
