import { randomUUID } from 'node:crypto'
import { writeFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { read } from './taken.ts'
import { expect, test, type Workshop } from './workshop.ts'

/** Takes in a clock by the API; gives its job's id. */
async function takeIn(shop: Workshop): Promise<{ job: string; clock: string }> {
  const [job, clock] = [randomUUID(), randomUUID()]
  const pendulum = Object.fromEntries(
    ['beatsPerHour', 'lengthMm', 'pitchMm', 'semiArcDeg', 'releaseDeg', 'crutchLengthMm', 'footSpacingMm'].map((k) => [
      k,
      null,
    ]),
  )
  const answer = await fetch(`${shop.url}/api/jobs`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      id: job,
      owner: { id: randomUUID(), name: 'Gull Row', phone: '', address: '' },
      clock: {
        ...{ id: clock, name: 'Kitchen clock', kind: 'wall', marks: '', trains: [{ train: 'going', power: 'spring' }] },
        pendulum: { ...pendulum, caseHeightMm: null, escapeTeeth: null, windsEveryDays: null },
        work: { strikeWork: null, moon: false, calendar: false, mercury: false },
      },
      ...{ complaint: 'It stops.', cameWith: [], promisedOn: null, standsAt: '', movedLately: 'unknown' },
      lastServiced: null,
    }),
  })
  expect(answer.status, await answer.text()).toBe(201)
  return { job, clock }
}

const HOSTILE = `<html><body><script>
  parent.ran = true; window.ran = true; document.title = 'run'; fetch('/api/people?ran')
</script></body></html>`

/** Opens an address as a page, and within one; whether anything of it ran. */
async function ran(page: Page, url: string): Promise<boolean> {
  const asked: string[] = []
  page.on('request', (request) => asked.push(request.url()))
  // What is to be saved opens no page.
  await page.goto(url).catch((error: Error) => expect(error.message).toMatch(/Download is starting|ERR_ABORTED/))
  const title = await page.title()
  await page.goto(new URL('/clocks', url).href)
  asked.length = 0
  const within = await page.evaluate(
    (src) =>
      new Promise<boolean>((resolve) => {
        const frame = document.createElement('iframe')
        frame.onload = () => resolve((window as { ran?: boolean }).ran === true)
        // A download loads nothing: what could run would have by the next page's load.
        const image = new Image()
        image.onerror = image.onload = () => resolve((window as { ran?: boolean }).ran === true)
        frame.src = src
        image.src = src
        document.body.append(frame, image)
      }),
    url,
  )
  return title === 'run' || within || asked.some((a) => a.endsWith('?ran'))
}

test('a page or a drawing that was once kept as a picture is opened, and nothing of it runs', async ({ own, page }) => {
  const { job } = await takeIn(own)
  for (const type of ['text/html', 'image/svg+xml', 'text/javascript', 'application/xhtml+xml', 'image/jpeg']) {
    const [file, photo] = [randomUUID(), randomUUID()]
    const bytes = type.includes('svg')
      ? `<svg xmlns="http://www.w3.org/2000/svg"><script>parent.ran = true</script></svg>`
      : HOSTILE
    await own.sql(
      `insert into files (id, type, size) values ('${file}', '${type}', ${Buffer.byteLength(bytes)});
       insert into file_chunks (file_id, part, bytes) values ('${file}', 0, decode('${Buffer.from(bytes).toString('hex')}', 'hex'));
       insert into photos (id, job_id, caption, width, height, taken_at, original_id, screen_id)
         values ('${photo}', '${job}', '', 4, 3, now(), '${file}', '${file}')`,
    )
    for (const size of ['screen', 'original'])
      expect([type, size, await ran(page, `${own.url}/api/photos/${photo}/${size}`)]).toEqual([type, size, false])
  }
})

test('a full disk is said on every page; what is typed waits, and is kept once there is room', async ({
  own,
  page,
}) => {
  const { job } = await takeIn(own)
  await page.goto(`${own.url}/jobs/${job}/journal`)
  const full = { type: '/problems/disk-full', title: 'The disk is full: this is not kept.', status: 507 }
  await page.route('**/api/**', (route) =>
    route.request().method() === 'GET'
      ? route.continue()
      : route.fulfill({ status: 507, contentType: 'application/problem+json', body: JSON.stringify(full) }),
  )
  // It is seen where one is, however far down.
  await page.setViewportSize({ width: 390, height: 420 })
  await page.getByLabel('Note', { exact: true }).fill('The spring is set.')
  await page.getByRole('button', { name: 'Write it' }).click()
  await expect(page.getByRole('searchbox', { name: /Find an owner/ })).not.toBeInViewport()
  await expect(page.getByText('The disk is full: nothing more is kept.')).toBeInViewport()
  await page.setViewportSize({ width: 1280, height: 800 })
  // All that was kept can be read.
  await page.getByRole('link', { name: 'Clocks' }).first().click()
  await expect(page.getByRole('link', { name: 'Kitchen clock', exact: true })).toBeVisible()
  await expect(page.getByText('The disk is full: nothing more is kept.')).toBeVisible()
  await page.unroute('**/api/**')
  await expect(page.getByText('The disk is full: nothing more is kept.')).toHaveCount(0)
  await page.goto(`${own.url}/jobs/${job}/journal`)
  await expect(page.getByText('The spring is set.')).toHaveCount(1)
})

test('a row that can’t be read: bench and page go on, the page says which it is, and it is set aside', async ({
  own,
  page,
}) => {
  const { job, clock } = await takeIn(own)
  await own.sql(
    `insert into estimates (id, job_id, revision, state, lines, choices, chosen, currency, tax_percent, deposit_percent, note, who)
       values ('${randomUUID()}', '${job}', 1, 'sent', '"none"', '[]', '', '€', '21', '0', '', 'Ida');
     update clocks set pendulum = '[]' where id = '${clock}'`,
  )
  await own.sql(`insert into workshop_tables (name, "values") values ('baths', '{"baths":5}')`)
  await page.goto(`${own.url}/settings`)
  await expect(page.getByRole('alert').filter({ hasText: 'the table of' })).toBeInViewport()
  await page.goto(own.url)
  await expect(page.getByRole('link', { name: /Kitchen clock.*See to 2 rows that can’t be read/ })).toBeVisible()
  await page.goto(`${own.url}/jobs/${job}/arrive`)
  const alert = page.getByRole('alert').filter({ hasText: 'can’t be read' })
  await expect(alert).toContainText('estimates: lines')
  await expect(alert).toContainText('clocks, “Kitchen clock”: pendulum')
  await alert.getByRole('button', { name: 'Set it aside' }).click()
  await expect(alert).toContainText('A row of this job can’t be read')
  await alert.getByRole('button', { name: 'Make it blank' }).click()
  await expect(alert).toHaveCount(0)
  await page.goto(`${own.url}/jobs/${job}/journal`)
  await expect(page.getByText(/Could not be read, and is set aside as it was: estimates: lines/)).toBeVisible()
})

test('an archive on its way says how far it is, and is stopped by a press', async ({ demo, own, page }, info) => {
  const zip = info.outputPath('clock.zip')
  const { clock } = await read(await demo.job('School dial'))
  await writeFile(zip, Buffer.from(await (await fetch(`${demo.url}/api/clocks/${clock.id}/archive.zip`)).arrayBuffer()))
  await page.goto(`${own.url}/settings`)
  let go = () => undefined as void
  const held = new Promise<void>((resolve) => (go = resolve))
  await page.route('**/api/archive*', async (route) => {
    await held
    await route.continue().catch(() => undefined)
  })
  const there = page.getByRole('group', { name: 'Take it elsewhere' })
  await there.locator('input[type=file]').setInputFiles(zip)
  await expect(there.getByRole('status')).toContainText(/It is sent: \d+ %/)
  await there.getByRole('button', { name: 'Stop' }).click()
  await expect(there.getByRole('alert')).toContainText('Stopped. Nothing was changed.')
  go()
  await page.unroute('**/api/archive*')
  await there.locator('input[type=file]').setInputFiles(zip)
  await expect(there.getByRole('status')).toContainText('This would come in:')
})
