import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { createServer, type AddressInfo } from 'node:net'
import { join } from 'node:path'
import { test as base, expect, type Page } from '@playwright/test'
import type { BenchPage } from '@treadle/contract'
import pg from 'pg'

const ROOT = join(import.meta.dirname, '..')

function env(name: string): string {
  const value = process.env[name]
  if (value === undefined) throw new Error('Run these by npm test: they need its server and its database.')
  return value
}

/** A running workshop with a database of its own, and its server to stop and start. */
export class Workshop {
  #server: ChildProcess | undefined
  readonly #name = `t_${randomUUID().replaceAll('-', '')}`
  port = 0

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async open(template: 't_demo' | 't_empty'): Promise<void> {
    await run(`create database ${this.#name} template ${template} strategy file_copy`)
    this.port = await freePort()
    await this.start()
  }

  async start(): Promise<void> {
    this.#server = spawn(process.execPath, [env('TREADLE_SERVER')], {
      env: {
        ...process.env,
        DATABASE_URL: env('TREADLE_TEST_SERVING').replace(/[^/]*$/, this.#name),
        DATABASE_ADMIN_URL: env('TREADLE_TEST_DATABASE').replace(/[^/]*$/, this.#name),
        PORT: String(this.port),
        TREADLE_MIGRATIONS: join(ROOT, 'server/migrations'),
        TREADLE_PAGES: join(ROOT, 'web/dist'),
        LOG_LEVEL: 'error',
      },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    await once(this.#server, 'message')
  }

  /** Ends the server at once, as a power cut would. */
  async kill(): Promise<void> {
    if (!this.#server || this.#server.exitCode !== null) return
    const gone = once(this.#server, 'exit')
    this.#server.kill('SIGKILL')
    await gone
  }

  async close(): Promise<void> {
    await this.kill()
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
  async sql(text: string): Promise<void> {
    const client = new pg.Client({ connectionString: env('TREADLE_TEST_DATABASE').replace(/[^/]*$/, this.#name) })
    await client.connect()
    try {
      await client.query(text)
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
 * filled as it likes; `empty` is one that nobody has opened yet.
 */
export const test = base.extend<{ own: Workshop; empty: Workshop }, { demo: Workshop }>({
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
})

/** Presses the pedal: the key goes down and comes up with nothing focused. */
export async function press(page: Page): Promise<void> {
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus({ preventScroll: true }))
  await page.keyboard.press('PageDown')
}

export { expect }
