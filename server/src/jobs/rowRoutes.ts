import { and, eq } from 'drizzle-orm'
import type { AnyPgColumn, PgTable } from 'drizzle-orm/pg-core'
import { Router } from 'express'
import type { Schema } from 'yup'
import type { Database, Queries } from '../db/connect.ts'
import { photos } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId, whoOf } from '../http/ask.ts'
import { nowOf } from '../http/now.ts'
import { badField } from '../http/problem.ts'
import { writeJournal } from '../journal/write.ts'
import { openJob } from './find.ts'

type JobTable = PgTable & { id: AnyPgColumn; version: AnyPgColumn; jobId: AnyPgColumn }

/** A kind of row that belongs to a job: made, changed by version and taken back, each with its line in the journal. */
export interface RowKind<B extends { id: string; version: number }, T extends JobTable> {
  /** part of the address: /jobs/:id/PATH/:row */
  path: string
  table: T
  schema: Schema<B>
  /** the journal's word for it */
  kind: string
  /** refuses what the schema can't see */
  check?: (body: B) => void
  /** the row's own values, besides id, version and job; the body's when not said */
  values?: (body: B) => Record<string, unknown>
  /** what is noted of who did it and when; both when not said */
  stamp?: (who: string, at: Date) => Record<string, unknown>
  /** refuses what only the database knows; no body: it is to be taken back */
  before?: (tx: Queries, jobId: string, id: string, body: B | null) => Promise<void>
  /** what follows from it elsewhere, once it is written */
  after?: (tx: Queries, jobId: string, body: B) => Promise<void>
  sentence: (body: B, state: 'created' | 'changed') => string
  goneSentence: (row: T['$inferSelect']) => string
}

export function rowRoutes<B extends { id: string; version: number }, T extends JobTable>(
  db: Database,
  kind: RowKind<B, T>,
): Router {
  const { path, table, schema } = kind
  return Router()
    .put(`/jobs/:id/${path}/:row`, async (req, res) => {
      const body = await bodyOf(schema, req)
      const { id, version, ...figures } = body
      sameId(idOf(req, 'row'), id)
      kind.check?.(body)
      const who = whoOf(req)
      const saved = await db.transaction(async (tx) => {
        const job = await openJob(tx, idOf(req))
        await ownPhoto(tx, job.id, figures)
        await kind.before?.(tx, job.id, id, body)
        const key = { id, version, within: eq(table.jobId, job.id) }
        const { id: _, version: _v, ...own } = kind.values?.(body) ?? { ...body }
        const values = { ...own, jobId: job.id }
        const stamp = kind.stamp?.(who, nowOf(req)) ?? { who, at: nowOf(req) }
        const done = await saveVersioned(tx, table, key, values as never, stamp)
        if (done.state === 'created' || done.state === 'changed') {
          await kind.after?.(tx, job.id, body)
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who,
            kind: kind.kind,
            text: kind.sentence(body, done.state),
            figures: { id, ...figures },
          })
        }
        return done
      })
      sendSaved(res, saved)
    })
    .delete(`/jobs/:id/${path}/:row`, async (req, res) => {
      const job = await openJob(db, idOf(req))
      await db.transaction(async (tx) => {
        await kind.before?.(tx, job.id, idOf(req, 'row'), null)
        const mine = and(eq(table.id, idOf(req, 'row')), eq(table.jobId, job.id))
        const gone = (await tx.delete(table).where(mine).returning()) as T['$inferSelect'][]
        const row = gone[0]
        if (row)
          await writeJournal(tx, {
            jobId: job.id,
            at: nowOf(req),
            who: whoOf(req),
            kind: kind.kind,
            text: kind.goneSentence(row),
          })
      })
      res.status(204).end()
    })
}

/** A photo that a row shows must be one of the same job. */
async function ownPhoto(tx: Queries, jobId: string, body: object): Promise<void> {
  const { photoId } = body as { photoId?: string | null }
  if (photoId == null) return
  const found = await tx
    .select({ id: photos.id })
    .from(photos)
    .where(and(eq(photos.id, photoId), eq(photos.jobId, jobId)))
  if (!found[0]) throw badField('photoId', 'Photo: it is not one of this job')
}
