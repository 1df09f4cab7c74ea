import { outOfBeat, recordLimping } from './limping.ts'
import { expect, test } from './workshop.ts'

const file = recordLimping('limping.wav')

test('a sound file gives beat and remedy; kept, it can be heard again', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.locator('input[type=file]').setInputFiles(file)
  expect(await outOfBeat(page)).toBe(21)
  await expect(page.getByText('7 197.5').first()).toBeVisible()
  await page.getByText('on the right', { exact: true }).click()
  await expect(page.getByText(/Bend the crutch foot 0\.\d mm toward the left corner/)).toBeVisible()
  await page.getByText('on the left', { exact: true }).click()
  await expect(page.getByText(/Bend the crutch foot 0\.\d mm toward the right corner/)).toBeVisible()
  await page.getByRole('button', { name: 'Keep this listening', exact: true }).click()
  await expect(page.getByText('Kept, with its sound.')).toBeVisible()
  await page.reload()
  await page.getByRole('button', { name: 'hear again' }).last().click()
  expect(await outOfBeat(page)).toBe(21)
})

test('a file that is no sound is refused in one sentence', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'letter.wav', mimeType: 'audio/wav', buffer: Buffer.from('Dear Sir, the clock') })
  await expect(page.getByRole('alert')).toContainText('can’t be read as sound')
})

test('the practice clock: a first verdict, then the sides told by the pedal', async ({ demo, page }) => {
  await page.goto(`${demo.url}/practice`)
  await page.getByLabel('Beats an hour').fill('3600')
  await page.getByLabel('Semi-arc, °').fill('4')
  await page.getByRole('button', { name: 'Set it going', exact: true }).click()
  await expect(page.getByText(/ms out of beat/)).toBeVisible()
  // θ = A·sin(2πt/T): the bob is at the right-hand end a quarter of 2.001 s after each passage to the right,
  // and it has gone since the page was opened.
  const period = 2000 * (1 + 42 / 86_400)
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus())
  for (let tap = 0; tap < 5; tap++) {
    await page.evaluate((period) => {
      const now = performance.now()
      const next = (Math.ceil(now / period - 0.25) + 0.25) * period
      return new Promise((resolve) => setTimeout(resolve, next - now))
    }, period)
    await page.keyboard.press('PageDown')
  }
  await expect(page.getByText(/It must swing too far to the right before it drops/)).toBeVisible()
  await expect(page.getByText(/Bend the crutch foot 1\.0 mm toward the left corner/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop it', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Set it going', exact: true })).toBeVisible()
})

test('a practice clock that would stand still is refused by its field', async ({ demo, page }) => {
  await page.goto(`${demo.url}/practice`)
  await page.getByLabel('Release angle, °').fill('7')
  await expect(page.getByText(/must be below semiArcDeg/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Set it going', exact: true })).toBeDisabled()
})
