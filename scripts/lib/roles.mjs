import { createHash, createHmac, pbkdf2Sync } from 'node:crypto'
import { sql } from './sql.mjs'

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
    await sayAgain(client, 'closed-to-others', [database, ROLES.owner])
    await sayAgain(client, 'open-to-ours', [database, ROLES.serve, ROLES.backup])
    await asAdministrator(cluster, database, (inside) => sayAgain(inside, 'not-handed-over', [ROLES.owner]))
  })
  return addresses(cluster, database)
}

/** Says what the query of that name finds unsaid. */
async function sayAgain(client, name, values) {
  for (const { said } of (await client.query(sql(name), values)).rows) await client.query(said)
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
