import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { bar, read, send, taken } from './taken.ts'
import { expect, open, press, test, Workshop } from './workshop.ts'

const LIST = [
  'kind,material,outside mm,inside mm,length mm,measured mm,count,drawer',
  'cutter,,,,,1.6,1,C1',
  'cutter,,,,,2,1,C1',
  'bush,bronze,2.02,0.95,2.5,,2,B1',
].join('\n')
const stocked = (shop: Workshop) => send(shop, 'POST', '/stock/lists', { id: randomUUID(), csv: LIST, keep: true })

test('four arbors from their counts to the last bush, by pedal and caliper keys alone', async ({ own, page }) => {
  await stocked(own)
  const { address, read } = await taken(own)
  /** A figure as a caliper with a cable sends it: typed into the field that has the focus, and Enter. */
  const type = async (label: string | RegExp, figure: string) => {
    await page.getByLabel(label, { exact: typeof label === 'string' }).focus()
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type(figure)
    await page.keyboard.press('Enter')
  }
  const key = async (name: string) => {
    await page.getByRole('button', { name, exact: true }).focus()
    await page.keyboard.press('Enter')
  }

  await page.goto(`${address}/trains`)
  for (const [arbor, pinion, wheel] of [
    ['Great', null, '84'],
    ['Centre', '8', '64'],
    ['Third', '8', '60'],
    ['Escape', '8', '30'],
  ] as const) {
    if (pinion !== null) await type(`Pinion of ${arbor}`, pinion)
    await type(`Wheel of ${arbor}`, wheel)
  }
  await key('Keep the counts')
  await expect.poll(async () => (await read()).trainSheets[0]?.arbors.length).toBe(4)

  // The plates: three by their coordinates, one by two distances from them.
  await open(page, `${address}/plates`)
  for (const [arbor, x, y] of [
    ['Great', '0', '0'],
    ['Centre', '0', '36'],
  ] as const) {
    await bar(page, `Press for the next to place: ${arbor}`)
    await press(page)
    await type('x', x)
    await type('y', y)
  }
  // What is placed and not kept yet outlives a reload.
  await page.reload()
  await bar(page, 'Press for the next to place: Third')
  await press(page)
  await page.getByText('By two distances').focus()
  await page.keyboard.press('Enter')
  await type('First distance', '60')
  await type('Second distance', '10')
  await expect(page.getByRole('alert')).toContainText('miss each other by 14.000 mm')
  await type('Second distance', '36')
  await key('x 33.17, y 50.00')
  await bar(page, 'Press for the next to place: Escape')
  await press(page)
  await type('x', '20')
  await type('y', '80')
  await bar(page, 'Press for the next to place: Pallets')
  await key('Keep the plates')
  await expect.poll(async () => (await read()).plateMap?.arbors[2]?.yMm).toBeCloseTo(50, 2)
  await expect(page.getByRole('button', { name: 'Third, going train: not judged' })).toBeAttached()
  await expect(page.getByRole('cell', { name: /1\.000 mm/ }).first()).toBeVisible()

  // Between the plates: the great wheel is free; the third’s back hole leans.
  await open(page, `${address}/between-plates`)
  await bar(page, 'Press when the great is free in every position')
  await press(page)
  await bar(page, 'Press for the next: Centre')
  await expect.poll(async () => (await read()).arborTests[0]?.tried).toBe(true)
  await open(page, `${address}/between-plates?at=going+Third`)
  await type('Pivot, back', '1')
  await expect.poll(async () => (await read()).holes.length).toBe(1)
  // A slow server: the caliper is taken up before it has answered.
  let answer = () => undefined as void
  const slow = new Promise<void>((go) => (answer = go))
  await page.route('**/api/jobs/*/holes/*', async (route) => {
    await slow
    await route.continue()
  })
  await type('Plate here, back', '2.4')
  await type('Lean, back', '2.6')
  await expect(page.getByText(/the caliper’s two axes would settle it/)).toBeVisible()
  await type('Lean, back', '9')
  await expect(page.getByText(/to be bushed: play 0\.39/)).toBeVisible()
  await expect(page.getByText(/Its sizes want the caliper/)).toBeVisible()

  // The caliper.
  await page.getByRole('link', { name: 'Caliper' }).focus()
  await page.keyboard.press('Enter')
  await type(/^Long way/, '1.42')
  await expect(page.getByLabel(/^Plate here/)).toHaveValue('')
  answer()
  await expect(page.getByLabel(/^Plate here/)).toHaveValue('2.40')
  await expect(page.getByLabel(/^Long way/)).toHaveValue('1.42')
  await type(/^Short way/, '1.10')
  await type(/^Worn toward/, '10')
  await expect(page.getByText(/Was it bushed off its centre before\?/)).toBeVisible()
  await page.getByRole('radio', { name: 'off its centre' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/It goes back to the distance that the counts ask for/)).toBeVisible()
  await expect.poll(async () => (await read()).observations[0]).toMatchObject({ answer: 'off its centre' })
  await type(/^Worn toward/, '4')
  await expect(page.getByText(/Was it bushed off its centre before/)).toBeHidden()
  await bar(page, 'Press to keep this')
  await press(page)
  await expect.poll(async () => (await read()).holes[0]?.longAxisMm).toBe(1.42)

  // Its pivot first.
  await open(page, `${address}/pivots?at=going+Third+back`)
  await type('Gauge, at the shoulder', '1')
  await type('Groove, deep', '0.03')
  await expect(page.getByRole('heading', { name: /Into the lathe/ })).toBeVisible()
  await expect(page.getByText(/83 %/)).toBeVisible()
  // What was just said shows before the server has it: the page is left only then.
  await expect.poll(async () => (await read()).pivots[0]?.grooveDepthMm).toBe(0.03)
  await open(page, `${address}/bushings`)
  await expect(page.getByRole('heading', { name: 'Third, back plate' })).toBeVisible()
  for (const step of ['mark the wear', 'reference marks', 'mask the neighbours']) {
    await bar(page, `Press when done: ${step}`)
    await press(page)
  }
  await bar(page, 'Press to finish its pivot first')
  // The steps go to the server one after another: all of them are there before the page is left.
  await expect.poll(async () => (await read()).bushings[0]?.done).toHaveLength(3)
  await press(page)
  await expect(page.getByRole('heading', { name: 'Third, back pivot' })).toBeVisible()
  await type('filed and burnished: the gauge now says', '0.94')
  await expect.poll(async () => (await read()).pivots[0]).toMatchObject({ work: 'burnished', finishedMm: 0.94 })

  // The plan follows the finished pivot, and stands tomorrow where it stood.
  await open(page, `${address}/bushings`)
  await expect(page.getByText('finished hole 0.98 mm for a pivot of 0.94')).toBeVisible()
  await key('Promise 1 bush to this job')
  await expect.poll(async () => (await read()).reservations.length).toBe(1)
  await bar(page, 'Press when done: file it back')
  await press(page)
  await bar(page, 'Press when done: cut')
  await expect.poll(async () => (await read()).bushings[0]?.done.length).toBe(4)
  await page.reload()
  for (const step of [
    'cut',
    'take the bush',
    'press it in',
    'broach',
    'oil sink, burr',
    'alone',
    'with its neighbour',
  ]) {
    await bar(page, `Press when done: ${step}`)
    await press(page)
  }
  await bar(page, 'Press when the going train runs by itself')
  await press(page)
  await bar(page, 'Press to go on and assemble')
  await type('The hole as it was broached', '0.98')
  await expect.poll(async () => (await read()).holes[0]?.bushed).toBe(true)
  await expect
    .poll(async () => (await read()).bushings[0])
    .toMatchObject({ source: 'stock', finishedMm: 0.98, pivotMm: 0.94 })
  expect((await read()).reservations[0]).toMatchObject({ taken: true })
  await open(page, `${address}/plates`)
  await expect(page.getByRole('button', { name: /Third going, bushed/ })).toBeVisible()
})

test('holding the pedal takes the last step of a hole back', async ({ own, page }) => {
  await stocked(own)
  const { id, address, read } = await taken(own)
  await worn(own, id)
  await page.goto(`${address}/bushings`)
  await bar(page, 'Press when done: mark the wear')
  await press(page)
  await bar(page, 'Press when done: reference marks')
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus({ preventScroll: true }))
  await page.keyboard.down('PageDown')
  await expect(page.getByText('Taken back.')).toBeAttached()
  await page.keyboard.up('PageDown')
  await bar(page, 'Press when done: mark the wear')
  await expect.poll(async () => (await read()).bushings[0]?.done).toEqual([])
})

/** A hole of the third arbor that is to be bushed, by the API. */
async function worn(shop: Workshop, jobId: string): Promise<string> {
  const id = randomUUID()
  const typed = { longAxis: null, shortAxis: null, wear: null, pivot: null, plate: null }
  await send(shop, 'PUT', `/jobs/${jobId}/holes/${id}`, {
    id,
    version: 0,
    train: 'going',
    arbor: 'Third',
    arborIndex: 2,
    plate: 'back',
    role: 'other',
    longAxisMm: 1.42,
    shortAxisMm: 1.1,
    wearDeg: 60,
    pivotMm: 1,
    plateMm: 2.4,
    moduleMm: null,
    depthShiftMm: null,
    shakeMm: null,
    leanDeg: null,
    old: 'none',
    oldHoleMm: null,
    sinkMm: null,
    waived: '',
    typed,
    verdictOverride: null,
    overrideReason: '',
    bushed: false,
    flagged: false,
  })
  return id
}

test('two people bush one movement: what the other did is laid beside it', async ({ own, page, browser }) => {
  await stocked(own)
  const { id, address, read } = await taken(own)
  await worn(own, id)
  const other = await (await browser.newContext()).newPage()
  for (const one of [page, other]) {
    await one.goto(`${address}/bushings`)
    await bar(one, 'Press when done: mark the wear')
  }
  await press(page)
  await expect.poll(async () => (await read()).bushings[0]?.done).toEqual(['mark'])
  await other.getByLabel('How', { exact: true }).selectOption('jig')
  const dialog = other.getByRole('dialog', { name: 'Somebody changed this meanwhile' })
  await expect(dialog).toBeVisible()
  await dialog.getByRole('button', { name: /Take theirs|theirs/ }).click()
  await bar(other, 'Press when done: reference marks')
  expect((await read()).bushings[0]).toMatchObject({ method: 'hand', done: ['mark'] })
  await other.getByLabel('Met in the hole').selectOption('screwed')
  await expect(other.getByText(/Unscrew it/)).toBeVisible()
  await expect.poll(async () => (await read()).holes[0]).toMatchObject({ old: 'screwed' })
  // What it leaves asks for a larger cutter than the one it was begun with.
  const leaves = other.getByRole('textbox', { name: 'Hole it leaves, across the thread’s crests' })
  await leaves.fill('0.9')
  await expect(other.getByText(/from 1.11 to 60/)).toBeVisible()
  await leaves.fill('2.5')
  await leaves.press('Enter')
  await expect(other.getByText(/It leaves 2.50 mm/)).toBeVisible()
  await expect.poll(async () => (await read()).holes[0]).toMatchObject({ oldHoleMm: 2.5 })
  // Said in error: what nothing leaves no longer chooses the cutter.
  await other.getByLabel('Met in the hole').selectOption('none')
  await expect.poll(async () => (await read()).holes[0]).toMatchObject({ old: 'none', oldHoleMm: null })
  expect((await read()).bushings[0]).toMatchObject({ done: ['mark'] })
})

test('the drawings to turn by carry sizes and tolerances; the plan prices itself', async ({ own, page }) => {
  await send(own, 'POST', '/stock/lists', {
    id: randomUUID(),
    csv: LIST.split('\n').slice(0, 3).join('\n'),
    keep: true,
  })
  const { id, address, read } = await taken(own)
  await worn(own, id)
  await page.goto(`${address}/bushings`)
  await page.getByRole('button', { name: 'Drawings to turn by' }).click()
  await expect(
    page.getByRole('img', { name: 'Outside 2.02 +0.01 −0.005, bore 0.93 +0.02 −0.03, length 2.50 +0.10 −0.05' }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Back to the plan' }).click()
  await page.getByRole('button', { name: 'Price it into the estimate' }).click()
  await expect(page).toHaveURL(/estimate$/)
  const lines = (await read()).estimates[0]?.lines ?? []
  expect(lines.find((l) => l.title.startsWith('Bush a worn hole'))).toMatchObject({ quantity: 1, kind: 'fixed' })
})

test('a photo is made true by two points, and a tap places an arbor where it is', async ({ page }) => {
  const shop = new Workshop()
  await shop.open('t_demo')
  try {
    const address = await shop.job('Round-top drum clock')
    await page.goto(`${address}/plates?do=set-out`)
    await page.getByRole('button', { name: 'Another photo under it' }).click()
    const photo = page.getByRole('group', { name: /The photo as it was taken/ })
    await expect(photo).toBeVisible()
    // Two pillars of the drawn plate, 10 pixels to the millimetre about 800, 650.
    const tap = async (x: number, y: number) => {
      const at = await photo.evaluate(
        (svg, p) => {
          const { x, y } = new DOMPoint(p.x, p.y).matrixTransform(
            (svg.querySelector('g') as SVGGElement).getScreenCTM() as DOMMatrix,
          )
          return { x, y }
        },
        { x, y },
      )
      await page.mouse.click(at.x, at.y)
    }
    await tap(280, 530)
    await expect(page.getByText('1 of 2 are tapped')).toBeVisible()
    await tap(1300, 510)
    await expect(page.getByText('2 of 2 are tapped')).toBeVisible()
    // Looked at closely, the photo is shown as it was taken; what was tapped stays where it is.
    await page.getByRole('button', { name: 'Larger' }).click()
    await expect(photo.locator('image')).toHaveAttribute('href', /\/original$/)
    await page.getByLabel('Distance between them').fill('102.02')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Lay it under the plate' }).click()
    await page.getByRole('button', { name: 'Keep the plates', exact: true }).click()
    // The first point is the new 0,0: the plate's middle lies 52 mm to the right of it and 12 below.
    await expect.poll(async () => (await read(address)).plateMap?.version).toBe(2)
    const [a, b, c, d, e, f, g, h, i] = ((await read(address)).plateMap?.trueing ?? []) as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const w = g * 800 + h * 650 + i
    expect((a * 800 + b * 650 + c) / w).toBeCloseTo(52, 0)
    expect((d * 800 + e * 650 + f) / w).toBeCloseTo(-12, 0)
  } finally {
    await shop.close()
  }
})

test('the drawers take in a list, name what is wrong with it, and give it back', async ({ own, page }) => {
  await page.goto(`${own.url}/drawers/lists`)
  const paste = page.getByLabel('or paste it here')
  await paste.fill('kind,size,count\nbush,2,1')
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByText(/The column “size” is not known/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take it in' })).toBeDisabled()
  await paste.fill('kind;outside mm;inside mm;length mm;count;low at\nbush;2,02;1,00;2,5;1;2\nbush;2,02;2,50;2,5;6;2\n')
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByText(/Line 3: Inside: it must be smaller/)).toBeVisible()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('Taken in: 1 added, 0 changed.')).toBeVisible()
  await page.getByRole('link', { name: 'To order' }).click()
  await expect(page.getByText('2.02 × 1.00 × 2.50 mm: 1 left, low at 2')).toBeVisible()
  await page.getByRole('link', { name: 'Bushes' }).click()
  await page.getByRole('button', { name: 'Change the bush of 2.02 mm by 1.00' }).click()
  await page.getByLabel('Inside').fill('3')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText(/must be smaller than the outside/)).toBeVisible()
  await page.getByLabel('Inside').fill('1.02')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('cell', { name: '1.02', exact: true })).toBeVisible()
})

test('the map is moved and enlarged by keys, and says what a hole is', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Round-top drum clock')}/plates`)
  const map = page.getByRole('group', { name: /The front plate, to scale, as seen from the front/ })
  await map.focus()
  const scale = () => map.locator('> g').getAttribute('transform')
  await page.keyboard.press('+')
  await expect.poll(scale).toContain('scale(1.4)')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('0')
  await expect.poll(scale).toContain('scale(1)')
  await page.getByRole('button', { name: 'Third arbor going, to be bushed' }).last().click()
  await expect(page.getByRole('heading', { name: 'Third arbor, back plate' })).toBeVisible()
  await expect(page.getByRole('group', { name: /mirrored: as seen from the back/ })).toBeVisible()
  await expect(page.getByText(/worn 0\.22 mm toward 1:50/)).toBeVisible()
  await expect(page.getByText(/The train should wear it toward/)).toBeVisible()
  const row = page.getByRole('row', { name: /^Centre – Third arbor/ })
  await expect(row.getByRole('img', { name: 'spoilt' })).toBeVisible()
  await expect(row).toContainText('by the wheel 25.11')
})

test('each plate comes as a drawing to print and one to cut by', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Round-top drum clock')}/plates`)
  for (const [link, name, words] of [
    ['SVG to print', /front-plate\.svg$/, 'Third arbor, going'],
    ['DXF to cut by', /front-plate\.dxf$/, 'LWPOLYLINE'],
  ] as const) {
    const download = page.waitForEvent('download')
    await page.getByRole('link', { name: link }).click()
    const file = await download
    expect(file.suggestedFilename()).toMatch(name)
    expect(readFileSync(await file.path(), 'utf8')).toContain(words)
  }
})
