import { createHmac } from 'node:crypto'

/** Who may do what in a private cluster: one owns and migrates, one serves the pages, one reads for backups. */
const ROLES = { owner: 'treadle_owner', serve: 'treadle_serve', backup: 'treadle_backup' }

/**
 * Makes the three roles, and the database for the first of them; of a workshop from before there were any, all it holds
 * is handed over as it stands. Only these may enter it, and none of them any other database. Gives each one's address.
 *
 * @param cluster - as startPostgres gives it, with its own administrator's addresses
 */
export async function ensureRoles(cluster, database) {
  await asAdministrator(cluster, 'postgres', async (client) => {
    for (const role of Object.values(ROLES)) {
      const known = await client.query('select 1 from pg_roles where rolname = $1', [role])
      const password = client.escapeLiteral(passwordOf(cluster, role))
      await client.query(`${known.rowCount === 0 ? 'create' : 'alter'} role ${role} login password ${password}`)
    }
    const found = await client.query('select 1 from pg_database where datname = $1', [database])
    const name = client.escapeIdentifier(database)
    if (found.rowCount === 0) await client.query(`create database ${name} owner ${ROLES.owner}`)
    await client.query(`alter database ${name} owner to ${ROLES.owner}`)
    await client.query(`revoke all on database ${name}, postgres, template1 from public`)
    await client.query(`grant connect on database ${name} to ${ROLES.serve}, ${ROLES.backup}`)
  })
  await asAdministrator(cluster, database, (client) => client.query(HAND_OVER))
  return addresses(cluster, database)
}

/** The addresses of a database for each role of a private cluster. */
export function addresses(cluster, database) {
  const of = (role) => {
    const url = new URL(cluster.url(database))
    url.username = role
    url.password = passwordOf(cluster, role)
    return url.href
  }
  return { admin: of(ROLES.owner), serve: of(ROLES.serve), backup: of(ROLES.backup) }
}

/** Each has a password of its own, made from the cluster's secret; none leads back to it. */
function passwordOf(cluster, role) {
  return createHmac('sha256', cluster.secret).update(role).digest('hex')
}

async function asAdministrator(cluster, database, work) {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: cluster.url(database) })
  await client.connect()
  try {
    await work(client)
  } finally {
    await client.end()
  }
}

// What an extension brought stays the administrator's; a sequence goes with its table.
const HAND_OVER = `
  do $$
  declare
    said text;
  begin
    for said in
      select format('alter schema %I owner to ${ROLES.owner}', nspname) from pg_namespace where nspname in ('public', 'drizzle')
      union all
      select format('alter table %I.%I owner to ${ROLES.owner}', schemaname, tablename) from pg_tables
        where schemaname in ('public', 'drizzle')
      union all
      select format('alter function %s owner to ${ROLES.owner}', p.oid::regprocedure) from pg_proc p
        where p.pronamespace = 'public'::regnamespace
          and not exists (select 1 from pg_depend d where d.objid = p.oid and d.deptype = 'e')
    loop
      execute said;
    end loop;
  end $$`
