import { migrate as run } from 'drizzle-orm/node-postgres/migrator'
import pg from 'pg'
import { connect, type Connection } from './connect.ts'

const LOCK = 7_262_335

/** Who else may use what the migrating role owns, each by the address it comes with. */
export interface Users {
  serve?: string | undefined
  backup?: string | undefined
}

/** Brings the database to the newest form, under a lock so that several servers may start together. */
export async function migrate({ db, pool }: Connection, folder: string, users: Users = {}): Promise<void> {
  const client = await pool.connect()
  try {
    await client.query('select pg_advisory_lock($1)', [LOCK])
    await run(db, { migrationsFolder: folder })
    const { rows } = await client.query<{ me: string }>('select current_user as me')
    const others = (address?: string) => {
      const name = address === undefined ? '' : decodeURIComponent(new URL(address).username)
      return name === '' || name === rows[0]?.me ? null : pg.escapeIdentifier(name)
    }
    const [serve, backup] = [others(users.serve), others(users.backup)]
    if (serve) await client.query(toServe(serve))
    if (backup) await client.query(toBackUp(backup))
  } finally {
    await client.query('select pg_advisory_unlock($1)', [LOCK])
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

/** Rows are read and written; nothing is emptied, no table changed, no rule put aside, and the journal only grows. */
const toServe = (role: string) => `
  grant usage on schema public to ${role};
  grant select, insert, update, delete on all tables in schema public to ${role};
  revoke update, delete on journal from ${role};
  grant usage on all sequences in schema public to ${role};
  revoke execute on function settle_older(), keep_newest(text, text[]), carry_cutters() from public`

const toBackUp = (role: string) => `
  grant usage on schema public, drizzle to ${role};
  grant select on all tables in schema public to ${role};
  grant select on all tables in schema drizzle to ${role}`
