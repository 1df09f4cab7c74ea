import { randomUUID } from 'node:crypto'
import type { JobPage } from '@treadle/contract'
import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { expect, open, press, test, type Workshop } from './workshop.ts'

// A camera that shows the browser's own moving test picture.
test.use({
  launchOptions: {
    executablePath: ensureChromium(),
    args: [...CHROMIUM_FLAGS, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
  },
  permissions: ['camera', 'notifications'],
})

async function takeIn(own: Workshop): Promise<{ id: string; read: () => Promise<JobPage> }> {
  const id = randomUUID()
  const pendulum = {
    beatsPerHour: null,
    lengthMm: null,
    pitchMm: null,
    semiArcDeg: null,
    releaseDeg: null,
    crutchLengthMm: null,
    footSpacingMm: null,
    caseHeightMm: null,
    escapeTeeth: null,
    windsEveryDays: null,
  }
  const body = {
    id,
    owner: { id: randomUUID(), name: 'Gull Row', phone: '', address: '' },
    clock: {
      id: randomUUID(),
      name: 'Shelf clock',
      kind: 'shelf',
      marks: '',
      trains: [{ train: 'going', power: 'open-spring' }],
      pendulum,
      work: { strikeWork: null, moon: false, calendar: false, mercury: false },
    },
    complaint: 'Stops.',
    cameWith: [],
    promisedOn: null,
    standsAt: '',
    movedLately: 'unknown',
    lastServiced: null,
  }
  const answer = await fetch(`${own.url}/api/jobs`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  })
  expect(answer.status).toBe(201)
  return { id, read: async () => (await (await fetch(`${own.url}/api/jobs/${id}`)).json()) as JobPage }
}

test('every proof is tried before a spring counts as off; what is in it is said so that it is felt', async ({
  own,
  page,
}) => {
  const { id, read } = await takeIn(own)
  await page.goto(`${own.url}/jobs/${id}/power`)
  await page.getByText('Dimensions of the spring, if you know them').click()
  for (const [label, mm] of [
    ['Width', '19'],
    ['Thickness', '0.4'],
    ['Length', '1708'],
    ['Barrel, inside', '44'],
    ['Arbor', '14'],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(mm)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText(/a 10 kg weight falling 5\d cm/)).toBeVisible()
  // A winder too weak for it is worse than none.
  await page.getByLabel('Your winder is rated for').fill('1400')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Too weak: 1356 N·mm asks for 1627 at least/)).toBeVisible()

  const off = page.getByRole('button', { name: /The going train is off, says/ })
  await expect(off).toBeDisabled()
  await page.getByRole('checkbox', { name: 'The winding square turns free both ways' }).check()
  await page.getByRole('checkbox', { name: /The great wheel turns by hand/ }).check()
  await expect(off).toBeDisabled()
  await page.getByLabel('How the going train is taken off').selectOption('run-down')
  await expect(page.getByText(/Only where the click can’t be reached/)).toBeVisible()
  await page.getByRole('checkbox', { name: /The spring lies in its clamp/ }).check()
  await off.click()
  await expect(page.getByText(/^Off: run down, the click out of reach/)).toBeVisible()
  await page.getByRole('button', { name: 'Take that back' }).click()
  await expect(off).toBeVisible()
  expect((await read()).powerOffs).toHaveLength(0)
})

test('a gate overridden in writing shows on the job from then on', async ({ own, page }) => {
  const { id } = await takeIn(own)
  await page.goto(`${own.url}/jobs/${id}/power`)
  await page.getByText('It has to be parted with power on it').click()
  await page.getByLabel('Reason', { exact: true }).fill('Great wheel broken, spring out already.')
  await page.getByRole('button', { name: 'Override this gate' }).click()
  const shown = page.getByRole('list', { name: 'Gates overridden on this job' })
  await expect(shown).toContainText('Great wheel broken')
  // The meshes are still to be marked: the override was of the power alone.
  await expect(page.getByRole('button', { name: 'Part the plates', exact: true })).toBeDisabled()
  await page.getByRole('link', { name: 'Take apart', exact: true }).click()
  await page.getByRole('button', { name: /^Waive: Direction of each click/ }).click()
  await page.getByLabel('Reason for leaving it out').fill('x')
  await expect(page.getByRole('button', { name: 'Waive', exact: true })).toBeDisabled()
  await page.getByLabel('Reason for leaving it out').fill('The click is gone.')
  await page.getByRole('button', { name: 'Waive', exact: true }).click()
  await expect(page.getByText('Waived: The click is gone.')).toBeVisible()
  await page.getByRole('link', { name: 'Power', exact: true }).click()
  await page.getByRole('button', { name: 'Part the plates', exact: true }).click()
  await expect(page.getByText(/Parted \w+ \d/)).toBeVisible()
  await page.getByRole('link', { name: 'Visit', exact: true }).click()
  await page.getByRole('link', { name: 'Journal', exact: true }).click()
  await expect(shown).toContainText('Great wheel broken')
})

test('a press takes the picture and begins the next step; a hundred and fifty stay quick', async ({ own, page }) => {
  const { id, read } = await takeIn(own)
  // A hundred and forty-seven are there already, each with its picture.
  await page.goto(`${own.url}/jobs/${id}/strip`)
  await page.getByRole('button', { name: /^Marked: Direction of each click/ }).click()
  await page.getByRole('button', { name: 'Switch the camera on' }).click()
  await expect(page.getByLabel('The camera’s picture')).toBeVisible()
  await expect
    .poll(() => page.getByLabel('The camera’s picture').evaluate((v) => (v as HTMLVideoElement).videoWidth))
    .toBeGreaterThan(0)
  await page.getByLabel('What comes off').fill('Warning lever')
  await expect(page.getByText(/thin washer is often held there by old oil/)).toBeVisible()
  await press(page)
  await expect(page.getByText('1 step, 1 part out')).toBeVisible()
  await expect(page.getByRole('img', { name: 'Step 1: Warning lever' })).toBeVisible()
  // Nothing typed, hands oily: the step is kept under its number.
  await press(page)
  await expect(page.getByText('2 steps, 2 parts out')).toBeVisible()
  const first = (await read()).stripSteps[0]!
  expect(first.photoId).not.toBeNull()
  for (let i = 3; i <= 149; i++) {
    const step = { ...first, id: randomUUID(), version: 0, position: i, part: `Part ${i}` }
    const { jobId: _j, at: _a, who: _w, whoId: _i, ...row } = step
    const put = await fetch(`${own.url}/api/jobs/${id}/strip-steps/${step.id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(row),
    })
    expect(put.status).toBe(201)
  }
  await page.reload()
  await expect(page.getByText('149 steps, 149 parts out')).toBeVisible()
  // Pictures that are not looked at are not fetched; those that are, are small.
  const fetched = await page.evaluate(
    () => performance.getEntriesByType('resource').filter((r) => r.name.includes('/api/photos/')).length,
  )
  expect(fetched).toBeLessThan(5)
  await page.getByLabel('What comes off').fill('Last screw')
  await page.keyboard.press('Enter')
  await expect(page.getByText('150 steps, 150 parts out')).toBeVisible()
  const { stripSteps } = await read()
  expect(stripSteps.at(-1)?.part).toBe('Last screw')

  // Read backwards: the last is the first to go in, by the pedal; held, it comes out again.
  await page.getByRole('link', { name: 'Set', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Last screw' })).toBeVisible()
  await press(page)
  await expect(page.getByRole('heading', { name: 'Part 149' })).toBeVisible()
  await expect(page.getByText('1 of 150 parts are back.')).toBeVisible()
  await expect(page.getByRole('list', { name: 'Not back yet' }).getByRole('listitem')).toHaveCount(149)
  await page.keyboard.down('PageDown')
  await expect(page.getByRole('heading', { name: 'Last screw' })).toBeVisible()
  await page.keyboard.up('PageDown')
})

test('a picture taken while the server is away waits with its step, and the page is not closed unasked', async ({
  alone,
  page,
}) => {
  const { id, read } = await takeIn(alone)
  await page.goto(`${alone.url}/jobs/${id}/strip`)
  await page.getByRole('button', { name: /^Marked: Direction of each click/ }).click()
  // The foot takes the picture only once every mesh is marked.
  await expect(page.getByText('Every mesh is marked or waived')).toBeVisible()
  await page.getByRole('button', { name: 'Switch the camera on' }).click()
  await expect
    .poll(() => page.getByLabel('The camera’s picture').evaluate((v) => (v as HTMLVideoElement).videoWidth))
    .toBeGreaterThan(0)
  await alone.kill()
  await page.getByLabel('What comes off').fill('Bell stand')
  await press(page)
  await expect(page.getByRole('status').filter({ hasText: 'does not answer' })).toBeVisible()
  const asked = page.waitForEvent('dialog')
  await page.close({ runBeforeUnload: true })
  const dialog = await asked
  expect(dialog.type()).toBe('beforeunload')
  await dialog.dismiss()
  await alone.start()
  await expect(page.getByRole('img', { name: 'Step 1: Bell stand' })).toBeVisible()
  const { stripSteps } = await read()
  expect(stripSteps).toHaveLength(1)
  expect(stripSteps[0]?.photoId).not.toBeNull()
})

test('steps are moved by the keyboard, changed, taken out, and all of it undone', async ({ own, page }) => {
  const { id, read } = await takeIn(own)
  await page.goto(`${own.url}/jobs/${id}/strip`)
  for (const [i, part] of ['Hands', 'Dial', 'Bridge'].entries()) {
    await page.getByLabel('What comes off').fill(part)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('button', { name: `Move step ${i + 1}, ${part}` })).toBeVisible()
  }
  const stands = async (...order: string[]) => {
    for (const [i, part] of order.entries())
      await expect(page.getByRole('button', { name: `Move step ${i + 1}, ${part}`, exact: true })).toBeVisible()
    // Shown at once, and kept as soon as the server has answered.
    await expect.poll(async () => (await read()).stripSteps.map((s) => s.part)).toEqual(order)
  }
  await page.getByRole('button', { name: 'Move step 3, Bridge' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText('Over Bridge.')).toBeAttached()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText('Over Dial.')).toBeAttached()
  await page.keyboard.press('Space')
  await stands('Hands', 'Bridge', 'Dial')
  await page.getByRole('button', { name: 'Undo: moved Bridge' }).click()
  await stands('Hands', 'Dial', 'Bridge')
  await page.getByRole('button', { name: 'Change step 2' }).click()
  await page.getByLabel('Part', { exact: true }).fill('Dial and bezel')
  await page.getByRole('button', { name: 'Keep the change' }).click()
  await stands('Hands', 'Dial and bezel', 'Bridge')
  await page.getByRole('button', { name: 'Change step 1' }).click()
  await page.getByRole('button', { name: 'Take this step out of the log' }).click()
  await stands('Dial and bezel', 'Bridge')
  await page.getByRole('button', { name: 'Undo: took out Hands' }).click()
  await stands('Hands', 'Dial and bezel', 'Bridge')
  await page.getByRole('button', { name: 'Undo: changed Dial' }).click()
  await stands('Hands', 'Dial', 'Bridge')
})

test('what must stay dry goes in no bath; a bath outlives a reload, another device and the page', async ({
  own,
  page,
  context,
}) => {
  const { id, read } = await takeIn(own)
  await page.goto(`${own.url}/jobs/${id}/clean`)
  await page.getByRole('button', { name: '+ plates and cocks' }).click()
  await page.getByLabel('Part', { exact: true }).fill('Dial')
  await page.getByLabel('Finish').selectOption('silvered')
  await page.getByRole('button', { name: 'Add it' }).click()
  await expect(page.getByText('silvering is a skin that any bath takes off')).toBeVisible()
  await page.getByRole('button', { name: '+ mainspring' }).click()
  await expect(page.getByRole('heading', { name: 'Cleaning spirit, by hand' })).toBeVisible()
  await expect.poll(async () => (await read()).cleanParts.length).toBe(3)

  await page.clock.install()
  await page.reload()
  await page.getByRole('button', { name: 'They are in: start 8 minutes' }).click()
  const timer = page.getByRole('timer', { name: 'Ammoniated bath, ultrasonic' })
  await expect(timer).toContainText(/^[78]:\d\d/)
  // What is in the bath is not put in once more.
  await expect(page.getByRole('button', { name: 'They are in: start 8 minutes' })).toBeHidden()
  await expect.poll(async () => (await read()).timers.length).toBe(1)
  await page.reload()
  await expect(timer).toContainText(/^[78]:\d\d/)
  // Another device sees the same bath.
  const other = await context.newPage()
  await other.goto(`${own.url}/`)
  await expect(other.getByText('Ammoniated bath, ultrasonic').first()).toBeVisible()
  await other.close()
  // Its time over, it calls wherever one is; here on the page itself.
  await page.clock.fastForward('09:00')
  await expect(page.getByText(/Shelf clock: Ammoniated bath/)).toBeVisible()
  await expect(timer).toContainText('over')
  // Out of the bath, what must follow at once begins at once.
  await page.getByRole('button', { name: 'It is out', exact: true }).click()
  await expect(page.getByRole('timer', { name: /Rinse at once/ })).toBeVisible()
  await expect
    .poll(async () => (await read()).timers.map((t) => [t.step, t.stopped]))
    .toEqual([
      [0, true],
      [1, false],
    ])
})

test('oiled in place it is a stop-gap, and the owner is asked back sooner', async ({ own, page }) => {
  const { id } = await takeIn(own)
  // On a busy machine timers come late; what was done shows all the same from the press on, and never as not done again.
  await page.addInitScript(() => {
    const inTime = window.setTimeout.bind(window)
    const counts: number[] = []
    Object.assign(window, { setTimeout: (f: () => void, ms = 0) => inTime(f, ms + 300), counts })
    const count = () => counts.push(document.querySelectorAll('input[type=checkbox]:checked').length)
    new MutationObserver(count).observe(document, { subtree: true, childList: true, characterData: true })
  })
  await page.goto(`${own.url}/jobs/${id}/clean?where=house`)
  await expect(page.getByRole('button', { name: 'Record it as oiled in place' })).toBeDisabled()
  for (let i = 0; i < 6; i++) {
    await Promise.all([page.waitForResponse((answer) => answer.url().includes('/observations/')), press(page)])
    await expect(page.getByRole('checkbox', { checked: true })).toHaveCount(i + 1)
  }
  const counts = await page.evaluate(() => (window as unknown as { counts: number[] }).counts)
  expect(counts).toEqual([...counts].sort((a, b) => a - b))
  await page.getByLabel('What could not be reached').fill('Centre pivot behind the dial')
  // It shows at once; the page is left only when the server has it.
  const kept = page.waitForResponse((answer) => answer.request().postData()?.includes('"key":"in-place"') === true)
  await page.getByRole('button', { name: 'Record it as oiled in place' }).click()
  await expect(page.getByText(/as a stop-gap/).first()).toBeVisible()
  await kept
  await open(page, `${own.url}/jobs/${id}/card`)
  await expect(page.getByText(/a stop-gap\. Its oil should be looked at in/)).toContainText(
    String(new Date().getFullYear() + 1),
  )
})

test('what is owed is done, put off or not needed, and comes back when it is taken back', async ({ own, page }) => {
  const { id } = await takeIn(own)
  await page.goto(own.url)
  await page
    .getByRole('button', { name: 'Take in a clock' })
    .or(page.getByRole('link', { name: 'Take in a clock' }))
    .first()
    .waitFor()
  // A promise that is past stands in Now.
  const read = (await (await fetch(`${own.url}/api/jobs/${id}`)).json()) as JobPage
  const { version, bay, complaint, runs, cameWith, standsAt, movedLately, lastServiced } = read.job
  await fetch(`${own.url}/api/jobs/${id}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      version,
      bay,
      complaint,
      runs,
      cameWith,
      standsAt,
      movedLately,
      lastServiced,
      promisedOn: '2026-01-05',
    }),
  })
  await page.reload()
  const menu = page.getByRole('button', { name: /^Ring the owner: it is late, Shelf clock/ })
  await menu.click()
  await page.getByRole('menuitem', { name: 'Later: tomorrow morning' }).click()
  await expect(menu).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(menu).toBeVisible()
  await menu.click()
  await page.getByRole('menuitem', { name: 'Done' }).click()
  await expect(menu).toBeHidden()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'As a calendar' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('treadle-now.ics')
})

test('the workshop’s prices are its own, and a wrong one is named', async ({ own, page }) => {
  await page.goto(`${own.url}/tables/prices`)
  await page.getByLabel('Price of Suspension spring').fill('a lot')
  await page.getByRole('button', { name: 'Keep the table' }).click()
  await expect(page.getByRole('alert')).toContainText('must be an amount such as 12.50')
  await page.getByLabel('Price of Suspension spring').fill('16,50')
  await page.getByRole('button', { name: 'Keep the table' }).click()
  await expect(page.getByText('Kept.', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Price of Suspension spring')).toHaveValue('16.50')
  await open(page, `${own.url}/tables/trouble`)
  await page.getByLabel('How often: It is out of beat').fill('40')
  await page.getByRole('button', { name: 'Chances of: Is the beat even?' }).click()
  await page.getByLabel('Is the beat even? yes, under: It is out of beat').fill('1.5')
  await page.getByRole('button', { name: 'Keep the table' }).click()
  await expect(page.getByRole('alert')).toContainText('from 0 to 1')
})
