import { join } from 'node:path'
import { buildServer } from './build.mjs'
import { openDatabase } from './database.mjs'
import { ensureModules } from './modules.mjs'
import { ROOT } from './root.mjs'

/**
 * Opens the workshop's database, brought to the newest form, for as long as `work` takes.
 *
 * A cluster that was running is left running: a workshop may be open on it.
 */
export async function withWorkshop(name, work) {
  ensureModules()
  const database = await openDatabase(name)
  const { migrateDatabase } = await import(await buildServer('demo/src/index.ts', 'demo'))
  await migrateDatabase(database.url, join(ROOT, 'server', 'migrations'))
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: database.url })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
    if (!database.wasRunning) database.stop()
  }
}
