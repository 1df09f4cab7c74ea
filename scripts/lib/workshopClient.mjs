import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { buildServer } from './build.mjs'
import { openDatabase } from './database.mjs'
import { hold } from './lock.mjs'
import { ensureModules } from './modules.mjs'
import { DATA, ROOT } from './root.mjs'

/**
 * Opens the workshop's database for as long as `work` takes, brought to the newest form, as the role that reads for
 * backups or the one that owns all and may restore.
 *
 * A cluster that was running is left running: a workshop may be open on it. One that is begun here is ours until it is
 * stopped again: a workshop that is started meanwhile waits for that, so that nobody's database is stopped under him.
 */
export async function withWorkshop(name, role, work) {
  const built = await hold(`build ${ROOT}`, { what: 'The building of the pages' })
  ensureModules()
  const demo = await buildServer('demo/src/index.ts', 'demo')
  built()
  const laidDown = await hold(`workshop ${join(DATA, name)}`, { what: `The workshop in ${join(DATA, name)}` })
  const database = await openDatabase(name)
  if (database.wasRunning) laidDown()
  try {
    const { migrateAt } = await import(demo)
    const { serve, backup } = database
    await migrateAt(database.admin, join(ROOT, 'server', 'migrations'), { serve, backup })
    return await triedAgain(() => withClient(database[role], work))
  } finally {
    if (!database.wasRunning) database.stop()
    laidDown()
  }
}

/** With a connection of its own; one that is lost is met at its next query. */
export async function withClient(connectionString, work) {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString })
  client.on('error', () => undefined)
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}

/** Waited for each other, cancelled, not to be put in a row, or for a lock in vain: nothing of it stands, and it may be done anew. */
const MADE_ANEW = new Set(['40P01', '57014', '40001', '55P03'])
const TRIES = 5
const PAUSE_MS = 500

/** Does work that undoes itself, once more where the database broke it off for another's sake. */
export async function triedAgain(work, { pauseMs = PAUSE_MS } = {}) {
  for (let tries = 1; ; tries++)
    try {
      return await work()
    } catch (error) {
      if (tries === TRIES || !MADE_ANEW.has(error.code)) throw error
      await pause(pauseMs * tries)
    }
}
