import pLimit, { type LimitFunction } from 'p-limit'
import type { Database, Queries } from '../db/connect.ts'

/** Of the pool's connections, so many may be in the middle of a change; the rest is kept for reading. */
const CHANGES_AT_ONCE = 6

const turns = new WeakMap<Database, LimitFunction>()

/** Does work as one: all of it is kept, or none. What is thrown inside undoes it; nothing is awaited from outside. */
export function inTransaction<T>(db: Database, work: (tx: Queries) => Promise<T>): Promise<T> {
  const limit = turns.get(db) ?? pLimit(CHANGES_AT_ONCE)
  turns.set(db, limit)
  return limit(() => db.transaction(work))
}
