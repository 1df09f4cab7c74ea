import { randomUUID } from 'node:crypto'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { CHROMIUM_FLAGS, ensureChromium } from './chromium.mjs'
import { ROOT } from './root.mjs'
import { serve } from './serve.mjs'
import { prepareTestDatabases } from './testDatabase.mjs'

/** A photo of 12 million points. */
const PHOTO = { width: 4000, height: 3000 }

/**
 * The longest interaction, ms, by the browser's own event timing, while plates are moved, enlarged and tapped over a
 * photo of 12 MP.
 */
export async function plateInteraction() {
  const prepared = await prepareTestDatabases({ demo: true })
  const { chromium } = await import('@playwright/test')
  const browser = await chromium.launch({ executablePath: ensureChromium(), args: CHROMIUM_FLAGS })
  const { base, stop } = await serve(prepared.environment.TREADLE_TEST_DATABASE.replace(/[^/]*$/, 't_demo'))
  try {
    const job = await withPhoto(base)
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    await page.goto(`${base}/jobs/${job}/plates?do=set-out`)
    await page.waitForFunction(() => globalThis.document.querySelector('img[src*="/screen"]')?.complete)
    const arbor = page.getByRole('button', { name: /^Third arbor going/ })
    await arbor.click()
    const stood = await arbor.textContent()
    // The page has come to rest: it is moving and tracing that is measured, not opening it.
    await page.mouse.move(350, 480)
    await page.evaluate(() => new Promise((done) => globalThis.requestIdleCallback(() => setTimeout(done, 500))))
    await page.evaluate(() => {
      globalThis.longest = 0
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) globalThis.longest = Math.max(globalThis.longest, duration)
      }).observe({ type: 'event', durationThreshold: 16, buffered: false })
    })
    for (let i = 0; i < 12; i++) await page.mouse.wheel(0, -120)
    await page.mouse.down()
    for (let i = 0; i < 20; i++) await page.mouse.move(350 + 5 * i, 480 - 4 * i)
    await page.mouse.up()
    // Looked at closely, the original is laid there instead of the screen's copy.
    await page.waitForFunction(() => globalThis.document.querySelector('img[src*="/original"]')?.complete)
    // Each tap puts the arbor there; no faster than a hand aims.
    for (const [x, y] of await page.evaluate(bareBrass)) {
      await page.mouse.click(x, y)
      await page.evaluate(() => new Promise((done) => setTimeout(done, 250)))
    }
    if ((await arbor.textContent()) === stood) throw new Error('The taps did not place the arbor.')
    for (let i = 0; i < 12; i++) await page.mouse.wheel(0, 120)
    // The browser times keys, but neither the wheel nor the moves between press and release.
    await page.getByRole('group', { name: /plate, to scale/ }).focus()
    for (const key of ['+', '+', '+', 'ArrowLeft', 'ArrowUp', 'ArrowRight', '-', '-', '0']) {
      await page.keyboard.press(key)
      // No faster than a key held down repeats.
      await page.evaluate(() => new Promise((done) => setTimeout(done, 33)))
    }
    await page.evaluate(() => new Promise((done) => globalThis.requestAnimationFrame(() => setTimeout(done, 100))))
    return await page.evaluate(() => globalThis.longest)
  } finally {
    await stop()
    await browser.close()
    prepared.stop()
  }
}

/** Four places on the drawing where no hole is hit, in pixels of the page. */
function bareBrass() {
  const places = []
  for (let x = 200; x < 700; x += 20)
    for (let y = 300; y < 600; y += 20) {
      const hit = globalThis.document.elementFromPoint(x, y)
      if (hit?.closest('svg') && !hit.closest('[role=button]')) places.push([x, y])
    }
  return [0.2, 0.4, 0.6, 0.8].map((share) => places[Math.floor(share * places.length)])
}

/** Lays such a photo under the plates of the demo's clock in pieces; gives back its job. */
async function withPhoto(base) {
  const bench = await (await fetch(`${base}/api/bench`)).json()
  const { job } = bench.tags.find((t) => t.clock.name === 'Round-top drum clock')
  // The server's own library, from where the server has it.
  const sharp = createRequire(join(ROOT, 'server', 'package.json'))('sharp')
  const noise = { type: 'gaussian', mean: 150, sigma: 40 }
  const bytes = await sharp({ create: { ...PHOTO, channels: 3, background: '#b98f3e', noise } })
    .jpeg()
    .toBuffer()
  const photoId = randomUUID()
  await send('PUT', `${base}/api/jobs/${job.id}/photos/${photoId}?caption=Large`, bytes, 'image/jpeg')
  const { plateMap } = await (await fetch(`${base}/api/jobs/${job.id}`)).json()
  const map = { ...plateMap }
  delete map.clockId
  const trueing = [0.035, 0, -70, 0, -0.035, 52, 0, 0, 1]
  const body = JSON.stringify({ ...map, photoId, trueing })
  await send('PUT', `${base}/api/jobs/${job.id}/plates/${map.id}`, body, 'application/json')
  return job.id
}

async function send(method, url, body, type) {
  const answer = await fetch(url, { method, headers: { 'Content-Type': type }, body })
  if (!answer.ok) throw new Error(`${method} ${url}: ${await answer.text()}`)
}
