import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { outOfBeat, recordLimping } from './limping.ts'
import { expect, test } from './workshop.ts'

const file = recordLimping('limping-by-microphone.wav')

// The fake microphone plays the file, sample for sample, but lets its time stamps jump whenever the machine is busy.
test.use({
  launchOptions: {
    executablePath: ensureChromium(),
    args: [...CHROMIUM_FLAGS, `--use-file-for-fake-audio-capture=${file}%noloop`],
  },
  permissions: ['microphone'],
})

// The browser delivers the fake microphone's sound as slowly as a busy machine lets it.
const PATIENCE_MS = 150_000

const NEVER = 1e9

/**
 * Puts a microphone of the test's own in place of the browser's: the recording in blocks of 10 ms, each stamped when
 * it was caught but up to 4 ms late, the last `fall` of every so many never delivered, pulled out after so many blocks; the same on every
 * machine, and faster than by the clock.
 */
async function plugIn(
  page: Page,
  { every = NEVER, fall = 0, blocks = NEVER }: { every?: number; fall?: number; blocks?: number },
): Promise<void> {
  await page.route('**/recording.wav', (route) => route.fulfill({ body: readFileSync(file) }))
  await page.addInitScript(
    ({ every, fall, blocks }) => {
      const FRAMES = 441
      const RATE = 44_100
      navigator.mediaDevices.getUserMedia = async () => {
        const bytes = await (await fetch('/recording.wav')).arrayBuffer()
        const samples = new Int16Array(bytes.slice(44))
        const track = new MediaStreamTrackGenerator({ kind: 'audio' })
        const writer = track.writable.getWriter()
        const play = async () => {
          for (let n = 0; n < blocks && (n + 1) * FRAMES <= samples.length; n++) {
            if (n % 20 === 0) await new Promise((go) => requestAnimationFrame(go))
            if (n % every >= every - fall) continue
            const data = Float32Array.from(samples.subarray(n * FRAMES, (n + 1) * FRAMES), (v) => v / 32_768)
            const timestamp = Math.round(1e6 + n * 1e4 + (n % 3) * 2e3)
            await writer.write(
              new AudioData({
                format: 'f32-planar',
                sampleRate: RATE,
                numberOfFrames: FRAMES,
                numberOfChannels: 1,
                timestamp,
                data,
              }),
            )
          }
          await writer.close()
        }
        play().catch(() => undefined)
        return new MediaStream([track])
      }
    },
    { every, fall, blocks },
  )
}

declare class MediaStreamTrackGenerator extends MediaStreamTrack {
  constructor(init: { kind: 'audio' })
  readonly writable: WritableStream<AudioData>
}

test('a microphone that lets blocks fall gives the beat to 0.3 ms and the rate to its stated error', async ({
  demo,
  page,
}) => {
  await plugIn(page, { every: 400, fall: 5 })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  // Enough beats to judge by.
  const heard = page.getByText(/^\d+ of \d+, \d+ left out/)
  await expect
    .poll(async () => Number(/^(\d+) of/.exec((await heard.textContent()) ?? '')?.[1]), { timeout: PATIENCE_MS })
    .toBeGreaterThan(60)
  await page.getByRole('button', { name: 'Stop listening', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Keep this listening', exact: true })).toBeVisible()
  const [one, two] = await Promise.all(
    [/^one way/, /^the other/].map(async (way) =>
      Number(/[\d.]+/.exec((await page.getByText(way).textContent()) ?? '')?.[0]),
    ),
  )
  expect(Math.abs(Math.abs(one! - two!) / 2 - 21)).toBeLessThan(0.3)
  const rate = await page
    .getByText(/± .* s$/)
    .first()
    .textContent()
  const [, size, error] = /([\d.]+) ± ([\d.]+)/.exec(rate ?? '') ?? []
  expect(Math.abs(Number(size) - 30)).toBeLessThan(3 * Number(error) + 0.5)
  expect(Number(error)).toBeLessThan(2)
  await expect(page.getByText(/s of the sound did not reach the page, in \d+ places; the rest is judged/)).toBeVisible()
})

test('when much of the sound is lost, that is said and nothing is made of it', async ({ demo, page }) => {
  await plugIn(page, { every: 20, fall: 4 })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  await expect(page.getByText(/too busy to listen: [\d.]+ of \d+ s were lost/)).toBeVisible({ timeout: PATIENCE_MS })
  await page.getByRole('button', { name: 'Stop listening', exact: true }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'too busy to listen' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Keep this listening', exact: true })).toBeHidden()
})

test('a microphone that is pulled out is said to have stopped, and what it heard is judged', async ({ demo, page }) => {
  await plugIn(page, { blocks: 3000 })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  await expect(page.getByText(/The microphone stopped after \d+ s\./)).toBeVisible({ timeout: PATIENCE_MS })
  expect(await outOfBeat(page)).toBe(21)
  await expect(page.getByRole('button', { name: 'Keep this listening', exact: true })).toBeVisible()
})

test('a microphone that is pulled out at once is said to be too short a sound', async ({ demo, page }) => {
  await plugIn(page, { blocks: 100 })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  const told = page.getByRole('alert').filter({ hasText: 'The microphone stopped' })
  await expect(told).toBeVisible({ timeout: PATIENCE_MS })
  await expect(page.getByRole('button', { name: 'Microphone', exact: true })).toBeVisible()
})

test('the worklet path tells of a microphone that is pulled out, too', async ({ demo, page }) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(window, 'MediaStreamTrackProcessor')
  })
  await plugIn(page, { blocks: 100 })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'The microphone stopped' })).toBeVisible({
    timeout: PATIENCE_MS,
  })
})

test('the browser’s own microphone is heard by its track, or what was lost of it is told', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  const heard = await page
    .getByText(/ms out of beat/)
    .waitFor({ timeout: 60_000 })
    .then(
      () => true,
      () => false,
    )
  // A machine whose time is taken from it by others loses sound that no page can bring back: then it says so, and says
  // nothing of the beat.
  if (heard) await expect.poll(() => outOfBeat(page), { timeout: PATIENCE_MS }).toBe(21)
  else await expect(page.getByText(/too busy to listen: [\d.]+ of \d+ s were lost/)).toBeVisible()
})

test('the worklet path is heard too; whatever slips there is bridged and counted', async ({ demo, page }) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(window, 'MediaStreamTrackProcessor')
  })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  // Slips shift all later beats alike, so the beat is the clock's own all the same.
  await expect.poll(() => outOfBeat(page), { timeout: PATIENCE_MS }).toBe(21)
})
