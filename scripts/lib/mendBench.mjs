import { withDemoPage } from './demoPage.mjs'
import { serve } from './serve.mjs'
import { prepareTestDatabases } from './testDatabase.mjs'
import { sql } from './sql.mjs'

const DONORS = 5000
const ROUNDS = 60
/** Moves of a drag, and those of its first way to and fro, while the page's scripts are still being made quick. */
const MOVES = 180
const WARM = 60

/** 95th percentile, ms, of asking which of 5,000 donors fit a wheel. */
export async function donorTimes() {
  const prepared = await prepareTestDatabases({ demo: false })
  const { default: pg } = await import('pg')
  const admin = prepared.environment.TREADLE_TEST_DATABASE
  const url = admin.replace(/[^/]*$/, 't_bench_donors')
  const run = async (to, sql) => {
    const client = new pg.Client({ connectionString: to })
    await client.connect()
    await client.query(sql).finally(() => client.end())
  }
  try {
    await run(admin, 'create database t_bench_donors template t_empty strategy file_copy')
    await run(url, sql('donors', { donors: DONORS }))
    await run(url, 'vacuum analyze')
    const { base, stop } = await serve(url)
    const times = []
    for (let round = -5; round < ROUNDS; round++) {
      const began = process.hrtime.bigint()
      const count = 40 + (Math.max(0, round) % 50)
      const answer = await fetch(
        `${base}/api/donors/fitting?kind=wheel&count=${count}&moduleMm=0.6&boreMm=4&outsideMm=45`,
      )
      await answer.arrayBuffer()
      if (!answer.ok) throw new Error(`donors: ${answer.status}`)
      if (round >= 0) times.push(Number(process.hrtime.bigint() - began) / 1e6)
    }
    await stop()
    return times.sort((a, b) => a - b)[Math.floor(0.95 * times.length)] ?? 0
  } finally {
    prepared.stop()
  }
}

/**
 * What 98 of 100 frames take at most, ms, while the pallets of the demo's clock in pieces are dragged: all that the page
 * does for one move of the hand, its drawing included. The rest are the machine's own pauses.
 */
export async function palletFrames() {
  return withDemoPage('Round-top drum clock', async ({ page, base, jobId }) => {
    await page.goto(`${base}/jobs/${jobId}/escapement`)
    await page.getByRole('img', { name: /Escape wheel of 30/ }).waitFor()
    await page.evaluate(() => new Promise((done) => globalThis.requestIdleCallback(() => setTimeout(done, 800))))
    return page.evaluate(dragged, { moves: MOVES, warm: WARM, grip: 'arbor' })
  })
}

/** The same while the mercury of the demo's regulator is dragged in its jar, in the laboratory. */
export async function laboratoryFrames() {
  return withDemoPage('Harbour regulator', async ({ page, base, jobId }) => {
    await page.goto(`${base}/jobs/${jobId}/pendulum`)
    await page.getByRole('slider', { name: /Mercury/ }).waitFor()
    await page.evaluate(() => new Promise((done) => globalThis.requestIdleCallback(() => setTimeout(done, 800))))
    return page.evaluate(dragged, { moves: MOVES, warm: WARM, grip: 'jar' })
  })
}

/** In the page: drags a part of the drawing down and up, a move a frame; how long the work of a frame took, once warm. */
async function dragged({ moves, warm, grip: name }) {
  const grip = globalThis.document.querySelector(`[data-grip="${name}"]`)
  const box = grip.getBoundingClientRect()
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const fire = (type, dy) =>
    grip.dispatchEvent(
      new globalThis.PointerEvent(type, { bubbles: true, pointerId: 1, clientX: x, clientY: y + dy, buttons: 1 }),
    )
  grip.setPointerCapture = () => undefined
  fire('pointerdown', 0)
  const frame = () => new Promise((done) => globalThis.requestAnimationFrame(done))
  // Behind what the page does for the move, its drawing included.
  const worked = () =>
    new Promise((done) => {
      const channel = new globalThis.MessageChannel()
      channel.port1.onmessage = () => done(performance.now())
      channel.port2.postMessage(null)
    })
  const times = []
  for (let i = 0; i < moves; i++) {
    await frame()
    const began = performance.now()
    fire('pointermove', 40 * Math.sin((i * Math.PI) / 30))
    await worked()
    grip.getBoundingClientRect()
    times.push((await worked()) - began)
  }
  fire('pointerup', 0)
  const warmed = times.slice(warm).sort((a, b) => a - b)
  return warmed[Math.floor(0.98 * warmed.length)]
}
