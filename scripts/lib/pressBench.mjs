import { randomUUID } from 'node:crypto'
import { withDemoPage } from './demoPage.mjs'
import { machineBeside } from './machine.mjs'
import { sql } from './sql.mjs'

/** What years leave on one job. */
const FULL = { readings: 200, holes: 40, photos: 30 }
/** Surfaces that the pedal leads through, with something for it to do on the demo's drum clock. */
const SURFACES = [
  'holes',
  'observe',
  'strip',
  'clean',
  'between-plates',
  'pivots',
  'bushings',
  'wheels',
  'rate',
  'condition',
]
const STEPS = 150
const PRESSES = 40
const WARM = 3
const SHARE = 0.95

/** Presses on every surface that the pedal leads through, with a full job; and on an assembly of 150 steps. */
export async function pedalPresses() {
  const full = await withDemoPage('Round-top drum clock', async (demo) => {
    await demo.query(sql('full-job', FULL))
    const all = []
    for (const surface of SURFACES) all.push(await presses(demo, surface))
    return all
  })
  const assembled = await withDemoPage('Lantern-top shelf clock', async (demo) => {
    await takeApart(demo)
    return presses(demo, 'assemble')
  })
  return [...full, assembled]
}

/** A movement that came apart in so many steps. */
async function takeApart({ base, jobId }) {
  for (let i = 1; i <= STEPS; i++) {
    const id = randomUUID()
    const row = { id, version: 0, position: i, part: `Part ${i}`, tray: 'case', screws: '', marks: '', remark: '' }
    const answer = await fetch(`${base}/api/jobs/${jobId}/strip-steps/${id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ ...row, count: 1, photoId: null, back: false, notBack: '' }),
    })
    if (!answer.ok) throw new Error(`strip-steps: ${answer.status}`)
  }
}

/**
 * The 95th percentile of how long a press takes till the next stop is shown, and the longest that the page drew nothing
 * meanwhile, ms; each with how slow the machine was then. Of a surface on which there was nothing to press there is no time.
 */
async function presses({ page, base, jobId }, surface) {
  await page.goto(`${base}/jobs/${jobId}/${surface}`)
  await page
    .getByRole('button', { name: /Press|Type|foot/ })
    .last()
    .waitFor()
  await page.evaluate(() => new Promise((done) => globalThis.requestIdleCallback(() => setTimeout(done, 500))))
  const machine = machineBeside()
  const times = []
  const frames = []
  for (let i = 0; i < PRESSES; i++) {
    const told = await page.evaluate(pressed)
    if (!told) break
    if (i < WARM) continue
    times.push(told.ms)
    frames.push(told.frameMs)
    machine.note()
  }
  return {
    surface,
    pressMs: times.toSorted((a, b) => a - b)[Math.floor(SHARE * times.length)],
    pressSlow: machine.at(SHARE),
    frameMs: Math.max(...frames),
    frameSlow: machine.at(1),
  }
}

/**
 * In the page: presses the pedal once and waits for what that leads to; how long it took, and how far two frames came
 * apart from then until it was at rest again. Nothing, once there is nothing left to press. Where a second press would
 * flag, the first waits for it: that is no slowness.
 */
async function pressed() {
  const { document, MutationObserver, KeyboardEvent, requestAnimationFrame } = globalThis
  document.activeElement?.blur()
  const bar = () => document.querySelector('[class*="bar"] button[class*="press"]')
  const shows = () => `${document.querySelector('#main')?.textContent} ${bar()?.textContent}`
  if (!bar() || bar().disabled) return null
  // A press so soon after the last would be the second of two.
  const waits = /twice:/.test(bar().parentElement?.textContent ?? '') ? 320 : 0
  await new Promise((done) => setTimeout(done, waits))
  let frameMs = 0
  let drawing = true
  const draw = (last) =>
    requestAnimationFrame((now) => {
      if (!drawing) return
      frameMs = Math.max(frameMs, now - last)
      draw(now)
    })
  await new Promise((done) => requestAnimationFrame((now) => done(draw(now))))
  const before = shows()
  const shown = new Promise((done) => {
    const giveUp = setTimeout(() => done(null), 3000)
    const watch = new MutationObserver(() => {
      if (shows() === before) return
      clearTimeout(giveUp)
      watch.disconnect()
      done(performance.now())
    })
    watch.observe(document.body, { subtree: true, childList: true, characterData: true })
  })
  const began = performance.now()
  for (const type of ['keydown', 'keyup'])
    document.body.dispatchEvent(new KeyboardEvent(type, { key: 'PageDown', bubbles: true, cancelable: true }))
  const at = await shown
  if (at === null) return null
  await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 150)))
  drawing = false
  return { ms: Math.max(0, at - began - waits), frameMs }
}
