import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildServer, PAGES } from './build.mjs'
import { ROOT } from './root.mjs'

/** The server before one database, with its built pages; where it is, and how to end it. */
export async function serve(databaseUrl, adminUrl = databaseUrl) {
  const port = await freePort()
  const server = spawn(process.execPath, [fileURLToPath(await buildServer('server/src/main.ts', 'server'))], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      DATABASE_ADMIN_URL: adminUrl,
      PORT: String(port),
      TREADLE_MIGRATIONS: join(ROOT, 'server/migrations'),
      TREADLE_PAGES: PAGES,
      LOG_LEVEL: 'error',
    },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  })
  await once(server, 'message')
  const stop = async () => {
    const gone = once(server, 'exit')
    server.kill()
    await gone
  }
  return { base: `http://127.0.0.1:${port}`, pid: server.pid, stop }
}

async function freePort() {
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = probe.address()
  probe.close()
  return port
}
