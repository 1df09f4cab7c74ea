import { spawnSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { bundle } from './bundle.mjs'
import { withDemoPage } from './demoPage.mjs'
import { machineBeside } from './machine.mjs'
import { ROOT } from './root.mjs'

const RATE = 48_000
const WATCHED_S = 1200
/** Live listening is measured once its window is full, for so long. */
const BEFORE_S = 75
const MEASURED_S = 30
const WEEK_MINUTES = 7 * 24 * 60
const AT_ONCE = 600
/** Notches of the wheel, as many in as out, and so many times over; the first only warms up. */
const FRAMES = 40
const ROUNDS = 9
const SHARE = 0.95
/** The machine is asked so often between one time over and the next. */
const NOTED = 5

/** A recording of the practice clock, as long as is asked. */
async function record(file, seconds) {
  const { PracticeSound, DEFAULT_PRACTICE_CLOCK, encodeWav } = await import(await bundle('core/src/index.ts', 'core'))
  writeFileSync(file, encodeWav(new PracticeSound(DEFAULT_PRACTICE_CLOCK, RATE).next(RATE * seconds), RATE))
}

/** How many times real time a watch of a file goes, and the most memory it takes, MB. */
export async function watchTimes(folder) {
  const file = join(folder, 'watch.wav')
  await record(file, WATCHED_S)
  const tell = join(folder, 'tell.mjs')
  // Not the most that getrusage knows of: that begins with what this process had when it made the other.
  writeFileSync(
    tell,
    `import { readFileSync } from 'node:fs'
process.on('exit', () => process.stderr.write(readFileSync('/proc/self/status', 'utf8').match(/VmHWM:.*kB/)[0]))`,
  )
  const began = process.hrtime.bigint()
  const run = spawnSync(process.execPath, ['--import', tell, join(ROOT, 'scripts/watch.mjs'), file, '--bph', '7200'], {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  })
  if (run.status !== 0) throw new Error(run.stderr)
  const seconds = Number(process.hrtime.bigint() - began) / 1e9
  return { times: WATCHED_S / seconds, megabytes: Number(/VmHWM:\s*(\d+)/.exec(run.stderr)?.[1]) / 1024 }
}

/** How many times real time ten minutes of sound are heard in the browser's worker, from the file chosen to its verdict shown. */
export function workerTimes(folder, seconds) {
  const file = join(folder, 'worker.wav')
  return withDemoPage('School dial', async ({ page, base, jobId }) => {
    await record(file, seconds)
    await page.goto(`${base}/jobs/${jobId}/listen`)
    await page.getByRole('button', { name: 'Practice clock' }).waitFor()
    const began = performance.now()
    await page.locator('input[type="file"]').first().setInputFiles(file)
    await page
      .getByText(/ms out/)
      .first()
      .waitFor({ timeout: 120_000 })
    return (1000 * seconds) / (performance.now() - began)
  })
}

/**
 * Share of one core, per cent, that the page takes while it listens to the practice clock with a full window: its worker,
 * its drawing, the making of the sound, all of its process; less what it takes while it does nothing.
 *
 * @param still - for someone who wants little motion: the bob hangs. Where there is no graphics card the processor puts
 * every frame of its swing together, which has nothing to do with listening.
 */
export function liveShare(still) {
  return withDemoPage('School dial', async ({ page, base, jobId, browser }) => {
    if (still) await page.emulateMedia({ reducedMotion: 'reduce' })
    await page.goto(`${base}/jobs/${jobId}/listen`)
    await page.getByRole('button', { name: 'Practice clock' }).waitFor()
    const idle = await shareOf(browser, page, 10)
    await page.getByRole('button', { name: 'Practice clock' }).click()
    await page.waitForTimeout(1000 * BEFORE_S)
    return Math.max(0, (await shareOf(browser, page, MEASURED_S)) - idle)
  })
}

async function shareOf(browser, page, seconds) {
  const cdp = await browser.newBrowserCDPSession()
  const spent = async () => {
    const { processInfo } = await cdp.send('SystemInfo.getProcessInfo')
    return processInfo.filter((p) => p.type === 'renderer').reduce((sum, p) => sum + p.cpuTime, 0)
  }
  const before = await spent()
  await page.waitForTimeout(1000 * seconds)
  return (100 * ((await spent()) - before)) / seconds
}

/**
 * What 95 of 100 frames take at most, ms, while the chart of a week's watch is zoomed in and out, and the one in which it
 * is drawn finely once it rests; and how slow the machine was. Each frame follows the last as soon as it is drawn, not with
 * the next beat of a screen.
 */
export async function weekFrames() {
  const work = async ({ page, base, jobId }) => {
    const id = globalThis.crypto.randomUUID()
    const put = async (path, body) => {
      const answer = await fetch(`${base}/api/jobs/${jobId}/watches/${id}${path}`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json', 'X-Treadle-Person': 'Bench' },
        body: JSON.stringify(body),
      })
      if (!answer.ok) throw new Error(`watch: ${answer.status} ${await answer.text()}`)
    }
    const began = Date.now() - WEEK_MINUTES * 60_000
    await put('', {
      id,
      version: 0,
      beganAt: new Date(began).toISOString(),
      endedAt: new Date(began + WEEK_MINUTES * 60_000).toISOString(),
      device: '',
      pickup: 'microphone',
      beatsPerHour: 7200,
      ticks: 'every beat',
      ppm: 0,
      ppmError: null,
    })
    for (let from = 0; from < WEEK_MINUTES; from += AT_ONCE)
      await put('/told', {
        minutes: Array.from({ length: Math.min(AT_ONCE, WEEK_MINUTES - from) }, (_, i) => minute(from + i)),
        marks: [],
      })
    await page.goto(`${base}/jobs/${jobId}/watch`)
    await page.locator('canvas').first().waitFor()
    await page.evaluate(() => new Promise((done) => globalThis.requestIdleCallback(() => setTimeout(done, 800))))
    const machine = machineBeside()
    const times = []
    const rests = []
    for (let round = 0; round < ROUNDS; round++) {
      const told = await page.evaluate(zoomed, FRAMES)
      if (round === 0) continue
      times.push(...told.times)
      rests.push(told.restMs)
      for (let i = 0; i < NOTED; i++) machine.note()
    }
    const at = (values) => values.toSorted((a, b) => a - b)[Math.floor(SHARE * values.length)]
    return { ms: at(times), restMs: at(rests), slow: machine.at(SHARE) }
  }
  return withDemoPage('School dial', work, ['--disable-frame-rate-limit', '--disable-gpu-vsync'])
}

function minute(n) {
  return {
    minute: n,
    fromS: 60 * n,
    seconds: 60,
    beatsHeard: 120,
    beatsExpected: 120,
    rateSecondsPerDay: -4 + Math.sin(n / 300) + 0.3 * Math.sin(97 * n),
    rateStandardError: 0.2,
    outOfBeatMs: 1 + 0.1 * Math.sin(31 * n),
    outOfBeatStandardError: 0.05,
    scatterMs: 0.2,
    firstDb: -20 + Math.sin(57 * n),
    secondDb: -22 + Math.sin(43 * n),
    aheadS: (-4 * n) / 1440,
    sinceS: 0,
  }
}

/**
 * In the page: turns the wheel over the chart, a notch a frame, in, rests there, and out as far; how far the frames come
 * apart, and the longest while it rests.
 */
async function zoomed(frames) {
  const canvas = globalThis.document.querySelector('canvas')
  const box = canvas.getBoundingClientRect()
  const frame = () => new Promise((done) => globalThis.requestAnimationFrame(done))
  const times = []
  let restMs = 0
  let last = await frame()
  for (let i = 0; i < frames; i++) {
    if (i === frames / 2)
      for (const end = last + 400; last < end;) {
        const now = await frame()
        restMs = Math.max(restMs, now - last)
        last = now
      }
    canvas.dispatchEvent(
      new globalThis.WheelEvent('wheel', {
        bubbles: true,
        cancelable: true,
        clientX: box.x + box.width / 2,
        clientY: box.y + 100,
        deltaY: i < frames / 2 ? -120 : 120,
      }),
    )
    const now = await frame()
    times.push(now - last)
    last = now
  }
  return { times, restMs }
}
