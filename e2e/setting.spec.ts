import { randomUUID } from 'node:crypto'
import { newEvent, visitChangeOf, type JobPage } from '@treadle/contract'
import { meshMarks, proofsFor } from '@treadle/core'
import sharp from 'sharp'
import type { Page } from '@playwright/test'
import { CHROMIUM_FLAGS, ensureChromium } from '../scripts/lib/chromium.mjs'
import { bar, pick, send, taken, type } from './taken.ts'
import { expect, open, press, test, type Workshop } from './workshop.ts'

// A camera that shows the browser's own moving test picture.
test.use({
  launchOptions: {
    executablePath: ensureChromium(),
    args: [...CHROMIUM_FLAGS, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
  },
  permissions: ['camera'],
})

const STEPS: [part: string, tray: string, marks: string][] = [
  ['Dial', 'case', ''],
  ['Rack', 'strike', 'tail on its step'],
  ['Back plate', 'case', ''],
  ['Strike wheels', 'strike', 'warning pin at six'],
  ['Going wheels', 'going', ''],
  ['Old mainspring', 'going', ''],
]

/** A striking clock with all its parts clean on the trays, by the API; its strip log has a picture of each part. */
async function onTheTrays(own: Workshop) {
  const clock = await taken(own)
  const put = (path: string, row: object) => {
    const id = randomUUID()
    return send(own, 'PUT', `/jobs/${clock.id}/${path}/${id}`, { id, version: 0, ...row })
  }
  const page = await clock.read()
  const { version, name, kind, marks, pendulum, work } = page.clock
  const trains = ['going', 'strike'].map((train) => ({ train: train as 'going' | 'strike', power: 'spring' as const }))
  const change = { version, name, kind, marks, trains, work: { ...work, strikeWork: 'rack' } }
  await send(own, 'PATCH', `/clocks/${page.clock.id}`, { ...change, pendulum: { ...pendulum, beatsPerHour: 7200 } })
  for (const train of ['going', 'strike']) {
    const proofs = proofsFor('spring', 'wall', false).map((p) => p.key)
    const off = { id: randomUUID(), train, method: 'let-down', proofs }
    await send(own, 'POST', `/jobs/${clock.id}/power`, off)
    const counted = ['Great', 'Second', 'Third'].map((n, i) => ({ name: n, pinion: i === 0 ? null : 8, wheel: 64 }))
    const sheet = { train, arbors: counted, hourly: null, escape: false, greatTurns: null, motion: null }
    await put('trains', { ...sheet, faultPeriodS: null })
  }
  const marked = { trains, strikeWork: 'rack' as const, moon: false, calendar: false, pendulum: true }
  for (const { key } of meshMarks(marked)) await put('strip-marks', { key, state: 'done', note: '' })
  await send(own, 'POST', `/jobs/${clock.id}/part`, {})
  const photoId = randomUUID()
  const picture = await sharp({ create: { width: 320, height: 240, channels: 3, background: '#806020' } })
    .jpeg()
    .toBuffer()
  const sent = await fetch(`${own.url}/api/jobs/${clock.id}/photos/${photoId}?caption=Part`, {
    method: 'PUT',
    headers: { 'Content-Type': 'image/jpeg' },
    body: new Uint8Array(picture),
  })
  expect(sent.status).toBe(201)
  for (const [i, [part, tray, marksOf]] of STEPS.entries())
    await put('strip-steps', {
      ...{ position: i + 1, part, tray, screws: '', marks: marksOf, remark: '', count: 1, photoId },
      ...{ back: false, notBack: '' },
    })
  const { bay: _, ...job } = (await clock.read()).job
  const { complaint, runs, cameWith, promisedOn, standsAt, movedLately, lastServiced } = job
  await send(own, 'PATCH', `/jobs/${clock.id}`, {
    ...{ version: job.version, bay: 'set', complaint, runs, cameWith, promisedOn, standsAt, movedLately, lastServiced },
  })
  return clock
}

const step = async (page: Page, words: string) => {
  await bar(page, words)
  await press(page)
}
const heard = (page: JobPage, hour: number) => page.strikeCounts.find((c) => c.hour === hour)?.blows

test('from clean parts to a passed trial, by pedal, with a stop in the middle', async ({ own, page }) => {
  const { address, read } = await onTheTrays(own)
  // Oil waits for the dry run, and the pedal says so and leads there.
  await page.goto(`${address}/oil`)
  await expect(page.getByRole('heading', { name: 'Not yet: run it dry first' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Oiled', exact: true })).toBeDisabled()
  await step(page, 'Press to go and run it dry')
  await expect(page).toHaveURL(/\/assemble$/)

  // The going train alone first; one part of it does not go back, for a reason.
  await step(page, 'Press when done: front plate down on stand-offs')
  await bar(page, 'Press when it is in: Old mainspring')
  await page.getByRole('button', { name: 'It does not go back…' }).click()
  await page.getByLabel('Why it does not go back').fill('Set; a new one is in its barrel.')
  await page.keyboard.press('Enter')
  await step(page, 'Press when it is in: Going wheels')
  await expect(page.getByText('1 of 6 parts are back, 1 do not go back.')).toBeVisible()
  for (const words of ['plate on, nuts only just caught', 'bring the pivots in', 'endshake at every arbor'])
    await step(page, `Press when done: ${words}`)
  await step(page, 'Press, then type what moved the going train')
  await expect(page.getByLabel('Moved by turns')).toBeFocused()
  await page.keyboard.type('0.25')
  await page.keyboard.press('Enter')
  // Free is not to be said of a train that does not back off.
  await pick(page, 'Backs off at the end', 'It does not')
  await bar(page, 'Press: it is tight')
  await expect(page.getByRole('radiogroup', { name: 'Judged' }).getByText('free', { exact: true })).toHaveCount(0)
  await pick(page, 'Backs off at the end', 'It backs off')
  await step(page, 'Press if the going train runs freely')
  await step(page, 'Press when done: plate off again, the going train stays')
  await expect(page.getByText('warning pin at six').first()).toBeVisible()
  await step(page, 'Press when it is in: Strike wheels')
  for (const words of ['plate on, nuts only just caught', 'bring the pivots in', 'endshake at every arbor'])
    await step(page, `Press when done: ${words}`)
  await step(page, 'Press when it is in: Back plate')
  await step(page, 'Press, then type what moved the strike train')
  await page.keyboard.type('0.5')
  await page.keyboard.press('Enter')
  await step(page, 'Press if it backs off at the end')
  await step(page, 'Press if the strike train runs freely')
  await step(page, 'Press when it is in: Rack')
  await step(page, 'Press when it is in: Dial')
  await expect(page.getByText('Everything that came out is back in.')).toBeVisible()
  await type(page, 'Least that keeps it going', '1.25')
  await expect.poll(async () => (await read()).observations.find((o) => o.key === 'drive-again')?.second).toBe(1.25)

  // Oil: every point by the foot, front, back and inside; one that this clock has not is left out.
  await step(page, 'Press to go on and oil it')
  await bar(page, 'Press when oiled: Great, going')
  await type(page, 'Sink, across', '2.4')
  await expect(page.getByText(/A drop of 1\.\d\d µl/)).toBeVisible()
  await page.getByRole('button', { name: 'Rack tail and hook' }).click()
  await page.getByRole('button', { name: 'This clock has none' }).click()
  const foot = page.getByRole('button', { name: 'Press', exact: false }).last()
  for (;;) {
    await expect(foot).toHaveText(/Press(: it is oiled| when oiled| if it is dry| for the next point)/)
    const words = (await foot.textContent()) ?? ''
    await press(page)
    if (words.startsWith('Press: it is oiled')) break
    await expect(foot).not.toHaveText(words)
  }
  await expect(page.getByText('It is oiled; its next oil is counted from that.')).toBeVisible()
  // The foot is quicker than the server: all that it ticked off is there before the page is left.
  await expect.poll(async () => (await read()).gates.find((g) => g.name === 'oil')?.passed).toBe(true)
  const ticked = (await read()).oilSheets[0]
  expect(ticked?.left).toEqual(['rack'])
  expect(ticked?.done).toEqual(expect.arrayContaining(['pallet faces', 'motion work', 'strike mainspring']))

  // Strike: how it strikes is said once; set up by its steps; counted round by hand, one hour wrong.
  await open(page, `${address}/strike`)
  await step(page, 'Press if it strikes so: rack and snail')
  await expect.poll(async () => (await read()).clock.work.strike?.kind).toBe('rack')
  await page.getByText('Set it up', { exact: true }).click()
  for (let i = 0; i < 6; i++) {
    await expect(foot).toHaveText(/Press when done/)
    const words = (await foot.textContent()) ?? ''
    await press(page)
    await expect(foot).not.toHaveText(words)
  }
  await step(page, 'Press to count it round')
  await page.getByText('by hand, moved on quickly').click()
  for (let hour = 1; hour <= 12; hour++) {
    await bar(page, `Press if ${hour} o’clock strikes ${hour}`)
    if (hour < 8) await press(page)
    else await type(page, 'Else it struck', String(hour + 1))
  }
  await expect(page.getByRole('heading', { name: 'All one too many after 7.' })).toBeVisible()
  await expect(page.getByRole('list', { name: 'What makes it strike so' })).toContainText(
    'Rack tail too long or too short',
  )
  await page.getByRole('button', { name: 'Show it in the model' }).first().click()
  await expect(page.getByLabel('What if a part stands wrong')).toHaveValue('rack-long')
  await page.getByLabel('At', { exact: true }).selectOption('9 o’clock')
  await expect(page.getByText(/It strikes 10 blows; it should be 9 blows/)).toBeVisible()
  await step(page, 'Press to go on: the lift begins')
  await bar(page, 'Press to go on: it warns')
  // Put right, the high hours are counted once more; the last by the foot, blow by blow.
  await page.getByText('Count it round', { exact: true }).click()
  await page.getByText('by hand, moved on quickly').click()
  for (let hour = 8; hour <= 11; hour++) {
    await page
      .getByRole('list', { name: 'Twelve hours round' })
      .getByRole('button')
      .nth(hour - 1)
      .click()
    await step(page, `Press if ${hour} o’clock strikes ${hour}`)
    await expect.poll(async () => heard(await read(), hour)).toBe(hour)
  }
  await page.getByText('blow by blow, by the foot').click()
  await bar(page, 'Press at each blow of 12 o’clock')
  for (let n = 1; n <= 12; n++) {
    await press(page)
    await expect(foot).toContainText(`${n} so far`)
  }
  await page.getByRole('button', { name: 'It has finished' }).click()
  await expect.poll(async () => heard(await read(), 12)).toBe(12)
  await expect(page.getByRole('heading', { name: 'All that was counted is right.' })).toBeVisible()

  // In beat, by a listening; then its trial.
  await open(page, `${address}/listen`)
  await page.getByRole('button', { name: 'Practice clock' }).click()
  await expect(page.getByText(/ms out of beat/)).toBeVisible()
  await page.keyboard.press('l')
  await step(page, 'Press to keep this listening')
  await expect.poll(async () => (await read()).listenings.length).toBe(1)
  await send(own, 'POST', `/jobs/${(await read()).job.id}/overrides`, {
    ...{ id: randomUUID(), gate: 'beat', reason: 'The practice clock limps; this one does not.' },
  })
  await page.goto(`${address}/trial`)
  await step(page, 'Press to begin its trial')
  await expect(page.getByRole('heading', { name: 'Day 1 of 7' })).toBeVisible()
  await expect.poll(async () => (await read()).events.some((e) => e.kind === 'trial')).toBe(true)

  await own.timePasses('3 days')
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Day 4 of 7' })).toBeVisible()
  await page.getByRole('button', { name: 'It has stopped…' }).click()
  await page.getByLabel('The dial shows').fill('13:90')
  await expect(page.getByText('The dial shows: a time on the dial, such as 3:47')).toBeVisible()
  await expect(page.getByRole('button', { name: 'It stopped, and is started again' })).toBeDisabled()
  await page.getByLabel('The dial shows').fill('2:56')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'It stopped at 2:56: why?' })).toBeVisible()
  await expect(page.getByText(/while it lifts its strike or stands in warning/)).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Day 1 of 7' })).toBeVisible()
  await expect(page.getByText(/Struck round the dial: 0 of 12 heard/)).toBeVisible()
  await page.getByLabel('What it was').fill('The rack was held by its pallet.')
  await page.keyboard.press('Enter')
  await expect(page.getByText('found, The rack was held by its pallet.')).toBeVisible()

  // Heard round once more since, wound by the foot; seven days on it has passed.
  await expect.poll(async () => (await read()).observations.some((o) => o.key.startsWith('stop:'))).toBe(true)
  for (const c of (await read()).strikeCounts) {
    const { jobId: _j, at: _a, who: _w, whoId: _i, ...row } = c
    const again = { ...row, heardAt: new Date().toISOString() }
    await send(own, 'PUT', `/jobs/${(await read()).job.id}/strike-counts/${c.id}`, again)
  }
  await page.reload()
  await step(page, 'Press when it is fully wound, every train')
  await bar(page, 'Press if it has stopped')
  await expect.poll(async () => (await read()).events.some((e) => e.kind === 'winding')).toBe(true)
  await own.timePasses('8 days')
  await page.reload()
  await expect(page.getByRole('heading', { name: 'It has passed its trial' })).toBeVisible()
  const proof = page.getByRole('article', { name: 'The proof of its trial' })
  await expect(proof).toContainText('7 days without a stop or a change')
  await expect(proof).toContainText('wound once since it counts')
  await expect(proof).toContainText('Counted right round the dial: all 12 times right.')
  await bar(page, 'Press to print its proof')
  expect((await read()).gates.find((g) => g.name === 'trial')?.passed).toBe(true)
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print its proof' })).toBeHidden()
  expect((await page.pdf({ preferCSSPageSize: true })).toString('latin1').match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1)
})

test('the old picture lies half clear over the camera, and alone while the foot is held', async ({ own, page }) => {
  const { address } = await onTheTrays(own)
  // A camera of the test's own: the browser's pretended one may take longer to begin than anybody waits.
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => {
      const canvas = document.createElement('canvas')
      const picture = canvas.getContext('2d')
      let shade = 0
      setInterval(() => {
        if (!picture) return
        picture.fillStyle = `rgb(${(shade = (shade + 16) % 256)} 120 60)`
        picture.fillRect(0, 0, canvas.width, canvas.height)
      }, 100)
      return Promise.resolve(canvas.captureStream())
    }
  })
  await page.goto(`${address}/assemble`)
  await step(page, 'Press when done: front plate down on stand-offs')
  await bar(page, 'Press when it is in: Old mainspring')
  await page.getByRole('button', { name: 'Lay it over the camera' }).click()
  const video = page.getByLabel('What the camera sees now')
  await expect.poll(() => video.evaluate((v) => (v as HTMLVideoElement).videoWidth)).toBeGreaterThan(0)
  const old = page.getByRole('img', { name: 'As it came out: Old mainspring' })
  await expect(old).toHaveCSS('opacity', '0.5')
  await expect(page.getByText('hold: the old picture alone')).toBeVisible()
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus())
  await page.keyboard.down('PageDown')
  await expect(old).toHaveCSS('opacity', '1')
  await page.keyboard.up('PageDown')
  await expect(old).toHaveCSS('opacity', '0.5')
  // Nothing was said to be in by the hold; a press says it, and the camera shows beside the next part too.
  await expect(page.getByText('0 of 6 parts are back.')).toBeVisible()
  await page.getByLabel('How clear the old picture is').focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
  await expect(old).toHaveCSS('opacity', '0.7')
  await step(page, 'Press when it is in: Old mainspring')
  await expect(page.getByRole('img', { name: 'As it came out: Going wheels' })).toHaveCSS('opacity', '0.7')
  await expect
    .poll(() => page.getByLabel('What the camera sees now').evaluate((v) => (v as HTMLVideoElement).videoWidth))
    .toBeGreaterThan(0)
})

test('a count that goes quiet is kept by itself, and a hold takes a blow back', async ({ own, page }) => {
  const { address, read } = await onTheTrays(own)
  await page.clock.install()
  await page.goto(`${address}/strike?show=count`)
  await step(page, 'Press if it strikes so: rack and snail')
  await bar(page, 'Press at each blow of 1 o’clock')
  const foot = page.getByRole('button', { name: 'Press', exact: false }).last()
  await press(page)
  await expect(foot).toContainText('1 so far')
  await press(page)
  await expect(foot).toContainText('2 so far')
  await page.keyboard.down('PageDown')
  await page.clock.runFor(700)
  await page.keyboard.up('PageDown')
  await expect(foot).toContainText('1 so far')
  await page.clock.runFor(5100)
  await expect.poll(async () => (await read()).strikeCounts.map((c) => [c.hour, c.blows])).toEqual([[1, 1]])
  await bar(page, 'Press at each blow of 2 o’clock')
})

test('a movement of a hundred and fifty steps goes together at the pace of the foot', async ({ own, page }) => {
  const { id, address, read } = await onTheTrays(own)
  for (let i = 0; i < 144; i++) {
    const row = { id: randomUUID(), version: 0, position: 10 + i, part: `Small part ${i}`, tray: 'strike', screws: '' }
    await send(own, 'PUT', `/jobs/${id}/strip-steps/${row.id}`, {
      ...{ ...row, marks: '', remark: '', count: 1, photoId: null, back: false, notBack: '' },
    })
  }
  await page.goto(`${address}/assemble`)
  await expect(
    page.getByRole('list', { name: 'In the order in which it goes together' }).getByRole('listitem'),
  ).toHaveCount(160)
  await step(page, 'Press when done: front plate down on stand-offs')
  // Two presses, however quick, are of two parts.
  await bar(page, 'Press when it is in: Old mainspring')
  await press(page)
  await press(page)
  await bar(page, 'Press when done: plate on')
  await expect.poll(async () => (await read()).stripSteps.filter((s) => s.back).length).toBe(2)
  // One train of it only: the visit is for the strike, and the going train is not asked for.
  const visit = visitChangeOf((await read()).job)
  await send(own, 'PUT', `/jobs/${id}/visit`, {
    ...{ ...visit, scope: 'one-train', scopeTrain: 'strike', scopeReason: 'The going train runs.' },
  })
  await page.reload()
  await expect(page.getByText('Run the strike train dry').first()).toBeVisible()
  await expect(page.getByText('Run the going train dry')).toHaveCount(0)
})

test('oils stand in their drawer with their age, and go where they are said to be', async ({ own, page }) => {
  const { id, address, read } = await onTheTrays(own)
  await page.goto(`${own.url}/drawers/oils`)
  await page.getByRole('button', { name: 'Put in a pivot oil' }).click()
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.getByText(/^Name/).first()).toBeVisible()
  await page.getByLabel('Name', { exact: true }).fill('Pale oil')
  await page.getByLabel('Trusted in a clock').selectOption('short')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.getByRole('cell', { name: 'Pale oil', exact: true })).toBeVisible()
  await open(page, `${address}/oil`)
  await page.getByLabel('Pivot oil').selectOption('Pale oil')
  await expect.poll(async () => (await read()).oilSheets[0]?.pivotOilId).toBeTruthy()
  // Overridden in writing it may be oiled; its picture is judged, and stands beside the others.
  await page.getByRole('button', { name: 'Override…' }).click()
  await page.getByLabel('Reason', { exact: true }).fill('Tried in the frame yesterday, both trains.')
  await page.getByRole('button', { name: 'Override this gate' }).click()
  await bar(page, 'Press when oiled: Great, going')
  const oiled = newEvent(randomUUID(), 'oiled', new Date().toISOString())
  await send(own, 'PUT', `/jobs/${id}/events/${oiled.id}`, oiled)
  await page.reload()
  const picture = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#b98f3e' } })
    .jpeg()
    .toBuffer()
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 's.jpg', mimeType: 'image/jpeg', buffer: picture })
  await page.getByLabel('The oil, front, freshly oiled').selectOption('stays')
  await expect.poll(async () => (await read()).witnesses.map((w) => w.state)).toEqual(['stays'])
  await open(page, `${own.url}/drawers/oils`)
  await expect(page.getByRole('cell', { name: 'stayed in 1, for up to 0.0 years' })).toBeVisible()
  await page.getByRole('button', { name: 'Change Pale oil' }).click()
  await page.getByRole('button', { name: 'Take it out' }).click()
  await expect(page.getByText(/Pale oil stays: it is in 1 clock/)).toBeVisible()
})
