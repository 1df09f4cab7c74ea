import { drizzle } from 'drizzle-orm/node-postgres'
import pLimit, { type LimitFunction } from 'p-limit'
import type pg from 'pg'
import type { Database, Queries } from '../db/connect.ts'
import { databaseCode } from '../db/errors.ts'
import * as schema from '../db/schema.ts'

/** Of the pool's connections, so many may be in the middle of a change; the rest is kept for reading. */
const CHANGES_AT_ONCE = 6
/** Two changes waited for each other, or saw each other's half: the database undid this one, and it may be made anew. */
const MADE_ANEW = new Set(['40P01', '40001'])

const turns = new WeakMap<Database, LimitFunction>()

/**
 * Does work as one: all of it is kept, or none. What is thrown inside undoes it; nothing is awaited from outside. Work
 * that the database undid for another's sake is done once more, so it must not remember anything of its first time.
 */
export function inTransaction<T>(db: Database, work: (tx: Queries) => Promise<T>): Promise<T> {
  const limit = turns.get(db) ?? pLimit(CHANGES_AT_ONCE)
  turns.set(db, limit)
  return limit(() =>
    asOne(db, 'begin', work).catch((error: unknown) => {
      if (!MADE_ANEW.has(databaseCode(error))) throw error
      return asOne(db, 'begin', work)
    }),
  )
}

/** Reads everything as it is at one moment, whatever is changed meanwhile. */
export function inOneMoment<T>(
  db: Database,
  work: (tx: Queries & Pick<Database, 'selectDistinct'>) => Promise<T>,
): Promise<T> {
  return asOne(db, 'begin isolation level repeatable read read only', work)
}

/** What asks by one connection of the pool; it is made once for each, since it looks through all tables. */
const asking = new WeakMap<pg.PoolClient, Database>()

/**
 * The library's own transaction keeps a connection for good when it is lost before its first word, until the pool has none
 * left; here whatever was lost is let go of.
 */
async function asOne<T>(db: Database, begin: string, work: (tx: Database) => Promise<T>): Promise<T> {
  const client = await db.$client.connect()
  let lost: Error | undefined
  try {
    await client.query(begin)
    const tx = asking.get(client) ?? (drizzle(client, { schema }) as unknown as Database)
    asking.set(client, tx)
    const result = await work(tx)
    await client.query('commit')
    return result
  } catch (error) {
    await client.query('rollback').catch((lostNow: Error) => (lost = lostNow))
    throw error
  } finally {
    client.release(lost)
  }
}
