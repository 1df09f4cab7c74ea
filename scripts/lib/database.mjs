import { startPostgres } from './postgres.mjs'

/** The workshop's database: DATABASE_URL where it is set, else a private cluster of its own. */
export async function openDatabase(name) {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, wasRunning: true, stop: () => undefined }
  const cluster = await startPostgres(name)
  await ensureDatabase(cluster, 'treadle')
  return { url: cluster.url('treadle'), wasRunning: cluster.wasRunning, stop: cluster.stop }
}

/** Makes a database unless it is there. */
async function ensureDatabase(cluster, name) {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: cluster.url('postgres') })
  await client.connect()
  try {
    const found = await client.query('select 1 from pg_database where datname = $1', [name])
    if (found.rowCount === 0) await client.query(`create database ${client.escapeIdentifier(name)}`)
  } finally {
    await client.end()
  }
}
