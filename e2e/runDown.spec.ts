import type { JobPage } from '@treadle/contract'
import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { fakeCamera } from './fakeCamera.ts'
import { expect, test } from './workshop.ts'

/** It dies away to 1/e in this time, far sooner than a real one, so that it can be waited for. */
const TAU_S = 40
// Forty seconds, before it begins again.
const FILM = { semiArcDeg: 4.4, seconds: 40, periodS: 1.2, fps: 12, tauS: TAU_S }

// The film is drawn only where it is shown.
test.use({
  launchOptions: [
    ({}, use) => use({ executablePath: ensureChromium(), args: [...CHROMIUM_FLAGS, fakeCamera('run-down', FILM)] }),
    { scope: 'worker' },
  ],
  permissions: ['camera'],
})

test('a swing that dies away before the camera is kept as a run-down, taken back, and kept again', async ({
  demo,
  page,
}) => {
  const job = await demo.job('Long café clock')
  const runDowns = async () =>
    ((await (await page.request.get(job.replace('/jobs/', '/api/jobs/'))).json()) as JobPage).runDowns
  expect(await runDowns()).toEqual([])
  await page.goto(`${job}/swing`)
  await page.getByRole('button', { name: 'Camera', exact: true }).click()
  const dies = page.getByRole('region', { name: 'It dies away' })
  const keep = dies.getByRole('button', { name: 'Keep as a run-down' })
  await keep.click({ timeout: 60_000 })
  await expect(dies.getByRole('status')).toHaveText('Kept as a run-down, before the repair.')
  await expect.poll(async () => (await runDowns()).map((r) => [r.when, r.way])).toEqual([['found', 'camera']])

  // Taken back it is gone; kept once more, of the other moment, it is there, and it fell as fast as the film says.
  await dies.getByRole('button', { name: 'Take it back' }).click()
  await expect.poll(async () => (await runDowns()).length).toBe(0)
  await page.getByLabel('Run down').getByText('after the repair').click()
  await keep.click({ timeout: 60_000 })
  await expect.poll(async () => (await runDowns()).map((r) => r.when)).toEqual(['after'])
  const { readings } = (await runDowns())[0]!
  const [first, last] = [readings[0]!, readings.at(-1)!]
  const tauS = (last.atS - first.atS) / Math.log(first.semiArcDeg / last.semiArcDeg)
  // Pictures come late on a busy machine, and only seconds of its fall are told.
  expect(Math.abs(tauS / TAU_S - 1)).toBeLessThan(0.35)
  await dies.getByRole('link', { name: 'To the pendulum' }).click()
  await page.getByLabel('Run down').getByText('after the repair').click()
  await page.getByText(/\d arcs noted/).click()
  await expect(page.getByRole('list', { name: 'Arcs noted' }).getByRole('listitem').first()).toBeVisible()

  // No pendulum is laid out: its weight is asked for, and told what a beat costs by it.
  await page.getByLabel('Pendulum weighs').fill('900')
  await page.getByLabel('Pendulum weighs').press('Enter')
  await expect.poll(async () => (await runDowns())[0]?.massG).toBe(900)
  await expect(page.getByText(/^Q \d+/)).toBeVisible()
  await page.getByRole('button', { name: 'Take back this run-down' }).click()
  await expect.poll(async () => (await runDowns()).length).toBe(0)
})
