import { randomUUID } from 'node:crypto'
import type { BenchPage, JobPage } from '@treadle/contract'
import type { Owed } from '@treadle/core'
import { expect, open, press, test } from './workshop.ts'

test.describe('the reckoner', () => {
  test('is searched by words in any order, and says when none fits', async ({ demo, page }) => {
    await page.goto(`${demo.url}/reckoner`)
    const list = page.getByRole('navigation', { name: 'Calculations' })
    await page.getByLabel('Find a calculation').fill('rating turn')
    await expect(list.getByRole('link')).toHaveText(['Turn of the rating nut'])
    await page.getByLabel('Find a calculation').fill('zzzz')
    await expect(list.getByRole('status')).toHaveText('No calculation is found by these words.')
    await expect(list.getByRole('link')).toHaveCount(0)
  })

  test('says what a spring holds, with its picture, and names an impossible length', async ({ demo, page }) => {
    await page.goto(`${demo.url}/reckoner/spring.energy`)
    await expect(page.getByRole('img', { name: /The spring in its barrel/ })).toBeVisible()
    await expect(page.getByRole('row', { name: /Turns available/ })).toContainText('9.02')
    await page.getByLabel('Length').fill('5000')
    await expect(page.getByText(/fits this barrel only below 3416 mm/).first()).toBeVisible()
    await page.getByLabel('Length').fill('1708')
    await expect(page.getByRole('row', { name: /Felt/ })).toContainText('a 10 kg weight falling 53 cm')
  })

  test('proposes a lost wheel and draws the train with it', async ({ demo, page }) => {
    await page.goto(`${demo.url}/reckoner/train.missing`)
    await expect(page.getByRole('img', { name: /The train drawn at true ratio/ })).toBeVisible()
    await expect(page.getByRole('row', { name: /Candidates/ })).toContainText('64·60, 8·8, 30, 3600')
    await page.getByLabel('Beats an hour').fill('fast')
    await expect(page.getByText(/must be a number/).first()).toBeVisible()
  })

  test('ranks causes as one answers', async ({ demo, page }) => {
    await page.goto(`${demo.url}/reckoner/trouble.next`)
    const first = page.getByRole('listitem').filter({ hasText: '%' }).first()
    await expect(first).toContainText('It is out of beat')
    await page.getByLabel('Observations').fill('{"stopsAtMoonChange":"yes","evenBeat":"yes"}')
    await expect(first).toContainText('The moon or calendar work at its change')
    await page.getByLabel('Observations').fill('{"evenBeat":"maybe"}')
    await expect(page.getByText(/must be one of yes, no, unknown/).first()).toBeVisible()
  })

  test('adds money without a float', async ({ demo, page }) => {
    await page.goto(`${demo.url}/reckoner/estimate.total`)
    await page.getByLabel('Lines').fill('[{"quantity":1,"unitPrice":"0.1"},{"quantity":1,"unitPrice":"0.2"}]')
    await page.getByLabel('Tax').fill('0')
    await expect(page.getByRole('row', { name: /Gross/ })).toContainText('0.30')
  })
})

test('a calculation on a phone stands by itself, opens with its example, and takes a yes', async ({ demo, page }) => {
  await page.setViewportSize({ width: 390, height: 800 })
  await page.goto(`${demo.url}/reckoner`)
  await page.getByRole('link', { name: 'Hands from what it shows to what it should' }).click()
  await expect(page.getByRole('row', { name: /Stops/ })).toContainText('3')
  await expect(page.getByRole('navigation', { name: 'Calculations' })).toBeHidden()
  await page.getByLabel('It shows').fill('1:09')
  await expect(page.getByRole('row', { name: /Advise/ })).toContainText('wait')
  await page.getByLabel('Its kind allows the hand to go back').selectOption('yes')
  await expect(page.getByRole('row', { name: /Advise/ })).toContainText('back')
  await page.getByRole('link', { name: 'All calculations' }).click()
  await expect(page.getByRole('navigation', { name: 'Calculations' })).toBeVisible()
})

test('the workshop’s own baths sort the parts, and a bath that is taken out is gone', async ({ own, page }) => {
  await page.goto(`${own.url}/tables/baths`)
  await page.getByLabel('Minutes of Ammoniated bath, ultrasonic').fill('5')
  await page.getByRole('button', { name: 'One more bath' }).click()
  await page.getByLabel('Name of Another bath').fill('Soap and water')
  await page.getByRole('button', { name: 'Keep the table' }).click()
  await expect(page.getByText('Kept.', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Minutes of Ammoniated bath, ultrasonic')).toHaveValue('5')
  await expect(page.getByLabel('Name of Soap and water')).toBeVisible()
  await page.getByRole('group', { name: 'Soap and water' }).getByRole('button', { name: 'Take out this bath' }).click()
  await page.getByRole('button', { name: 'As it was' }).click()
  await expect(page.getByLabel('Name of Soap and water')).toBeVisible()
  await page.getByRole('button', { name: 'Start from the craft’s own' }).click()
  await expect(page.getByLabel('Minutes of Ammoniated bath, ultrasonic')).toHaveValue('8')
})

test('the calendar’s secret address is shown, and dead once it is changed', async ({ own, page, request }) => {
  await page.goto(`${own.url}/settings`)
  const field = page.getByLabel('Address of the calendar')
  await expect(field).toHaveValue(/\/api\/calendar\/[\w-]{32}\/now\.ics$/)
  const before = await field.inputValue()
  expect((await request.get(before)).status()).toBe(200)
  await page.getByRole('button', { name: 'Change the address' }).click()
  await expect(page.getByText(/The old address is dead/)).toBeVisible()
  await expect(field).not.toHaveValue(before)
  expect((await request.get(before)).status()).toBe(404)
  expect((await request.get(await field.inputValue())).status()).toBe(200)
})

test('a photo taken on the walk, and a thing that came with the clock, keep their pictures', async ({ own, page }) => {
  await page.goto(`${own.url}/take-in`)
  await page.getByLabel('Owner *').fill('Gull Row')
  await page.getByLabel('What you call it *').fill('Kitchen clock')
  await page.getByLabel('In the owner’s words *').fill('Stops.')
  await page.getByRole('checkbox', { name: 'key or crank' }).check()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Kitchen clock' })).toBeVisible()
  await page.getByRole('link', { name: 'Arrive', exact: true }).click()
  const dot = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  )
  const choose = async (name: string, file: { name: string; mimeType: string; buffer: Buffer }) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name, exact: true }).click(),
    ])
    await chooser.setFiles(file)
  }
  await choose('Photo of key or crank', { name: 'key.png', mimeType: 'image/png', buffer: dot })
  await expect(page.getByRole('img', { name: 'Photo: key or crank' })).toBeVisible()
  await page.getByRole('link', { name: 'Observe', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Hands' })).toBeVisible()
  await choose('Photos', { name: 'words.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture at all') })
  await expect(page.getByText(/must be a JPEG, PNG or WebP picture/)).toBeVisible()
  await choose('Photos', { name: 'hands.png', mimeType: 'image/png', buffer: dot })
  await expect(page.getByRole('img', { name: 'Hands', exact: true })).toBeVisible()
  const id = /jobs\/([\w-]+)/.exec(page.url())?.[1] ?? ''
  const kept = async () =>
    ((await (await fetch(`${own.url}/api/jobs/${id}`)).json()) as JobPage).observations.find((o) => o.key === 'hands')
  await page.getByText('Something', { exact: true }).click()
  // The answer is kept before the note is begun: the stop stays under the hand.
  await expect.poll(kept).toMatchObject({ answer: 'watch' })
  await expect(page.getByRole('listitem').filter({ hasText: 'Hands' }).getByLabel('done')).toBeVisible()
  await page.getByRole('textbox', { name: 'As found' }).fill('Minute hand bent')
  await page.getByRole('textbox', { name: 'As found' }).blur()
  await expect.poll(kept).toMatchObject({ answer: 'watch', note: 'Minute hand bent' })
  // The walk opens at what is still to be seen; this stop is asked for by its name.
  await open(page, `${own.url}/jobs/${id}/observe?at=hands`)
  await expect(page.getByRole('textbox', { name: 'As found' })).toHaveValue('Minute hand bent')
  await expect(page.getByRole('img', { name: 'Hands', exact: true })).toBeVisible()
})

test('a press on a page too busy to hear the foot come up is still a press, and takes nothing back', async ({
  demo,
  page,
}) => {
  await page.goto(`${await demo.job('Light-keeper’s bracket clock')}/rate`)
  const rows = page.getByText('reading by pedal, minute hand on the mark')
  await expect(rows.first()).toBeVisible()
  const before = await rows.count()
  await press(page)
  await expect(rows).toHaveCount(before + 1)
  // A press of a moment, at once followed by a second of work: its end is heard after the time of a hold.
  await page.evaluate(() => {
    const [down, up] = ['keydown', 'keyup'].map((kind) => new KeyboardEvent(kind, { key: 'PageDown', bubbles: true }))
    document.body.dispatchEvent(down!)
    setTimeout(() => document.body.dispatchEvent(up!), 620)
    const from = performance.now()
    while (performance.now() - from < 1000);
  })
  await expect(rows).toHaveCount(before + 2)
  for (const left of [before + 1, before]) {
    await page.keyboard.down('PageDown')
    await expect(rows).toHaveCount(left)
    await page.keyboard.up('PageDown')
  }
})

test('quick presses are one person’s: none is lost, none is taken for another’s', async ({ own, page }) => {
  await page.goto(`${own.url}/take-in`)
  await page.getByLabel('Owner *').fill('Gull Row')
  await page.getByLabel('What you call it *').fill('Kitchen clock')
  await page.getByLabel('In the owner’s words *').fill('Stops.')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Kitchen clock' })).toBeVisible()
  await open(page, page.url().replace(/arrive$/, 'clean?where=house'))
  const all = page.getByRole('checkbox')
  await expect(all.first()).toBeVisible()
  const first = all.first()
  // The same thing ticked and unticked faster than any answer comes back.
  for (let i = 0; i < 5; i++) await first.click()
  await press(page)
  // Ticked an odd number of times and pressed past: both stand as they were left, whatever order the answers came in.
  const id = /jobs\/([\w-]+)/.exec(page.url())?.[1] ?? ''
  const kept = async () =>
    ((await (await fetch(`${own.url}/api/jobs/${id}`)).json()) as JobPage).observations.find(
      (o) => o.key === 'in-place clear',
    )
  await expect.poll(kept).toMatchObject({ answer: 'done' })
  await expect(first).toBeChecked()
  await expect(page.getByRole('dialog', { name: 'Somebody changed this meanwhile' })).toBeHidden()
  await expect(page.getByText('Not kept')).toHaveCount(0)
})

test('with many clocks twenty of what presses are shown, and the rest by one press', async ({ demo, page }) => {
  const bench = (await (await fetch(`${demo.url}/api/bench`)).json()) as BenchPage
  // What presses is said here: what the demo's clocks owe changes with the hour, and with the tests before this one.
  const owed: Owed = {
    kind: 'promise',
    dueS: Date.parse(bench.at) / 1000 - 3600,
    weight: 'must',
    title: 'Ring about the day',
    why: 'It is promised for today.',
    subject: '',
  }
  const tag = bench.tags[0]!
  const tags = Array.from({ length: 30 }, () => ({ ...tag, job: { ...tag.job, id: randomUUID() }, owed: [owed] }))
  await page.route('**/api/bench', (route) => route.fulfill({ json: { ...bench, tags } }))
  await page.goto(demo.url)
  const shown = page.getByRole('region', { name: 'Now' }).getByRole('link', { name: owed.title })
  await expect(shown).toHaveCount(20)
  await page.getByRole('button', { name: 'and 10 more' }).click()
  await expect(shown).toHaveCount(30)
  await page.getByRole('button', { name: 'Only what presses' }).click()
  await expect(shown).toHaveCount(20)
})
