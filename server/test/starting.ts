import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, mkdtempSync, readFileSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const ROOT = join(import.meta.dirname, '..', '..')

export interface Started {
  child: ChildProcess
  url: (path: string) => string
  /** what it has said so far */
  said: () => string
}

/** A folder for a workshop of its own; PostgreSQL's own user must get in. */
export function freshFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'treadle-start-'))
  chmodSync(folder, 0o755)
  return folder
}

export async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = probe.address() as AddressInfo
  probe.close()
  return port
}

/** Starts the workshop by the script that npm start runs, as far as it is ready or has ended. */
export async function start(folder: string, port: number): Promise<Started> {
  const begun = begin(folder, port)
  await begun.ready
  return begun
}

export function begin(folder: string, port: number): Started & { ready: Promise<void> } {
  const child = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs'), '--empty'], {
    cwd: ROOT,
    // A person's environment, not the test runner's.
    env: { PATH: process.env.PATH, HOME: process.env.HOME, PORT: String(port), TREADLE_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  const ready = new Promise<void>((resolve) => {
    const hear = (chunk: Buffer) => {
      said += chunk.toString()
      if (said.includes('Treadle is at')) resolve()
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.on('close', () => resolve())
  })
  return { child, said: () => said, url: (path) => `http://127.0.0.1:${port}${path}`, ready }
}

/** A script of the house run to its end: what it said, and how it ended. */
export async function script(
  name: string,
  args: string[],
  folder: string,
): Promise<{ said: string; code: number | null }> {
  const child = spawn(process.execPath, [join(ROOT, 'scripts', name), ...args], {
    cwd: ROOT,
    env: { PATH: process.env.PATH, HOME: process.env.HOME, TREADLE_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (said += chunk.toString()))
  await once(child, 'close')
  return { said, code: child.exitCode }
}

/** How it ended. */
export async function gone(child: ChildProcess): Promise<number | null> {
  if (child.exitCode === null && child.signalCode === null) await once(child, 'exit')
  return child.exitCode
}

/** Ends it as Ctrl-C does, if it still runs. */
export async function end(started: Started | undefined): Promise<void> {
  if (!started || started.child.exitCode !== null || started.child.signalCode !== null) return
  started.child.kill('SIGINT')
  await gone(started.child)
}

/** The server's process, by /proc: the child of the start script that runs the bundle; none while it is started anew. */
export function serverOf(pid: number): number | undefined {
  return readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8')
    .trim()
    .split(' ')
    .filter(Boolean)
    .map(Number)
    .find((child) => {
      try {
        return readFileSync(`/proc/${child}/cmdline`, 'utf8').includes('server.mjs')
      } catch {
        return false
      }
    })
}

export const postmasterOf = (folder: string) =>
  Number(readFileSync(join(folder, 'empty/pg/postmaster.pid'), 'utf8').split('\n')[0])

/** Sends a change until it is answered, as a page does; gives how it was answered in the end. */
export async function sent(url: string, method: string, body: object): Promise<number> {
  for (;;) {
    const answer = await fetch(url, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    }).catch(() => null)
    if (answer && answer.status < 500) return answer.status
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}
