import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { openDatabase } from './lib/database.mjs'
import { ensureModules } from './lib/modules.mjs'
import { ROOT } from './lib/root.mjs'

// The server restarts and the pages reload as their sources change; the pages are at 127.0.0.1:5173.
ensureModules()
const database = await openDatabase('workshop')
const environment = {
  ...process.env,
  DATABASE_URL: database.serve,
  DATABASE_ADMIN_URL: database.admin,
  DATABASE_BACKUP_URL: database.backup,
  PORT: '4173',
  TREADLE_MIGRATIONS: join(ROOT, 'server', 'migrations'),
  TREADLE_HOSTS: '127.0.0.1:5173,localhost:5173',
}
const node = (args, cwd) => spawn(process.execPath, args, { cwd, env: environment, stdio: 'inherit' })
const children = [
  node([join(ROOT, 'node_modules/tsx/dist/cli.mjs'), 'watch', 'server/src/main.ts'], ROOT),
  node([join(ROOT, 'node_modules/vite/bin/vite.js')], join(ROOT, 'web')),
]
let stopping = false
const stop = () => {
  if (stopping) return
  stopping = true
  for (const child of children) child.kill('SIGTERM')
  if (!database.wasRunning) database.stop()
}
for (const child of children) child.on('exit', stop)
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
