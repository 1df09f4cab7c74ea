import { and, eq } from 'drizzle-orm'
import type { AnyPgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Router } from 'express'
import type { Schema } from 'yup'
import type { Database, Queries } from '../db/connect.ts'
import { photos } from '../db/schema.ts'
import { saveVersioned } from '../db/versioned.ts'
import { jobChange, type JobDoing } from '../door/jobChange.ts'
import { sendSaved } from '../http/answer.ts'
import { bodyOf, idOf, sameId } from '../http/ask.ts'
import type { Doer } from '../http/person.ts'
import { badField } from '../http/problem.ts'
import { apiRouter } from '../http/router.ts'
import { enterDrawers } from '../stock/hold.ts'
import { standingNow } from './standingNow.ts'

type JobTable = PgTable & { id: AnyPgColumn; version: AnyPgColumn; jobId: AnyPgColumn }

/** A kind of row that belongs to a job: made, changed by version and taken back, each with its line in the journal. */
export interface RowKind<B extends { id: string; version: number }, T extends JobTable> {
  /** part of the address: /jobs/:id/PATH/:row */
  path: string
  table: T
  schema: Schema<B>
  /** the journal's word for it */
  kind: string
  /** fields of which a job has one row for each value: where somebody else has made it, theirs is shown */
  place?: (keyof B & string)[]
  /** refuses what the schema can't see */
  check?: (body: B) => void
  /** also of a job that is closed */
  closedToo?: boolean
  /** it may take from the drawers, or point into them */
  ofDrawers?: boolean
  /** the row's own values, besides id, version and job; the body's when not said */
  values?: (body: B) => Record<string, unknown>
  /** what is noted of who did it and when; both when not said */
  stamp?: (person: Doer, at: Date, body: B, was: T['$inferSelect'] | null) => object
  /** refuses what only the database knows; no body: it is to be taken back */
  may?: (doing: JobDoing, body: B | null, was: T['$inferSelect'] | null) => Promise<void>
  /** what follows from it elsewhere, once it is written; not asked where nothing was changed */
  after?: (doing: JobDoing, body: B | null, was: T['$inferSelect'] | null) => Promise<void>
  /** `was`: the row as it stood, so that an old figure stays in the journal */
  sentence: (body: B, state: 'created' | 'changed', was: T['$inferSelect'] | null) => string
  goneSentence: (row: T['$inferSelect']) => string
}

/**
 * The job is held before the old row is read, so `was` is true until the change is done; and what is refused, by a rule,
 * a version or what follows, leaves nothing behind.
 */
export function rowRoutes<B extends { id: string; version: number }, T extends JobTable>(
  db: Database,
  kind: RowKind<B, T>,
): Router {
  const { path, table, schema } = kind
  const plainTable: PgTable = table
  const door = { kind: kind.kind, closedToo: kind.closedToo ?? false }
  const rowOf = async (tx: Queries, jobId: string, id: string) => {
    const mine = and(eq(table.id, id), eq(table.jobId, jobId))
    return ((await tx.select().from(plainTable).where(mine))[0] ?? null) as T['$inferSelect'] | null
  }
  return apiRouter()
    .put(`/jobs/:id/${path}/:row`, async (req, res) => {
      const body = await bodyOf(schema, req)
      const { id, version, ...figures } = body
      sameId(idOf(req, 'row'), id)
      kind.check?.(body)
      const answer = await jobChange(db, req, idOf(req), door, async (doing) => {
        const { tx, job, person, at } = doing
        if (kind.ofDrawers) await enterDrawers(tx)
        await ownPhoto(tx, job.id, figures)
        const was = await rowOf(tx, job.id, id)
        await kind.may?.(doing, body, was)
        const { id: _, version: _v, ...own } = kind.values?.(body) ?? { ...body }
        const stamp = kind.stamp?.(person, at, body, was) ?? { ...person, at }
        const within = eq(table.jobId, job.id)
        const columns = table as unknown as Record<string, AnyPgColumn>
        const place =
          kind.place && and(within, ...kind.place.map((name) => eq(columns[name] as AnyPgColumn, body[name])))
        const values = { ...own, jobId: job.id }
        const saved = await saveVersioned(tx, table, { id, version, within, place }, values as never, stamp)
        if (saved.state !== 'same') {
          await kind.after?.(doing, body, was)
          await doing.write(kind.sentence(body, saved.state, was), { id, ...figures })
        }
        return { saved, standing: await standingNow(tx, job.id, at) }
      })
      sendSaved(res, answer.saved, { standing: answer.standing })
    })
    .delete(`/jobs/:id/${path}/:row`, async (req, res) => {
      const id = idOf(req, 'row')
      await jobChange(db, req, idOf(req), door, async (doing) => {
        if (kind.ofDrawers) await enterDrawers(doing.tx)
        const was = await rowOf(doing.tx, doing.job.id, id)
        if (!was) return
        await kind.may?.(doing, null, was)
        await doing.tx.delete(table).where(and(eq(table.id, id), eq(table.jobId, doing.job.id)))
        await kind.after?.(doing, null, was)
        await doing.write(kind.goneSentence(was))
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
