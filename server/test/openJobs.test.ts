import { expect, test } from 'vitest'
import type { BenchPage, BenchTag, JobPage } from '@treadle/contract'
import { runSql, useWorkshop, withClientAt } from './workshop.ts'

const shop = useWorkshop()

const bench = async () => (await shop.request.get('/api/bench').expect(200)).body as BenchPage
const tagOf = async (id: string) => (await bench()).tags.find((t) => t.job.id === id)
const sql = (text: string) => runSql(shop.adminUrl, text)

const bath = (jobId: string) =>
  `(id, job_id, title, started_at, ends_at, stopped, bath, step, who)
     values (gen_random_uuid(), '${jobId}', 'Bath', now(), now(), false, '', 0, '')`

test('the database notes every change of a visit, and of all that hangs on it', async () => {
  const { rows } = await withClientAt(shop.adminUrl, (client) =>
    client.query<{ table: string; noted: boolean }>(
      `select table_name as table, exists (
         select 1 from pg_trigger where tgrelid = table_name::regclass and tgname = table_name || '_note_change'
       ) as noted
       from information_schema.columns where table_schema = 'public'
         and (column_name in ('job_id', 'clock_id') or table_name in ('jobs', 'clocks', 'owners') and column_name = 'id')`,
    ),
  )
  const silent = rows.filter((r) => !r.noted).map((r) => r.table)
  expect(silent).toEqual([])
  expect(rows.length).toBeGreaterThan(35)
})

test('whatever is changed, by whichever door, is on the Bench at the next look', async () => {
  const { job, clock, owner } = await shop.takeIn()
  const { job: beside } = await shop.takeIn()
  const kinds = (tag: BenchTag | undefined) => tag?.owed.map((o) => o.kind) ?? []
  const other = await tagOf(beside.id)
  expect(kinds(await tagOf(job.id))).toContain('observe')
  const changes: [string, (tag: BenchTag | undefined) => unknown, unknown][] = [
    [`update owners set name = 'Bo Ek' where id = '${owner.id}'`, (t) => t?.owner.name, 'Bo Ek'],
    [`update clocks set name = 'Hall clock' where id = '${clock.id}'`, (t) => t?.clock.name, 'Hall clock'],
    [`update jobs set bay = 'strip', parted_at = now() where id = '${job.id}'`, (t) => kinds(t).at(0), 'take-apart'],
    [`insert into timers ${bath(job.id)}`, (t) => kinds(t).includes('bath'), true],
    [`delete from timers where job_id = '${job.id}'`, (t) => kinds(t).includes('bath'), false],
    [
      `insert into journal (id, job_id, at, who, kind, text, figures)
         values (gen_random_uuid(), '${job.id}', now() + interval '1 minute', 'Uma', 'note', 'Seen.', '{}')`,
      (t) => t?.by,
      'Uma',
    ],
  ]
  for (const [change, of, wanted] of changes) {
    await sql(change)
    expect(of(await tagOf(job.id)), change).toEqual(wanted)
  }
  expect(await tagOf(beside.id)).toEqual(other)
})

test('a page that was asked for before shows what was changed since', async () => {
  const { job, clock } = await shop.takeIn()
  const page = async () => (await shop.request.get(`/api/jobs/${job.id}`).expect(200)).body as JobPage
  const first = await page()
  expect(await page()).toEqual(first)
  await sql(`update clocks set name = 'Hall clock' where id = '${clock.id}'`)
  expect((await page()).clock.name).toBe('Hall clock')
  await sql(
    `insert into confirmed_causes (id, job_id, cause, note, at, who) values (gen_random_uuid(), '${job.id}', 'dirt', '', now(), 'Uma')`,
  )
  expect((await page()).confirmedCauses).toHaveLength(1)
  const others = await Promise.all(Array.from({ length: 45 }, async () => (await shop.takeIn()).job.id))
  // More of them than are kept: each is still its own.
  for (const id of [...others, job.id, ...others])
    expect(((await shop.request.get(`/api/jobs/${id}`).expect(200)).body as JobPage).job.id).toBe(id)
  expect((await page()).confirmedCauses).toHaveLength(1)
})

test('a row that goes from one visit to another is seen in both', async () => {
  const [from, to] = [(await shop.takeIn()).job.id, (await shop.takeIn()).job.id]
  await sql(`insert into timers ${bath(from)}`)
  const bathed = async (id: string) => (await tagOf(id))?.owed.some((o) => o.kind === 'bath')
  expect([await bathed(from), await bathed(to)]).toEqual([true, false])
  await sql(`update timers set job_id = '${to}' where job_id = '${from}'`)
  expect([await bathed(from), await bathed(to)]).toEqual([false, true])
})

test('a change that is undone leaves what was', async () => {
  const { job, clock } = await shop.takeIn()
  const before = await tagOf(job.id)
  await sql(`begin; update clocks set name = 'Nothing' where id = '${clock.id}'; rollback`)
  expect(await tagOf(job.id)).toEqual(before)
})

test('every open clock hangs there, however many: the oldest is the one that is late', async () => {
  const { job } = await shop.takeIn()
  await sql(
    `insert into jobs select (jsonb_populate_record(j, jsonb_build_object('id', gen_random_uuid(), 'number', j.number + n))).*
       from jobs j, generate_series(1, 230) n where j.id = '${job.id}'`,
  )
  const { tags } = await bench()
  expect(tags.length).toBeGreaterThan(230)
  expect(tags.some((t) => t.job.id === job.id)).toBe(true)
  expect(tags.every((t) => t.owed.length > 0)).toBe(true)
  await sql(`update jobs set closed_at = now() where number > ${job.number} and id <> '${job.id}'`)
  expect((await bench()).tags.some((t) => t.job.id === job.id)).toBe(true)
})
