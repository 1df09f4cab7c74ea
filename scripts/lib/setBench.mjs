import { randomUUID } from 'node:crypto'
import { withDemoPage } from './demoPage.mjs'

const STEPS = 150
const PRESSES = 40
const WARM = 8

/** 95th percentile, ms, from a press of the foot to the next part of an assembly of 150 steps being shown. */
export async function assemblyPresses() {
  return withDemoPage('Lantern-top shelf clock', async ({ page, base, jobId }) => {
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
    await page.goto(`${base}/jobs/${jobId}/assemble`)
    await page.getByText(`Part ${STEPS}`).first().waitFor()
    return page.evaluate(pressed, { presses: PRESSES, warm: WARM })
  })
}

/** In the page: presses the pedal again and again, each once the next part is shown; how long that took, once warm. */
async function pressed({ presses, warm }) {
  const { document, MutationObserver, KeyboardEvent } = globalThis
  document.activeElement?.blur()
  const heading = () => document.querySelector('section[aria-live] h2')?.textContent ?? ''
  const times = []
  for (let i = 0; i < presses; i++) {
    const before = heading()
    const shown = new Promise((done) => {
      const watch = new MutationObserver(() => {
        if (heading() === before) return
        watch.disconnect()
        done(performance.now())
      })
      watch.observe(document.body, { subtree: true, childList: true, characterData: true })
    })
    const began = performance.now()
    for (const type of ['keydown', 'keyup'])
      document.body.dispatchEvent(new KeyboardEvent(type, { key: 'PageDown', bubbles: true, cancelable: true }))
    times.push((await shown) - began)
    await new Promise((done) => globalThis.requestAnimationFrame(() => setTimeout(done, 60)))
  }
  const warmed = times.slice(warm).sort((a, b) => a - b)
  return warmed[Math.floor(0.95 * warmed.length)]
}
