import { serve } from './serve.mjs'
import { prepareTestDatabases } from './testDatabase.mjs'

const ROUNDS = 30
/** What somebody types while an owner stands at the counter: names, marks, one letter, a number, nothing that is there. */
const WORDS = ['harbour 4', 'kest', 'k', 'scratched 17', '#412', 'owner 49', 'zzzz', 'ar', 'clock', 'bracket 9']
const ASKED = [
  ...WORDS.map((w) => `/api/find?q=${encodeURIComponent(w)}`),
  '/api/clocks?q=kest',
  '/api/clocks',
  '/api/bench',
]

/** 95th percentile in ms of lists and searches, with each of these numbers of jobs on file. */
export async function findTimes(sizes) {
  const prepared = await prepareTestDatabases({ demo: false })
  try {
    const times = []
    for (const jobs of sizes) times.push(await timesWith(prepared.environment.TREADLE_TEST_DATABASE, jobs))
    return times
  } finally {
    prepared.stop()
  }
}

async function timesWith(admin, jobs) {
  const { default: pg } = await import('pg')
  const name = `t_bench_${jobs}`
  const run = async (url, sql) => {
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    await client.query(sql).finally(() => client.end())
  }
  await run(admin, `create database ${name} template t_empty strategy file_copy`)
  const url = admin.replace(/[^/]*$/, name)
  await run(url, filled(jobs))
  // As the database's own housekeeping leaves it after a while.
  await run(url, 'vacuum analyze')
  const { base, stop } = await serve(url)
  const times = []
  for (let round = -3; round < ROUNDS; round++)
    for (const path of ASKED) {
      const began = process.hrtime.bigint()
      const answer = await fetch(base + path)
      await answer.arrayBuffer()
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
      if (round >= 0) times.push(Number(process.hrtime.bigint() - began) / 1e6)
    }
  await stop()
  return times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)]
}

/** So many jobs of half as many clocks and a quarter as many owners; forty of them open, as in a busy shop. */
function filled(jobs) {
  const clocks = Math.ceil(jobs / 2)
  const owners = Math.ceil(jobs / 4)
  return `
    insert into owners select gen_random_uuid(), (array['Harbour','Kestrel','Tarn','Gull','Slip'])[1 + n % 5] || ' owner ' || n, '', ''
      from generate_series(1, ${owners}) n;
    insert into clocks (id, owner_id, name, kind, marks, trains, pendulum)
      select gen_random_uuid(), o.id, (array['Bracket','Long','Wall','Kestrel shelf'])[1 + n % 4] || ' clock ' || n, 'wall',
        'Scratched ' || (n * 17) % 9973, '[{"train":"going","power":"spring"}]', '{"beatsPerHour":null,"windsEveryDays":null}'
      from generate_series(1, ${clocks}) n join (select id, row_number() over () as r from owners) o on o.r = 1 + n % ${owners};
    insert into jobs (id, clock_id, bay, complaint, runs, came_with, received_at, closed_at)
      select gen_random_uuid(), c.id, 'return', 'It stops.', 'runs', '[]', now() - n * interval '1 hour',
        case when n <= 40 then null else now() end
      from generate_series(1, ${jobs}) n join (select id, row_number() over () as r from clocks) c on c.r = 1 + n % ${clocks};`
}
