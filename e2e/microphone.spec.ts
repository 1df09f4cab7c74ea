import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { outOfBeat, recordLimping } from './limping.ts'
import { expect, test } from './workshop.ts'

const file = recordLimping('limping-by-microphone.wav')

// The fake microphone plays the file, sample for sample.
test.use({
  launchOptions: {
    executablePath: ensureChromium(),
    args: [...CHROMIUM_FLAGS, `--use-file-for-fake-audio-capture=${file}%noloop`],
  },
  permissions: ['microphone'],
})

// The browser delivers the fake microphone's sound as slowly as a busy machine lets it; what arrives is exact.
test.setTimeout(240_000)
const PATIENCE_MS = 150_000

test('the track’s own samples give the beat to 0.3 ms and the rate to its stated error', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Microphone', exact: true }).click()
  await outOfBeat(page)
  // Enough beats to judge by.
  await expect
    .poll(
      async () =>
        Number(/^(\d+) of/.exec((await page.getByText(/^\d+ of \d+, \d+ left out/).textContent()) ?? '')?.[1]),
      { timeout: PATIENCE_MS },
    )
    .toBeGreaterThan(30)
  await page.getByRole('button', { name: 'Stop listening', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Keep this listening', exact: true })).toBeVisible()
  const bar = (await page.getByText(/^one way/).textContent()) ?? ''
  const other = (await page.getByText(/^the other/).textContent()) ?? ''
  const [one, two] = [bar, other].map((text) => Number(/[\d.]+/.exec(text)?.[0]))
  expect(Math.abs(Math.abs(one! - two!) / 2 - 21)).toBeLessThan(0.3)
  const rate =
    (await page
      .getByText(/± .* s$/)
      .first()
      .textContent()) ?? ''
  const [, size, error] = /([\d.]+) ± ([\d.]+)/.exec(rate) ?? []
  expect(Math.abs(Number(size) - 30)).toBeLessThan(3 * Number(error) + 0.5)
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
