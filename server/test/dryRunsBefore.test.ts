import { expect, test } from 'vitest'
import { withOlder } from './olderDatabase.ts'
import { runSql } from './workshop.ts'

test('what was said once of all trains becomes a run of each, as it is brought up to date', async () => {
  await withOlder(10, async ({ url, connection, bringUpToDate }) => {
    const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`
    const trains = JSON.stringify([
      { train: 'going', power: 'weight' },
      { train: 'strike', power: 'spring' },
    ])
    await runSql(
      url,
      `insert into owners (id, name, phone, address) values ('${id(0)}', 'Gull Row', '', '');
       insert into clocks (id, owner_id, name, kind, marks, trains, pendulum)
         values ('${id(1)}', '${id(0)}', 'Kitchen clock', 'wall', '', '${trains}', '{}');
       insert into jobs (id, clock_id, bay, complaint, runs, came_with, received_at)
         values ('${id(2)}', '${id(1)}', 'set', 'It stops.', 'stops', '[]', now());
       insert into rate_events (id, job_id, at, kind, note, who) values
         ('${id(3)}', '${id(2)}', '2026-03-01T09:00:00Z', 'dry', '', 'Ida'),
         ('${id(4)}', '${id(2)}', '2026-03-02T09:00:00Z', 'dry', '', 'Ida'),
         ('${id(5)}', '${id(2)}', '2026-03-03T09:00:00Z', 'oiled', '', 'Ida');`,
    )
    await bringUpToDate()
    const all = async (sql: string) => (await connection.pool.query<Record<string, unknown>>(sql)).rows
    expect(await all('select train, driven_by, verdict, amount, ran_at, who from dry_runs order by train')).toEqual([
      ...(['going', 'strike'] as const).map((train) => ({
        train,
        driven_by: train === 'going' ? 'grams' : 'turns',
        verdict: 'free',
        amount: null,
        ran_at: new Date('2026-03-02T09:00:00Z'),
        who: 'Ida',
      })),
    ])
    expect(await all('select kind, showed from rate_events')).toEqual([{ kind: 'oiled', showed: '' }])
  })
})
