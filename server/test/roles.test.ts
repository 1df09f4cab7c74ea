import { beforeAll, describe, expect, test } from 'vitest'
import { newJob, useWorkshop, withClientAt } from './workshop.ts'

const shop = useWorkshop()
let backup = ''

beforeAll(async () => {
  await shop.request.post('/api/jobs').send(newJob()).expect(201)
  backup = (process.env.TREADLE_TEST_BACKUP ?? '').replace(/[^/]*$/, new URL(shop.adminUrl).pathname.slice(1))
})

describe('the role that serves', () => {
  test.each([
    ['puts the journal’s guard aside', 'alter table journal disable trigger all'],
    ['plays a replica, for whom no trigger fires', "set session_replication_role = 'replica'"],
    ['empties a table', 'truncate readings'],
    ['empties the journal', 'truncate journal'],
    ['changes the journal', "update journal set text = 'no'"],
    ['takes from the journal', 'delete from journal'],
    ['changes a table', 'alter table jobs add column more text'],
    ['makes a table', 'create table more (id int)'],
    ['drops a table', 'drop table readings'],
    [
      'replaces the guard',
      'create or replace function journal_stays() returns trigger language plpgsql as $$ begin return new; end $$',
    ],
    ['settles anew what was settled', 'select settle_older()'],
    ['makes itself another role', 'set role treadle_owner'],
    ['makes roles', 'create role intruder superuser login'],
    ['makes databases', 'create database more'],
    ['reads the server’s files', "select pg_read_file('/etc/passwd')"],
    ['runs programs', "copy people from program 'id'"],
  ])('never %s', async (_what, sql) => {
    await expect(shop.connection.pool.query(sql)).rejects.toThrow(/permission denied|must be owner|must be superuser/)
  })

  test('does not wait for ever: for a lock, an answer, or whoever began a change and went away', async () => {
    const { rows } = await shop.connection.pool.query<{ name: string; setting: string }>(
      "select name, setting from pg_settings where name in ('statement_timeout', 'lock_timeout', 'idle_in_transaction_session_timeout')",
    )
    for (const { name, setting } of rows) expect(Number(setting), name).toBeGreaterThan(0)
    expect(rows).toHaveLength(3)
  })

  test.each(['postgres', 'template1', 't_empty'])('enters %s only if it is a workshop of its own', async (name) => {
    const url = new URL(process.env.TREADLE_TEST_SERVING ?? '')
    url.pathname = `/${name}`
    const entered = withClientAt(url.href, (client) => client.query('select 1')).then(
      () => true,
      (error: Error) => /permission denied for database/.test(error.message) && 'refused',
    )
    expect(await entered).toBe(name === 't_empty' ? true : 'refused')
  })
})

describe('the role that backs up', () => {
  test('reads all there is, and writes nothing', async () => {
    await withClientAt(backup, async (client) => {
      expect((await client.query('select 1 from jobs')).rowCount).toBe(1)
      expect((await client.query('select 1 from drizzle.__drizzle_migrations')).rowCount).toBeGreaterThan(0)
      for (const sql of [
        'delete from jobs',
        "update jobs set complaint = ''",
        "insert into people values (gen_random_uuid(), '', '', true)",
      ])
        await expect(client.query(sql)).rejects.toThrow(/permission denied/)
    })
  })
})
