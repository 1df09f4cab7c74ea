import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import pg from 'pg'
import * as schema from './schema.ts'

export type Database = NodePgDatabase<typeof schema>
/** A database or a transaction on it. */
export type Queries = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>

export interface Connection {
  db: Database
  pool: pg.Pool
}

/** Opens a pool on `url`. A server that goes away is met at the next query, not by a crash. */
export function connect(url: string): Connection {
  // A database that is gone refuses at once; one that is only slow to answer, on a busy machine, is waited for.
  const pool = new pg.Pool({ connectionString: url, max: 8, connectionTimeoutMillis: 30_000 })
  pool.on('error', () => undefined)
  return { db: drizzle(pool, { schema }), pool }
}
