import { join } from 'node:path'
import { buildServer } from './build.mjs'
import { startPostgres } from './postgres.mjs'
import { addresses, ensureRoles } from './roles.mjs'
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
  await client.end()
  const migrations = join(ROOT, 'server', 'migrations')
  const { migrateAt, loadDemo } = await import(await buildServer('demo/src/index.ts', 'demo'))
  for (const name of demo ? ['t_empty', 't_demo'] : ['t_empty']) {
    const { admin, serve, backup } = await ensureRoles(cluster, name)
    await migrateAt(admin, migrations, { serve, backup })
    if (name === 't_demo') await loadDemo(serve)
  }
  const { serve, backup } = addresses(cluster, 'postgres')
  return {
    environment: {
      TREADLE_TEST_DATABASE: cluster.url('postgres'),
      // What serves in the tests may do no more than what serves a workshop.
      TREADLE_TEST_SERVING: serve,
      TREADLE_TEST_BACKUP: backup,
    },
    // One that was running is another run’s.
    stop: cluster.wasRunning ? () => undefined : cluster.stop,
  }
}
