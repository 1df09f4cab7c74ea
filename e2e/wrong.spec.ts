import { taken } from './taken.ts'
import { expect, press, test } from './workshop.ts'

test('impossible caliper figures are refused at the field, and what was typed stays', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Round-top drum clock')}/holes`)
  await page.getByRole('button', { name: /Hole \d+: going train, Pallet arbor, back/ }).click()
  await expect(page.getByRole('heading', { name: 'Pallet arbor, back plate' })).toBeVisible()
  const long = page.getByLabel(/^Long way/)
  const short = page.getByLabel(/^Short way/)
  await long.fill('1.10')
  await short.fill('1.30')
  await expect(page.getByRole('alert')).toContainText('The short way can’t be above the long way, 1.10 mm.')
  await expect(short).toHaveValue('1.30')
  await expect(short).toHaveAttribute('aria-invalid', 'true')
  // Enter does not leave a wrong field behind.
  await short.focus()
  await page.keyboard.press('Enter')
  await expect(short).toBeFocused()
  await short.fill('1.02')
  await page.getByLabel(/^Pivot/).fill('1.20')
  await expect(page.getByRole('alert')).toContainText('The pivot can’t be larger than its hole')
  // Half-typed figures outlive a reload.
  await page.reload()
  await page.getByRole('button', { name: /Hole \d+: going train, Pallet arbor, back/ }).click()
  await expect(page.getByRole('heading', { name: 'Pallet arbor, back plate' })).toBeVisible()
  await expect(page.getByLabel(/^Pivot/)).toHaveValue('1.20')
  // The other unit shows the same hole.
  await page.getByLabel(/^Pivot/).fill('')
})

test('the wear direction is tapped on the dial', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Round-top drum clock')}/holes`)
  await page.getByRole('button', { name: /Hole \d+: strike train, Warning arbor, back/ }).click()
  await expect(page.getByRole('heading', { name: 'Warning arbor, back plate' })).toBeVisible()
  const picture = page.getByRole('img', { name: /not measured yet/ })
  const box = (await picture.boundingBox())!
  await page.mouse.click(box.x + box.width * 0.9, box.y + (box.height * 250) / 530)
  await expect(page.getByLabel(/^Worn toward/)).toHaveValue('3:00')
})

test('two tabs change one hole: both are shown, and the person chooses', async ({ demo, page, context }) => {
  const job = await demo.job('Long café clock')
  const other = await context.newPage()
  for (const tab of [page, other]) {
    await tab.goto(`${job}/holes`)
    await tab.getByRole('button', { name: /Hole \d+: going train, Escape arbor, front/ }).click()
    await expect(tab.getByRole('heading', { name: 'Escape arbor, front plate' })).toBeVisible()
  }
  await other.getByLabel(/^Plate here/).fill('3.1')
  await other.getByRole('button', { name: 'Keep this', exact: true }).click()
  await expect(other.getByRole('button', { name: 'Keep this', exact: true })).toBeDisabled()
  await page.getByLabel(/^Plate here/).fill('3.3')
  await page.getByRole('button', { name: 'Keep this', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('Somebody changed this meanwhile')
  await expect(dialog.getByRole('row', { name: /Plate here/ })).toContainText('3.3 mm3.1 mm')
  await dialog.getByRole('button', { name: 'Keep mine' }).click()
  await expect(dialog).toBeHidden()
  await expect(page.getByRole('button', { name: 'Keep this', exact: true })).toBeDisabled()
  await other.reload()
  await other.getByRole('button', { name: /Hole \d+: going train, Escape arbor, front/ }).click()
  await expect(other.getByLabel(/^Plate here/)).toHaveValue('3.3')
})

test('the server stops in mid-typing: a calm banner, nothing lost, sent when it is back', async ({ alone, page }) => {
  await page.goto(`${alone.url}/take-in`)
  await page.getByLabel('Owner *').fill('Toll house')
  await page.getByLabel('What you call it *').fill('Toll clock')
  await page.getByLabel('In the owner’s words *').fill('Runs backwards, she says.')
  await alone.kill()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'does not answer' })).toBeVisible()
  await expect(page.getByLabel('In the owner’s words *')).toHaveValue('Runs backwards, she says.')
  await alone.start()
  await expect(page.getByRole('heading', { name: 'Toll clock' })).toBeVisible({ timeout: 30_000 })
  await expect(page.getByRole('status').filter({ hasText: 'does not answer' })).toBeHidden()
  // The change was retried, and made once.
  await page.goto(alone.url)
  await expect(page.getByRole('link', { name: /Toll clock/ })).not.toHaveCount(0)
  await expect(page.getByRole('heading', { name: 'Arrive 1' })).toBeVisible()
})

test('a reading shows while it waits for the server; taken back meanwhile it is never kept', async ({ own, page }) => {
  const { address, read } = await taken(own)
  await page.goto(`${address}/rate`)
  await expect(page.getByText('No reading yet')).toBeVisible()
  const said = page.getByText('reading by pedal, minute hand on the mark')
  const sent: string[] = []
  page.on('requestfinished', (r) => /readings/.test(r.url()) && sent.push(r.method()))
  await page.route('**/api/jobs/*/readings/*', (route) => route.abort())
  await press(page)
  await expect(said).toHaveCount(1)
  await expect(page.getByRole('button', { name: /^Correct the entry/ })).toBeDisabled()
  expect((await read()).readings).toEqual([])
  await page.getByRole('button', { name: /^Take back the entry/ }).click()
  await expect(said).toHaveCount(0)
  await page.unroute('**/api/jobs/*/readings/*')
  // In the order in which it was pressed, whichever tries again first.
  await expect.poll(() => sent).toEqual(['PUT', 'DELETE'])
  expect((await read()).readings).toEqual([])
  await expect(said).toHaveCount(0)
})

test('a form with nothing in it says what is missing, field by field', async ({ demo, page }) => {
  await page.goto(`${demo.url}/take-in`)
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByLabel('Owner *')).toHaveAttribute('aria-invalid', 'true')
  await expect(page.getByLabel('Owner *')).toBeFocused()
  await expect(page.getByText(/Owner (is a required field|must be)/)).toBeVisible()
})

test('plates can’t be parted with a train on; an override wants its reason', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Chapel tower clock')}/power`)
  await expect(page.getByRole('button', { name: 'Part the plates', exact: true })).toBeDisabled()
  await expect(page.getByRole('note')).toContainText('Treat every train as wound')
  await page.getByText('It has to be parted with power on it').click()
  await page.getByLabel('Reason').fill('no')
  await page.getByRole('button', { name: 'Override this gate' }).click()
  await expect(page.getByText('Reason: say in a sentence why it may go on')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Part the plates', exact: true })).toBeDisabled()
})

test('a page that is not there says so, and leads back', async ({ demo, page }) => {
  for (const path of ['nowhere', 'drawers/sprockets', 'tables/seating', 'reckoner/horoscope']) {
    await page.goto(`${demo.url}/${path}`)
    await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible()
  }
  await page.getByRole('link', { name: 'Back to the bench' }).click()
  await expect(page.getByRole('heading', { name: 'Now' })).toBeVisible()
})
