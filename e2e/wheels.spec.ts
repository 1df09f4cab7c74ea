import { randomUUID } from 'node:crypto'
import type { StockRow } from '@treadle/contract'
import { bar, counted, pick, send, type } from './taken.ts'
import { expect, open, press, test } from './workshop.ts'

test('a worn great wheel is reversed, from the first step to the last, by pedal', async ({ own, page }) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/wheels`)
  await type(page, 'Outside', '65')
  await type(page, 'Bore', '6.4')
  // A tooth that can't be is refused where it is typed.
  await type(page, 'Or type the tooth that is bent', '99')
  await expect(page.getByText(/Or type the tooth that is bent: .*84/)).toBeVisible()
  await type(page, 'Or type the tooth that is bent', '17')
  await expect(page.getByText('1 bent: 17 bent.')).toBeVisible()
  // Tapped at three o'clock: of 84 the twenty-second.
  await page.getByRole('radiogroup', { name: 'A tooth that is tapped is' }).getByText('worn', { exact: true }).click()
  const picture = page.getByRole('img', { name: /Great wheel wheel: 84 teeth/ })
  const box = (await picture.boundingBox())!
  await page.mouse.click(box.x + box.width * 0.92, box.y + box.height / 2)
  await expect(page.getByText('1 bent, 1 worn: 17 bent, 22 worn.')).toBeVisible()
  await page.mouse.click(box.x + box.width * 0.92, box.y + box.height / 2)
  await expect(page.getByText('1 bent: 17 bent.')).toBeVisible()
  await pick(page, 'Worn flank', 'the one that works (anticlockwise)')
  await pick(page, 'Click: fits the root, nose not rounded', 'bad')
  await expect(page.getByText(/A slipping click breaks fingers and teeth: this wheel/)).toBeVisible()
  await pick(page, 'Click: fits the root, nose not rounded', 'sound')
  await page.getByLabel('Reverse the wheel on its arbor').check()

  await type(page, 'Crossings', '4')
  await type(page, 'Rivet, across', '2.4')
  await page.getByRole('button', { name: 'Put in the click rivet' }).click()
  await type(page, 'click rivet, to the right', '11.3')
  await type(page, 'click rivet, up', '11.3')
  await pick(page, 'Mirrored about', '90°')
  await expect(page.getByText(/11\.30 mm right, 11\.30 mm down; 15\.98 mm from the centre/)).toBeVisible()
  await expect(page.getByText(/Clear of the old holes/)).toBeVisible()

  const steps = ['note the sides', 'free the arbor', 'drill the rivet’s head', 'punch the rivet out']
  for (const step of steps) {
    await bar(page, `Press when done: ${step}`)
    await press(page)
  }
  await bar(page, 'Press when done: free the click spring')
  await expect.poll(async () => (await read()).wheels[0]?.done).toHaveLength(4)
  // Tomorrow it stands where it stood.
  await page.reload()
  for (let i = 4; i < 13; i++) {
    await expect(page.getByRole('button', { name: 'Press when done', exact: false }).last()).toBeVisible()
    await press(page)
    await expect.poll(async () => (await read()).wheels[0]?.done).toHaveLength(i + 1)
  }
  await bar(page, 'Press for the next: Centre, wheel')
  expect((await read()).wheels[0]).toMatchObject({ way: 'reverse', mirrorDeg: 90 })

  // Priced as it was chosen.
  await page.getByRole('button', { name: 'Price it into the estimate' }).click()
  await expect(page).toHaveURL(/estimate/)
  await expect
    .poll(async () => (await read()).estimates[0]?.lines.map((l) => l.title))
    .toContain('Reverse the wheel on its arbor: great wheel, going')
})

test('what can’t be undone waits for the owner; trundles go from field to field', async ({ own, page }) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/wheels?at=going+Centre+wheel`)
  await type(page, 'Or type the tooth that is bent', '3')
  await page.getByLabel('Dress the teeth').check()
  await bar(page, 'Ask the owner first')
  await press(page)
  await page.getByLabel('The owner agreed to what can’t be undone').check()
  await bar(page, 'Press when done: straighten what is bent')
  await press(page)
  await expect.poll(async () => (await read()).wheels[0]?.done).toEqual(['straighten'])

  await open(page, `${address}/wheels?at=going+Third+pinion`)
  await pick(page, 'Its leaves are', 'trundles of a lantern')
  await page.getByLabel('Trundle 1', { exact: true }).focus()
  for (const figure of ['1.2', '1.2', '1.14', '1.2', '1.2', '1.21', '1.2', '1.2']) {
    await page.keyboard.type(figure)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText(/Replace number 3, of wire 1\.21 mm/)).toBeVisible()
  await expect(page.getByRole('img', { name: 'Lantern pinion: replace 3' })).toBeVisible()
  await page.getByLabel('Replace the bad trundles').check()
  await bar(page, 'Press when done: open the shroud')
  await expect.poll(async () => (await read()).wheels.find((w) => w.part === 'lantern')?.trundlesMm).toHaveLength(8)
})

test('a rusty mainspring: the drawers choose, what is too strong is said, a weak winder stops the foot', async ({
  own,
  page,
}) => {
  const { id, address, read } = await counted(own)
  const csv = [
    'kind,width mm,thick mm,length mm,count,drawer',
    'mainspring,16,0.34,1250,1,S1',
    'mainspring,16,0.37,1250,2,S2',
  ].join('\n')
  await send(own, 'POST', '/stock/lists', { id: randomUUID(), csv, keep: true })
  await page.goto(`${address}/springs`)
  for (const [label, figure] of [
    ['Width', '16'],
    ['Thick, in the middle', '0.34'],
    ['or coils, run down', '12.5'],
    ['Barrel, inside', '36'],
    ['Arbor', '11'],
  ] as const)
    await type(page, label, figure)
  await expect(page.getByRole('img', { name: /The spring fills 4\d per cent/ })).toBeVisible()
  await page.getByLabel('Rust pits').check()
  await expect(page.getByText('Rust pits: it breaks there.')).toBeVisible()
  const drawer = page.getByRole('region', { name: 'Mainsprings of the drawers' })
  await expect(drawer.getByText(/0\.37 × 1250 mm.*% too strong/)).toBeVisible()
  await pick(page, 'The spring', 'to order')
  await type(page, 'Order: width', '16')
  await type(page, 'thick', '0.37')
  await type(page, 'length', '1250')
  await expect(page.getByRole('heading', { name: /Too strong: it wears the movement out/ })).toBeVisible()
  await pick(page, 'The spring', 'from the drawers')
  await expect(page.getByRole('heading', { name: 'As strong as the old one' })).toBeVisible()
  await bar(page, 'Press to confirm its power off first')
  await expect(page.getByText(/Nobody has confirmed the going train off/)).toBeVisible()
  await expect(page.getByLabel('Take the old one out')).toBeDisabled()
  await press(page)
  await expect(page).toHaveURL(/power/)
  // What was said is kept before the page is left.
  await expect.poll(async () => (await read()).springs[0]?.choice).toBe('stock')
  const reason = 'Came without its movement in the case.'
  await send(own, 'POST', `/jobs/${id}/overrides`, { id: randomUUID(), gate: 'power', reason })
  await page.goto(`${address}/springs`)
  await bar(page, 'Say what the winder is rated for')
  await type(page, 'Winder, rated for', '500')
  await bar(page, 'Not with this winder')
  await expect(page.getByText(/A winder that is too weak is worse than none\.$/)).toBeVisible()
  await press(page)
  await type(page, 'Winder, rated for', '1500')
  await bar(page, 'Press when done: take the old one out')
  await press(page)
  await bar(page, 'Press when done: take the new one from its drawer')
  await press(page)
  await expect.poll(async () => (await read()).springs[0]?.done).toEqual(['out', 'take'])
  const stock = (await (await fetch(`${own.url}/api/stock`)).json()) as StockRow[]
  expect(stock.find((s) => s.thickMm === 0.34)?.count).toBe(0)
})

test('the depthing tool by the foot, a part to make, and a donor that fits', async ({ own, page }) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/depthing`)
  await type(page, 'Module in hand', '0.75')
  await expect(page.getByText('Centre distance 34.50 mm, across the runners 40.50 mm')).toBeVisible()
  await pick(page, 'Setting 1', 'click')
  for (let i = 2; i <= 4; i++) {
    await bar(page, 'Press if it is smooth at')
    await press(page)
  }
  await pick(page, 'Setting 5', 'butts')
  await bar(page, 'Press to keep 40.50 mm across the runners')
  await press(page)
  await expect.poll(async () => (await read()).depths[0]?.keptMm).toBeCloseTo(40.5, 2)
  await bar(page, 'Press for the next mesh: Third')

  await open(page, `${address}/make`)
  await page.getByLabel('A part to make').selectOption('click rivet')
  await page.getByRole('button', { name: 'Draw it' }).click()
  await expect(page.getByRole('img', { name: /click rivet: 6\.05 mm long/ })).toBeVisible()
  await type(page, 'Hole of the wheel', '3')
  await expect(page.getByText(/Hole of the wheel: it must be smaller/)).toBeVisible()
  expect((await read()).madeParts[0]?.sizes.wheelHoleMm).toBe(2)
  await type(page, 'Hole of the wheel', '1.8')
  await bar(page, 'Press when done: face the end')
  await press(page)
  await expect
    .poll(async () => (await read()).madeParts[0])
    .toMatchObject({ done: ['face'], sizes: { wheelHoleMm: 1.8 } })
  // It is made once its last step is done, and not before.
  const listed = page.getByRole('button', { name: /^(begun|made) Click rivet/ })
  for (const step of ['centre it', 'turn', 'part it off', 'face the other end', 'finish', 'rivet it in']) {
    await bar(page, `Press when done: ${step}`)
    await expect(listed).toHaveText(/click rivet, \d steps? done/)
    await press(page)
  }
  await expect(listed).toHaveText(/click rivet, made/)
  await bar(page, 'Press to go on and assemble')

  await open(page, `${own.url}/drawers/donors`)
  await page.getByRole('button', { name: 'Put in a part' }).click()
  await type(page, 'Count', '84')
  await type(page, 'Module', '0.75')
  await page.getByLabel('Out of').fill('a wall movement')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.getByRole('button', { name: 'Change the wheel of 84, a wall movement' })).toBeVisible()
  await open(page, `${address}/wheels`)
  await type(page, 'Outside', '65')
  await expect(page.getByRole('region', { name: 'Donors' }).getByText(/a wall movement/)).toBeVisible()
  await page.getByRole('button', { name: 'Take this' }).click()
  await expect.poll(async () => (await read()).wheels[0]?.donorId).not.toBeNull()
})

test('the suspension spring: what another does to the rate; a weight says only what was tried', async ({
  own,
  page,
}) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/springs?at=suspension`)
  await page.getByLabel('Kinked').check()
  await expect(page.getByText(/by the same thickness and length: kinked\./)).toBeVisible()
  for (const [label, figure] of [
    ['Thick', '0.1'],
    ['Width of a blade', '6'],
    ['Free length', '20'],
    ['Mass of the bob', '1.5'],
    ['Fitted, thick', '0.12'],
  ] as const)
    await type(page, label, figure)
  await expect.poll(async () => (await read()).suspensions[0]?.fittedThickMm).toBe(0.12)
  // Nothing is told while the pendulum's length is not known.
  await expect(page.getByText(/The clock would/)).toBeHidden()
  const { clock } = await read()
  const { id, version, name, kind, marks, trains, work, pendulum } = clock
  const body = { version, name, kind, marks, trains, work, pendulum: { ...pendulum, beatsPerHour: 3600 } }
  await send(own, 'PATCH', `/clocks/${id}`, body)
  await page.reload()
  await expect(page.getByText(/The clock would gain about \+5\d s\/day with the thicker one/)).toBeVisible()
  await expect(
    page.getByRole('button', { name: /Suspension spring/ }).getByRole('img', { name: 'in order' }),
  ).toBeVisible()
  await expect.poll(async () => (await read()).suspensions[0]).toMatchObject({ kinked: true, fittedThickMm: 0.12 })
})

test('a cut pinion’s fresh track, and a finish noted where it was used', async ({ own, page }) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/wheels?at=going+Centre+pinion`)
  for (const [label, figure] of [
    ['Leaves, long', '6'],
    ['Groove from the front end', '1'],
    ['Groove to', '2.6'],
    ['The wheel in it, thick', '1.5'],
  ] as const)
    await type(page, label, figure)
  await expect(page.getByText(/A fresh track of 3\.40 mm at the back/)).toBeVisible()
  await type(page, 'Groove, deep', '0.2')
  await page.getByLabel('Move to a fresh track').check()
  await bar(page, 'Press when done: free the wheel')
  await type(page, 'Leaves, long', '3')
  await expect(page.getByText(/No fresh track/)).toBeVisible()

  await open(page, `${address}/make`)
  const finish = page.getByRole('region', { name: 'Finish' })
  await expect(finish.getByRole('button', { name: 'Note it' })).toBeDisabled()
  await finish.getByLabel('Grit ladder used').selectOption({ label: 'Pallet faces' })
  await finish.getByLabel('On what').fill('entry pallet')
  await finish.getByRole('button', { name: 'Note it' }).click()
  await expect(finish.getByText(/Pallet faces: entry pallet, 1000/)).toBeVisible()
  await expect.poll(async () => (await read()).observations[0]?.key).toBe('finish:entry pallet')
  await finish.getByRole('button', { name: 'Take back Pallet faces', exact: false }).click()
  await expect.poll(async () => (await read()).observations).toEqual([])
})

test('the drawer of files says which to take, and why not the others', async ({ demo, page }) => {
  await page.goto(`${demo.url}/drawers/files`)
  const adviser = page.getByRole('region', { name: 'Which file' })
  await expect(adviser.getByRole('heading', { name: /Take the hand, cut 2, 150 × 16 mm/ })).toBeVisible()
  await adviser.getByLabel('The work is').selectOption('inside corner')
  await expect(adviser.getByRole('heading', { name: /Take the barrette, cut 2/ })).toBeVisible()
  await type(page, 'Room for it', '7.5')
  await expect(adviser.getByRole('heading', { name: /Take the three-square, cut 2/ })).toBeVisible()
  await adviser.getByLabel('In', { exact: true }).selectOption('hardened steel')
  await expect(adviser.getByRole('heading', { name: /No file of the drawer is for this/ })).toBeVisible()
  await adviser.getByText('Why not the others').click()
  await expect(adviser.getByText(/Hardened steel would blunt it/).first()).toBeVisible()
})
