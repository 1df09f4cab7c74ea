import { ClockChange } from '@treadle/contract'
import { learnedOf, visitInWords } from '@treadle/core'
import { and, asc, desc, eq, getTableColumns, ilike, inArray, or } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { clocks, confirmedCauses, jobs, journal, owners } from '../db/schema.ts'
import { withBlanks } from '../db/readable.ts'
import { saveVersioned } from '../db/versioned.ts'
import { shopChange } from '../door/shopChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, containing, idOf, wordsOf } from '../http/ask.ts'
import { Refused } from '../http/refusals.ts'
import { apiRouter } from '../http/router.ts'
import { gatherJobs } from '../jobs/gather.ts'
import { readSettings } from '../settings/store.ts'

/** An owner as they travel with a clock: as a visit takes them in. */
const { version: _version, ...OWNER } = getTableColumns(owners)
const MOST_SORTED = 300
/** What a clock's nut does is learned from so many of its last visits. */
const VISITS_TAUGHT_BY = 10

export function clockRoutes(db: Database): Router {
  return apiRouter()
    .get('/clocks', async (req, res) => {
      const words = wordsOf(req)
      const pattern = containing(words)
      const found = await db
        .select({ clock: clocks, owner: OWNER })
        .from(clocks)
        .innerJoin(owners, eq(owners.id, clocks.ownerId))
        .where(
          words === ''
            ? undefined
            : inArray(
                clocks.id,
                // Each half is found by its own index, which one condition over the join would not be; of words that
                // fit thousands, the first few hundred found are put in order.
                db
                  .select({ id: clocks.id })
                  .from(clocks)
                  .where(or(ilike(clocks.name, pattern), ilike(clocks.marks, pattern)))
                  .limit(MOST_SORTED)
                  .union(
                    db
                      .select({ id: clocks.id })
                      .from(clocks)
                      .innerJoin(owners, eq(owners.id, clocks.ownerId))
                      .where(ilike(owners.name, pattern))
                      .limit(MOST_SORTED),
                  ),
              ),
        )
        .orderBy(asc(clocks.name))
        .limit(100)
      const visits = await db
        .select({
          id: jobs.id,
          number: jobs.number,
          clockId: jobs.clockId,
          receivedAt: jobs.receivedAt,
          closedAt: jobs.closedAt,
        })
        .from(jobs)
        .where(
          inArray(
            jobs.clockId,
            found.map((f) => f.clock.id),
          ),
        )
        .orderBy(desc(jobs.receivedAt))
      res.json(
        found.map(({ clock, owner }) => ({
          clock: withBlanks('clocks', clocks, clock),
          owner,
          visits: visits.filter((v) => v.clockId === clock.id),
        })),
      )
    })
    .get('/clocks/:id', async (req, res) => {
      const id = idOf(req)
      const found = await db
        .select({ clock: clocks, owner: OWNER })
        .from(clocks)
        .innerJoin(owners, eq(owners.id, clocks.ownerId))
        .where(eq(clocks.id, id))
      if (!found[0]) throw new Refused('no-such-clock')
      const visits = await db.select().from(jobs).where(eq(jobs.clockId, id)).orderBy(desc(jobs.receivedAt))
      const entries = await db
        .select()
        .from(journal)
        .where(
          or(
            inArray(
              journal.jobId,
              visits.map((v) => v.id),
            ),
            and(eq(journal.about, 'clock'), eq(journal.aboutId, id)),
          ),
        )
        .orderBy(desc(journal.at))
        .limit(300)
      const known = await gatherJobs(
        db,
        visits.slice(0, VISITS_TAUGHT_BY).map((v) => v.id),
      )
      const settings = await readSettings(db)
      const learned = learnedOf(
        known.filter((v) => v.job.ending === ''),
        settings,
      )
      const causes = await db
        .select()
        .from(confirmedCauses)
        .where(
          inArray(
            confirmedCauses.jobId,
            known.map((v) => v.job.id),
          ),
        )
      const told = new Map(
        known.map((v) => [
          v.job.id,
          visitInWords({ ...v, causes: causes.filter((c) => c.jobId === v.job.id) }, settings),
        ]),
      )
      res.json({
        owner: found[0].owner,
        clock: withBlanks('clocks', clocks, found[0].clock),
        visits: visits.map((v) => ({ ...withBlanks('jobs', jobs, v), told: told.get(v.id) ?? [] })),
        journal: entries,
        learned,
      })
    })
    .patch('/clocks/:id', async (req, res) => {
      const { version, ...change } = await bodyOf(ClockChange, req)
      const id = idOf(req)
      const saved = await shopChange(db, req, 'clock', async ({ tx, write }) => {
        const [before] = await tx.select().from(clocks).where(eq(clocks.id, id)).for('no key update')
        const done = await saveVersioned(tx, clocks, { id, version: Math.max(1, version) }, change as never)
        if (done.state !== 'same')
          await write(id, `What is known of ${change.name} was changed.`, { before, after: done.row })
        return done
      })
      sendSaved(res, saved)
    })
}
