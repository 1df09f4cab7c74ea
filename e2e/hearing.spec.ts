import { randomUUID } from 'node:crypto'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import type { JobPage, WatchPage } from '@treadle/contract'
import { encodeWav } from '@treadle/core'
import { clockSound } from '../core/test/clockSound.ts'
import { strikeSound } from '../core/test/strikeSound.ts'
import { watchSound } from '../core/test/watchSound.ts'
import { send, taken } from './taken.ts'
import { expect, open, test } from './workshop.ts'

const FOLDER = join(import.meta.dirname, '..', 'test-results')

function record(name: string, samples: Float32Array, sampleRate: number): string {
  mkdirSync(FOLDER, { recursive: true })
  const path = join(FOLDER, name)
  writeFileSync(path, encodeWav(samples, sampleRate))
  return path
}

/** Four minutes of a clock that strikes three and stops. */
function recordWatch(): string {
  const rate = 16_000
  const samples = new Float32Array(rate * 240)
  let at = 0
  watchSound(
    { seconds: 240, sampleRate: rate, rateSecondsPerDay: 20, strikes: [{ atS: 65, blows: 3 }], stopsAtS: 200 },
    (block) => {
      samples.set(block, at)
      at += block.length
    },
  )
  return record('watch.wav', samples, rate)
}

declare class MediaStreamTrackGenerator extends MediaStreamTrack {
  constructor(init: { kind: 'audio' })
}

/**
 * Puts a recording in the place of the microphone: blocks of 10 ms, made when the page asks for them.
 *
 * @param rocked - the device says how it lies as the recording goes, and the page's own time is the recording's
 * @param pulledOut - the microphone is pulled out where the recording ends, so that all of it is judged, on any machine;
 *   otherwise the silence of a room comes after it
 */
async function playToMicrophone(page: Page, file: string, { rocked = false, pulledOut = false } = {}): Promise<void> {
  await page.route('**/recording.wav', (route) => route.fulfill({ body: readFileSync(file) }))
  await page.addInitScript(
    ({ rocked, pulledOut }) => {
      const lies = (gamma: number) => window.dispatchEvent(new DeviceOrientationEvent('deviceorientation', { gamma }))
      if (rocked) window.addEventListener('load', () => setInterval(() => lies(0), 100), { once: true })
      const RATE = 24_000
      const FRAMES = 240
      let samples = new Int16Array()
      navigator.mediaDevices.getUserMedia = async () => {
        samples = new Int16Array((await (await fetch('/recording.wav')).arrayBuffer()).slice(44))
        return new MediaStream([new MediaStreamTrackGenerator({ kind: 'audio' })])
      }
      class Processor {
        readonly readable: ReadableStream<AudioData>
        constructor() {
          let n = 0
          const began = Date.now()
          if (rocked) Date.now = () => began + 10 * n
          this.readable = new ReadableStream<AudioData>(
            {
              async pull(to) {
                if (n % 20 === 0) await new Promise((resolve) => setTimeout(resolve))
                if (pulledOut && n * FRAMES >= samples.length) {
                  to.close()
                  return
                }
                if (rocked && n % 5 === 0) lies(0.8 * Math.sin((2 * Math.PI * Math.max(0, n - 900)) / 900))
                to.enqueue(
                  new AudioData({
                    format: 'f32-planar',
                    sampleRate: RATE,
                    numberOfFrames: FRAMES,
                    numberOfChannels: 1,
                    timestamp: Math.round(1e6 + n * 1e4),
                    // Silence of a room after its end.
                    data: Float32Array.from(
                      { length: FRAMES },
                      (_, i) => (samples[n * FRAMES + i] ?? (i % 7) - 3) / 32_768,
                    ),
                  }),
                )
                n++
              },
            },
            { highWaterMark: 0 },
          )
        }
      }
      ;(window as unknown as { MediaStreamTrackProcessor: unknown }).MediaStreamTrackProcessor = Processor
    },
    { rocked, pulledOut },
  )
}

test('a long recording is watched minute by minute: its strike, its stop, the sound about it, and on another device', async ({
  demo,
  page,
  browser,
}) => {
  const job = await demo.job('School dial')
  await page.goto(`${job}/watch`)
  await expect(page.getByText('No watch has been kept')).toBeVisible()
  await page.locator('input[type=file]').setInputFiles(recordWatch())
  await expect(page.getByText(/^It stopped /)).toBeVisible({ timeout: 60_000 })
  const marks = page.getByRole('list', { name: 'Heard besides the beat' })
  await expect(marks).toContainText('struck 3')
  await expect(marks).toContainText('silent from then on')
  await expect(marks.getByRole('link', { name: 'its sound' })).toBeVisible()
  await expect(page.getByText('4 minutes written down')).toBeVisible()
  const id = job.split('/').at(-1)
  const whole = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as JobPage
  const watch = whole.watches.at(-1)!
  const { minutes } = (await (await page.request.get(`${demo.url}/api/watches/${watch.id}`)).json()) as WatchPage
  expect(minutes).toHaveLength(4)
  expect(Math.abs(minutes[1]!.rateSecondsPerDay! - 20)).toBeLessThan(2)
  await expect
    .poll(
      async () =>
        ((await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as JobPage).watches.at(-1)!.endedAt,
    )
    .not.toBeNull()
  const other = await browser.newPage()
  await other.goto(`${job}/watch`)
  await expect(other.getByText(/^It stopped /)).toBeVisible()
  await other.close()
})

test('a watch by the practice clock goes on while other pages are open, and is ended by the pedal', async ({
  demo,
  page,
}) => {
  const job = await demo.job('School dial')
  await page.goto(`${job}/watch`)
  await page.getByRole('button', { name: 'Practice clock' }).click()
  await expect(page.getByText(/^Watching, /)).toBeVisible()
  await page.getByRole('link', { name: 'Rate', exact: true }).click()
  await expect(page).toHaveURL(/\/rate$/)
  await page.getByRole('link', { name: 'Watch', exact: true }).click()
  await expect(page.getByText('Press to end the watch')).toBeVisible()
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus())
  await page.keyboard.press('PageDown')
  await expect(page.getByText(/^Watched for /)).toBeVisible()
  await expect(page.getByText('Press to go on: its trial')).toBeVisible()
})

test('a file that is no sound ends in a sentence, and the watch can be left', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/watch`)
  await page
    .locator('input[type=file][accept*=wav]')
    .setInputFiles({ name: 'letter.wav', mimeType: 'audio/wav', buffer: Buffer.from('Dear Sir, the clock') })
  await expect(page.getByRole('alert')).toContainText('not a WAV file')
  await page.getByRole('button', { name: 'End the watch' }).click()
  await expect(page.getByRole('button', { name: 'Begin another watch' })).toBeEnabled()
})

test('the teeth, the wheels and the knocks of a clock are shown, and the chalked tooth counted from', async ({
  demo,
  page,
}) => {
  const { samples, sampleRate } = clockSound({
    beatsPerHour: 7200,
    seconds: 80,
    sampleRate: 16_000,
    unevenMs: 3,
    wobble: [{ periodS: 30, ms: 0.8 }],
    bent: { teeth: 30, late: { 7: 4 } },
  })
  await page.goto(`${await demo.job('Assembly-room chiming clock')}/listen`)
  await page.locator('input[type=file]').setInputFiles(record('wobble.wav', samples, sampleRate))
  await expect(page.getByRole('heading', { name: 'The wheels in its beat' })).toBeVisible({ timeout: 60_000 })
  await expect(page.getByText(/Escape: every 30 s it comes early and late by 0\.[789] ms/)).toBeVisible()
  await expect(page.getByText(/Third: listen for 15 min, 3 of its turns/)).toBeVisible()
  await expect(page.getByText(/tooth \d+ drops [345]\.\d ms late/).first()).toBeVisible()
  await expect(page.getByRole('heading', { name: 'What a tick is made of' })).toBeVisible()
})

test('the chalked tooth is named by the foot while it is heard', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Assembly-room chiming clock')}/listen`)
  await page.getByRole('button', { name: 'Practice clock' }).click()
  await page.getByRole('button', { name: 'Name it by the foot' }).click({ timeout: 60_000 })
  await expect(page.getByText('Press as the chalked tooth drops')).toBeVisible()
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus())
  await page.keyboard.press('PageDown')
  await expect(page.getByText('Press as the chalked tooth drops')).toBeHidden()
  await page.getByRole('button', { name: 'Stop listening' }).click()
})

test.describe('by the microphone', () => {
  test.use({ permissions: ['microphone'] })

  test('a strike is counted, kept by itself once it is quiet, and the next hour asked for', async ({ demo, page }) => {
    const struck = strikeSound({
      on: 'bell',
      blowsS: [4, 5.5, 7, 8.5, 10],
      clock: { sampleRate: 24_000, seconds: 18, beatsPerHour: 7200 },
    })
    await playToMicrophone(page, record('five.wav', struck.samples, struck.sampleRate))
    const job = await demo.job('Long café clock')
    await page.goto(`${job}/strike?show=count&at=5:0`)
    await page.getByText('by the microphone', { exact: true }).click()
    await page.getByRole('button', { name: 'Hear it strike' }).click()
    const id = job.split('/').at(-1)
    const countOfFive = async () => {
      const { strikeCounts } = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as JobPage
      return strikeCounts.find((c) => c.hour === 5 && c.quarter === 0)
    }
    await expect.poll(async () => (await countOfFive())?.way, { timeout: 60_000 }).toBe('microphone')
    expect((await countOfFive())!.blows).toBe(5)
  })
})

test('the sound card is compared in the background, and what is kept is this device’s own', async ({ demo, page }) => {
  await page.goto(`${demo.url}/settings`)
  await expect(page.getByText('This device’s sound card has not been compared')).toBeVisible()
  await page.getByRole('button', { name: 'Compare with the computer’s clock' }).click()
  await expect(page.getByText(/^Comparing, \d+ s/)).toBeVisible()
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await page.getByRole('link', { name: 'Settings', exact: true }).click()
  await page.getByRole('button', { name: 'Stop comparing' }).click()
  await page.evaluate(() =>
    localStorage.setItem(
      'treadle-own-clock',
      JSON.stringify({ ppm: -20, standardError: 60, seconds: 300, at: '2026-06-01T08:00:00Z' }),
    ),
  )
  const { samples, sampleRate } = clockSound({ beatsPerHour: 7200, seconds: 30, sampleRate: 16_000, unevenMs: 3 })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.locator('input[type=file]').setInputFiles(record('even.wav', samples, sampleRate))
  // A file was recorded by another device: this one’s card says nothing of it.
  await expect(page.getByText(/the sound card’s own clock not yet known/)).toBeVisible({ timeout: 60_000 })
  await page.goto(`${demo.url}/settings`)
  await expect(page.getByText(/This device’s sound card runs 20\.0 ppm slow, ± 60\.0 ppm/)).toBeVisible()
  await page.getByRole('button', { name: 'Forget it' }).click()
  await expect(page.getByText('This device’s sound card has not been compared')).toBeVisible()
})

test('beside a watch: warmth typed and by a logger, the rate laid against it, its hours into the rate book', async ({
  demo,
  page,
}) => {
  const job = await demo.job('Assembly-room chiming clock')
  await page.goto(`${job}/watch`)
  await expect(page.getByText(/^45 temperatures, from/)).toBeVisible()
  await page.getByText('temperature, °C', { exact: true }).click()
  await expect(page.getByText(/without a break it loses/)).toBeVisible()
  await page.getByText('time of day', { exact: true }).click()
  await page.getByLabel('It is now').fill('300')
  await page.getByLabel('It is now').press('Enter')
  await expect(page.getByText('It is now: from −40 to 60')).toBeVisible()
  await page.getByLabel('It is now').fill('19,5')
  await page.getByLabel('It is now').press('Enter')
  await expect(page.getByText(/^46 temperatures, from/)).toBeVisible()
  const logger = page.locator('input[type=file]').last()
  await logger.setInputFiles({ name: 'old.csv', mimeType: 'text/csv', buffer: Buffer.from('2001-01-01 10:00,20') })
  await expect(page.getByText('None of its temperatures lies in the time of this watch.')).toBeVisible()
  await page.getByRole('button', { name: 'Give the hours it struck to its rate book' }).click()
  await expect(page.getByText(/^Kept: 1[01] readings by the strike/)).toBeVisible()
  await page.getByRole('button', { name: 'Take them back' }).click()
  await expect(page.getByText(/readings by the strike/)).toBeHidden()
  // Its own rate is in the book without anybody’s doing.
  await open(page, `${job}/rate`)
  await expect(page.getByRole('status').first()).toContainText(/^(Gains|Loses) /)
})

test.describe('a clock of a known rate', () => {
  test.use({ permissions: ['microphone'] })

  test('tells how far this device’s sound card is off, and that is kept', async ({ demo, page }) => {
    // A time signal, heard by a card that runs 100 ppm fast, seems to lose.
    const pips = clockSound({
      beatsPerHour: 3600,
      seconds: 300,
      sampleRate: 24_000,
      rateSecondsPerDay: -8.64,
      scatterMs: 0.05,
    })
    await playToMicrophone(page, record('pips.wav', pips.samples, pips.sampleRate), { pulledOut: true })
    await page.goto(`${demo.url}/settings`)
    await page.getByText('Against a clock whose rate is known, or a time signal').click()
    await page.getByRole('button', { name: 'Listen to it' }).click()
    await expect(page.getByText(/^After \d+ s: (9\d|10\d)\.\d ppm fast/)).toBeVisible()
    await page.getByRole('button', { name: 'Keep it for this device' }).click()
    await expect(page.getByText(/This device’s sound card runs (9\d|10\d)\.\d ppm fast/)).toBeVisible()
  })
})

test.describe('a telephone on the case', () => {
  test.use({ permissions: ['microphone'] })

  test('finds the even footing while the case is rocked, and says the packing', async ({ demo, page }) => {
    // It stands still for nine seconds first.
    const rock = (s: number) => 12 * (0.8 * Math.sin((2 * Math.PI * Math.max(0, s - 9)) / 9) - 0.3)
    const { samples, sampleRate } = clockSound({ beatsPerHour: 7200, seconds: 60, sampleRate: 24_000, rock })
    await playToMicrophone(page, record('rocked.wav', samples, sampleRate), { rocked: true })
    await page.setViewportSize({ width: 390, height: 844 })
    const job = await demo.job('School dial')
    await page.goto(`${job}/footing`)
    await expect(page.getByText('Press to listen while you rock the case')).toBeVisible()
    await page.getByRole('button', { name: 'Listen and rock it' }).click()
    await expect(page.getByText(/^Even at 0\.\d\d° to the right of how it stood/)).toBeVisible({ timeout: 60_000 })
    await page.getByRole('button', { name: 'Enough', exact: true }).click()
    const words = await page.getByText(/^Even at/).textContent()
    expect(Math.abs(Number(/([\d.]+)°/.exec(words!)![1]) - 0.3)).toBeLessThan(0.12)
    await expect(
      page.getByText(/Raise the left side|crutch foot .* toward the left|Swing the bottom .* to the left/).first(),
    ).toBeVisible()
    await page.getByRole('button', { name: 'Keep where it is even', exact: true }).click()
    await expect(page.getByText(/in beat at 0\.\d\d° to the right/)).toBeVisible()
    await open(page, `${job}/journal`)
    await expect(page.getByText(/Rocked: in beat at 0\.\d\d° to the right/)).toBeVisible()
    await open(page, `${job}/footing`)
    await page.getByRole('button', { name: 'Take back' }).click()
    await expect(page.getByText('Kept on this visit')).toBeHidden()
  })

  test('where it feels no tilt a level is typed instead', async ({ demo, page }) => {
    await page.goto(`${await demo.job('School dial')}/footing`)
    await expect(page.getByText(/This device feels no tilt/)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Listen and rock it' })).toBeDisabled()
    await page.getByLabel('What the level reads').fill('0.4')
    await page.getByLabel('What the level reads').press('Enter')
    await expect(page.getByText('0.4° to the right')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Listen and rock it' })).toBeEnabled()
  })

  test('the practice clock is leant by its slider until its even point is told; nothing of it is kept', async ({
    demo,
    page,
  }) => {
    await page.goto(`${await demo.job('School dial')}/footing`)
    await page.getByRole('button', { name: 'Practice clock' }).click()
    await expect(page.getByText('Rock it gently through the even point')).toBeVisible({ timeout: 60_000 })
    const slider = page.getByRole('slider', { name: 'Lean of the practice clock' })
    await slider.focus()
    const even = page.getByText(/^Even at 0\.\d\d° to the right of how it stood/)
    for (const key of ['ArrowLeft', 'ArrowRight', 'ArrowLeft', 'ArrowRight'])
      for (let press = 0; press < 6; press++) {
        const before = await page
          .getByText(/\d+ swings?/)
          .first()
          .textContent()
        await slider.press(key)
        // One more swing at least at every lean.
        await expect(page.getByText(/\d+ swings?/).first()).not.toHaveText(before ?? '')
      }
    await expect(even).toBeVisible()
    await page.getByRole('button', { name: 'Enough', exact: true }).click()
    await expect(page.getByRole('button', { name: 'Keep where it is even' })).toBeHidden()
  })
})

test('a recording from the owner is laid over how the clock left: it was moved, and what it struck', async ({
  own,
  page,
}) => {
  const clock = { beatsPerHour: 7200, seconds: 40, sampleRate: 16_000, scatterMs: 0.15, seed: 4 }
  const left = clockSound({ ...clock, unevenMs: 1 })
  const moved = strikeSound({
    on: 'bell',
    blowsS: [12, 13.5, 15],
    loud: 0.3,
    clock: { ...clock, unevenMs: 14, seed: 5 },
  })
  const job = await taken(own)
  await page.goto(`${job.address}/listen`)
  await page.locator('input[type=file]').setInputFiles(record('left.wav', left.samples, left.sampleRate))
  await page.getByRole('button', { name: 'Keep this listening', exact: true }).click()
  await expect(page.getByText('Kept, with its sound.')).toBeVisible()
  const { version, name, kind, marks, trains, pendulum, work, id: clockId } = (await job.read()).clock
  const strike = { kind: 'rack', halves: 'none', pinArbor: null, pins: null, lockingArbor: null }
  const changed = { version, name, kind, marks, trains, pendulum: { ...pendulum, semiArcDeg: 4.5 } }
  await send(own, 'PATCH', `/clocks/${clockId}`, { ...changed, work: { ...work, strike } })
  const footing = { way: 'level', stoodAtDeg: 0, evenAtDeg: -0.42, standardError: 0.04, msPerDeg: 12, swings: 60 }
  const footingId = randomUUID()
  await send(own, 'PUT', `/jobs/${job.id}/footings/${footingId}`, { ...footing, id: footingId, version: 0 })
  await send(own, 'POST', `/jobs/${job.id}/call-off`, { reason: 'The owner took it home.' })
  await page.goto(`${own.url}/clocks/${(await job.read()).clock.id}`)
  await page.locator('input[type=file]').setInputFiles(record('moved.wav', moved.samples, moved.sampleRate))
  await expect(page.getByText(/Clearly it stands otherwise than when it left/)).toBeVisible({ timeout: 60_000 })
  await expect(page.getByText(/Ask whether it was moved/)).toBeVisible()
  await expect(page.getByText(/swinging 4\.5° either way; in beat at 0\.42° to the left, by a level/)).toBeVisible()
  await expect(page.getByText(/it strikes 3, 1[12] s in.* Ask what hour its hands showed/)).toBeVisible()
})
