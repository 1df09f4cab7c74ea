import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { machineBeside } from './machine.mjs'
import { ROOT } from './root.mjs'
import { serve } from './serve.mjs'
import { prepareTestDatabases } from './testDatabase.mjs'
import { sql } from './sql.mjs'

const OPEN_JOBS = 40
const AT_ONCE = 500
const OPEN_ON_THE_BENCH = 500
const FULL_JOB = { readings: 200, holes: 40, photos: 30 }
const WARMED = 20
const ASKED = 100
/** A photo of 24 million points. */
const LARGE = { width: 6000, height: 4000 }

/**
 * Medians in ms of 500 requests sent at once, with 40 open jobs on file as full as the demo's: of the health route, the
 * Bench, a job's page, and a press of the pedal, each against a server that has nothing else to do.
 */
export function loadTimes() {
  return withFilled([asManyOpen(OPEN_JOBS)], async (base, fullest) => {
    const times = {}
    for (const [name, path] of [
      ['health', '/api/health'],
      ['bench', '/api/bench'],
      ['job', `/api/jobs/${fullest}`],
      ['stock', '/api/stock'],
    ])
      times[name] = await median(() => fetch(base + path))
    return times
  })
}

/** The most memory the server ever held, MB, while twelve photos of some 24 MB each are sent to it at once. */
export async function photoMemory() {
  const prepared = await prepareTestDatabases({ demo: true })
  try {
    const { base, pid, stop } = await serve(prepared.environment.TREADLE_TEST_DATABASE.replace(/[^/]*$/, 't_demo'))
    const { tags } = await (await fetch(`${base}/api/bench`)).json()
    const sharp = createRequire(join(ROOT, 'server', 'package.json'))('sharp')
    const noise = { type: 'gaussian', mean: 128, sigma: 60 }
    const bytes = await sharp({ create: { ...LARGE, channels: 3, background: '#b98f3e', noise } })
      .jpeg({ quality: 93 })
      .toBuffer()
    const sent = await Promise.all(
      Array.from({ length: 12 }, () =>
        fetch(`${base}/api/jobs/${tags[0].job.id}/photos/${randomUUID()}`, {
          method: 'PUT',
          headers: { 'Content-Type': 'image/jpeg' },
          body: bytes,
        }),
      ),
    )
    const refused = sent.find((answer) => answer.status !== 201)
    if (refused) throw new Error(`A photo of ${bytes.length} bytes: ${refused.status} ${await refused.text()}`)
    const most = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))
    await stop()
    return Number(most[1]) / 1000
  } finally {
    prepared.stop()
  }
}

/**
 * 95th percentiles, ms, asked one after another as a person does, and how slow the machine was: the Bench with 500 open
 * jobs, and the page of a full job.
 */
export function pageTimes() {
  return withFilled([sql('full-job', FULL_JOB), asManyOpen(OPEN_ON_THE_BENCH)], async (base, fullest) => ({
    bench: await inTurn(() => fetch(`${base}/api/bench`)),
    job: await inTurn(() => fetch(`${base}/api/jobs/${fullest}`)),
  }))
}

/** Work at a server of its own, whose demo was filled by these statements; it is told its address and the fullest job. */
async function withFilled(statements, work) {
  const prepared = await prepareTestDatabases({ demo: true })
  const url = prepared.environment.TREADLE_TEST_DATABASE.replace(/[^/]*$/, 't_demo')
  try {
    const { default: pg } = await import('pg')
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    for (const statement of statements) await client.query(statement)
    await client.end()
    const { base, stop } = await serve(url)
    const { tags } = await (await fetch(`${base}/api/bench`)).json()
    const fullest = tags.find((t) => t.clock.name === 'Round-top drum clock').job.id
    return await work(base, fullest).finally(stop)
  } finally {
    prepared.stop()
  }
}

async function inTurn(ask) {
  const machine = machineBeside()
  const times = []
  for (let i = 0; i < WARMED + ASKED; i++) {
    const began = performance.now()
    const answer = await ask()
    await answer.arrayBuffer()
    if (!answer.ok) throw new Error(`${answer.url}: ${answer.status}`)
    if (i < WARMED) continue
    times.push(performance.now() - began)
    machine.note()
  }
  return { ms: times.sort((a, b) => a - b)[Math.floor(0.95 * ASKED)], slow: machine.at(0.95) }
}

async function median(ask) {
  // Once to warm up, as a workshop is.
  await (await ask()).arrayBuffer()
  const times = await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      const began = performance.now()
      const answer = await ask()
      await answer.arrayBuffer()
      if (!answer.ok) throw new Error(`${answer.url}: ${answer.status}`)
      return performance.now() - began
    }),
  )
  return times.sort((a, b) => a - b)[AT_ONCE / 2]
}

/** Makes the demo's open jobs, each with all its rows, as many as these: clocks, holes, readings, steps and all. */
function asManyOpen(wanted) {
  return sql('as-many-open', { wanted })
}
