import type { Page } from '@playwright/test'
import type { JobPage } from '@treadle/contract'
import { expect, press, test } from './workshop.ts'

const pivot = (page: Page, what: string) => page.getByLabel(what, { exact: true })

test('a caliper’s own Enter goes from figure to figure, in any unit; what can’t be read is refused whole', async ({
  demo,
  page,
}) => {
  const address = await demo.job('Round-top drum clock')
  await page.goto(`${address}/pivots?at=going+Escape+arbor+front`)
  await pivot(page, 'Gauge, at the shoulder').focus()
  await page.keyboard.type('3.00')
  await page.keyboard.press('Enter')
  await page.keyboard.type('2.97')
  await page.keyboard.press('Enter')
  await expect(pivot(page, 'Gauge, at the shoulder')).toHaveValue('3')
  await expect(pivot(page, 'Gauge, near its end')).toHaveValue('2.97')
  await expect(pivot(page, 'Groove, deep')).toBeFocused()

  await pivot(page, 'As it was made').fill('120 thou')
  await page.keyboard.press('Enter')
  await expect(pivot(page, 'As it was made')).toHaveValue('3.048')
  await pivot(page, 'Runs out, in the lathe').fill('1/2')
  await page.keyboard.press('Enter')
  await expect(pivot(page, 'Runs out, in the lathe')).toHaveValue('0.5')

  await pivot(page, 'Out of round').fill('0,02 0,03')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Out of round: “0,02 0,03” can’t be read as one figure', { exact: false })).toBeVisible()
  await expect(pivot(page, 'Out of round')).toBeFocused()
  // Figures go to the server one after another, behind the fingers: all that were kept are there before the page goes.
  const kept = async () => {
    const { pivots } = (await (await fetch(address.replace('/jobs/', '/api/jobs/'))).json()) as JobPage
    return pivots.find((p) => p.arbor === 'Escape arbor' && p.plate === 'front')
  }
  await expect.poll(kept).toMatchObject({ firstMm: 3, secondMm: 2.97, originalMm: 3.048, runoutMm: 0.5 })
  // What is half typed outlives a reload; what was kept is there without it.
  await page.reload()
  await expect(pivot(page, 'Out of round')).toHaveValue('0,02 0,03')
  await expect(pivot(page, 'Gauge, near its end')).toHaveValue('2.97')
})

test('a figure ten times off those beside it is asked about once', async ({ demo, page }) => {
  const address = await demo.job('Round-top drum clock')
  await page.goto(`${address}/pivots?at=going+Great+wheel+front`)
  await pivot(page, 'Gauge, at the shoulder').fill('2.42')
  await page.keyboard.press('Enter')
  await pivot(page, 'Gauge, near its end').fill('24')
  await page.keyboard.press('Enter')
  await expect(page.getByText('24? The others are near 2.42. Enter keeps it as it is.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(pivot(page, 'Groove, deep')).toBeFocused()
  const kept = async () => {
    const { pivots } = (await (await fetch(address.replace('/jobs/', '/api/jobs/'))).json()) as JobPage
    return pivots.find((p) => p.arbor === 'Great wheel' && p.plate === 'front')?.secondMm
  }
  await expect.poll(kept).toBe(24)
})

test('minutes and seconds are a time: 2:30 is two and a half minutes', async ({ demo, page }) => {
  await page.goto(`${await demo.job('School dial')}/rate`)
  await page.getByLabel('The clock is ahead by').fill('-2:30')
  await page.keyboard.press('Enter')
  await expect(page.getByText('−150.0 s')).toBeVisible()
  await expect(page.getByText(/From 1 reading\b/)).toBeVisible()
  await page.getByLabel('The clock is ahead by').fill('fast')
  await page.keyboard.press('Enter')
  await expect(page.getByText('“fast” can’t be read as one figure', { exact: false })).toBeVisible()
})

test('words being typed outlive a reload, and somebody else’s change of the rest of it', async ({ demo, page }) => {
  const address = await demo.job('Chapel tower clock')
  await page.goto(`${address}/arrive`)
  await page.getByLabel('Where it stands at home').fill('In the ringing room')
  const id = address.split('/').at(-1)
  const { job } = (await (await fetch(`${demo.url}/api/jobs/${id}`)).json()) as { job: Record<string, unknown> }
  const { complaint, runs, bay, cameWith, standsAt, movedLately, lastServiced, promisedOn, version } = job
  const body = { complaint, runs, bay, cameWith, standsAt, movedLately, lastServiced, promisedOn, version }
  const changed = await fetch(`${demo.url}/api/jobs/${id}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ ...body, complaint: 'It strikes at night now.' }),
  })
  expect(changed.status).toBe(200)
  await page.reload()
  await expect(page.getByLabel('In the owner’s words')).toHaveValue('It strikes at night now.')
  await expect(page.getByLabel('Where it stands at home')).toHaveValue('In the ringing room')
  await page.getByRole('button', { name: 'Keep these' }).click()
  await expect(page.getByRole('button', { name: 'Keep these' })).toBeDisabled()
  await page.reload()
  await expect(page.getByLabel('In the owner’s words')).toHaveValue('It strikes at night now.')
  await expect(page.getByLabel('Where it stands at home')).toHaveValue('In the ringing room')
})

test('a clock half taken in is still there after a reload', async ({ own, page }) => {
  await page.goto(`${own.url}/take-in`)
  await page.getByLabel('Owner *').fill('Gull Row')
  await page.getByLabel('In the owner’s words *').fill('Stops.')
  await page.reload()
  await expect(page.getByLabel('Owner *')).toHaveValue('Gull Row')
  await expect(page.getByLabel('In the owner’s words *')).toHaveValue('Stops.')
})

test('a hold takes back what was done here, and nothing of another clock', async ({ demo, page }) => {
  const rows = page.getByText('reading by pedal, minute hand on the mark')
  const hold = async () => {
    await page.locator('#main').evaluate((main) => (main as HTMLElement).focus({ preventScroll: true }))
    await page.keyboard.down('PageDown')
    await expect(page.getByText(/Taken back\.|nothing to take back here/)).toBeVisible()
    await page.keyboard.up('PageDown')
  }
  // Through the bench to another clock, without leaving the page that knows what was pressed.
  const rateOf = async (address: string) => {
    await page.getByRole('link', { name: 'Bench', exact: true }).click()
    await page
      .locator(`main a[href^="${new URL(address).pathname}/"]`)
      .first()
      .click()
    await page.getByRole('link', { name: 'Set', exact: true }).click()
    await page.getByRole('link', { name: 'Rate', exact: true }).click()
  }
  const bracket = await demo.job('Light-keeper’s bracket clock')
  await page.goto(`${bracket}/rate`)
  await expect(rows.first()).toBeVisible()
  const before = await rows.count()
  await press(page)
  await expect(rows).toHaveCount(before + 1)
  await rateOf(await demo.job('Harbour regulator'))
  await expect(page.getByRole('heading', { name: 'Harbour regulator' })).toBeVisible()
  await hold()
  await expect(page.getByText('There is nothing to take back here.')).toBeVisible()
  await rateOf(bracket)
  await expect(rows).toHaveCount(before + 1)
  await hold()
  await expect(rows).toHaveCount(before)
})
