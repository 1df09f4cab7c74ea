import { migrate as run } from 'drizzle-orm/node-postgres/migrator'
import type { Connection } from './connect.ts'

const LOCK = 7_262_335

/** Brings the database to the newest form, under a lock so that several servers may start together. */
export async function migrate({ db, pool }: Connection, folder: string): Promise<void> {
  const client = await pool.connect()
  try {
    await client.query('select pg_advisory_lock($1)', [LOCK])
    await run(db, { migrationsFolder: folder })
  } finally {
    await client.query('select pg_advisory_unlock($1)', [LOCK])
    client.release()
  }
}
