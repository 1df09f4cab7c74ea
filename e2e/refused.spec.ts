import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { expect, press, test } from './workshop.ts'

// No fake device and nobody to say yes: the browser refuses.
test.use({
  launchOptions: { executablePath: ensureChromium(), args: CHROMIUM_FLAGS.filter((flag) => !flag.includes('fake')) },
})

test('a refused microphone is explained, with what to do', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/listen`)
  await expect(page.getByRole('button', { name: 'Microphone', exact: true })).toBeVisible()
  await press(page)
  await expect(page.getByRole('alert')).toContainText(/microphone/)
  await expect(page.getByRole('alert')).toContainText(/use a sound file/)
  await expect(page.getByRole('button', { name: 'Sound file' })).toBeEnabled()
})
