import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import pg from 'pg'
import * as schema from './schema.ts'

export type Database = NodePgDatabase<typeof schema> & { $client: pg.Pool }
/** A database or a transaction on it. */
export type Queries = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute' | 'query'>

export interface Connection {
  db: Database
  pool: pg.Pool
}

/** What serves answers within seconds or gives up, so that nothing stands in the way of what comes after it. */
const SERVING = {
  max: 10,
  statement_timeout: 30_000,
  lock_timeout: 15_000,
  idle_in_transaction_session_timeout: 30_000,
}
/** What migrates, loads or restores may take its time. */
const WORKING = { max: 4 }

/**
 * Opens a pool on `url`. A database that goes away is met at the next query, not by a crash: a connection that is lost
 * says so by an event, whether it is idle in the pool or in the middle of a change, and what nobody hears ends a process.
 */
export function connect(url: string, use: 'serving' | 'working' = 'serving'): Connection {
  // A database that is gone refuses at once; one that is only slow to answer, on a busy machine, is waited for.
  const pool = new pg.Pool({
    connectionString: url,
    connectionTimeoutMillis: 30_000,
    ...(use === 'serving' ? SERVING : WORKING),
  })
  pool.on('error', () => undefined)
  pool.on('connect', (client) => client.on('error', () => undefined))
  return { db: drizzle(pool, { schema }), pool }
}
