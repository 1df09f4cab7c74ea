import { join } from 'node:path'
import { buildServer } from './build.mjs'
import { startPostgres } from './postgres.mjs'
import { ROOT } from './root.mjs'

/**
 * A cluster for tests, kept from the disk's care, with two template databases: an empty workshop and the demo.
 *
 * Copying a template takes a twentieth of a second, so every test file has a database of its own.
 */
export async function prepareTestDatabases({ demo }) {
  const cluster = await startPostgres('test', { durable: false })
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: cluster.url('postgres') })
  await client.connect()
  const left = await client.query("select datname from pg_database where datname like 't\\_%'")
  for (const { datname } of left.rows)
    await client.query(`drop database ${client.escapeIdentifier(datname)} with (force)`)
  for (const name of demo ? ['t_empty', 't_demo'] : ['t_empty']) await client.query(`create database ${name}`)
  await client.end()
  const migrations = join(ROOT, 'server', 'migrations')
  const { migrateDatabase, loadDemo } = await import(await buildServer('demo/src/index.ts', 'demo'))
  await migrateDatabase(cluster.url('t_empty'), migrations)
  if (demo) await loadDemo(cluster.url('t_demo'), migrations)
  return { environment: { TREADLE_TEST_DATABASE: cluster.url('postgres') }, stop: cluster.stop }
}
