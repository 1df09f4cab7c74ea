import { randomUUID } from 'node:crypto'
import type { RunningTimer } from '@treadle/contract'
import { seriousOf } from './serious.ts'
import { VIEWS, viewsOf } from './views.ts'
import { expect, open, test } from './workshop.ts'

/** So many views to a test, that no test is long and every worker has its share. */
const AT_ONCE = 7
const groups = Array.from({ length: Math.ceil(VIEWS / AT_ONCE) }, (_, i) => i)

test.describe('every main view', () => {
  test.describe.configure({ mode: 'parallel' })
  test.use({ colorScheme: 'light' })

  for (const group of groups)
    test(`nothing serious stands in anybody’s way on any main view in either theme, nor runs off a tablet’s or a phone’s side, ${group + 1} of ${groups.length}`, async ({
      demo,
      page,
    }) => {
      const addresses = await viewsOf(demo)
      for (const address of addresses.slice(group * AT_ONCE, (group + 1) * AT_ONCE)) {
        await page.setViewportSize({ width: 1280, height: 800 })
        await page.emulateMedia({ colorScheme: 'light' })
        await open(page, address)
        await page.locator('#main').getByRole('heading').first().waitFor()
        await expect(page.getByLabel('Fetching', { exact: true })).toHaveCount(0)
        expect(await seriousOf(page)).toEqual([])
        // What is not known is left open, and never said as a figure.
        const words = await page.locator('body').innerText()
        expect(words, address).not.toMatch(/\b(NaN|undefined|null|Infinity)\b|\[object/)
        // The theme changes colours and nothing else.
        await page.emulateMedia({ colorScheme: 'dark' })
        await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark')
        expect(await seriousOf(page, ['color-contrast']), 'under the lamp').toEqual([])
        await page.setViewportSize({ width: 820, height: 1100 })
        const over = () =>
          page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
        await expect.poll(over, { message: `pixels that ${address} runs over` }).toBe(0)
        await page.setViewportSize({ width: 390, height: 800 })
        await expect.poll(over, { message: `pixels that ${address} runs over on a phone` }).toBe(0)
      }
    })
})

test('the card prints on one A5 sheet, without the page about it', async ({ demo, page }) => {
  const over: RunningTimer = {
    ...{ id: randomUUID(), jobId: randomUUID(), clock: 'Kitchen clock' },
    ...{ title: 'Rust bath', endsAt: new Date().toISOString() },
  }
  await page.route('**/api/timers', (route) => route.fulfill({ json: [over] }))
  await page.goto(`${await demo.job('Light-keeper’s bracket clock')}/card`)
  // A bath of another clock is over, and that is called out on whatever page one is.
  const called = page.getByText('Kitchen clock: Rust bath')
  await expect(called).toBeVisible()
  await expect(page.getByRole('article', { name: 'The owner’s card' })).toContainText(
    /one full turn of the nut to the right gains about \d+ seconds a day/,
  )
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeHidden()
  await expect(page.getByRole('button', { name: 'Print the card' })).toBeHidden()
  await expect(called).toBeHidden()
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
  expect(pdf.match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1)
  // A5 is 148 by 210 mm: 419.5 by 595.3 points.
  expect(pdf).toMatch(/\/MediaBox\s*\[0 0 (419|420)[\d.]* 59[45][\d.]*\]/)
})

test('the skip link leads past the places, and ? lists the keys', async ({ demo, page }) => {
  await page.goto(demo.url)
  await expect(page.getByRole('heading', { name: 'Now' })).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('link', { name: 'Skip to the work' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.locator('#main')).toBeFocused()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys and pedal' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog', { name: 'Keys and pedal' })).toBeHidden()
})

test('a pedal that sends another key is taught it', async ({ demo, page }) => {
  await page.goto(`${demo.url}/settings`)
  await page.getByRole('button', { name: 'Teach it your pedal' }).click()
  await page.keyboard.press('F8')
  await expect(page.getByText('It sends “F8”.')).toBeVisible()
  await open(page, `${await demo.job('Light-keeper’s bracket clock')}/rate`)
  const rows = page.getByText('reading by pedal, minute hand on the mark')
  await expect(rows.first()).toBeVisible()
  const before = await rows.count()
  await page.keyboard.press('F8')
  await expect(rows).toHaveCount(before + 1)
  // Held, the same key takes it back: the rate is another test's too.
  await page.keyboard.down('F8')
  await expect(rows).toHaveCount(before)
  await page.keyboard.up('F8')
})

test('the reckoner answers as one types, and names a wrong field', async ({ demo, page }) => {
  await page.goto(`${demo.url}/reckoner/beat.offset`)
  await expect(page.getByRole('row', { name: /Offset/ })).toContainText('0.5')
  await page.getByLabel('Release angle').fill('6')
  await expect(page.getByText(/must be below semiArcDeg \(5\)/).first()).toBeVisible()
})
