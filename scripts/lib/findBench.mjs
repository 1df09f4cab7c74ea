import { serve } from './serve.mjs'
import { prepareTestDatabases } from './testDatabase.mjs'
import { sql } from './sql.mjs'

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
  return sql('jobs-to-find', { jobs, clocks, owners })
}
