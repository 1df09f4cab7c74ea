import { readFileSync } from 'node:fs'
import type { JobPage } from '@treadle/contract'
import jsQR from 'jsqr'
import sharp from 'sharp'
import { expect, press, test, type Workshop } from './workshop.ts'

const jobOf = async (demo: Workshop, clock: string) => {
  const address = await demo.job(clock)
  const id = address.split('/').pop() ?? ''
  const read = async () => (await (await fetch(`${demo.url}/api/jobs/${id}`)).json()) as JobPage
  return { address, read }
}

test('anything is found as one types: a mark, an owner, a number', async ({ demo, page }) => {
  await page.goto(demo.url)
  const find = page.getByRole('searchbox', { name: /^Find an owner/ }).or(page.getByLabel(/^Find an owner/))
  await expect(find.first()).toBeVisible()
  await page.keyboard.press('/')
  await expect(find.first()).toBeFocused()
  await page.keyboard.type('gull among')
  await expect(page.getByRole('option', { name: /Light-keeper’s bracket clock/ })).toBeVisible()
  await find.first().fill('nothing such')
  await expect(page.getByText('Nothing under that name, mark, number, telephone or address.')).toBeVisible()
  await find.first().fill('schoolhouse')
  await expect(page.getByRole('option', { name: /Ternholm schoolhouse/ })).toBeVisible()
  const { job } = await (await jobOf(demo, 'School dial')).read()
  await find.first().fill(`#${job.number}`)
  await expect(page.getByRole('option', { name: new RegExp(`Job ${job.number}, School dial`) })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(new RegExp(job.id))
})

test('a clock that comes again opens with its history', async ({ demo, page }) => {
  await page.goto(`${demo.url}/take-in`)
  await page.getByLabel('Has it been here before?').fill('regulator')
  await page.getByRole('button', { name: /Harbour regulator/ }).click()
  const before = page.getByRole('region', { name: 'It has been here before' })
  await expect(before).toContainText('It loses, and the ferry blames us.')
  await expect(before).toContainText(/s a day for one turn, learned on it/)
  await expect(before).toContainText('Last oil')
})

test('what came with it is missing loudly at hand-over', async ({ own, page }) => {
  await page.goto(`${own.url}/take-in`)
  await page.getByLabel('Owner *').fill('Gull Row')
  await page.getByLabel('What you call it *').fill('Tall pine clock')
  await page.getByLabel('Kind').selectOption('longcase')
  await page.getByLabel('Power of the going train').selectOption('weight')
  await page.getByLabel('In the owner’s words *').fill('Stops.')
  await page.getByLabel('Where it stands at home').fill('Hall, stone floor')
  await page.getByText('Yes', { exact: true }).click()
  await page.getByLabel('Last serviced, about which year').fill('1999')
  await page.getByRole('checkbox', { name: 'left weight' }).check()
  await page.getByLabel('Where the left weight hung').fill('strike')
  await page.getByLabel('Mass of the left weight').fill('5.4')
  await page.getByRole('checkbox', { name: 'hood' }).check()
  await page.getByLabel('State of hood').selectOption('damaged')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Tall pine clock' })).toBeVisible()
  await page.getByLabel('Bay this clock is in').selectOption('return')
  await page.getByRole('link', { name: 'Return', exact: true }).click()
  await page.getByRole('link', { name: 'Card', exact: true }).click()
  await expect(page.getByText('Not here: left weight, hood.')).toBeVisible()
  await page.getByRole('checkbox', { name: 'left weight, strike, 5.4 kg' }).click()
  await expect(page.getByText('Not here: hood.')).toBeVisible()
  await page.getByRole('link', { name: 'Arrive', exact: true }).click()
  await expect(page.getByLabel('Where it stands at home')).toHaveValue('Hall, stone floor')
  await expect(page.getByLabel('Last serviced, year')).toHaveValue('1999')
})

test('the tag’s code opens the job, on the shop’s own address', async ({ demo, page }) => {
  const { address, read } = await jobOf(demo, 'Long café clock')
  const { job } = await read()
  const decoded = async () => {
    const svg = await page.getByRole('img', { name: /Code that opens this job/ }).evaluate((el) => el.outerHTML)
    const { data, info } = await sharp(
      Buffer.from(svg.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="600"')),
    )
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
    return jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data
  }
  await page.goto(`${address}/papers`)
  await expect(page.getByRole('article', { name: 'Job tag' })).toContainText('Long café clock')
  expect(await decoded()).toBe(`${demo.url}/jobs/${job.id}`)

  await page.goto(`${demo.url}/settings`)
  await page.getByLabel('Shop’s address for phones').fill('bench.local')
  await page.getByRole('button', { name: 'Keep the settings' }).click()
  await expect(page.getByText(/must be such as http:\/\/bench.local/)).toBeVisible()
  await page.getByLabel('Shop’s address for phones').fill('http://bench.local:4173')
  await page.getByRole('button', { name: 'Keep the settings' }).click()
  await expect(page.getByText('Kept.', { exact: true }).first()).toBeVisible()
  await page.goto(`${address}/papers`)
  await expect(page.getByRole('img', { name: /bench.local/ })).toBeVisible()
  expect(await decoded()).toBe(`http://bench.local:4173/jobs/${job.id}`)
  // The tag prints alone, on a tag's paper.
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
  expect(pdf.match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1)
})

test('the arc scale is at true size: its 100 mm are 100 mm', async ({ demo, page }) => {
  const { address } = await jobOf(demo, 'School dial')
  await page.goto(`${address}/papers?show=scale`)
  await page.getByLabel('From suspension to tip').fill('281')
  await page.keyboard.press('Enter')
  await expect(page.getByText('School dial: degrees, for 281 mm')).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as SVG' }).click(),
  ])
  const svg = readFileSync(await download.path(), 'utf8')
  const number = (name: string, of: string) => Number(new RegExp(`\\b${name}="([\\d.]+)`).exec(of)?.[1])
  const [, , width] = /viewBox="0 0 (([\d.]+) [\d.]+)"/.exec(svg) ?? []
  // One unit of the drawing is one millimetre of paper …
  expect(/<svg[^>]* width="([\d.]+)mm"/.exec(svg)?.[1]).toBe(width)
  // … and the checking line is a hundred of them.
  const line = /<line id="check"[^>]*>/.exec(svg)?.[0] ?? ''
  expect(number('x2', line) - number('x1', line)).toBeCloseTo(100, 6)
  // On paper, too: a millimetre is 96/25.4 of the browser's points.
  await page.emulateMedia({ media: 'print' })
  const pointsPerUnit = await page.locator('#check').evaluate((line) => (line as SVGLineElement).getScreenCTM()?.a)
  expect(pointsPerUnit).toBeCloseTo(96 / 25.4, 4)
})

test('one walk by the pedal alone, then the trouble finder has heard of it', async ({ own, page }) => {
  await page.goto(`${own.url}/take-in`)
  await page.getByLabel('Owner *').fill('Gull Row')
  await page.getByLabel('What you call it *').fill('Kitchen clock')
  await page.getByRole('checkbox', { name: 'Strike train' }).check()
  await page.getByLabel('In the owner’s words *').fill('Stops at night.')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Kitchen clock' })).toBeVisible()
  await page.getByRole('link', { name: 'Arrive', exact: true }).click()
  await page.getByRole('link', { name: 'Observe', exact: true }).click()
  const heading = (name: string) => expect(page.getByRole('heading', { name, exact: true })).toBeVisible()
  await heading('Hands')
  await press(page)
  await heading('Dial')
  await press(page)
  await heading('Case')
  // Held, the pedal takes the dial back and goes there.
  await page.keyboard.down('PageDown')
  await heading('Dial')
  await page.keyboard.up('PageDown')
  // Two presses in quick succession are at two stops, on a slow machine too.
  const devtools = await page.context().newCDPSession(page)
  await devtools.send('Emulation.setCPUThrottlingRate', { rate: 8 })
  await press(page)
  await press(page)
  await heading('Does it run?')
  await devtools.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  await page.getByText('runs and stops').click()
  await press(page)
  await heading('Arc')
  await page.getByLabel('Turns at, each side').fill('3')
  await page.getByLabel('Drops at, each side').fill('3.5')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/It must swing past its drop/)).toBeVisible()
  await page.getByLabel('Drops at, each side').fill('2.2')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/swings 0\.8° past the drop/)).toBeVisible()
  await page.getByRole('button', { name: 'Drive margin' }).click()
  await page.getByLabel('Fitted').fill('2.2')
  await page.getByLabel('Least that keeps it going').fill('2.9')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/It wants 32 % more than its own/)).toBeVisible()
  await page.getByRole('button', { name: 'Next' }).click()
  await heading('Strike')
  await press(page)
  await page.getByRole('button', { name: 'It has finished' }).click()
  await press(page)
  await press(page)
  await press(page)
  await page.getByRole('button', { name: 'It has finished' }).click()
  await expect(page.getByText('Struck 3 at 2.')).toBeVisible()
  await page.getByRole('button', { name: 'It goes no further' }).click()
  await heading('Wear, with the power on')
  await page.getByLabel('Arbor', { exact: true }).fill('Escape arbor')
  await page.getByLabel('Shakes toward, from the front').selectOption('4:30')
  await page.getByRole('button', { name: 'Note it' }).click()
  await expect(page.getByText('Escape arbor, back plate, toward 4:30')).toBeVisible()
  await page.getByRole('button', { name: 'What is wrong with it?' }).click()

  // What was found flows in by itself; the rest is asked, and "don't know" counts for nothing.
  await expect(page.getByText(/from the drive test, -32 % to spare/)).toBeVisible()
  const top = page.getByRole('list').first().getByRole('button').first()
  const before = await top.textContent()
  await page.getByRole('button', { name: /^All \d+ checks$/ }).click()
  const stops = page.getByRole('radiogroup', { name: 'Does it stop just before the hour or half?' })
  await stops.getByText('Don’t know').click()
  await expect(top).toHaveText(before ?? '')
  await stops.getByText('Yes').click()
  const stuck = page.getByRole('button', { name: /The strike is stuck in warning/ })
  await stuck.click()
  await expect(page.getByText(/just before the hour or half\? yes: \d\.\d times as likely/)).toBeVisible()
  await page.getByRole('button', { name: 'It was this' }).click()
  await expect(stuck).toContainText('it was this')
})

test('a lost wheel is proposed from the beat that was heard, and a fault’s period names its arbor', async ({
  demo,
  page,
}) => {
  const { address, read } = await jobOf(demo, 'Ferry-house wall clock')
  await page.goto(`${address}/trains`)
  const first = page.getByRole('listitem').filter({ hasText: 'exactly' }).first()
  await expect(first).toContainText('72/8, 80/8, escape 30')
  await first.getByRole('button', { name: 'Take these' }).click()
  await expect(page.getByText(/The counts give 5400\.0 beats an hour/)).toBeVisible()
  await expect(page.getByText(/They ask for a pendulum of 442 mm; found 441 mm\./)).toBeVisible()
  await page.getByLabel('A fault comes back every').fill('40.2')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Escape: it turns once in 40\.00 s/)).toBeVisible()
  await page.getByLabel('Wheel of Third').fill('1')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/from 3 to 1000/)).toBeVisible()
  await page.getByLabel('Wheel of Third').fill('80')
  await page.getByRole('button', { name: 'Keep the counts', exact: true }).click()
  await expect.poll(async () => (await read()).trainSheets[0]?.arbors[2]?.wheel).toBe(80)
})

test('an estimate is signed and stays; the next revision says what changed', async ({ demo, page }) => {
  const { address, read } = await jobOf(demo, 'Ferry-house wall clock')
  await page.goto(`${address}/estimate`)
  await page.getByRole('button', { name: 'Write an estimate', exact: true }).click()
  // One hole is still to be bushed by the rule, two are done: three by the price book.
  const sheet = page.getByRole('article', { name: 'The estimate as the owner gets it' })
  await expect(sheet).toContainText('Bush a worn hole')
  const lines = page.getByRole('group', { name: 'Line 1' })
  await lines.getByLabel('Price', { exact: true }).fill('12.5x')
  await page.getByRole('button', { name: 'Keep it', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('must be an amount such as 12.50')
  await lines.getByLabel('Price', { exact: true }).fill('100')
  await page.getByRole('button', { name: 'Keep it', exact: true }).click()
  await expect(sheet).toContainText('100.00')
  await page.getByRole('button', { name: 'The owner answered' }).click()
  await page.getByRole('button', { name: 'Accepted' }).click()
  await expect(page.getByRole('alert')).toContainText('Signature: sign before it is kept')
  const pad = page.getByLabel('Sign here with finger, pen or mouse')
  await pad.scrollIntoViewIfNeeded()
  const box = (await pad.boundingBox())!
  await page.mouse.move(box.x + 40, box.y + 60)
  await page.mouse.down()
  for (let i = 0; i < 12; i++) await page.mouse.move(box.x + 40 + i * 20, box.y + 60 + (i % 2) * 30)
  await page.mouse.up()
  await page.getByRole('button', { name: 'Accepted' }).click()
  await expect(sheet.getByRole('img', { name: /Signature of/ })).toBeVisible()
  await expect(page.getByText(/accepted this revision, so it stays/)).toBeVisible()
  await page.getByRole('button', { name: 'Make a new revision' }).click()
  await expect(page.getByText('Revision 2 is being written')).toBeVisible()
  await page.getByRole('group', { name: 'Line 1' }).getByLabel('Times').fill('2')
  await expect(sheet).toContainText('Changed since revision 1')
  await expect(sheet).toContainText('1 × 100.00 is now 2 × 100.00')
  expect((await read()).estimates[0]).toMatchObject({ state: 'accepted', revision: 1 })
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Keep it', exact: true })).toBeHidden()
  await expect(sheet).toBeVisible()
})

test('the condition record puts numbered points on the photo', async ({ demo, page }) => {
  const { address, read } = await jobOf(demo, 'Light-keeper’s bracket clock')
  await page.goto(`${address}/condition`)
  const before = (await read()).conditions.length
  await page.getByLabel('What it is').fill('Bell')
  await page.getByLabel('Class', { exact: true }).selectOption('original')
  const photo = page.getByRole('button', { name: /Give the thing being recorded its point/ })
  await photo.click({ position: { x: 100, y: 50 } })
  await page.getByRole('button', { name: 'Put it on the record' }).last().click()
  await expect(page.getByText('Bell, original')).toBeVisible()
  const { conditions } = await read()
  const box = (await photo.boundingBox())!
  expect(conditions).toHaveLength(before + 1)
  expect(conditions.at(-1)?.x).toBeCloseTo(100 / box.width, 2)
  expect(conditions.at(-1)?.y).toBeCloseTo(50 / box.height, 2)
})
