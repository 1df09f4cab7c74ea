import { GATE_TITLES } from '@treadle/core'
import { expect, press, test } from './workshop.ts'

/** One clock from door to door and back two years later, by keyboard and pedal alone: no mouse is touched in this test. */
test('from an empty workshop a clock is taken in, mended, handed back, and comes again', async ({ empty, page }) => {
  const type = async (label: string | RegExp, text: string) => {
    await page.getByLabel(label, { exact: typeof label === 'string' }).focus()
    await page.keyboard.type(text)
  }
  const key = async (name: string | RegExp, role: 'button' | 'checkbox' | 'link' = 'button') => {
    const control = page.getByRole(role, { name, exact: typeof name === 'string' }).first()
    await control.focus()
    await page.keyboard.press(role === 'checkbox' ? 'Space' : 'Enter')
  }
  const foot = page.getByRole('button', { name: /^(Press|Type)/ }).last()
  const bar = (words: string | RegExp) => expect(page.getByRole('button', { name: words }).last()).toBeVisible()
  const step = async (words: string | RegExp) => {
    await bar(words)
    await press(page)
  }

  // The first page of all: who works here.
  await page.goto(empty.url)
  await key('Begin')
  await expect(page.getByRole('alert')).toContainText('Who works here: name at least one person')
  await type(/^Names/, 'Ness Pilot')
  await type('Workshop', 'Pilot’s bench')
  await key('Begin')
  await expect(page.getByRole('heading', { name: 'Nothing on the bench' })).toBeVisible()

  // The drawers as a list, so that there is a cutter to bush with.
  await page.goto(`${empty.url}/drawers/lists`)
  await type('or paste it here', 'kind,measured mm,count\ncutter,2,1')
  await key('Look at it')
  await key('Take it in')
  await expect(page.getByText('Taken in: 1 added, 0 changed.')).toBeVisible()

  // Arrive: the papers; and what comes first is said there.
  await page.goto(empty.url)
  await key('Take in a clock', 'link')
  await type('Owner *', 'Pilot house')
  await type('Telephone', '0555 2040')
  await type('What you call it *', 'Pilot’s shelf clock')
  await type('In the owner’s words *', 'Limps and stops.')
  await key('key or crank', 'checkbox')
  await key('Take it in')
  await expect(page.getByRole('heading', { name: 'Pilot’s shelf clock' })).toBeVisible()
  await expect(page).toHaveURL(/\/arrive$/)

  // Hear it before touching it: the practice clock stands in for the microphone.
  await step('Press to hear it before touching it')
  await key('Practice clock')
  await expect(page.getByText(/ms out of beat/)).toBeVisible()
  await bar('Press as the bob reaches the right')
  await page.keyboard.press('l')
  await bar('Press to keep this listening')
  // One may leave to give the length, and find it again.
  await key('Arrive', 'link')
  for (const [label, value] of [
    ['Beats an hour', '7200'],
    ['Length of the pendulum', '248'],
    ['Pitch of the nut’s thread', '0.7'],
    ['Semi-arc', '5'],
    ['Release angle', '2'],
    ['Length of the crutch', '115'],
    ['Distance of the feet', '300'],
  ] as const)
    await type(label, value)
  await bar(/^Type, then Enter/)
  await key('Keep the figures')
  await expect(page.getByText('Kept.', { exact: true }).first()).toBeVisible()
  await step('Press to hear it before touching it')
  await step('Press to keep this listening')
  await step('Press to go back to its papers')

  // Strip: the power.
  await step('Press to send it to the strip')
  const parting = page.getByRole('button', { name: 'Part the plates', exact: true })
  await bar('Press when tried: the winding square turns free both ways')
  await expect(parting).toBeDisabled()
  await press(page)
  await step('Press when tried: the great wheel turns by hand')
  await step('Press when the going train is off')
  await bar('Press to mark its meshes')
  await expect(parting).toBeDisabled()
  await press(page)
  await step('Press when marked: Direction of each click and ratchet')
  await step('Press when marked: Position of the rating nut')

  // Strip: one step of the log before the plates, without a camera.
  await bar('Press to keep step 1')
  await type('What comes off', 'Minute hand')
  await press(page)
  await expect(page.getByText('1 step, 1 part out')).toBeVisible()
  await key('the power gate', 'link')
  await step('Press to part the plates')
  await expect(page.getByText(/Parted \w+ \d/)).toBeVisible()
  await bar('Press to go on to taking it apart')

  // Clean: into the bath, out of it, dry, pegged; and on to the mending.
  await key('Clean', 'link')
  await key('+ plates and cocks')
  await step(/^Press when they are in/)
  for (;;) {
    await bar(/^Press when (it is out|they are clean and dry)/)
    const words = await foot.textContent()
    await press(page)
    if (words?.includes('clean and dry')) break
    await expect(foot).not.toHaveText(words ?? '')
  }
  for (const place of ['front plate, all holes', 'back plate, all holes', 'cocks and pulleys'])
    await step(`Press when it is pegged clean: ${place}`)
  await step('Press to go on and mend it')
  await expect(page.getByLabel('Bay this clock is in')).toHaveValue('mend')

  // Mend: one hole, by caliper; its bush by its plan.
  await key('Holes', 'link')
  await key('One by name')
  await type('Arbor *', 'Third arbor')
  await key('Add this hole')
  await expect(page.getByLabel(/^Long way/)).toBeFocused()
  for (const figure of ['1.32', '1.10', '1:50', '1.00', '2.4']) {
    await page.keyboard.type(figure)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText('Bush it', { exact: true })).toBeVisible()
  await expect(page.getByText('Play is 21 % of the pivot; here 10 is the most.')).toBeVisible()
  await expect(page.getByRole('row', { name: /Cutter/ })).toContainText('2.00 mm')
  await bar('Press to keep this')
  await page.keyboard.press('PageDown')
  await bar('Press to bush it, by its plan')
  await key('All other holes of the going train: looked at with the wheels between the empty plates, and sound')
  await expect(page.getByText(/^All other holes of the going train were looked at/)).toBeVisible()
  await key('Pivots', 'link')
  await key('All other pivots of the going train: looked at, smooth, round and bright')
  await expect(page.getByText('Every pivot was looked at, and none waits.')).toBeVisible()
  await key('Holes', 'link')
  await step('Press to bush it, by its plan')
  for (;;) {
    await bar(/^Press (when|to go on)/)
    const words = await foot.textContent()
    if (words?.startsWith('Press to go on and assemble')) break
    await press(page)
    await expect(foot).not.toHaveText(words ?? '')
  }
  await press(page)

  // Set: the train alone between the plates, run dry and judged; the log read backwards; every oil point; then the beat.
  await step('Press when done: front plate down on stand-offs')
  await step('Press when done: plate on, nuts only just caught')
  await step('Press when done: bring the pivots in, from the great wheels up')
  await step('Press when done: endshake at every arbor, then the last nut')
  await step('Press, then type what moved the going train')
  await expect(page.getByLabel('Moved by turns')).toBeFocused()
  await page.keyboard.type('0.25')
  await page.keyboard.press('Enter')
  await step('Press if it backs off at the end')
  await step('Press if the going train runs freely')
  await step('Press when it is in: Minute hand')
  await expect(page.getByText('Everything that came out is back in.')).toBeVisible()
  await step('Press to go on and oil it')
  for (;;) {
    await bar(/^Press(: it is oiled| when oiled| if it is dry)/)
    const words = await foot.textContent()
    await press(page)
    if (words?.startsWith('Press: it is oiled')) break
    await expect(foot).not.toHaveText(words ?? '')
  }
  await step(/^Press to go on: Set it in beat/)
  await key('Practice clock')
  await expect(page.getByText(/ms out of beat/)).toBeVisible()
  await page.getByRole('radio', { name: 'on the right' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/Bend the crutch foot 1\.0 mm toward the left corner/)).toBeVisible()
  await expect(page.getByText(/raise the left side 2\.6 mm/)).toBeVisible()
  await page.keyboard.press('l')
  await step('Press to keep this listening')
  await expect(page.getByText('This visit').first()).toBeVisible()

  // Set: the rate, with a reading of yesterday.
  await step('Press to go on to its rate')
  await step('Press as the hand crosses a minute')
  await expect(page.getByText('reading by pedal, minute hand on the mark')).toBeVisible()
  await type(/The clock is ahead by/, '-12.5')
  await page.keyboard.press('Enter')
  await expect(page.getByText('−12.5 s')).toBeVisible()
  await page.getByText('Several at once, or as a sheet').focus()
  await page.keyboard.press('Enter')
  await type('Lines from a sheet', '2026-01-05 09:00, 4')
  await key('Look at them')
  await key('Keep the 1 line that can be read')
  await expect(page.getByText('+4.0 s')).toBeVisible()

  // Return: what is left is overridden in writing, the key ticked off, the job closed.
  await key('Return', 'link')
  await key('Card', 'link')
  await key('key or crank', 'checkbox')
  await expect(page.getByRole('checkbox', { name: 'key or crank' })).toBeChecked()
  await expect(page.getByRole('button', { name: 'Hand over and close' })).toBeDisabled()
  for (const gate of ['pivots', 'holes', 'dry', 'oil'] as const)
    await expect(page.getByText(GATE_TITLES[gate])).toBeVisible()
  const open = page.getByRole('button', { name: 'Override…' })
  await expect(open).toHaveCount(3)
  for (let left = 3; left > 0; left--) {
    await key('Override…')
    await type('Reason', 'Goes home on approval for a month.')
    await key('Override this gate')
    await expect(page.getByLabel('Reason', { exact: true })).toHaveCount(0)
  }
  const card = page.getByRole('article', { name: 'The owner’s card' })
  await expect(card).toContainText('1 worn hole bushed')
  await expect(card).toContainText('Taken apart and cleaned.')
  await key('Hand over and close')
  await expect(page.getByRole('button', { name: 'Reopen this job' })).toBeVisible()

  // The journal remembers every step by whom, and is searched.
  await key('Visit', 'link')
  await key('Journal', 'link')
  for (const words of [
    'Took in Pilot’s shelf clock',
    'Parted the plates; every train was confirmed off',
    'Bushing: tried with its neighbour',
    'Listened by practice',
    'Handed over',
  ])
    await expect(page.getByText(words).first()).toBeVisible()
  await expect(page.getByText('somebody')).toHaveCount(0)
  await type('Find in the journal', 'bushing')
  await expect(page.getByText('Handed over')).toBeHidden()
  await expect(page.getByText('Bushing: tried with its neighbour').first()).toBeVisible()

  // Two years later it comes again, is found by its owner's telephone, and opens with what was done, in words.
  await empty.timePasses('2 years')
  await page.goto(empty.url)
  await expect(page.getByRole('heading', { name: 'Nothing on the bench' })).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('0555 20')
  await expect(page.getByRole('option', { name: /Pilot house/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Pilot house' })).toBeVisible()
  await key('Take in a clock', 'link')
  await type('Has it been here before?', 'pilot')
  await key(/Pilot’s shelf clock, Pilot house/)
  const before = page.getByRole('region', { name: 'It has been here before' })
  await expect(before).toContainText('One hole bushed: third arbor, back. Oiled.')
  await expect(before).toContainText(/Beat at leaving: \d+\.\d ms out/)
  await type('In the owner’s words *', 'Stops in the cold.')
  await key('Take it in')
  await expect(page).toHaveURL(/\/arrive$/)
  await expect(before).toContainText('One hole bushed: third arbor, back. Oiled.')
  await bar('Press to hear it before touching it')
})

test('holding the pedal takes the last thing back, pressing twice flags it', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Long café clock')}/rate`)
  await expect(page.getByText(/s a day/).first()).toBeVisible()
  const rows = page.getByText('reading by pedal, minute hand on the mark')
  const before = await rows.count()
  await press(page)
  await expect(rows).toHaveCount(before + 1)
  await page.keyboard.down('PageDown')
  await expect(page.getByText('Taken back.')).toBeVisible()
  await page.keyboard.up('PageDown')
  await expect(rows).toHaveCount(before)

  await page.goto(`${await demo.job('Round-top drum clock')}/holes`)
  await page.getByRole('button', { name: /Hole 1:/ }).click()
  await expect(
    page
      .getByRole('heading', { name: 'Great wheel, back plate' })
      .or(page.getByRole('heading', { name: 'Great wheel, front plate' })),
  ).toBeVisible()
  await page.locator('#main').evaluate((main) => (main as HTMLElement).focus())
  await page.keyboard.press('PageDown')
  await page.keyboard.press('PageDown')
  await expect(page.getByLabel('flagged for later')).toBeVisible()
})

test('pressed again and again, the rate is reckoned of every reading', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Long café clock')}/rate`)
  const of = page.getByText(/^From \d+ reading/)
  await expect(of).toBeVisible()
  await expect(page.getByText('Its rate is being reckoned')).toBeHidden()
  const before = Number(/\d+/.exec(await of.innerText())?.[0])
  for (let i = 0; i < 6; i++) await press(page)
  await expect(of).toHaveText(new RegExp(`^From ${before + 6} readings`))
})

test('the rate is told once what reckons it has come, though it did not at first', async ({ demo, page }) => {
  await page.route(/book\.worker/, (route) => route.abort())
  await page.goto(`${await demo.job('Long café clock')}/rate`)
  await expect(page.getByText('Its rate is being reckoned')).toBeVisible()
  await expect(page.getByText('reading by pedal, minute hand on the mark').first()).toBeVisible()
  await page.unroute(/book\.worker/)
  await expect(page.getByText('Its rate is being reckoned')).toBeHidden()
  await expect(page.getByText(/^(Gains|Loses|Keeps|Its rate is not told)/).first()).toBeVisible()
})

test('the pedal is still while a field has focus, and Space on a button presses the button', async ({ demo, page }) => {
  await page.goto(`${await demo.job('Harbour regulator')}/rate`)
  const rows = page.getByText('reading by pedal, minute hand on the mark')
  await expect(rows.first()).toBeVisible()
  const before = await rows.count()
  await page.getByLabel(/The clock is ahead by/).focus()
  await page.keyboard.press('PageDown')
  await page.getByText('Show the reckoning').focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/Straight lines are fitted/)).toBeVisible()
  await expect(rows).toHaveCount(before)
})
