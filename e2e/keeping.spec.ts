import { expect, open, test } from './workshop.ts'

test('a clock that comes again is found, with its owner and its figures', async ({ demo, page }) => {
  await page.goto(`${demo.url}/take-in`)
  await page.getByLabel('Has it been here before?').fill('gull among')
  await page.getByRole('button', { name: 'Light-keeper’s bracket clock, The light-keeper' }).click()
  await expect(page.getByLabel('Owner *')).toHaveValue('The light-keeper')
  await expect(page.getByLabel('What you call it *')).toBeDisabled()
  await page.getByLabel('In the owner’s words *').fill('It has stopped again.')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: 'Light-keeper’s bracket clock' })).toBeVisible()
  await open(page, `${demo.url}/clocks`)
  await page.getByLabel('Find a clock or an owner').fill('light-keeper')
  await expect(page.getByRole('list', { name: 'Clocks' }).getByRole('listitem')).toHaveCount(1)
  await expect(page.getByText('2 visits')).toBeVisible()
  await page.getByRole('link', { name: 'Light-keeper’s bracket clock', exact: true }).click()
  await expect(page.getByText('“It has stopped again.”').first()).toBeVisible()
  await expect(page.getByText(/Oiled\. Pivots, fusee and pallets/)).toBeVisible()
})

test('photos are taken in with the papers; what is no photo is named and keeps back nothing', async ({ own, page }) => {
  await page.goto(`${own.url}/take-in`)
  await page.getByLabel('Owner *').fill('Lamp room')
  await page.getByLabel('What you call it *').fill('Lamp-room clock')
  await page.getByLabel('In the owner’s words *').fill('Dusty.')
  // A picture of one pixel, and a letter that says it is one.
  const pixel = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  )
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles([
      { name: 'dial.png', mimeType: 'image/png', buffer: pixel },
      { name: 'letter.png', mimeType: 'image/png', buffer: Buffer.from('Dear Sir') },
    ])
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('letter.png was not kept')).toBeVisible()
  await page.getByRole('link', { name: 'Arrive', exact: true }).click()
  await expect(page.getByRole('img', { name: 'dial' })).toBeVisible()
  await expect(page.getByRole('img', { name: 'letter' })).toHaveCount(0)
})

test('the bench follows the work: moved on, a clock hangs in its new bay', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Lantern-top shelf clock')}/arrive`)
  await page.getByLabel('does not run').focus()
  await page.keyboard.press('Space')
  await page.getByLabel('Bay this clock is in').selectOption('strip')
  await expect(page.getByLabel('Bay this clock is in')).toHaveValue('strip')
  await open(page, demo.url)
  await expect(page.getByRole('heading', { name: 'Strip 2' })).toBeVisible()
  await expect(
    page.getByRole('link', { name: /Lantern-top shelf clock.*Let down the going and strike train/ }),
  ).toBeVisible()
})

test('a journal entry is corrected by one that names it, and stays', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Chapel tower clock')}/journal`)
  await page.getByRole('button', { name: /^Correct: Took in Chapel tower clock/ }).click()
  await page.getByLabel('The correction').fill('The crank was the neighbour’s.')
  await page.getByRole('button', { name: 'Write it' }).click()
  await expect(page.getByText(/Corrects “Took in Chapel tower clock/)).toBeVisible()
  await expect(page.getByText(/Came with it: crank/).first()).toBeVisible()
})

test('the cutters in the drawer decide what can be bushed', async ({ demo, page }) => {
  const holes = `${await demo.job('Ferry-house wall clock')}/holes`
  await page.goto(holes)
  await page.getByRole('button', { name: /Hole \d+: going train, Great wheel/ }).click()
  await expect(page.getByText(/No cutter in the drawer is large enough: it takes 5\.75 mm/)).toBeVisible()
  await open(page, `${demo.url}/drawers/cutters`)
  await page.getByRole('button', { name: 'Put in a cutter' }).click()
  await page.getByLabel('Measured').fill('99')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.getByText('Measured must be less than or equal to 60')).toBeVisible()
  await page.getByLabel('Measured').fill('6')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.getByRole('cell', { name: '6.00', exact: true })).toBeVisible()
  await open(page, holes)
  await page.getByRole('button', { name: /Hole \d+: going train, Great wheel/ }).click()
  await expect(page.getByRole('row', { name: /Cutter/ })).toContainText('6.00 mm')
})

test('a verdict of one’s own needs its reason, and shows on the hole', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Round-top drum clock')}/holes`)
  await page.getByRole('button', { name: /Hole \d+: going train, Third arbor, front/ }).click()
  await expect(page.getByRole('heading', { name: 'Third arbor, front plate' })).toBeVisible()
  await page.getByRole('button', { name: 'Leave it all the same…' }).click()
  await page.getByRole('button', { name: 'Leave it', exact: true }).click()
  await expect(page.getByText('Reason: say why, when the verdict is not the rule’s.')).toBeVisible()
  await page.getByLabel('Why leave it?').fill('A new plate is promised.')
  await page.getByRole('button', { name: 'Leave it', exact: true }).click()
  await expect(page.getByText(/The rule says bush; overridden: “A new plate is promised\.”/)).toBeVisible()
})

test('settings change what the surfaces say, and a value that can’t be is named', async ({ own, page }) => {
  await page.goto(`${own.url}/settings`)
  await page.getByLabel('Latitude').fill('95')
  await page.getByRole('button', { name: 'Keep the settings' }).click()
  await expect(page.getByText(/Latitude must be less than or equal to 90/)).toBeVisible()
  await page.getByLabel('Latitude').fill('60')
  await expect(page.getByText(/would gain 57 s a day here/)).toBeVisible()
  await page.getByLabel('Workshop', { exact: true }).fill('Shed at the slip')
  await page.getByRole('button', { name: 'Keep the settings' }).click()
  await expect(page.getByText('Kept.', { exact: true })).toBeVisible()
  await page.getByLabel('Name *').fill('Nils Ra')
  await page.getByLabel('Initials *').fill('NR')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('button', { name: 'At the bench: IV' }).click()
  await page.getByRole('menuitem', { name: 'Nils Ra' }).click()
  await expect(page.getByRole('button', { name: 'At the bench: NR' })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Workshop', { exact: true })).toHaveValue('Shed at the slip')
})
