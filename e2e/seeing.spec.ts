import type { Page } from '@playwright/test'
import type { JobPage } from '@treadle/contract'
import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { fakeCamera } from './fakeCamera.ts'
import { expect, test } from './workshop.ts'

const ARC = 4.4
// Two full swings of 0.9 s, so that the film joins up where it begins again.
const FILM = { semiArcDeg: ARC, seconds: 1.8, periodS: 0.9, fps: 30 }

// The film is drawn only where it is shown.
test.use({
  launchOptions: [
    ({}, use) => use({ executablePath: ensureChromium(), args: [...CHROMIUM_FLAGS, fakeCamera('pendulum', FILM)] }),
    { scope: 'worker' },
  ],
  permissions: ['camera'],
})

const semiArc = async (page: Page, url: string, job: string) =>
  ((await (await page.request.get(`${url}/api/jobs/${job.split('/').at(-1)}`)).json()) as JobPage).clock.pendulum
    .semiArcDeg

test('the camera sees the swing: its arc is told, kept by the pedal and taken back by holding it', async ({
  demo,
  page,
}) => {
  const job = await demo.job('School dial')
  const before = await semiArc(page, demo.url, job)
  await page.goto(`${job}/swing`)
  await expect(page.getByText('Press to open the camera')).toBeVisible()
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus())
  await page.keyboard.press('PageDown')
  await expect(page.getByText(/^Press to keep \d/)).toBeVisible({ timeout: 60_000 })
  // Where pictures come late the page says by how much it is the less sure.
  const sureTo = Number(/sure to ±([\d.]+)°/.exec(await page.locator('#main').innerText())![1])
  expect(sureTo).toBeLessThan(0.6)
  await page.keyboard.press('PageDown')
  await expect(page.getByRole('button', { name: 'Kept as its semi-arc' })).toBeVisible()
  await expect.poll(() => semiArc(page, demo.url, job)).not.toBe(before)
  expect(Math.abs((await semiArc(page, demo.url, job))! - ARC)).toBeLessThan(0.05 * ARC + sureTo)
  await page.keyboard.down('PageDown')
  await expect(page.getByRole('button', { name: 'Keep as its semi-arc' })).toBeVisible()
  await page.keyboard.up('PageDown')
  await expect.poll(() => semiArc(page, demo.url, job)).toBe(before)
})

test('from a tapped suspension, and a scale that can’t be is refused by its field', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/swing`)
  await page.getByRole('button', { name: 'Practice clock' }).click()
  await expect(page.getByText(/by the line of its rod; sure to/)).toBeVisible({ timeout: 60_000 })
  await page.getByText('by two strokes of an arc scale in the picture').click()
  await expect(page.getByText('Tap the left of the two.')).toBeVisible()
  const picture = page.locator('canvas')
  const box = (await picture.boundingBox())!
  const tap = (x: number, y: number) => page.mouse.click(box.x + (x / 320) * box.width, box.y + (y / 240) * box.height)
  await tap(100, 200)
  await expect(page.getByText('Tap the right of the two.')).toBeVisible()
  await tap(103, 200)
  await page.getByLabel('Between the two strokes').fill('10')
  await page.getByLabel('Between the two strokes').press('Enter')
  await expect(page.getByRole('alert').filter({ hasText: 'at least 10 pixels apart' })).toBeVisible()
  await page.getByText('from where it hangs, seen in the picture').click()
  await tap(160, 4)
  await expect(page.getByText(/from where it hangs; sure to/)).toBeVisible({ timeout: 60_000 })
})

test('the bob is led by hand: where it drops is seen and heard, and what puts it in beat is said', async ({
  demo,
  page,
}) => {
  await page.goto(`${await demo.job('School dial')}/swing`)
  await page.getByRole('button', { name: 'Practice clock' }).click()
  await expect(page.getByText(/by the line of its rod; sure to/)).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Lead the bob by hand' }).click()
  await expect(page.getByText('Lead it slowly to the right until it clicks.')).toBeVisible()
  const slider = page.getByRole('slider', { name: 'Lead of the practice bob' })
  const angle = page.locator('[aria-live=off]').filter({ hasText: '°' })
  await slider.focus()
  // To the right past its drop, to the left past the other, three times; each step is seen before the next.
  let at = 0
  const lead = async (to: number) => {
    const toward = Math.sign(to - at)
    while (Math.abs(to - at) > 0.05) {
      at += 0.1 * toward
      await slider.press(toward > 0 ? 'ArrowRight' : 'ArrowLeft')
      const shown = [Math.abs(at) - 0.1, Math.abs(at), Math.abs(at) + 0.1].map((deg) => `^${Math.abs(deg).toFixed(1)}°`)
      await expect(angle).toHaveText(new RegExp(shown.join('|')))
    }
  }
  await lead(2.6)
  await lead(-2.2)
  await expect(page.getByText(/Move it across to the right again/)).toBeVisible()
  await lead(2.6)
  await lead(-2.2)
  await expect(page.getByText(/^Drops 2\.\d\d° to the right and 1\.\d\d° to the left of plumb/)).toBeVisible()
  const words = (await page.getByText(/^Release \d/).textContent())!
  const [, release, error, stands] = /Release ([\d.]+)° ± ([\d.]+)°.*stands ([\d.]+)°/.exec(words)!.map(Number)
  // Two of its errors, and what a step of the slider hides.
  expect(Math.abs(release! - 2)).toBeLessThan(2 * error! + 0.05)
  expect(Math.abs(stands! - 0.3)).toBeLessThan(0.15)
  await expect(
    page.getByText(/Raise the left side|crutch foot .* toward the left|Swing the bottom .* to the left/).first(),
  ).toBeVisible()
  // What the practice clock does is nobody’s figure.
  await expect(page.getByRole('button', { name: 'Keep its release angle' })).toBeHidden()
  await page.getByRole('button', { name: 'Let the bob go', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Lead the bob by hand' })).toBeVisible()
})

test('which tick is right is seen, and no press is asked for', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/listen`)
  await page.getByRole('button', { name: 'Practice clock' }).click()
  await page.getByRole('button', { name: 'See which side, by the camera' }).click()
  await expect(page.getByText(/^The first tick is the (left|right) one\.$/)).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Stop listening' }).click()
  // The practice clock of this page stands off to the right.
  await expect(
    page.getByText(/Raise the left side|crutch foot .* toward the left|Swing the bottom .* to the left/).first(),
  ).toBeVisible()
})

test('a file that is no film ends in a sentence', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/swing`)
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'letter.mp4', mimeType: 'video/mp4', buffer: Buffer.from('Dear Sir, the clock') })
  await expect(page.getByRole('alert')).toContainText('letter.mp4 can’t be played here')
})
