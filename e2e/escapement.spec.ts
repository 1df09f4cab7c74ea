import { randomUUID } from 'node:crypto'
import { palletOutlines } from '@treadle/core'
import sharp from 'sharp'
import { bar, counted, pick, type } from './taken.ts'
import { expect, open, press, test } from './workshop.ts'

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
  await open(page, `${address}/listen`)
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

test('a platform with a worn staff is sent or exchanged, and a verge is left as it is', async ({ own, page }) => {
  const { address, read } = await counted(own)
  await page.goto(`${address}/escapement`)
  await page.getByLabel('It is a').selectOption('platform')
  await pick(page, 'Staff pivots', 'worn')
  const platform = page.getByRole('region', { name: 'Platform' })
  await expect(platform.getByText(/A new staff is watchmaker’s work/)).toBeVisible()
  await expect(platform.getByLabel('Do the platform here')).toBeDisabled()
  await platform.getByLabel('Exchange the whole platform').check()
  await expect
    .poll(async () => (await read()).escapements[0])
    .toMatchObject({ staff: 'worn', way: 'exchange-platform' })
  // Nothing of a wheel's topping is asked of it.
  await bar(page, 'Press to go on to the depthing')
  await page.getByLabel('It is a').selectOption('verge')
  await expect(page.getByText(/No conversion: it is recorded as it is/)).toBeVisible()
  await expect.poll(async () => (await read()).clock.pendulum.releaseDeg).toBeNull()
})
