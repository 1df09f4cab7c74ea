import type { Browser, Page } from '@playwright/test'
import { expect, test, type Workshop } from './workshop.ts'

/** The same page in two windows, as two people have it open. */
async function two(browser: Browser, address: string, ready: (page: Page) => Promise<unknown>): Promise<[Page, Page]> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
  const pages: [Page, Page] = [await context.newPage(), await context.newPage()]
  for (const page of pages) {
    await page.goto(address)
    await ready(page)
  }
  return pages
}

const dialog = (page: Page) => page.getByRole('dialog', { name: 'Somebody changed this meanwhile' })

async function job(own: Workshop, page: Page): Promise<string> {
  await page.goto(`${own.url}/take-in`)
  await page.getByLabel('Owner *').fill('Gull Row')
  await page.getByLabel('What you call it *').fill('Kitchen clock')
  await page.getByLabel('In the owner’s words *').fill('Stops.')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Kitchen clock' })).toBeVisible()
  return page.url().replace(/\/arrive$/, '')
}

test('the owner’s words in two windows: both are shown, and theirs can be taken', async ({ own, page, browser }) => {
  const address = await job(own, page)
  const words = (p: Page) => p.getByLabel('In the owner’s words')
  const [mine, theirs] = await two(browser, `${address}/arrive`, (p) => expect(words(p)).toHaveValue('Stops.'))
  await words(mine).fill('Stops at night.')
  await words(theirs).fill('Stops in the cold.')
  await theirs.getByRole('button', { name: 'Keep these' }).click()
  await expect(theirs.getByRole('button', { name: 'Keep these' })).toBeDisabled()
  await mine.getByRole('button', { name: 'Keep these' }).click()
  const row = dialog(mine).getByRole('row', { name: /In the owner’s words/ })
  await expect(row).toContainText('Stops at night.')
  await expect(row).toContainText('Stops in the cold.')
  await dialog(mine).getByRole('button', { name: 'Take theirs' }).click()
  await expect(words(mine)).toHaveValue('Stops in the cold.')
  await mine.context().close()
})

test('a clock’s figures in two windows: mine can be kept', async ({ own, page, browser }) => {
  const address = await job(own, page)
  const beats = (p: Page) => p.getByLabel('Beats an hour')
  const keep = (p: Page) => p.getByRole('button', { name: 'Keep the figures' })
  const [mine, theirs] = await two(browser, `${address}/arrive`, (p) => expect(beats(p)).toBeVisible())
  await beats(mine).fill('7200')
  await beats(theirs).fill('9000')
  await keep(theirs).click()
  await expect(keep(theirs)).toBeDisabled()
  await keep(mine).click()
  await expect(dialog(mine)).toBeVisible()
  await dialog(mine).getByRole('button', { name: 'Keep mine' }).click()
  await expect(keep(mine)).toBeDisabled()
  await mine.reload()
  await expect(beats(mine)).toHaveValue('7200')
  await mine.context().close()
})

test('a step of the strip log in two windows', async ({ own, page, browser }) => {
  const address = await job(own, page)
  await page.goto(`${address}/strip`)
  await page.getByLabel('What comes off').fill('Dial')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 step, 1 part out')).toBeVisible()
  const [mine, theirs] = await two(browser, `${address}/strip`, (p) =>
    expect(p.getByRole('button', { name: 'Change step 1' })).toBeVisible(),
  )
  for (const p of [mine, theirs]) await p.getByRole('button', { name: 'Change step 1' }).click()
  const change = async (p: Page, marks: string) => {
    await p.getByLabel('Marks', { exact: true }).last().fill(marks)
    await p.getByRole('button', { name: 'Keep the change' }).click()
  }
  await change(theirs, 'two dots')
  await expect(theirs.getByText('Case and dial tray; two dots')).toBeVisible()
  await change(mine, 'one dot')
  await expect(dialog(mine).getByRole('row', { name: /Marks/ })).toContainText('two dots')
  await dialog(mine).getByRole('button', { name: 'Keep mine' }).click()
  await expect(mine.getByText('Case and dial tray; one dot')).toBeVisible()
  await mine.context().close()
})

test('settings in two windows', async ({ own, browser }) => {
  const place = (p: Page) => p.getByLabel('Place', { exact: true })
  const keep = (p: Page) => p.getByRole('button', { name: 'Keep the settings' })
  const [mine, theirs] = await two(browser, `${own.url}/settings`, (p) => expect(place(p)).toBeVisible())
  await place(mine).fill('Upper lane')
  await place(theirs).fill('Lower lane')
  await keep(theirs).click()
  await expect(keep(theirs)).toBeDisabled()
  await keep(mine).click()
  await expect(dialog(mine).getByRole('row', { name: /Place/ })).toContainText('Lower lane')
  await dialog(mine).getByRole('button', { name: 'Keep mine' }).click()
  await expect(keep(mine)).toBeDisabled()
  await mine.reload()
  await expect(place(mine)).toHaveValue('Upper lane')
  await mine.context().close()
})

test('the clock’s trains can be put right after it came in', async ({ own, page }) => {
  const address = await job(own, page)
  await page.goto(`${address}/arrive`)
  await page.getByLabel('Power of the going train').selectOption('fusee')
  await page.getByRole('checkbox', { name: 'Strike train' }).check()
  await page.getByRole('button', { name: 'Keep the figures' }).click()
  await expect(page.getByText('Kept.', { exact: true }).first()).toBeVisible()
  await page.goto(`${address}/power`)
  await expect(page.getByRole('heading', { name: /Going train, spring and fusee/ })).toBeVisible()
  await expect(page.getByRole('checkbox', { name: /The set-up is off/ })).toBeVisible()
  await expect(page.getByRole('heading', { name: /Strike train, mainspring in its barrel/ })).toBeVisible()
})

test('the counts of one train, begun in two windows: there is one sheet, and mine can be kept in it', async ({
  own,
  page,
  browser,
}) => {
  const address = await job(own, page)
  const wheel = (p: Page) => p.getByLabel('Wheel of Great')
  const keep = (p: Page) => p.getByRole('button', { name: 'Keep the counts', exact: true })
  const [mine, theirs] = await two(browser, `${address}/trains`, (p) => expect(wheel(p)).toBeVisible())
  for (const [p, count] of [
    [mine, '96'],
    [theirs, '84'],
  ] as const) {
    await wheel(p).fill(count)
    await p.getByLabel('Pinion of Centre').fill('8')
  }
  await keep(theirs).click()
  await expect(keep(theirs)).toBeDisabled()
  await keep(mine).click()
  await expect(dialog(mine)).toBeVisible()
  await dialog(mine).getByRole('button', { name: 'Keep mine' }).click()
  await expect(dialog(mine)).toHaveCount(0)
  await expect(keep(mine)).toBeDisabled()
  await mine.reload()
  await expect(wheel(mine)).toHaveValue('96')
  await mine.context().close()
})

test('who changed the settings, and what they were, can be looked through', async ({ own, page }) => {
  await page.goto(`${own.url}/settings`)
  await page.getByLabel('Trial', { exact: true }).fill('14')
  await page.getByRole('button', { name: 'Keep the settings' }).click()
  await expect(page.getByText('Kept.', { exact: true })).toBeVisible()
  await page.getByText('Look through it').click()
  await expect(page.getByText('Trial: 7 → 14')).toBeVisible()
  await expect(page.getByText(/Nobody makes them here/)).toBeVisible()
})
