import { join } from 'node:path'
import { buildServer } from './build.mjs'
import { openDatabase } from './database.mjs'
import { ensureModules } from './modules.mjs'
import { ROOT } from './root.mjs'

/**
 * Opens the workshop's database for as long as `work` takes, brought to the newest form, as the role that reads for
 * backups or the one that owns all and may restore.
 *
 * A cluster that was running is left running: a workshop may be open on it.
 */
export async function withWorkshop(name, role, work) {
  ensureModules()
  const database = await openDatabase(name)
  const { migrateAt } = await import(await buildServer('demo/src/index.ts', 'demo'))
  const { serve, backup } = database
  await migrateAt(database.admin, join(ROOT, 'server', 'migrations'), { serve, backup })
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: database[role] })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
    if (!database.wasRunning) database.stop()
  }
}
