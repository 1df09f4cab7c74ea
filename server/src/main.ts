import { pino } from 'pino'
import { connect } from './db/connect.ts'
import { migrate } from './db/migrate.ts'
import { makeApp } from './http/app.ts'

const env = (name: string): string => {
  const value = process.env[name]
  if (value === undefined || value === '') throw new Error(`${name} must be set`)
  return value
}

const port = Number(process.env.PORT ?? 4173)
const logger = pino(
  { level: process.env.LOG_LEVEL ?? 'info' },
  pino.destination({ dest: process.env.LOG_FILE ?? 2, mkdir: true }),
)
const connection = connect(env('DATABASE_URL'))
await migrate(connection, env('TREADLE_MIGRATIONS'))
const app = makeApp({
  db: connection.db,
  version: process.env.TREADLE_VERSION ?? '0',
  logger,
  pages: process.env.TREADLE_PAGES,
  extraHosts: (process.env.TREADLE_HOSTS ?? '')
    .split(',')
    .map((h) => h.trim().toLowerCase())
    .filter(Boolean),
})
const server = app.listen(port, '127.0.0.1')
server.on('listening', () => {
  process.send?.('ready')
})
server.on('error', (error: NodeJS.ErrnoException) => {
  process.stderr.write(
    error.code === 'EADDRINUSE' ? `Port ${port} is taken. Set PORT to another.\n` : `${error.message}\n`,
  )
  process.exit(1)
})

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
