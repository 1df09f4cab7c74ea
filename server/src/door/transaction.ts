import pLimit, { type LimitFunction } from 'p-limit'
import type { Database, Queries } from '../db/connect.ts'
import { databaseCode } from '../db/errors.ts'

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
    db.transaction(work).catch((error: unknown) => {
      if (!MADE_ANEW.has(databaseCode(error))) throw error
      return db.transaction(work)
    }),
  )
}
