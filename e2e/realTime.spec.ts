import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { recordLimping } from './limping.ts'
import { expect, test } from './workshop.ts'

const file = recordLimping('limping-in-real-time.wav')

// The browser's fake microphone plays the file by the clock.
test.use({
  launchOptions: {
    executablePath: ensureChromium(),
    args: [...CHROMIUM_FLAGS, `--use-file-for-fake-audio-capture=${file}%noloop`],
  },
  permissions: ['microphone'],
})

// For what hangs; a busy machine reads the sound slowly.
const PATIENCE_MS = 150_000

declare class MediaStreamTrackGenerator extends MediaStreamTrack {
  constructor(init: { kind: 'audio' })
  readonly writable: WritableStream<AudioData>
}

test('the worklet path tells of a microphone that is pulled out, too', async ({ demo, page }) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(window, 'MediaStreamTrackProcessor')
    navigator.mediaDevices.getUserMedia = async () => {
      const track = new MediaStreamTrackGenerator({ kind: 'audio' })
      setTimeout(() => void track.writable.getWriter().close(), 1000)
      return new MediaStream([track])
    }
  })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'The microphone stopped' })).toBeVisible({
    timeout: PATIENCE_MS,
  })
})

test('the browser’s own microphone is opened untouched, its sound comes, and it is let go of', async ({
  demo,
  page,
}) => {
  await page.addInitScript(() => {
    const { mediaDevices } = navigator
    const open = mediaDevices.getUserMedia.bind(mediaDevices)
    mediaDevices.getUserMedia = async (asked) => {
      const stream = await open(asked)
      Object.assign(window, { opened: stream.getAudioTracks()[0] })
      return stream
    }
  })
  const opened = () =>
    page.evaluate(() => {
      const { opened } = window as unknown as { opened: MediaStreamTrack }
      const { echoCancellation, noiseSuppression, autoGainControl } = opened.getSettings()
      return { state: opened.readyState, changed: [echoCancellation, noiseSuppression, autoGainControl].some(Boolean) }
    })
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  // It runs by the clock: of what a busy machine loses anything may be judged, but something was heard and judged. That
  // the beat is right is tested above, where nothing hangs on the machine.
  await expect(page.getByText(/ms out of beat|^\d+ s\. (?!A first verdict)/).first()).toBeVisible({
    timeout: PATIENCE_MS,
  })
  expect(await opened()).toEqual({ state: 'live', changed: false })
  await page.getByRole('button', { name: 'Stop listening', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Microphone', exact: true })).toBeVisible()
  expect((await opened()).state).toBe('ended')
})
