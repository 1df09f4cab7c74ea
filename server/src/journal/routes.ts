import { JournalNote } from '@treadle/contract'
import { and, desc, eq, ilike, isNull, or } from 'drizzle-orm'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { journal } from '../db/schema.ts'
import { sameValues, stale } from '../db/versioned.ts'
import { jobChange } from '../door/jobChange.ts'
import { bodyOf, containing, idOf, wordsOf } from '../http/ask.ts'
import { badField } from '../http/problem.ts'
import { apiRouter } from '../http/router.ts'

export function journalRoutes(db: Database): Router {
  return apiRouter()
    .get('/jobs/:id/journal', async (req, res) => {
      const words = wordsOf(req)
      const found =
        words === '' ? undefined : or(ilike(journal.text, containing(words)), ilike(journal.who, containing(words)))
      res.json(
        await db
          .select()
          .from(journal)
          .where(and(eq(journal.jobId, idOf(req)), found))
          .orderBy(desc(journal.at), desc(journal.id))
          .limit(500),
      )
    })
    .get('/journal', async (_req, res) => {
      res.json(
        await db
          .select()
          .from(journal)
          .where(isNull(journal.jobId))
          .orderBy(desc(journal.at), desc(journal.id))
          .limit(200),
      )
    })
    .post('/jobs/:id/journal', async (req, res) => {
      const note = await bodyOf(JournalNote, req)
      const kind = note.corrects === null ? 'note' : 'correction'
      const made = await jobChange(db, req, idOf(req), { kind, closedToo: true }, async ({ tx, job, person, at }) => {
        if (note.corrects !== null) {
          const named = await tx
            .select({ id: journal.id })
            .from(journal)
            .where(and(eq(journal.id, note.corrects), eq(journal.jobId, job.id)))
          if (!named[0]) throw badField('corrects', 'Corrects: it must name an entry of this job')
        }
        const values = { text: note.text, corrects: note.corrects, jobId: job.id, kind }
        const [row] = await tx
          .insert(journal)
          .values({ ...values, id: note.id, at, ...person, figures: {} })
          .onConflictDoNothing()
          .returning()
        if (row) return true
        const [there] = await tx.select().from(journal).where(eq(journal.id, note.id))
        if (!there || !sameValues(values, there)) throw stale(there, 'Another entry has this id already.')
        return false
      })
      res.status(made ? 201 : 200).json({ id: note.id })
    })
}
