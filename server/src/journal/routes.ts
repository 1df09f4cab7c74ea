import { JournalNote } from '@treadle/contract'
import { and, desc, eq, ilike, or } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { journal } from '../db/schema.ts'
import { bodyOf, containing, idOf, whoOf, wordsOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { Refused } from '../http/problem.ts'
import { openJob } from '../jobs/find.ts'
import { writeJournal } from './write.ts'

export function journalRoutes(db: Database): Router {
  return Router()
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
    .post('/jobs/:id/journal', async (req, res) => {
      const job = await openJob(db, idOf(req), { closedToo: true })
      const note = await bodyOf(JournalNote, req)
      if (note.corrects !== null) {
        const named = await db
          .select({ id: journal.id })
          .from(journal)
          .where(and(eq(journal.id, note.corrects), eq(journal.jobId, job.id)))
        if (!named[0])
          throw new Refused(400, 'bad-fields', 'Some of what was typed can’t be right.', {
            errors: [{ field: 'corrects', message: 'corrects must name an entry of this job' }],
          })
      }
      const kind = note.corrects === null ? 'note' : 'correction'
      await writeJournal(db, {
        jobId: job.id,
        at: nowOf(req),
        who: whoOf(req),
        kind,
        text: note.text,
        id: note.id,
        corrects: note.corrects,
      })
      res.status(201).json({ id: note.id })
    })
}
