import { randomUUID } from 'node:crypto'
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect, migrate, type Connection } from '../src/index.ts'
import { runSql } from './workshop.ts'

const MIGRATIONS = join(import.meta.dirname, '..', 'migrations')

interface Older {
  url: string
  connection: Connection
  bringUpToDate: () => Promise<void>
}

/** Works on a database as it was when it knew so many migrations only; it is gone afterwards. */
export async function withOlder(migrations: number, work: (older: Older) => Promise<void>): Promise<void> {
  const admin = process.env.TREADLE_TEST_DATABASE ?? ''
  const name = `t_${randomUUID().replaceAll('-', '')}`
  const folder = mkdtempSync(join(tmpdir(), 'treadle-older-'))
  cpSync(MIGRATIONS, folder, { recursive: true })
  const journal = join(folder, 'meta', '_journal.json')
  const whole = JSON.parse(readFileSync(journal, 'utf8')) as { entries: { idx: number }[] }
  writeFileSync(journal, JSON.stringify({ ...whole, entries: whole.entries.filter((e) => e.idx < migrations) }))
  await runSql(admin, `create database ${name}`)
  const url = admin.replace(/[^/]*$/, name)
  const connection = connect(url, 'working')
  try {
    await migrate(connection, folder)
    await work({ url, connection, bringUpToDate: () => migrate(connection, MIGRATIONS) })
  } finally {
    await connection.pool.end()
    await runSql(admin, `drop database ${name} with (force)`)
    rmSync(folder, { recursive: true })
  }
}
