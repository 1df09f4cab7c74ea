import type { Found } from '@treadle/contract'
import { asc, desc, eq, ilike, inArray, or, sql, type SQL } from 'drizzle-orm'
import type { AnyPgColumn } from 'drizzle-orm/pg-core'
import type { Router } from 'express'
import type { Database } from '../db/connect.ts'
import { clocks, jobs, owners } from '../db/schema.ts'
import { containing, wordsOf } from '../http/ask.ts'
import { apiRouter } from '../http/router.ts'

const MOST_OF_A_KIND = 8

/** Find as you type: owners by name, telephone or address, clocks by name or mark, jobs by number. */
export function findRoutes(db: Database): Router {
  return apiRouter().get('/find', async (req, res) => {
    const words = wordsOf(req)
    if (words === '') {
      res.json([])
      return
    }
    const [byNumber, byClock, byOwner] = await Promise.all([
      findJobs(db, words),
      findClocks(db, words),
      findOwners(db, words),
    ])
    res.json([...byNumber, ...byClock, ...byOwner])
  })
}

async function findJobs(db: Database, words: string): Promise<Found[]> {
  const number = /^#?(\d{1,9})$/.exec(words)?.[1]
  if (number === undefined) return []
  const found = await db
    .select({ job: jobs, clock: clocks.name, owner: owners.name })
    .from(jobs)
    .innerJoin(clocks, eq(clocks.id, jobs.clockId))
    .innerJoin(owners, eq(owners.id, clocks.ownerId))
    .where(eq(jobs.number, Number(number)))
  return found.map(({ job, clock, owner }) => ({
    kind: 'job',
    id: job.id,
    title: `Job ${job.number}, ${clock}`,
    detail: owner,
    open: job.closedAt === null,
  }))
}

async function findClocks(db: Database, words: string): Promise<Found[]> {
  // Which clocks match is settled by the index alone before anything is joined.
  const matching = db
    .select({ id: clocks.id, name: clocks.name, marks: clocks.marks, ownerId: clocks.ownerId })
    .from(clocks)
    .where(or(like(clocks.name, words), like(clocks.marks, words)))
    .limit(200)
    .as('matching')
  const found = await db
    .select({
      id: matching.id,
      name: matching.name,
      marks: matching.marks,
      owner: owners.name,
      jobId: sql<
        string | null
      >`(select ${jobs.id} from ${jobs} where ${jobs.clockId} = ${matching.id} and ${jobs.closedAt} is null order by ${jobs.receivedAt} desc limit 1)`,
    })
    .from(matching)
    .innerJoin(owners, eq(owners.id, matching.ownerId))
    .orderBy(sql`(${ilike(matching.name, containing(words).slice(1))}) desc`, asc(matching.name))
    .limit(MOST_OF_A_KIND)
  return found.map(({ id, name, marks, owner, jobId }) => ({
    kind: 'clock',
    id,
    title: name,
    detail: name.toLowerCase().includes(words.toLowerCase()) ? owner : `${owner}; ${marks.slice(0, 80)}`,
    open: jobId !== null,
    jobId,
  }))
}

async function findOwners(db: Database, words: string): Promise<Found[]> {
  const found = await db
    .select()
    .from(owners)
    .where(
      or(
        like(owners.name, words),
        byPhone(words),
        words.length < 3 ? undefined : ilike(owners.address, containing(words)),
      ),
    )
    .orderBy(nearest(owners.name, words), asc(owners.name))
    .limit(MOST_OF_A_KIND)
  if (found.length === 0) return []
  const theirs = await db
    .select({ ownerId: clocks.ownerId, name: clocks.name })
    .from(clocks)
    .where(
      inArray(
        clocks.ownerId,
        found.map((o) => o.id),
      ),
    )
    .orderBy(desc(clocks.id))
  return found.map((owner) => ({
    kind: 'owner',
    id: owner.id,
    title: owner.name,
    detail: [
      foundBy(owner, words),
      ...theirs
        .filter((c) => c.ownerId === owner.id)
        .map((c) => c.name)
        .slice(0, 3),
    ]
      .filter((d) => d !== '')
      .join(', '),
    open: false,
  }))
}

/** By three digits and more of a telephone number, as it is written. */
function byPhone(words: string): SQL | undefined {
  return words.replace(/\D/g, '').length >= 3 ? ilike(owners.phone, containing(words)) : undefined
}

/** The telephone or address by which an owner was found, where it was not the name. */
function foundBy({ name, phone, address }: typeof owners.$inferSelect, words: string): string {
  const has = (text: string) => text.toLowerCase().includes(words.toLowerCase())
  if (has(name)) return ''
  return has(phone) ? phone : has(address) ? address : ''
}

/** One or two letters are no trigram: they are looked for at the beginning, where the index still helps. */
function like(column: AnyPgColumn, words: string): SQL {
  return ilike(column, words.length < 3 ? containing(words).slice(1) : containing(words))
}

/** Those that begin with the words come first. */
function nearest(column: AnyPgColumn, words: string): SQL {
  return sql`(${ilike(column, containing(words).slice(1))}) desc`
}
