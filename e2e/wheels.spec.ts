import { randomUUID } from 'node:crypto'
import type { StockRow } from '@treadle/contract'
import { palletOutlines } from '@treadle/core'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { bar, send, taken } from './taken.ts'
import { expect, press, test, type Workshop } from './workshop.ts'

/** A spring clock with its going train counted, taken in by the API. */
async function counted(shop: Workshop) {
  const clock = await taken(shop)
  const sheet = randomUUID()
  await send(shop, 'PUT', `/jobs/${clock.id}/trains/${sheet}`, {
    id: sheet,
    version: 0,
    train: 'going',
    arbors: [
      { name: 'Great wheel', pinion: null, wheel: 84 },
      { name: 'Centre', pinion: 8, wheel: 64 },
      { name: 'Third', pinion: 8, wheel: 60 },
      { name: 'Escape', pinion: 8, wheel: 30 },
    ],
    hourly: 1,
    escape: true,
    greatTurns: null,
    motion: null,
    faultPeriodS: null,
  })
  return clock
}

/** A figure as a caliper with a cable sends it: typed into the field, and Enter. */
async function type(page: Page, label: string | RegExp, figure: string): Promise<void> {
  await page.getByLabel(label, { exact: typeof label === 'string' }).focus()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type(figure)
  await page.keyboard.press('Enter')
}

/** One of a few words, chosen by its name under what is asked. */
const pick = (page: Page, label: string, word: string) =>
  page.getByRole('radiogroup', { name: label }).getByText(word, { exact: true }).click()

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

  await page.goto(`${address}/wheels?at=going+Third+pinion`)
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
  const { address, read } = await counted(own)
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

test('the pallets are drawn, moved and set once; the release goes to the beat', async ({ own, page }) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/escapement`)
  await page.getByLabel('It is a').selectOption('dead-beat')
  for (const [label, figure] of [
    ['Tips from the arbor', '18'],
    ['Arbors apart', '25.4'],
    ['Swing either way', '3'],
    ['Spaces spanned', '7.5'],
    ['Pallet, thick', '1.5'],
    ['Lift of a face', '2'],
    ['Lock', '0.8'],
  ] as const)
    await type(page, label, figure)
  await expect(page.getByRole('heading', { name: 'It works as it should' })).toBeVisible()
  await expect.poll(async () => (await read()).clock.pendulum.releaseDeg).toBeCloseTo(1.4, 2)

  // Dragged too near: the tooth's path follows, the cure is told with its size, and nothing of that is kept.
  const picture = page.getByRole('img', { name: /Escape wheel of 30 and its pallets/ })
  const box = (await picture.locator('[data-grip="arbor"]').boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 60, { steps: 12 })
  await page.mouse.up()
  await expect(page.getByRole('heading', { name: /Too deep|Unequal drop|Too little drop/ })).toBeVisible()
  await expect(page.getByRole('heading', { name: /Bring the pallets’ arbor .* mm farther/ })).toBeVisible()
  await page.getByRole('button', { name: 'As it was' }).click()
  expect((await read()).escapements[0]?.nearerMm).toBe(0)

  // Spread too wide, by the caliper: the foot tries the cure, and only then says that it is set so.
  await type(page, 'Across the edges', '25.08')
  await expect(page.getByRole('heading', { name: 'Too shallow' })).toBeVisible()
  await bar(page, 'Press to try: close the pallets by 0.2')
  await press(page)
  await expect(page.getByRole('heading', { name: 'It works as it should' })).toBeVisible()
  expect((await read()).escapements[0]?.openedDeg).toBe(0)
  await bar(page, 'Press when it is set so: close the pallets by 0.2')
  await press(page)
  await expect.poll(async () => (await read()).escapements[0]?.openedDeg).toBeLessThan(-0.5)
  // The beat follows what was set: as it was spread it let go earlier.
  await expect.poll(async () => (await read()).clock.pendulum.releaseDeg).toBeCloseTo(1.43, 1)

  // By keys alone: the sliders do the same.
  const slider = page.getByRole('slider', { name: 'Pallets opened' })
  await slider.focus()
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('button', { name: 'It is set so', exact: true })).toBeEnabled()
  await page.getByRole('button', { name: 'As it was' }).click()
  await bar(page, 'Press to go on to the depthing')

  // Said once for the clock: it ticks once a period, and Beat says why nothing is told.
  await pick(page, 'It ticks', 'once a period')
  await expect.poll(async () => (await read()).clock.pendulum.ticks).toBe('once a period')
  await page.goto(`${address}/listen`)
  await page.getByLabel('It lets go as far to the left as to the right: even to the eye').check()
  await expect.poll(async () => (await read()).gates.find((g) => g.name === 'beat')?.passed).toBe(true)
})

test('pallets of any kind are tapped on a photo that was made true', async ({ own, page }) => {
  const { id, address, read } = await counted(own)
  const bytes = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#b98f3e' } })
    .jpeg()
    .toBuffer()
  const sent = await fetch(`${own.url}/api/jobs/${id}/photos/${randomUUID()}?caption=Pallets`, {
    method: 'PUT',
    headers: { 'Content-Type': 'image/jpeg' },
    body: new Uint8Array(bytes),
  })
  expect(sent.status).toBe(201)
  // A dead-beat of 30 teeth as a camera square on would see it: 0.08 mm to the pixel, the pallets' arbor at 400, 80.
  const centreDistanceMm = 25.4558
  const { palletEntry, palletExit } = palletOutlines({
    kind: 'dead-beat',
    teeth: 30,
    tipRadiusMm: 18,
    centreDistanceMm,
    spannedSpaces: 7.5,
    palletMm: 1.5,
    liftDeg: 2,
    lockDeg: 0.8,
  })
  const seen = ({ xMm, yMm }: { xMm: number; yMm: number }) => ({ x: 400 + xMm / 0.08, y: 80 - yMm / 0.08 })
  await page.goto(`${address}/escapement`)
  await page.getByLabel('It is a').selectOption('points')
  await type(page, 'Tips from the arbor', '18')
  await page.getByRole('button', { name: 'Tap the pallets on a photo' }).click()
  await page.getByRole('button', { name: 'Pallets', exact: true }).click()
  const photo = page.getByRole('group', { name: /The photo as it was taken/ })
  const tap = async ({ x, y }: { x: number; y: number }) => {
    const box = (await photo.boundingBox())!
    const scale = Math.min(box.width / 800, box.height / 600)
    const left = box.x + (box.width - 800 * scale) / 2
    const top = box.y + (box.height - 600 * scale) / 2
    await page.mouse.click(left + x * scale, top + y * scale)
  }
  await tap({ x: 100, y: 500 })
  await tap({ x: 700, y: 500 })
  await type(page, 'Distance between them', '48')
  await page.getByRole('button', { name: 'Tap the pallets on it' }).click()
  await expect(page.getByText(/Tap the pallets’ arbor, then the wheel’s/)).toBeVisible()
  await tap(seen({ xMm: 0, yMm: 0 }))
  await tap(seen({ xMm: 0, yMm: -centreDistanceMm }))
  // Deep on the locking face, its corner, and the edge that lets go.
  const faces = (outline: { xMm: number; yMm: number }[]) => [
    ...outline.slice(-16, -5).filter((_, i) => i % 5 === 0),
    ...outline.slice(-5, -3),
  ]
  for (const p of faces(palletEntry)) await tap(seen(p))
  await page.getByRole('button', { name: 'Now the exit pallet' }).click()
  await tap({ x: 10, y: 10 })
  await page.getByRole('button', { name: 'Take back a point' }).click()
  for (const p of faces(palletExit)) await tap(seen(p))
  await page.getByRole('button', { name: 'Draw them' }).click()
  await expect(page.getByRole('img', { name: /Escape wheel of 30 and its pallets/ })).toBeVisible()
  const sheet = async () => (await read()).escapements[0]
  await expect.poll(async () => (await sheet())?.palletExit.length).toBeGreaterThan(3)
  // A tap is as good as a point of the screen, about a tenth of a millimetre.
  expect(Math.abs((await sheet())!.centreDistanceMm! - centreDistanceMm)).toBeLessThan(0.15)
  expect(Math.abs((await read()).clock.pendulum.releaseDeg! - 1.4)).toBeLessThan(0.5)
})

test('the tips are gauged one after another, and one is left low', async ({ own, page }) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/escapement`)
  await page.getByLabel('It is a').selectOption('recoil')
  await type(page, 'Teeth', '12')
  await page.getByLabel('Tooth 1', { exact: true }).focus()
  for (let i = 0; i < 12; i++) {
    await page.keyboard.type(i === 4 ? '17.9' : i % 3 === 0 ? '17.99' : '18')
    await page.keyboard.press('Enter')
  }
  await expect(page.getByRole('heading', { name: 'Topping to the shortest takes 0.10 mm' })).toBeVisible()
  await page.getByRole('button', { name: /Leave 5 low: then at most 0\.01 mm comes off/ }).click()
  await expect(page.getByRole('heading', { name: 'Top to 17.99 mm; leave 5' })).toBeVisible()
  await page.getByLabel('Tooth 9 is bent').check()
  await bar(page, 'Press when done: straighten the bent teeth')
  await press(page)
  await expect
    .poll(async () => (await read()).escapements[0])
    .toMatchObject({ leftLow: [5], bent: [9], topped: ['straighten'] })
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

  await page.goto(`${address}/make`)
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

  await page.goto(`${own.url}/drawers/donors`)
  await page.getByRole('button', { name: 'Put in a part' }).click()
  await type(page, 'Count', '84')
  await type(page, 'Module', '0.75')
  await page.getByLabel('Out of').fill('a wall movement')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.getByRole('button', { name: 'Change the wheel of 84, a wall movement' })).toBeVisible()
  await page.goto(`${address}/wheels`)
  await type(page, 'Outside', '65')
  await expect(page.getByRole('region', { name: 'Donors' }).getByText(/a wall movement/)).toBeVisible()
  await page.getByRole('button', { name: 'Take this' }).click()
  await expect.poll(async () => (await read()).wheels[0]?.donorId).not.toBeNull()
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
