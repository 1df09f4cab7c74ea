import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import type { Server } from 'node:http'
import { createServer, type AddressInfo } from 'node:net'
import { join } from 'node:path'
import { test as base, expect, type Page } from '@playwright/test'
import type { BenchPage } from '@treadle/contract'
import type * as TreadleServer from '@treadle/server'
import pg from 'pg'
import { pino } from 'pino'

const ROOT = join(import.meta.dirname, '..')
const PAGES = join(ROOT, 'web/dist')

function env(name: string): string {
  const value = process.env[name]
  if (value === undefined) throw new Error('Run these by npm test: they need its server and its database.')
  return value
}

/**
 * A running workshop with a database of its own. It is served from within the tests' own process; what is to be killed as
 * by a power cut has a process to itself.
 */
export class Workshop {
  #process: ChildProcess | undefined
  #here: { server: Server; connection: TreadleServer.Connection } | undefined
  readonly #name = `t_${randomUUID().replaceAll('-', '')}`
  readonly #alone: boolean
  port = 0

  constructor({ alone = false } = {}) {
    this.#alone = alone
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  get #serving(): string {
    return env('TREADLE_TEST_SERVING').replace(/[^/]*$/, this.#name)
  }

  async open(template: 't_demo' | 't_empty'): Promise<void> {
    await run(`create database ${this.#name} template ${template} strategy file_copy`)
    if (this.#alone) {
      this.port = await freePort()
      await this.start()
    } else await this.#serveHere()
  }

  async #serveHere(): Promise<void> {
    const { connect, makeApp } = (await import(env('TREADLE_APP'))) as typeof TreadleServer
    const connection = connect(this.#serving)
    const app = makeApp({ db: connection.db, version: '0', logger: pino({ level: 'error' }), pages: PAGES })
    const server = app.listen(0, '127.0.0.1')
    await once(server, 'listening')
    this.port = (server.address() as AddressInfo).port
    this.#here = { server, connection }
  }

  /** Starts the process of one that has its own, after it was killed. */
  async start(): Promise<void> {
    this.#process = spawn(process.execPath, [env('TREADLE_SERVER')], {
      env: {
        ...process.env,
        DATABASE_URL: this.#serving,
        DATABASE_ADMIN_URL: env('TREADLE_TEST_DATABASE').replace(/[^/]*$/, this.#name),
        PORT: String(this.port),
        TREADLE_MIGRATIONS: join(ROOT, 'server/migrations'),
        TREADLE_PAGES: PAGES,
        LOG_LEVEL: 'error',
      },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    await once(this.#process, 'message')
  }

  /** Ends the process of one that has its own at once, as a power cut would. */
  async kill(): Promise<void> {
    if (!this.#process || this.#process.exitCode !== null) return
    const gone = once(this.#process, 'exit')
    this.#process.kill('SIGKILL')
    await gone
  }

  async close(): Promise<void> {
    await this.kill()
    this.#here?.server.close()
    this.#here?.server.closeAllConnections()
    await this.#here?.connection.pool.end()
    await run(`drop database if exists ${this.#name} with (force)`)
  }

  /** Somebody works here. */
  async hire(name: string): Promise<void> {
    const person = { id: randomUUID(), version: 0, name, initials: 'IV', active: true }
    await fetch(`${this.url}/api/people/${person.id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(person),
    })
  }

  /** Says something to its database itself, as nobody can through its pages. */
  async sql<R extends pg.QueryResultRow = never>(text: string): Promise<R[]> {
    const client = new pg.Client({ connectionString: env('TREADLE_TEST_DATABASE').replace(/[^/]*$/, this.#name) })
    await client.connect()
    try {
      return (await client.query<R>(text)).rows
    } finally {
      await client.end()
    }
  }

  /** All that was written down happened so long ago: `2 years`, `3 days`. */
  async timePasses(span: `${number} ${'years' | 'days'}`): Promise<void> {
    const client = new pg.Client({ connectionString: env('TREADLE_TEST_DATABASE').replace(/[^/]*$/, this.#name) })
    await client.connect()
    try {
      // The journal can't be changed by anybody who serves; time passes for it all the same.
      await client.query('set session_replication_role = replica')
      const { rows } = await client.query<{ table_name: string; column_name: string }>(
        `select c.table_name, c.column_name from information_schema.columns c
         join information_schema.tables t using (table_schema, table_name)
         where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.data_type = 'timestamp with time zone'`,
      )
      for (const { table_name: table, column_name: column } of rows)
        await client.query(`update "${table}" set "${column}" = "${column}" - interval '${span}'`)
      // No trigger said so: what was kept of it is no longer true.
      await client.query('delete from last_changes')
    } finally {
      await client.end()
    }
  }

  /** The address of a demo clock's job. */
  async job(clockName: string): Promise<string> {
    const bench = (await (await fetch(`${this.url}/api/bench`)).json()) as BenchPage
    const tag = bench.tags.find((t) => t.clock.name === clockName)
    if (!tag) throw new Error(`The demo has no ${clockName}.`)
    return `${this.url}/jobs/${tag.job.id}`
  }
}

async function run(sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: env('TREADLE_TEST_DATABASE') })
  await client.connect()
  try {
    await client.query(sql)
  } finally {
    await client.end()
  }
}

async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = probe.address() as AddressInfo
  probe.close()
  return port
}

/**
 * `demo` is shared by the tests of a worker; `own` is a test's alone, with one person at its bench, to be stopped and
 * filled as it likes; `alone` is like that, and is killed; `empty` is one that nobody has opened yet.
 */
export const test = base.extend<{ own: Workshop; alone: Workshop; empty: Workshop }, { demo: Workshop }>({
  context: async ({ context }, use) => {
    // What is fetched for later, once a page is idle, is tried by itself: here it would take half the time of a short test.
    await context.addInitScript(() => (window.requestIdleCallback = () => 0))
    await use(context)
  },
  empty: async ({}, use) => {
    const workshop = new Workshop()
    await workshop.open('t_empty')
    await use(workshop)
    await workshop.close()
  },
  demo: [
    async ({}, use) => {
      const workshop = new Workshop()
      await workshop.open('t_demo')
      await use(workshop)
      await workshop.close()
    },
    { scope: 'worker' },
  ],
  own: async ({}, use) => {
    const workshop = new Workshop()
    await workshop.open('t_empty')
    await workshop.hire('Ida Vos')
    await use(workshop)
    await workshop.close()
  },
  alone: async ({}, use) => {
    const workshop = new Workshop({ alone: true })
    await workshop.open('t_empty')
    await workshop.hire('Ida Vos')
    await use(workshop)
    await workshop.close()
  },
})

/**
 * Goes to an address as a link within the page does, once a page of this workshop is open: it is not loaded anew. What
 * it showed a moment ago it may show still; where something was changed behind its back, `goto` is what is wanted.
 */
export async function open(page: Page, address: string): Promise<void> {
  const { origin, pathname, search } = new URL(address)
  if (!page.url().startsWith(`${origin}/`)) {
    await page.goto(address)
    return
  }
  const at = `${pathname}${search}`
  await page.evaluate((to) => {
    history.pushState(null, '', to)
    dispatchEvent(new PopStateEvent('popstate', { state: null }))
  }, at)
  await page.locator(`#main[data-at="${escaped(at)}"]`).waitFor()
}

const escaped = (text: string) => text.replace(/["\\]/g, '\\$&')

/** Presses the pedal: the key goes down and comes up with nothing focused. */
export async function press(page: Page): Promise<void> {
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus({ preventScroll: true }))
  await page.keyboard.press('PageDown')
}

export { expect }
