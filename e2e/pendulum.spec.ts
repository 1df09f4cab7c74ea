import { randomUUID } from 'node:crypto'
import type { JobPage } from '@treadle/contract'
import type { Page } from '@playwright/test'
import { counted, bar, send } from './taken.ts'
import { expect, open, press, test } from './workshop.ts'

/** Drags a part of the drawing by so many pixels. */
async function drag(page: Page, name: RegExp, down: number) {
  const box = (await page.getByRole('slider', { name }).boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x, y + down / 2)
  await page.mouse.move(x, y + down)
  await page.mouse.up()
}

test('a pendulum is laid out without a job: proposed, dragged, moved by keys, compensated, and still there after a reload', async ({
  demo,
  page,
}) => {
  await page.goto(`${demo.url}/reckoner`)
  await page.getByRole('link', { name: 'Pendulum laboratory' }).click()
  await page.getByRole('button', { name: 'Begin with a pendulum for 3600 beats' }).click()
  const headline = page.getByRole('status').first()
  await expect(headline).toHaveText('As long as it should be')
  await page.getByLabel('Pitch of the nut').fill('0.8')
  await page.getByLabel('Pitch of the nut').press('Enter')
  await expect(page.getByText('one turn of the nut, raising')).toBeVisible()
  await drag(page, /Bob, how deep/, 20)
  await expect(headline).toHaveText(/mm too long/)
  await expect(page.getByText(/Raise all that rides on the nut by .* turns\. Measure the thread/)).toBeVisible()
  await page.getByLabel('Thread left to raise').fill('2')
  await page.getByLabel('Thread left to raise').press('Enter')
  await expect(page.getByText(/The thread does not reach/)).toBeVisible()
  const bob = page.getByRole('slider', { name: /Bob, how deep/ })
  const before = Number(await bob.getAttribute('aria-valuenow'))
  await bob.focus()
  await page.keyboard.press('Shift+ArrowUp')
  await page.keyboard.press('ArrowUp')
  await expect(bob).toHaveAttribute('aria-valuenow', String(Math.round((before - 1.1) * 10) / 10))

  // A sleeve: what length holds it, and what its own does.
  await page.getByRole('button', { name: 'Add: sleeve under the bob' }).click()
  await expect(page.getByText(/(Over|Under)-compensated: its zinc sleeve is .* mm too (long|short)/)).toBeVisible()
  const right = await page.getByText(/mm would hold it/).innerText()
  const length = page.getByRole('group', { name: 'Sleeve under the bob' }).getByLabel('Length')
  await length.fill(/^([\d.]+) mm would/.exec(right)![1]!)
  await length.press('Enter')
  await expect(page.getByText('Its zinc sleeve holds it from summer to winter')).toBeVisible()

  // A figure that is taken out is asked for by name; what can't be is refused in the field.
  const rod = page.getByRole('group', { name: 'Rod', exact: true }).getByLabel('Length')
  const long = await rod.inputValue()
  await rod.fill('')
  await rod.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Rod, length: it is needed')
  await rod.fill('99999')
  await rod.press('Enter')
  await expect(page.getByText(/Length: from 0\.1 to 8000/)).toBeVisible()
  await rod.fill(long)
  await rod.press('Enter')
  await expect(headline).toHaveText(/mm too/)
  await page.reload()
  await expect(page.getByText('Its zinc sleeve holds it from summer to winter')).toBeVisible()
  await page.getByRole('button', { name: 'Take away: Sleeve under the bob' }).click()
  await expect(page.getByText(/To hold it from summer to winter: a zinc sleeve/)).toBeVisible()
})

test('the pedal notes a pendulum that runs down; with its weight it says where the power goes', async ({
  own,
  page,
}) => {
  const clock = await counted(own)
  await page.clock.install()
  await page.goto(`${clock.address}/pendulum`)
  await page.getByRole('button', { name: /Begin with a pendulum for/ }).click()
  await expect(page.getByRole('slider', { name: /Bob/ })).toBeVisible()
  await page.getByLabel('First arc noted').fill('4')
  await page.getByLabel('First arc noted').press('Enter')
  await page.getByRole('heading', { name: 'What a beat costs, and gets' }).click()
  for (const arc of ['4', '3.5', '3', '2.5', '2']) {
    await bar(page, arc === '4' ? 'Press as its swing falls through 4°' : `Press at ${arc}°`)
    await press(page)
    await page.clock.fastForward('05:00')
  }
  await expect.poll(async () => (await clock.read()).runDowns[0]?.readings.length).toBe(5)
  await page.getByLabel('Semi-arc as it goes').fill('3')
  await page.getByLabel('Semi-arc as it goes').press('Enter')
  await expect(page.getByText(/^Q \d+ ± \d+: a beat costs the pendulum/)).toBeVisible()
  await page.getByText('weight', { exact: true }).click()
  await page.getByLabel('Weight', { exact: true }).fill('1.5')
  await page.getByLabel('Weight', { exact: true }).press('Enter')
  await page.getByLabel('Falls by').fill('900')
  await page.getByLabel('Falls by').press('Enter')
  await page.getByLabel('In', { exact: true }).fill('192')
  await page.getByLabel('In', { exact: true }).press('Enter')
  await expect(page.getByText(/in a hundred of what drives it reaches the pendulum/)).toBeVisible()
  await expect.poll(async () => (await clock.read()).runDowns[0]?.hours).toBe(192)
  await page.reload()
  await expect(page.getByText(/in a hundred of what drives it reaches the pendulum/)).toBeVisible()
  await page.getByText('5 arcs noted').click()
  await page.getByRole('button', { name: 'Take away the arc of 2°' }).click()
  await expect.poll(async () => (await clock.read()).runDowns[0]?.readings.length).toBe(4)
})

test('readings with warmth, a logger and a weight on the tray: the book says what the clock follows', async ({
  own,
  page,
}) => {
  const clock = await counted(own)
  const day = 86_400_000
  const from = Date.now() - 20 * day
  const warm = (i: number) => 17 + 5 * Math.sin(i / 3)
  let error = 0
  const lines = Array.from({ length: 20 }, (_, i) => {
    if (i > 0) error += 2 - 0.5 * ((warm(i) + warm(i - 1)) / 2 - 17)
    return `${new Date(from + i * day).toISOString()},${error.toFixed(1)},eye`
  })
  await send(own, 'POST', `/jobs/${clock.id}/log`, { text: lines.join('\n'), keep: true })
  await page.goto(`${clock.address}/rate`)
  await expect(page.getByText('What its rate follows')).toBeHidden()
  await page.getByText('How warm it is beside it').click()
  const sheet = Array.from({ length: 20 }, (_, i) => `${new Date(from + i * day).toISOString()},${warm(i).toFixed(1)}`)
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'logger.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(['time,temperature °C', ...sheet].join('\n')),
    })
  // The clock came today: what is older than two days is not taken for its own.
  await expect(page.getByText(/Kept: [12] temperatures?\./)).toBeVisible()

  // Typed with a reading.
  await page.getByText('Warmth, arc and air with it').click()
  await page.getByLabel('The clock is ahead by').fill('40')
  await page.getByLabel('Warmth beside it').fill('300')
  await page.getByRole('button', { name: 'Keep this reading' }).click()
  await expect(page.getByText(/Warmth beside it: /).first()).toBeVisible()
  expect((await clock.read()).readings).toHaveLength(20)
  await page.getByLabel('Warmth beside it').fill('18.5')
  await page.getByRole('button', { name: 'Keep this reading' }).click()
  await expect.poll(async () => (await clock.read()).readings.at(-1)?.temperatureC).toBe(18.5)
  await expect(page.getByText(/reading by eye against a time signal, 18\.5 °C/)).toBeVisible()

  // Where it was found in beat goes with it to its owner.
  const footing = randomUUID()
  await send(own, 'PUT', `/jobs/${clock.id}/footings/${footing}`, {
    id: footing,
    version: 0,
    way: 'level',
    stoodAtDeg: 0,
    evenAtDeg: 0.7,
    standardError: 0.05,
    msPerDeg: 20,
    swings: 40,
  })
  await page.reload()
  await expect(page.getByText('in beat with its case leaning 0.70° to the right')).toBeVisible()

  // A weight on the tray has its grams.
  await page.getByLabel('Event', { exact: true }).selectOption({ label: 'small weight on the tray' })
  await expect(page.getByRole('button', { name: 'Write it down' })).toBeDisabled()
  await page.getByLabel('Grams, − taken off').fill('1.5')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByText('1.5 g laid on the tray')).toBeVisible()
})

test('the regulator’s year: what a degree does, what it was expected to do, what to lay on, and the year at its owner’s', async ({
  demo,
  page,
}) => {
  await page.goto(`${await demo.job('Harbour regulator')}/rate`)
  await expect(
    page.getByText(/It loses 0\.09\d ± 0\.00\d s a day for each degree warmer; its pendulum says a loss of 0\.07/),
  ).toBeVisible()
  await expect(page.getByText(/After the last change it was expected to keep/)).toBeVisible()
  await expect(page.getByText(/Lay 3\.\d g on the tray/)).toBeVisible()
  await expect(page.getByText(/By the warmth of its room it gains up to .* in January/)).toBeVisible()
  await page.getByText('What each way of reading gives to it').click()
  await expect(page.getByText(/in a hundred by pedal/)).toBeVisible()
  const job = await demo.job('Harbour regulator')
  const answer = await page.request.get(job.replace('/jobs/', '/api/jobs/'))
  expect(((await answer.json()) as JobPage).thermometers[0]?.temperatures.length).toBeGreaterThan(300)
  await open(page, `${job}/card`)
  await expect(page.getByText(/By the warmth of its room it gains up to/)).toBeVisible()
})
