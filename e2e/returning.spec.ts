import { writeFile } from 'node:fs/promises'
import type { CareListed } from '@treadle/contract'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { bar, read, send } from './taken.ts'
import { expect, open, press, test as base, Workshop } from './workshop.ts'

/** The demo for a test alone, to be changed as it likes. */
const test = base.extend<{ island: Workshop }>({
  island: async ({}, use) => {
    const workshop = new Workshop()
    await workshop.open('t_demo')
    await use(workshop)
    await workshop.close()
  },
})

const CUSTOMS = 'Custom-house tall clock'
const PILOT = 'Pilot-house regulator'
/** Leaves whatever field one is in: in a field the pedal is still. */
const away = (page: Page) =>
  page.locator('#main').evaluate((main) => (main as HTMLElement).focus({ preventScroll: true }))

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 800 }, hasTouch: true })

  test('a tall clock is set up in its place, by touch and by the foot', async ({ island, page }) => {
    const address = await island.job(CUSTOMS)
    const done = async () =>
      (await read(address)).observations.filter((o) => o.key.startsWith('set-up: ') && o.answer === 'done').length
    await page.goto(`${address}/set-up`)
    await expect(page.getByRole('heading', { name: 'The floor' })).toBeVisible()
    await expect(page.getByText('1 of 15')).toBeVisible()
    await bar(page, 'Press when it has a good place')
    await press(page)
    await expect(page.getByRole('heading', { name: 'Old holes first' })).toBeVisible()
    await expect(page.getByRole('note')).toContainText('find pipes and wires')
    await page.getByRole('button', { name: 'Done', exact: true }).tap()
    await expect(page.getByRole('heading', { name: 'Spacer, and fixed to the wall' })).toBeVisible()
    await expect.poll(done).toBe(2)
    // Said too soon: the foot held takes the last press back.
    await press(page)
    await expect(page.getByRole('heading', { name: 'Plumb it by a level' })).toBeVisible()
    await page.keyboard.down('PageDown')
    await expect(page.getByText('Taken back.')).toBeVisible()
    await page.keyboard.up('PageDown')
    await expect(page.getByRole('heading', { name: 'Spacer, and fixed to the wall' })).toBeVisible()
    await expect.poll(done).toBe(2)
    for (const next of [
      'Plumb it by a level',
      'Movement in, dial in its mask',
      'Pendulum first',
      'Then the weights',
      'Set it going',
      'Beat, in place',
    ]) {
      await press(page)
      await expect(page.getByRole('heading', { name: next })).toBeVisible()
    }
    // Nobody heard it here: a press goes to hear it, and it can’t be called even.
    await bar(page, 'Press to hear it here')
    await expect(page.getByRole('button', { name: 'Done', exact: true })).toBeDisabled()
    await page.getByText('No instrument here: it is even by ear').tap()
    await bar(page, 'Press when it is even')
    await press(page)
    await expect(page.getByRole('heading', { name: 'Let the arc settle' })).toBeVisible()
    await expect(page.getByText('10 minutes more; go on with the next steps meanwhile.')).toBeVisible()
    await press(page)
    await expect(page.getByRole('heading', { name: 'A picture of the footing' })).toBeVisible()
    await expect(page.getByRole('button', { name: 'Done', exact: true })).toBeDisabled()
    const picture = await sharp({ create: { width: 320, height: 240, channels: 3, background: '#604020' } })
      .jpeg()
      .toBuffer()
    await page
      .locator('input[type=file]')
      .last()
      .setInputFiles({ name: 'footing.jpg', mimeType: 'image/jpeg', buffer: picture })
    await expect(page.getByRole('img', { name: 'A picture of the footing' })).toBeVisible()
    await press(page)
    await expect(page.getByRole('heading', { name: 'Hands and strike' })).toBeVisible()
    await expect.poll(done).toBe(10)
    const { observations } = await read(address)
    expect(observations.find((o) => o.key === 'set-up: footing-picture')?.photoId).not.toBeNull()
    // The minutes were not had, so nobody said that they were.
    expect(observations.find((o) => o.key === 'set-up: settle')?.answer ?? '').toBe('')
  })

  test('hands are led hour by hour, and the way is read from two taps on the dial', async ({ island, page }) => {
    const address = await island.job(CUSTOMS)
    await page.goto(`${address}/hands`)
    await bar(page, 'Press to go back to its setting up')
    const dial = page.getByRole('img', { name: /It shows: not said/ })
    const box = (await dial.boundingBox())!
    const tapAt = (deg: number) => {
      const r = 0.3 * box.width
      const rad = (deg * Math.PI) / 180
      return page.touchscreen.tap(box.x + box.width / 2 + r * Math.sin(rad), box.y + box.height / 2 - r * Math.cos(rad))
    }
    // The hour hand a little before eleven, the minute hand on ten.
    await tapAt(325)
    await expect(page.getByText('Now where the minute hand points.')).toBeVisible()
    await tapAt(300)
    await expect(page.getByLabel('It shows', { exact: true })).toHaveValue('10:50')
    await page.getByLabel('It should show').fill('13:04')
    await away(page)
    await expect(page.getByRole('status').first()).toContainText('Forward 2 h 14 min, 3 stops, 24 blows')
    for (const [blows, shows] of [
      ['11', '11:00'],
      ['12', '12:00'],
      ['1', '1:00'],
    ] as const) {
      await bar(page, `Press when it has struck ${blows}`)
      await press(page)
      await expect(page.getByLabel('It shows', { exact: true })).toHaveValue(shows)
    }
    await bar(page, 'Press when it shows 13:04')
    await press(page)
    await expect(page.getByRole('status').first()).toHaveText('It shows the time')
    const hands = async () => (await read(address)).events.filter((e) => e.kind === 'hands').length
    await expect.poll(hands).toBe(1)

    // A count wheel that struck otherwise is tripped: ten and eleven lie between.
    await page.getByLabel('It shows', { exact: true }).fill('11:00')
    await page.getByLabel('What it struck last, blows').fill('9')
    await page.getByLabel('What it struck last, blows').press('Enter')
    await expect(page.getByText('Trip it 2 times, letting it finish each: 21 blows.')).toBeVisible()

    // A little ahead it is stopped, and started when the time has come round.
    await page.getByLabel('It shows', { exact: true }).fill('1:16')
    await expect(page.getByRole('status').first()).toContainText('Stop the pendulum; start it in 12 min, at 13:16')
    await away(page)
    await bar(page, 'Press when you have stopped the pendulum')
    await page.getByLabel('It should show').fill('25:99')
    await expect(page.getByRole('alert')).toContainText('It should show')
  })
})

test('moon and date are given click by click, and kept when they look as drawn', async ({ island, page }) => {
  const address = await island.job(CUSTOMS)
  await page.goto(`${address}/moon`)
  const slider = page.getByRole('slider', { name: 'Age that the disc shows, days' })
  await slider.focus()
  await slider.press('ArrowRight')
  const status = page.getByRole('region', { name: 'Moon' }).getByRole('status')
  await expect(status).toHaveText(/^\d+ clicks forward$|shows the moon of today/)
  const left = async () => Number(/(\d+) clicks/.exec(await status.innerText())?.[1] ?? 0)
  const clicks = await left()
  for (let i = 0; i < Math.min(2, clicks); i++) {
    await bar(page, `Press with each click of the moon: ${clicks - i} to go`)
    await press(page)
  }
  // The works were soldered: nothing is forced, and the card says so.
  await page.getByRole('region', { name: 'Moon' }).getByText('soldered fast').click()
  await expect(page.getByRole('region', { name: 'Moon' })).toContainText('It is not forced')
  await expect.poll(async () => (await read(address)).clock.work.moonWork?.state).toBe('soldered')
  await page.getByLabel('It shows the').fill('32')
  await expect(page.getByText(/It shows the: from 1 to 31/)).toBeVisible()
  const today = new Date().getUTCDate()
  await page.getByLabel('It shows the').fill(String(today))
  await page.getByLabel('It shows the').press('Enter')
  await away(page)
  await expect(page.getByRole('region', { name: 'Day of the month' }).getByRole('status')).toHaveText(
    `It shows the ${today}`,
  )
  await bar(page, `Press when it shows the ${today}`)
  await press(page)
  await expect
    .poll(async () => (await read(address)).observations.find((o) => o.key === 'set-up: date')?.answer)
    .toBe('right')
  await open(page, `${address}/card`)
  await expect(page.getByRole('article', { name: 'The owner’s card' })).toContainText('Ihr Mond steht still')
})

test('mercury stays in its jar until all is said, and what is lost is told', async ({ island, page }) => {
  const address = await island.job(PILOT)
  await page.goto(`${address}/mercury`)
  await expect(page.getByText('3 things are still wanted')).toBeVisible()
  await bar(page, 'Press to go back to its setting up')
  await expect(page.getByRole('heading', { name: 'Weigh the jar, full and capped' })).toHaveCount(0)
  for (const words of ['Gloves, covered eyes', 'Glass or plastic bottles', 'The spill kit open'])
    await page.getByLabel(words, { exact: false }).check()
  await expect(page.getByRole('heading', { name: 'Weigh the jar, full and capped' })).toBeVisible()
  const figure = async (label: string, value: string) => {
    await page.getByLabel(label).fill(value)
    await page.getByLabel(label).press('Enter')
  }
  // Nobody can say that it is weighed before its weight stands there.
  await expect(page.getByRole('button', { name: 'Done', exact: true })).toBeDisabled()
  await bar(page, 'Press to write down what it weighs')
  await press(page)
  await expect(page.getByLabel('Jar before, with its cap')).toBeFocused()
  await figure('Jar before, with its cap', '1302.4')
  await page.locator('#main').focus()
  await bar(page, 'Press when it is done')
  await press(page)
  await expect(page.getByRole('heading', { name: 'Decant, small from large' })).toBeVisible()
  await figure('Jar after', '490')
  await figure('In the bottles, net', '811.2')
  await expect(page.getByText('1.2 g, 0.09 ml, is missing')).toBeVisible()
  await figure('In the bottles, net', '812.3')
  await expect(page.getByText('All accounted for, to ±0.3 g by the scale.')).toBeVisible()
  await expect
    .poll(async () => (await read(address)).observations.find((o) => o.key === 'mercury: jar')?.second)
    .toBe(490)
  // Where the clock has none there is no such page among its surfaces.
  await open(page, `${await island.job('School dial')}/card`)
  await expect(page.getByRole('link', { name: 'Mercury' })).toHaveCount(0)
})

test('the card stands in two languages side by side, on two small sheets, and in one by choice', async ({
  island,
  page,
}) => {
  const address = await island.job(CUSTOMS)
  await page.goto(`${address}/card`)
  const card = page.getByRole('article', { name: 'The owner’s card' })
  await expect(card).toContainText('Setting it up')
  await expect(card).toContainText('Aufstellen')
  await expect(card.getByRole('img', { name: 'This card on our own page' })).toBeVisible()
  const sheets = async () =>
    (await page.pdf({ preferCSSPageSize: true })).toString('latin1').match(/\/Type ?\/Page\b/g)?.length
  expect(await sheets()).toBe(2)
  await page.getByRole('region', { name: 'Choices of the card' }).getByText('nothing').click()
  await expect(card).not.toContainText('Aufstellen')
  await page.getByLabel('Language', { exact: true }).getByText('Deutsch').click()
  await expect(card).toContainText('Aufstellen')
  await expect(card).toHaveAttribute('lang', 'de')
  await page.getByLabel('The owner regulates it').click()
  await expect(card).not.toContainText('Mutter sitzt')
  await expect.poll(async () => (await read(address)).clock.card).toMatchObject({ language: 'de', regulates: false })
})

test('the invoice begins with what was agreed; what was left says why, and what is paid comes off', async ({
  island,
  page,
}) => {
  const address = await island.job(CUSTOMS)
  await page.goto(`${address}/invoice`)
  await bar(page, 'Press to write the invoice')
  await press(page)
  const sheet = page.getByRole('article', { name: 'The invoice as the owner gets it' })
  await expect(sheet).toContainText('Let in a new pivot: not needed')
  await expect(sheet).toContainText('370.80 €')
  await page.getByRole('button', { name: 'The deposit of 111.24 was paid' }).click()
  await expect(sheet).toContainText('Still to be paid')
  await expect(sheet).toContainText('259.56 €')
  await page.getByRole('button', { name: 'Something was added' }).click()
  const added = page.getByRole('group', { name: 'Line 6' })
  await added.getByLabel('What').fill('A new going line')
  await added.getByLabel('Price').fill('14')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('alert')).toHaveText(/^Why: say of each line/)
  await added.getByLabel('Why it was added').fill('the old one was worn through')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect.poll(async () => (await read(address)).invoices[0]?.lines.length).toBe(6)
  await expect.poll(async () => (await read(address)).invoices[0]?.payments[0]?.amount).toBe('111.24')
  await page.reload()
  await expect(sheet).toContainText('added: the old one was worn through')

  await open(page, `${address}/report`)
  const report = page.getByRole('article', { name: 'The report' })
  await expect(report).toContainText('old replacement')
  await expect(report).toContainText('Going line: made now')
  await expect(report.getByRole('img', { name: 'Dial as it came' })).toBeVisible()
  await page.getByLabel('Kept in the bag, with the clock').fill('The worn going line.')
  await page.getByLabel('Kept in the bag, with the clock').blur()
  await expect(report).toContainText('The worn going line.')
})

test('the journey names this clock’s own things, and prints for an owner who moves', async ({ island, page }) => {
  await page.goto(`${await island.job(CUSTOMS)}/journey?way=away&at=weights-mark`)
  await expect(page.getByText(/left weight \(strike\), right weight \(going\)/).first()).toBeVisible()
  await page.getByText('the owner moves it').click()
  const paper = page.getByRole('article', { name: 'On paper' })
  await expect(paper).toContainText('Moving Custom-house tall clock')
  await expect(paper).toContainText('Pendulum off last')
})

test('what is due at home is written to, answered, and comes back when it is owed again', async ({ island, page }) => {
  await page.goto(`${island.url}/clocks`)
  await page.getByRole('link', { name: 'Due at home, months ahead' }).click()
  await page.getByLabel(/Letter to Reading room: .*oil/).check()
  const letter = page.getByRole('article', { name: 'Letter to Reading room' })
  await expect(letter).toContainText('was last oiled here in')
  await expect(letter).toContainText('On the same visit we inspect the spring that its pendulum hangs from.')
  await bar(page, 'Press to print 1 letter')
  const state = async () =>
    ((await (await fetch(`${island.url}/api/care?months=12`)).json()) as CareListed[]).find(
      (d) => d.clock.name === 'Reading-room tall clock' && d.kind === 'check',
    )?.state
  const answer = page.getByRole('button', { name: /^Answer: Reading-room tall clock, oil/ })
  await answer.click()
  await page.getByRole('menuitem', { name: 'The owner answered' }).click()
  await expect.poll(state).toBe('answered')
  await answer.click()
  await page.getByRole('menuitem', { name: 'Owed again' }).click()
  await expect.poll(state).toBe('due')

  await open(page, `${island.url}/year`)
  await expect(page.getByText(/clocks came, \d+ of them back too soon/)).toBeVisible()
  await expect(page.getByRole('img', { name: /Clocks by month/ })).toBeVisible()
  await expect(page.getByText('It is out of beat').first()).toBeVisible()
  await page.getByRole('button', { name: 'The year before' }).click()
  await expect(page).toHaveURL(/until=\d{4}-\d\d/)
})

test('the workshop is carried away in one zip and comes in elsewhere; a changed one is refused', async ({
  island,
  own,
  page,
}, info) => {
  const zip = Buffer.from(await (await fetch(`${island.url}/api/archive.zip`)).arrayBuffer())
  const [good, cut] = [info.outputPath('workshop.zip'), info.outputPath('cut.zip')]
  await writeFile(good, zip)
  await writeFile(cut, zip.subarray(0, zip.length - 1000))
  await page.goto(`${own.url}/settings`)
  const there = page.getByRole('group', { name: 'Take it elsewhere' })
  const choose = there.locator('input[type=file]')
  await choose.setInputFiles(cut)
  await expect(there.getByRole('alert')).toContainText('Nothing was changed.')
  await choose.setInputFiles(good)
  await expect(there.getByRole('status')).toContainText('This would come in:')
  await expect(there.getByRole('status')).toContainText('A workshop from Ternholm clock workshop')
  // Somebody works here already: of the other shop's own nothing comes in that is not asked for, and it is said in words.
  await expect(there.getByRole('status')).toContainText('There is a workshop here already')
  await expect(there.getByText(/New: Ida Vos/)).toBeVisible()
  await expect(there.getByRole('status')).not.toContainText(/[{}[\]]/)
  await there.getByLabel('Bring in: people').check()
  await there.getByRole('button', { name: 'Bring it in' }).click()
  await expect(there.getByRole('status')).toContainText('It is in.')
  await expect(there.getByRole('status')).toContainText('was not asked for, and stays out')
  await open(page, `${own.url}/clocks`)
  await page.getByRole('link', { name: 'Harbour regulator', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Its whole history, one zip' })).toBeVisible()
  // Once more it brings nothing twice; a row that was changed here since is shown, and stays.
  const { clock } = await read(await own.job(CUSTOMS))
  const { id: _, ownerId: _o, ...known } = clock
  await send(own, 'PATCH', `/clocks/${clock.id}`, { ...known, marks: 'A number inside the door.' })
  await page.goto(`${own.url}/settings`)
  await choose.setInputFiles(good)
  await expect(there.getByRole('status')).toContainText('All of it is here already.')
  await expect(there.getByText('1 row stands here otherwise')).toBeVisible()
  await expect(there.getByText('Marks: here A number inside the door., there')).toBeVisible()
  await there.getByLabel(/^Take theirs: clocks/).check()
  await there.getByRole('button', { name: 'Bring it in' }).click()
  await expect(there.getByText('1 row was taken as in the archive')).toBeVisible()
  expect((await read(await own.job(CUSTOMS))).clock.marks).toBe(clock.marks)
})
