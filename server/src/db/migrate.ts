import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { migrate as run } from 'drizzle-orm/node-postgres/migrator'
import type pg from 'pg'
import { connect, type Connection } from './connect.ts'

const LOCK = 7_262_335

/** Who else may use what the migrating role owns, each by the address it comes with. */
export interface Users {
  serve?: string | undefined
  backup?: string | undefined
}

/**
 * Brings the database to the newest form, under a lock so that several servers may start together. Where it has that form
 * already, nothing is written: a start on a full disk is one that only reads.
 */
export async function migrate({ db, pool }: Connection, folder: string, users: Users = {}): Promise<void> {
  const client = await pool.connect()
  try {
    await client.query('select pg_advisory_lock($1)', [LOCK])
    await run(db, { migrationsFolder: folder })
    const { rows } = await client.query<{ me: string }>('select current_user as me')
    const others = (address?: string) => {
      const name = address === undefined ? '' : decodeURIComponent(new URL(address).username)
      return name === '' || name === rows[0]?.me ? null : name
    }
    const [serve, backup] = [others(users.serve), others(users.backup)]
    if (serve !== null) await giveRights(client, folder, 'grants-to-serve', serve)
    if (backup !== null) await giveRights(client, folder, 'grants-to-back-up', backup)
    await client.query('select pg_advisory_unlock($1)', [LOCK])
  } finally {
    client.release()
  }
}

/** Brings the database at `adminUrl` to the newest form and lets go of it. */
export async function migrateAt(adminUrl: string, folder: string, users: Users = {}): Promise<void> {
  const connection = connect(adminUrl, 'working')
  try {
    await migrate(connection, folder, users)
  } finally {
    await connection.pool.end()
  }
}

/** Makes those grants that `wanted` finds lacking: a right that is given once more is a row written, and a lock taken. */
async function giveRights(client: pg.PoolClient, migrations: string, wanted: string, role: string): Promise<void> {
  const { rows } = await client.query<{ said: string }>(
    await readFile(join(migrations, '..', 'sql', `${wanted}.sql`), 'utf8'),
    [role],
  )
  for (const { said } of rows) await client.query(said)
}
