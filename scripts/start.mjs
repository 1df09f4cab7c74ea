import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildPages, buildServer, PAGES } from './lib/build.mjs'
import { isDue } from './lib/dailyBackups.mjs'
import { openDatabase } from './lib/database.mjs'
import { keepRunning } from './lib/keepRunning.mjs'
import { hold } from './lib/lock.mjs'
import { ensureModules } from './lib/modules.mjs'
import { CannotWrite } from './lib/postgres.mjs'
import { DATA, ROOT } from './lib/root.mjs'

/** How often the database is looked after, and how often it is asked whether the day's backup is still to be made. */
const LOOK_MS = 250
const BACKUP_LOOK_MS = 10 * 60_000

const name = process.argv.includes('--empty') ? 'empty' : 'workshop'
const port = Number(process.env.PORT || 4173)
const backups = join(DATA, 'backups', name)

// Whoever read what is said here may have gone; the workshop stays.
for (const out of [process.stdout, process.stderr]) out.on('error', () => undefined)
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void close())
let server = null
let database
let ours = false
let looking = null
let backing = null
let backupLook
let closing = false
let reviving = false

await requireFree(port)
const built = await hold(`build ${ROOT}`, { what: 'The building of the pages' })
ensureModules()
await buildPages()
const main = fileURLToPath(await buildServer('server/src/main.ts', 'server'))
built()
// Two first starts in one folder lay it down one after the other; what the first has done the second finds done.
const laidDown = await hold(`workshop ${join(DATA, name)}`, { what: `The workshop in ${join(DATA, name)}` })
await requireFree(port)
database = await openDatabase(name).catch(refuse)
// A database that was running is somebody else's to stop.
ours = !database.wasRunning

const environment = () => ({
  ...process.env,
  DATABASE_URL: database.serve,
  DATABASE_ADMIN_URL: database.admin,
  DATABASE_BACKUP_URL: database.backup,
  PORT: String(port),
  TREADLE_MIGRATIONS: join(ROOT, 'server', 'migrations'),
  TREADLE_PAGES: PAGES,
  TREADLE_BACKUPS: backups,
  TREADLE_UPLOADS: join(DATA, 'uploads', name),
  TREADLE_DISK: database.own ? DATA : '',
  TREADLE_VERSION: JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')).version,
  LOG_FILE: process.env.LOG_FILE ?? join(DATA, 'log', 'requests.log'),
})
server = keepRunning({
  what: 'The workshop’s server',
  hint: `what it said above tells why; the log is ${environment().LOG_FILE}. Ctrl-C ends the tries.`,
  begin: () => ({
    command: process.execPath,
    args: ['--enable-source-maps', main],
    options: { env: environment(), stdio: ['ignore', 2, 2, 'ipc'] },
  }),
})
looking = database.own ? setInterval(() => void lookAfterDatabase(), LOOK_MS) : undefined
if (await server.ready) {
  if (name === 'workshop') {
    const { loadDemo } = await import(await buildServer('demo/src/index.ts', 'demo'))
    if (await loadDemo(database.serve)) console.error('Loaded the demo workshop.')
  }
  laidDown()
  console.log(`Treadle is at http://127.0.0.1:${port}  (Ctrl-C stops it)`)
  backUp()
  backupLook = setInterval(backUp, BACKUP_LOOK_MS)
}

/** A database that has died is started again at its old place; where that is taken, the server goes with it to the new. */
async function lookAfterDatabase() {
  if (closing || reviving || database.isRunning()) return
  reviving = true
  console.error('The database has stopped. It is started again.')
  try {
    const before = database.port
    database = await openDatabase(name)
    ours = !database.wasRunning
    console.error('The database runs again.')
    if (database.port !== before) server.restart()
  } catch (error) {
    console.error(`It could not be started: ${error.message} It is tried again.`)
  } finally {
    reviving = false
  }
}

/** One backup a day, by a process of its own. */
function backUp() {
  if (closing || backing || !isDue(backups, new Date())) return
  backing = spawn(process.execPath, [join(ROOT, 'scripts/dailyBackup.mjs'), backups], {
    env: environment(),
    stdio: ['ignore', 2, 2],
  })
  const over = () => (backing = null)
  backing.once('exit', over)
  backing.on('error', (error) => {
    over()
    console.error(`The daily backup could not be begun: ${error.message} It is tried again.`)
  })
}

async function close() {
  if (closing) return
  closing = true
  clearInterval(looking)
  clearInterval(backupLook)
  backing?.kill('SIGTERM')
  await server?.end()
  if (ours) database?.stop()
  process.exit(0)
}

/** What can't be begun for a reason that a person can mend is told in that one sentence. */
function refuse(error) {
  if (!(error instanceof CannotWrite)) throw error
  console.error(error.message)
  process.exit(1)
}

async function requireFree(wanted) {
  if (!Number.isInteger(wanted) || wanted < 1 || wanted > 65_535) {
    console.error(`PORT is ${process.env.PORT}: it must be a whole number from 1 to 65535.`)
    process.exit(1)
  }
  await new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => {
      console.error(
        `Port ${wanted} is taken, perhaps by a Treadle that runs already. Stop that, or set PORT to another: PORT=4180 npm start`,
      )
      process.exit(1)
    })
    probe.listen(wanted, '127.0.0.1', () => probe.close(resolve))
  })
}
