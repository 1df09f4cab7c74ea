import { CleanPart, Timer } from '@treadle/contract'
import { and, eq, isNull } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { cleanParts, clocks, jobs, timers } from '../db/schema.ts'
import { rowRoutes } from '../jobs/rowRoutes.ts'
import { apiRouter } from '../http/router.ts'

/** Cleaning: what goes in which bath, and the baths that run. */
export function cleanRoutes(db: Database): Router {
  return apiRouter()
    .get('/timers', async (_req, res) => {
      res.json(
        await db
          .select({
            id: timers.id,
            title: timers.title,
            endsAt: timers.endsAt,
            jobId: timers.jobId,
            clock: clocks.name,
          })
          .from(timers)
          .innerJoin(jobs, eq(jobs.id, timers.jobId))
          .innerJoin(clocks, eq(clocks.id, jobs.clockId))
          .where(and(eq(timers.stopped, false), isNull(jobs.closedAt))),
      )
    })
    .use(
      rowRoutes(db, {
        path: 'clean-parts',
        table: cleanParts,
        schema: CleanPart,
        kind: 'clean',
        sentence: (p) => (p.done ? `Clean and dry: ${p.name}.` : `To clean: ${p.name}, ${p.finish} ${p.material}.`),
        goneSentence: (row) => `Taken off the cleaning list: ${row.name}.`,
      }),
      rowRoutes(db, {
        path: 'timers',
        table: timers,
        schema: Timer,
        kind: 'clean',
        values: (body) => ({ ...body, startedAt: new Date(body.startedAt), endsAt: new Date(body.endsAt) }),
        stamp: (person) => person,
        sentence: (t, state) =>
          t.stopped ? `Ended: ${t.title}.` : `${state === 'created' ? 'Begun' : 'Changed'}: ${t.title}.`,
        goneSentence: (row) => `Taken back: ${row.title}.`,
      }),
    )
}
