import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildPages, buildServer, PAGES } from './lib/build.mjs'
import { openDatabase } from './lib/database.mjs'
import { ensureModules } from './lib/modules.mjs'
import { DATA, ROOT } from './lib/root.mjs'

const empty = process.argv.includes('--empty')
const port = Number(process.env.PORT || 4173)

await requireFree(port)
ensureModules()
buildPages()
const main = fileURLToPath(await buildServer('server/src/main.ts', 'server'))
const database = await openDatabase(empty ? 'empty' : 'workshop')
let closing = false

const environment = {
  ...process.env,
  DATABASE_URL: database.url,
  PORT: String(port),
  TREADLE_MIGRATIONS: join(ROOT, 'server', 'migrations'),
  TREADLE_PAGES: PAGES,
  TREADLE_VERSION: JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')).version,
  LOG_FILE: process.env.LOG_FILE ?? join(DATA, 'log', 'requests.log'),
}
const server = spawn(process.execPath, ['--enable-source-maps', main], {
  env: environment,
  stdio: ['ignore', 2, 2, 'ipc'],
})
server.on('exit', (code) => {
  if (!closing) console.error('The server has stopped.')
  database.stop()
  process.exit(closing ? 0 : (code ?? 1) || 1)
})
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    closing = true
    server.kill('SIGTERM')
  })
await new Promise((resolve) => server.once('message', resolve))

if (!empty) {
  const { loadDemo } = await import(await buildServer('demo/src/index.ts', 'demo'))
  if (await loadDemo(database.url)) console.error('Loaded the demo workshop.')
}
console.log(`Treadle is at http://127.0.0.1:${port}  (Ctrl-C stops it)`)

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
