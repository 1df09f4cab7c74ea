import { setTimeout as pause } from 'node:timers/promises'
import { clearLeftovers } from './archive/intake.ts'
import { connect } from './db/connect.ts'
import { migrateAt } from './db/migrate.ts'
import { ownFolder } from './files/ownFolder.ts'
import { UPLOAD_LIMITS } from './files/receive.ts'
import { makeApp } from './http/app.ts'
import { isDatabaseAway } from './http/problem.ts'
import { openLog } from './log.ts'

const env = (name: string): string => {
  const value = process.env[name]
  if (value === undefined || value === '') throw new Error(`${name} must be set`)
  return value
}
const optional = (name: string): string | undefined => process.env[name] || undefined

/** A sound over a slow line takes minutes; what stands still is refused long before, by its own pace. */
const LONGEST_REQUEST_MS = 15 * 60_000
/** A database that is being started is waited for; after so long something else must be wrong with it. */
const PATIENCE_MS = 60_000
const AGAIN_MS = 100

const port = Number(process.env.PORT ?? 4173)
const logger = openLog(process.env.LOG_LEVEL ?? 'info', optional('LOG_FILE'))
const url = env('DATABASE_URL')
await onceThere(() =>
  migrateAt(optional('DATABASE_ADMIN_URL') ?? url, env('TREADLE_MIGRATIONS'), {
    serve: url,
    backup: optional('DATABASE_BACKUP_URL'),
  }),
)
const connection = connect(url)
const folder = optional('TREADLE_UPLOADS')
const app = makeApp({
  db: connection.db,
  version: process.env.TREADLE_VERSION ?? '0',
  logger,
  pages: process.env.TREADLE_PAGES,
  backups: optional('TREADLE_BACKUPS'),
  uploads: { folder: folder === undefined ? UPLOAD_LIMITS.folder : ownFolder(folder) },
  disk: optional('TREADLE_DISK'),
  extraHosts: (process.env.TREADLE_HOSTS ?? '')
    .split(',')
    .map((h) => h.trim().toLowerCase())
    .filter(Boolean),
})
const server = app.listen(port, '127.0.0.1')
server.requestTimeout = LONGEST_REQUEST_MS
server.on('listening', () => {
  // What is left of an archive whose taking in was broken off with a server.
  clearLeftovers(connection.db).catch((error: unknown) => logger.warn({ err: error }, 'leftovers stay'))
  // Whoever started it may be gone by now.
  process.send?.('ready', undefined, undefined, () => undefined)
})
server.on('error', (error: NodeJS.ErrnoException) => {
  // Once it serves, an error is one caller's that could not be let in: too many are open, say. It serves on.
  if (server.listening) {
    logger.error({ err: error }, 'a connection was not taken')
    return
  }
  process.stderr.write(
    error.code === 'EADDRINUSE' ? `Port ${port} is taken. Set PORT to another.\n` : `${error.message}\n`,
  )
  process.exit(1)
})

/** Does what needs the database as soon as that answers. */
async function onceThere(work: () => Promise<void>): Promise<void> {
  for (const until = Date.now() + PATIENCE_MS; ; await pause(AGAIN_MS))
    try {
      return await work()
    } catch (error) {
      if (!isDatabaseAway(error) || Date.now() > until) throw error
    }
}

const stop = () => {
  server.close(() => {
    void connection.pool.end().then(() => process.exit(0))
  })
  server.closeIdleConnections()
  // A held-open connection must not keep the workshop from closing.
  setTimeout(() => process.exit(0), 3000).unref()
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
// Started by another process that is gone: close the workshop too.
process.on('disconnect', stop)
