import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { newJob } from './workshop.ts'

const ROOT = join(import.meta.dirname, '..', '..')
const folder = mkdtempSync(join(tmpdir(), 'treadle-start-'))
// PostgreSQL's own user must get in.
chmodSync(folder, 0o755)
let port = 0
let running: ChildProcess | undefined

beforeAll(async () => {
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  port = (probe.address() as AddressInfo).port
  probe.close()
})
afterAll(async () => {
  if (running && running.exitCode === null) {
    running.kill('SIGTERM')
    await once(running, 'exit')
  }
  rmSync(folder, { recursive: true, force: true })
})

const url = (path: string) => `http://127.0.0.1:${port}${path}`

/** Starts the workshop by the script that npm start runs; gives what it printed once it is ready or has ended. */
async function start(): Promise<{ child: ChildProcess; said: string }> {
  const child = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs'), '--empty'], {
    cwd: ROOT,
    // A person's environment, not the test runner's.
    env: { PATH: process.env.PATH, HOME: process.env.HOME, PORT: String(port), TREADLE_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  await new Promise<void>((resolve) => {
    const hear = (chunk: Buffer) => {
      said += chunk.toString()
      if (said.includes('Treadle is at')) resolve()
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.on('exit', () => resolve())
  })
  return { child, said }
}

/** The server's process, by /proc: the child of the start script that runs the bundle. */
function serverOf(pid: number): number {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8')
    .trim()
    .split(' ')
    .filter(Boolean)
    .map(Number)
  const server = children.find((child) => readFileSync(`/proc/${child}/cmdline`, 'utf8').includes('server.mjs'))
  if (server === undefined) throw new Error('The start script runs no server.')
  return server
}

async function gone(child: ChildProcess): Promise<number | null> {
  if (child.exitCode === null && child.signalCode === null) await once(child, 'exit')
  return child.exitCode
}

test('a workshop starts, outlives the killing of server and database, and loses nothing acknowledged', async () => {
  const first = await start()
  running = first.child
  expect(first.said).toContain(`Treadle is at http://127.0.0.1:${port}`)
  expect(await (await fetch(url('/api/health'))).json()).toMatchObject({ ok: true, database: true })
  expect(((await (await fetch(url('/api/bench'))).json()) as { tags: unknown[] }).tags).toEqual([])
  expect(await (await fetch(url('/some/page'))).text()).toContain('<div id="root">')

  // A second start on the same port names it and leaves the first alone.
  const second = await start()
  expect(second.said).toContain(`Port ${port} is taken`)
  expect(await gone(second.child)).toBe(1)

  const job = newJob()
  const taken = await fetch(url('/api/jobs'), {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(job),
  })
  expect(taken.status).toBe(201)

  // kill -9 of the server.
  process.kill(serverOf(first.child.pid!), 'SIGKILL')
  expect(await gone(first.child)).not.toBe(0)
  const again = await start()
  running = again.child
  expect((await fetch(url(`/api/jobs/${job.id}`))).status).toBe(200)

  // kill -9 of the database: the workshop says so calmly, and comes back by the next start.
  const postmaster = Number(readFileSync(join(folder, 'empty/pg/postmaster.pid'), 'utf8').split('\n')[0])
  process.kill(postmaster, 'SIGKILL')
  await expect.poll(async () => (await fetch(url('/api/bench'))).status, { timeout: 60_000 }).toBe(503)
  again.child.kill('SIGTERM')
  expect(await gone(again.child)).toBe(0)
  const back = await start()
  running = back.child
  expect((await fetch(url(`/api/jobs/${job.id}`))).status).toBe(200)

  // Ctrl-C stops it cleanly, database and all.
  back.child.kill('SIGINT')
  expect(await gone(back.child)).toBe(0)
  await expect(fetch(url('/api/health'))).rejects.toThrow()
  expect(() => readFileSync(join(folder, 'empty/pg/postmaster.pid'))).toThrow()
})
