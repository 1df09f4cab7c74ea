import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { randomUUID } from 'node:crypto'
import { chmodSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
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

const postmaster = () => Number(readFileSync(join(folder, 'empty/pg/postmaster.pid'), 'utf8').split('\n')[0])

/** Sends a change until it is answered, as a page does; gives how it was answered in the end. */
async function sent(method: string, path: string, body: object): Promise<number> {
  for (;;) {
    const answer = await fetch(url(path), {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    }).catch(() => null)
    if (answer && answer.status < 500) return answer.status
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}

test('a workshop starts; killed in turn while it is written in, server and database come back by themselves, and all that was acknowledged is there once', async () => {
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
  expect(await sent('POST', '/api/jobs', job)).toBe(201)

  // Two benches write on while first the server, then the database, then both are killed.
  const acknowledged: string[] = []
  let writing = true
  const bench = async () => {
    while (writing) {
      const id = randomUUID()
      const at = new Date().toISOString()
      const reading = { id, version: 0, at, errorSeconds: 1, sigmaSeconds: 1, way: 'eye' }
      const status = await sent('PUT', `/api/jobs/${job.id}/readings/${id}`, reading)
      expect([200, 201]).toContain(status)
      acknowledged.push(id)
    }
  }
  const benches = [bench(), bench()]
  const more = (count: number) => {
    const wanted = acknowledged.length + count
    return expect.poll(() => acknowledged.length, { timeout: 120_000 }).toBeGreaterThanOrEqual(wanted)
  }
  await more(20)
  process.kill(serverOf(first.child.pid!), 'SIGKILL')
  await more(20)
  process.kill(postmaster(), 'SIGKILL')
  await more(20)
  process.kill(serverOf(first.child.pid!), 'SIGKILL')
  process.kill(postmaster(), 'SIGKILL')
  await more(20)
  writing = false
  await Promise.all(benches)
  const page = (await (await fetch(url(`/api/jobs/${job.id}`))).json()) as { readings: { id: string }[] }
  expect(page.readings.map((r) => r.id).sort()).toEqual([...acknowledged].sort())
  // The start itself went on through all of it.
  expect(first.child.exitCode).toBeNull()

  // The day's backup was made beside all this, and the pages can tell of it.
  type Kept = { kept: { name: string; bytes: number }[]; failed: unknown }
  const backups = async () => (await (await fetch(url('/api/backups'))).json()) as Kept
  await expect.poll(async () => (await backups()).kept.length, { timeout: 120_000 }).toBe(1)
  expect((await backups()).failed).toBeNull()

  // Logs are their owner's, and hold no secret address.
  const { secret } = (await (await fetch(url('/api/calendar'))).json()) as { secret: string }
  await (await fetch(url(`/api/calendar/${secret}/now.ics`))).text()
  const log = join(folder, 'log/requests.log')
  await expect.poll(() => readFileSync(log, 'utf8')).toContain('/api/calendar/…/now.ics')
  expect(readFileSync(log, 'utf8')).not.toContain(secret)
  for (const file of [log, join(folder, 'empty/postgres.log')]) expect(statSync(file).mode & 0o077).toBe(0)

  // Ctrl-C stops it cleanly, database and all; the next start finds everything.
  first.child.kill('SIGINT')
  expect(await gone(first.child)).toBe(0)
  await expect(fetch(url('/api/health'))).rejects.toThrow()
  expect(() => postmaster()).toThrow()
  const again = await start()
  running = again.child
  expect((await fetch(url(`/api/jobs/${job.id}`))).status).toBe(200)
})
