import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type pg from 'pg'
import { afterAll, expect, test } from 'vitest'
import { readArchive, writeArchive } from '../../scripts/lib/archive.mjs'
import { withOlder } from './olderDatabase.ts'
import { runSql, useWorkshop, withClientAt } from './workshop.ts'

const folder = mkdtempSync(join(tmpdir(), 'treadle-'))
afterAll(() => rmSync(folder, { recursive: true }))
const restored = useWorkshop()

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`
const CLOCK = id(1)
const JOB = id(2)
const [OLD_HOLE, NEW_HOLE, ALONE] = [id(10), id(11), id(12)]
const [OLD_WORK, NEW_WORK] = [id(20), id(21)]
const [OLD_SHEET, NEW_SHEET] = [id(30), id(31)]
const [KEPT_FILE, ORPHAN] = [id(40), id(41)]

/** A workshop as it could be before there was one of a kind: the same hole twice, counts twice, a file that nothing shows. */
const BEFORE = `
  insert into owners (id, name, phone, address) values ('${id(0)}', E'Gull\\r\\nRow', '', '');
  insert into clocks (id, owner_id, name, kind, marks, trains, pendulum)
    values ('${CLOCK}', '${id(0)}', 'Kitchen clock', 'wall', E'two\\nlines', '[]', '{}');
  insert into jobs (id, clock_id, bay, complaint, runs, came_with, received_at)
    values ('${JOB}', '${CLOCK}', 'mend', E'It stops.\\nOften.', 'stops', '[]', now());
  insert into settings (id, "values") values (1, jsonb_build_object('workshop', E'Slip\\r\\nX-EVIL:1'));
  ${[OLD_HOLE, NEW_HOLE, ALONE]
    .map(
      (hole, i) => `
  insert into holes (id, job_id, train, arbor, arbor_index, plate, role, long_axis_mm, typed, override_reason, bushed, flagged, measured_by)
    values ('${hole}', '${JOB}', 'going', '${i === 2 ? 'Centre' : 'Third'}', 2, 'back', 'other', ${1 + i / 10}, '{}', '', false, false, 'Ida');
  insert into journal (id, job_id, at, who, kind, text, figures)
    values (gen_random_uuid(), '${JOB}', now() + interval '${i} hour', 'Ida', 'hole', 'Measured.', '{"id":"${hole}"}');`,
    )
    .join('')}
  insert into bushings (id, job_id, hole_id, method, spoilt, source, done, note, at, who) values
    ('${OLD_WORK}', '${JOB}', '${OLD_HOLE}', 'hand', false, 'turned', '["mark"]', 'older', now(), 'Ida'),
    ('${NEW_WORK}', '${JOB}', '${NEW_HOLE}', 'hand', false, 'turned', '["mark","mask"]', 'newer', now(), 'Ida');
  insert into train_sheets (id, clock_id, train, arbors, escape, version) values
    ('${OLD_SHEET}', '${CLOCK}', 'going', '[{"name":"Great"}]', false, 1),
    ('${NEW_SHEET}', '${CLOCK}', 'going', '[{"name":"Great wheel"}]', true, 4);
  insert into strip_marks (id, job_id, key, state, note, at, who) values
    ('${id(50)}', '${JOB}', 'nut', 'done', 'four turns', now(), 'Ida'),
    ('${id(51)}', '${JOB}', 'nut', 'done', 'six turns', now(), 'Ida');
  insert into files (id, type, size) values ('${KEPT_FILE}', 'image/webp', 1), ('${ORPHAN}', 'image/webp', 1);
  insert into file_chunks (file_id, part, bytes) values ('${KEPT_FILE}', 0, '\\x01'), ('${ORPHAN}', 0, '\\x02');
  insert into photos (id, job_id, caption, width, height, taken_at, original_id, screen_id)
    values ('${id(60)}', '${JOB}', 'Dial', 1, 1, now(), '${KEPT_FILE}', '${KEPT_FILE}');`

type Client = Pick<pg.Client, 'query'>

async function expectSettled(client: Client): Promise<void> {
  const all = async (sql: string) => (await client.query<Record<string, unknown>>(sql)).rows
  // The newer stands, with its own work; one of which there is one only is left alone.
  expect(await all('select id from holes order by id')).toEqual([{ id: NEW_HOLE }, { id: ALONE }])
  expect(await all('select id, hole_id from bushings')).toEqual([{ id: NEW_WORK, hole_id: NEW_HOLE }])
  expect(await all('select id from train_sheets')).toEqual([{ id: NEW_SHEET }])
  expect(await all('select count(*)::int as n from strip_marks')).toEqual([{ n: 1 }])
  // What made way is kept in the journal, whole.
  const kept = await all("select about, about_id, text, figures from journal where kind = 'kept'")
  const figures = (of: string) => kept.find((k) => (k.figures as { id: string }).id === of)
  expect(figures(OLD_HOLE)).toMatchObject({ about: 'job', figures: { long_axis_mm: 1, arbor: 'Third' } })
  expect(figures(OLD_WORK)).toMatchObject({ figures: { note: 'older', hole_id: OLD_HOLE } })
  expect(figures(OLD_SHEET)).toMatchObject({
    about: 'clock',
    about_id: CLOCK,
    figures: { arbors: [{ name: 'Great' }] },
  })
  expect(kept).toHaveLength(4)
  // What nothing shows is gone, what a photo shows is not.
  expect(await all('select id from files')).toEqual([{ id: KEPT_FILE }])
  // One line holds one line, and what may hold more is as it was.
  expect(await all('select name from owners')).toEqual([{ name: 'Gull Row' }])
  expect(await all('select marks from clocks')).toEqual([{ marks: 'two\nlines' }])
  expect(await all(`select "values" ->> 'workshop' as workshop from settings`)).toEqual([{ workshop: 'Slip X-EVIL:1' }])
  // And from now on there is one.
  await expect(
    client.query(
      `insert into holes select (jsonb_populate_record(h, jsonb_build_object('id', gen_random_uuid()))).* from holes h`,
    ),
  ).rejects.toThrow(/holes_place/)
}

test('a workshop from before is settled when it is brought up to date, and when its backup is restored', async () => {
  const file = join(folder, 'before.jsonl.gz')
  await withOlder(7, async ({ url, connection, bringUpToDate }) => {
    await runSql(url, BEFORE)
    await withClientAt(url, (client) => writeArchive(client, file))
    await bringUpToDate()
    await expectSettled(connection.pool)
  })
  await withClientAt(restored.adminUrl, async (client) => {
    await readArchive(client, file)
    await expectSettled(client)
  })
})
