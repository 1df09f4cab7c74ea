import { withDemoPage } from './demoPage.mjs'
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
const PRESSES = 30
const WARM = 3

/**
 * On every surface that the pedal leads through, with a full job: the 95th percentile of how long a press takes till the
 * next stop is shown, and the longest that the page drew nothing meanwhile, ms; of the worst surface.
 */
export function pedalPresses() {
  return withDemoPage('Round-top drum clock', async ({ page, base, jobId, query }) => {
    await query(sql('full-job', FULL))
    const all = []
    for (const surface of SURFACES) {
      await page.goto(`${base}/jobs/${jobId}/${surface}`)
      await page
        .getByRole('button', { name: /Press|Type|foot/ })
        .last()
        .waitFor()
      await page.evaluate(() => new Promise((done) => globalThis.requestIdleCallback(() => setTimeout(done, 500))))
      const { times, frames } = await page.evaluate(pressed, { presses: PRESSES, warm: WARM })
      if (times.length > 0) all.push({ surface, pressMs: share(times, 0.95), frameMs: Math.max(...frames) })
    }
    const worst = (of) => all.reduce((a, b) => (b[of] > a[of] ? b : a))
    return { all, press: worst('pressMs'), frame: worst('frameMs') }
  })
}

const share = (values, part) => values.toSorted((a, b) => a - b)[Math.floor(part * values.length)]

/**
 * In the page: presses the pedal again and again, each once what the last one led to is shown, as long as it has something
 * to do; how long each took and how far the frames came apart, once warm. Where a second press would flag, the first waits
 * for it: that is no slowness.
 */
async function pressed({ presses, warm }) {
  const { document, MutationObserver, KeyboardEvent, requestAnimationFrame } = globalThis
  document.activeElement?.blur()
  const bar = () => document.querySelector('[class*="bar"] button[class*="press"]')
  const shows = () => `${document.querySelector('#main')?.textContent} ${bar()?.textContent}`
  const times = []
  const frames = []
  let drawing = true
  const draw = (last) =>
    requestAnimationFrame((now) => {
      frames.push(now - last)
      if (drawing) draw(now)
    })
  for (let i = 0; i < presses; i++) {
    if (!bar() || bar().disabled) break
    if (i === warm) draw(performance.now())
    const before = shows()
    const waits = /twice:/.test(bar().parentElement?.textContent ?? '') ? 320 : 0
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
    if (at === null) break
    if (i >= warm) times.push(Math.max(0, at - began - waits))
    await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 120)))
  }
  drawing = false
  return { times, frames: frames.slice(1) }
}
