import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { outOfBeat, recordLimping } from './limping.ts'
import { expect, test } from './workshop.ts'

const file = recordLimping('limping-by-microphone.wav')

// For what hangs; a busy machine reads the sound slowly.
const PATIENCE_MS = 150_000

const NEVER = 1e9

/**
 * Puts a microphone of the test's own in place of the browser's: the recording in blocks of 10 ms, each stamped when
 * it was caught but up to 4 ms late, the last `fall` of every so many never delivered, pulled out after so many blocks.
 * A block is made when the page asks for one, so that it is the same on every machine, and faster than by the clock.
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
      let samples = new Int16Array()
      navigator.mediaDevices.getUserMedia = async () => {
        const bytes = await (await fetch('/recording.wav')).arrayBuffer()
        samples = new Int16Array(bytes.slice(44))
        return new MediaStream([new MediaStreamTrackGenerator({ kind: 'audio' })])
      }
      const block = (n: number) =>
        new AudioData({
          format: 'f32-planar',
          sampleRate: RATE,
          numberOfFrames: FRAMES,
          numberOfChannels: 1,
          timestamp: Math.round(1e6 + n * 1e4 + (n % 3) * 2e3),
          data: Float32Array.from(samples.subarray(n * FRAMES, (n + 1) * FRAMES), (v) => v / 32_768),
        })
      class Processor {
        readonly readable: ReadableStream<AudioData>
        constructor() {
          let n = 0
          this.readable = new ReadableStream<AudioData>(
            {
              async pull(to) {
                while (n % every >= every - fall) n++
                // The page gets its turn to show what it hears.
                if (n % 20 === 0) await new Promise((go) => requestAnimationFrame(go))
                if (n >= blocks || (n + 1) * FRAMES > samples.length) to.close()
                else to.enqueue(block(n++))
              },
            },
            { highWaterMark: 0 },
          )
        }
      }
      Object.assign(window, { MediaStreamTrackProcessor: Processor })
    },
    { every, fall, blocks },
  )
}

/**
 * Lets the page hear the recording by its audio graph, as a browser without track processors does: the same worklet,
 * fed by a context that renders as fast as it can instead of by the clock, and pulled out once the page has all of it:
 * a page that is given a minute in a moment judges while it listens as seldom as its share of the time allows.
 */
async function plugIntoGraph(page: Page): Promise<void> {
  await page.route('**/recording.wav', (route) => route.fulfill({ body: readFileSync(file) }))
  await page.addInitScript(() => {
    const RATE = 44_100
    // The worklet hands over 32 blocks of 128 at once, and these are all of them.
    const BLOCK = 32 * 128
    const ALL = Math.floor((60 * RATE) / BLOCK)
    Reflect.deleteProperty(window, 'MediaStreamTrackProcessor')
    let samples = new Int16Array()
    const track = new MediaStreamTrackGenerator({ kind: 'audio' })
    navigator.mediaDevices.getUserMedia = async () => {
      const bytes = await (await fetch('/recording.wav')).arrayBuffer()
      samples = new Int16Array(bytes.slice(44))
      return new MediaStream([track])
    }
    class Counted extends AudioWorkletNode {
      constructor(...given: ConstructorParameters<typeof AudioWorkletNode>) {
        super(...given)
        let got = 0
        this.port.addEventListener('message', () => {
          if (++got === ALL) setTimeout(() => track.dispatchEvent(new Event('ended')))
        })
      }
    }
    class Rendered extends OfflineAudioContext {
      constructor() {
        super(1, ALL * BLOCK, RATE)
      }
      createMediaStreamSource() {
        const source = this.createBufferSource()
        source.buffer = this.createBuffer(1, samples.length, RATE)
        source.buffer.copyToChannel(
          Float32Array.from(samples, (v) => v / 32_768),
          0,
        )
        source.start()
        return source
      }
      override async resume() {
        void this.startRendering()
      }
      async close() {
        // It ends with what it renders.
      }
    }
    Object.assign(window, { AudioContext: Rendered, AudioWorkletNode: Counted })
  })
}

declare class MediaStreamTrackGenerator extends MediaStreamTrack {
  constructor(init: { kind: 'audio' })
  readonly writable: WritableStream<AudioData>
}

test('a microphone that lets blocks fall gives the beat to 0.3 ms and the rate to its stated error', async ({
  demo,
  page,
}) => {
  // It ends by itself after a minute: what is judged is the same on every machine.
  await plugIn(page, { every: 400, fall: 5, blocks: 6000 })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Keep this listening', exact: true })).toBeVisible({
    timeout: PATIENCE_MS,
  })
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

test('the worklet path hears the same beat', async ({ demo, page }) => {
  await plugIntoGraph(page)
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  await expect(page.getByText(/The microphone stopped after 60 s\./)).toBeVisible({ timeout: PATIENCE_MS })
  expect(await outOfBeat(page)).toBe(21)
})
