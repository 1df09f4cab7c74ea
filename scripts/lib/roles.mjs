import { createHash, createHmac, pbkdf2Sync } from 'node:crypto'

/** Who may do what in a private cluster: one owns and migrates, one serves the pages, one reads for backups. */
const ROLES = { owner: 'treadle_owner', serve: 'treadle_serve', backup: 'treadle_backup' }
const LOCK = 7_262_336

/**
 * Makes the three roles, and the database for the first of them; of a workshop from before there were any, all it holds
 * is handed over as it stands. Only these may enter it, and none of them any other database. Gives each one's address.
 *
 * Nothing is said again that is so already: each such change is a write, which a full disk refuses, and a lock, which a
 * backup or a server may hold. Several may ask at once; each waits for its turn.
 *
 * @param cluster - as startPostgres gives it, with its own administrator's addresses
 */
export async function ensureRoles(cluster, database) {
  await asAdministrator(cluster, 'postgres', async (client) => {
    await client.query('select pg_advisory_lock($1)', [LOCK])
    const { rows: known } = await client.query('select rolname, rolpassword from pg_authid')
    for (const role of Object.values(ROLES)) {
      const there = known.find((r) => r.rolname === role)
      if (there && isPassword(passwordOf(cluster, role), there.rolpassword)) continue
      const password = client.escapeLiteral(passwordOf(cluster, role))
      await client.query(`${there ? 'alter' : 'create'} role ${role} login password ${password}`)
    }
    const name = client.escapeIdentifier(database)
    const found = await client.query('select 1 from pg_database where datname = $1', [database])
    if (found.rowCount === 0) await client.query(`create database ${name} owner ${ROLES.owner}`)
    // Whom it is granted to is seen once it is nobody else's.
    for (const wanted of [CLOSED_TO_OTHERS, OPEN_TO_OURS])
      for (const { said } of (await client.query(wanted, [database])).rows) await client.query(said)
    await asAdministrator(cluster, database, async (inside) => {
      for (const { said } of (await inside.query(NOT_HANDED_OVER)).rows) await inside.query(said)
    })
  })
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

/**
 * Whether `kept`, as the database keeps it, is of this password.
 *
 * @see RFC 5803: SCRAM-SHA-256$iterations:salt$StoredKey:ServerKey; RFC 5802 §3 for how they are made
 */
function isPassword(password, kept) {
  const [, iterations, salt, storedKey] = /^SCRAM-SHA-256\$(\d+):([^$]+)\$([^:]+):/.exec(kept ?? '') ?? []
  if (storedKey === undefined) return false
  const salted = pbkdf2Sync(password, Buffer.from(salt, 'base64'), Number(iterations), 32, 'sha256')
  const clientKey = createHmac('sha256', salted).update('Client Key').digest()
  return createHash('sha256').update(clientKey).digest('base64') === storedKey
}

async function asAdministrator(cluster, database, work) {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: cluster.url(database) })
  client.on('error', () => undefined)
  await client.connect()
  try {
    await work(client)
  } finally {
    await client.end()
  }
}

/** What is still to be said of who owns the database and who may not enter it, nor the cluster's own beside it. */
const CLOSED_TO_OTHERS = `
  select format('alter database %I owner to ${ROLES.owner}', datname) as said from pg_database
    where datname = $1 and pg_get_userbyid(datdba) <> '${ROLES.owner}'
  union all
  select format('revoke all on database %I from public', datname) from pg_database
    where datname in ($1, 'postgres', 'template1')
      and (has_database_privilege('public', oid, 'connect') or has_database_privilege('public', oid, 'temporary'))`

const OPEN_TO_OURS = `
  select format('grant connect on database %I to %I', datname, role) as said from pg_database,
    (values ('${ROLES.serve}'), ('${ROLES.backup}')) as of (role)
    where datname = $1 and not has_database_privilege(role, oid, 'connect')`

// What an extension brought stays the administrator's; a sequence goes with its table.
const NOT_HANDED_OVER = `
  select format('alter schema %I owner to ${ROLES.owner}', nspname) as said from pg_namespace
    where nspname in ('public', 'drizzle') and pg_get_userbyid(nspowner) <> '${ROLES.owner}'
  union all
  select format('alter table %I.%I owner to ${ROLES.owner}', schemaname, tablename) from pg_tables
    where schemaname in ('public', 'drizzle') and tableowner <> '${ROLES.owner}'
  union all
  select format('alter function %s owner to ${ROLES.owner}', p.oid::regprocedure) from pg_proc p
    where p.pronamespace = 'public'::regnamespace and pg_get_userbyid(p.proowner) <> '${ROLES.owner}'
      and not exists (select 1 from pg_depend d where d.objid = p.oid and d.deptype = 'e')`
