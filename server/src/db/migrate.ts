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
    if (serve !== null) await giveRights(client, TO_SERVE, serve)
    if (backup !== null) await giveRights(client, TO_BACK_UP, backup)
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
async function giveRights(client: pg.PoolClient, wanted: string, role: string): Promise<void> {
  const { rows } = await client.query<{ said: string }>(wanted, [role])
  for (const { said } of rows) await client.query(said)
}

/** Rows are read and written; nothing is emptied, no table changed, no rule put aside, and the journal only grows. */
const TO_SERVE = `
  with of as (
    select c.oid, c.relname as name from pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind = 'r'
  )
  select format('grant usage on schema public to %I', $1::text) as said
    where not has_schema_privilege($1, 'public', 'usage')
  union all
  select format('grant select, insert, update, delete on %I to %I', name, $1::text) from of
    where name <> 'journal'
      and not (has_table_privilege($1, oid, 'select') and has_table_privilege($1, oid, 'insert')
        and has_table_privilege($1, oid, 'update') and has_table_privilege($1, oid, 'delete'))
  union all
  select format('grant select, insert on %I to %I', name, $1::text) from of
    where name = 'journal' and not (has_table_privilege($1, oid, 'select') and has_table_privilege($1, oid, 'insert'))
  union all
  select format('revoke update, delete on %I from %I', name, $1::text) from of
    where name = 'journal' and (has_table_privilege($1, oid, 'update') or has_table_privilege($1, oid, 'delete'))
  union all
  select format('revoke execute on function %s from public', p.oid::regprocedure) from pg_proc p
    where p.pronamespace = 'public'::regnamespace and p.proname in ('settle_older', 'keep_newest', 'carry_cutters')
      and has_function_privilege('public', p.oid, 'execute')`

const TO_BACK_UP = `
  select format('grant usage on schema %I to %I', n.nspname, $1::text) as said from pg_namespace n
    where n.nspname in ('public', 'drizzle') and not has_schema_privilege($1, n.oid, 'usage')
  union all
  select format('grant select on %s to %I', c.oid::regclass, $1::text) from pg_class c
    join pg_namespace n on n.oid = c.relnamespace
    where n.nspname in ('public', 'drizzle') and c.relkind = 'r' and not has_table_privilege($1, c.oid, 'select')`
