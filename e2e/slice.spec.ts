import { expect, press, test } from './workshop.ts'

/** One clock from door to door, by keyboard and pedal alone: no mouse is touched in this test. */
test('a clock is taken in, heard, let down, bushed, set in beat, regulated and handed back', async ({ own, page }) => {
  const type = async (label: string | RegExp, text: string) => {
    await page.getByLabel(label, { exact: typeof label === 'string' }).focus()
    await page.keyboard.type(text)
  }
  const key = async (name: string | RegExp, role: 'button' | 'checkbox' | 'link' = 'button') => {
    const control = page.getByRole(role, { name, exact: typeof name === 'string' }).first()
    await control.focus()
    await page.keyboard.press(role === 'checkbox' ? 'Space' : 'Enter')
  }
  const bar = (words: string | RegExp) => expect(page.getByRole('button', { name: words }).last()).toBeVisible()

  // The drawers as a list, so that there is a cutter to bush with.
  await page.goto(`${own.url}/drawers/lists`)
  await type('or paste it here', 'kind,measured mm,count\ncutter,2,1')
  await key('Look at it')
  await key('Take it in')
  await expect(page.getByText('Taken in: 1 added, 0 changed.')).toBeVisible()

  await page.goto(own.url)
  await expect(page.getByRole('heading', { name: 'Nothing on the bench' })).toBeVisible()

  // Arrive: the papers.
  await key('Take in a clock', 'link')
  await type('Owner *', 'Pilot house')
  await type('What you call it *', 'Pilot’s shelf clock')
  await type('In the owner’s words *', 'Limps and stops.')
  await key('key or crank', 'checkbox')
  await key('Take it in, then hear it')

  // Hear it before touching it: the practice clock stands in for the microphone.
  await expect(page.getByRole('heading', { name: 'Pilot’s shelf clock' })).toBeVisible()
  await key('Practice clock')
  await expect(page.getByText(/ms out of beat/)).toBeVisible()
  await bar('Press as the bob reaches the right')
  await page.keyboard.press('l')
  await bar('Press to keep this listening')
  await press(page)
  await bar('Press to go back to its papers')
  await press(page)

  // The clock's own figures.
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
  await key('Keep the figures')
  await expect(page.getByText('Kept.', { exact: true }).first()).toBeVisible()

  // Strip: the power.
  await bar('Press to send it to the strip')
  await press(page)
  const parting = page.getByRole('button', { name: 'Part the plates', exact: true })
  await bar('Press when tried: the winding square turns free both ways')
  await expect(parting).toBeDisabled()
  await press(page)
  await bar('Press when tried: the great wheel turns by hand')
  await press(page)
  await bar('Press when the going train is off')
  await press(page)
  await bar('Press to mark its meshes')
  await expect(parting).toBeDisabled()
  await press(page)
  await bar('Press when marked: Direction of each click and ratchet')
  await press(page)
  await bar('Press when marked: Position of the rating nut')
  await press(page)

  // Strip: one step of the log before the plates, without a camera.
  await bar('Press to keep step 1')
  await type('What comes off', 'Minute hand')
  await press(page)
  await expect(page.getByText('1 step, 1 part out')).toBeVisible()
  await key('the power gate', 'link')
  await bar('Press to part the plates')
  await press(page)
  await expect(page.getByText(/Parted \w+ \d/)).toBeVisible()
  await bar('Press to go on to taking it apart')
  await key('Mend', 'link')

  // Mend: one hole, by caliper.
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
  await bar('Press when this bush is in and tried')
  await press(page)
  await expect(page.getByRole('checkbox', { name: /The bush is in/ })).toBeChecked()

  // Set: the log read backwards, then the beat.
  await key('Set', 'link')
  await bar('Press when it is in: Minute hand')
  await press(page)
  await expect(page.getByText('Everything that came out is back in.')).toBeVisible()
  await bar('Press to hear it')
  await press(page)

  // Set: the beat, with the pedal at the right-hand end of the swing.
  await key('Practice clock')
  await expect(page.getByText(/ms out of beat/)).toBeVisible()
  await page.getByText('first tick right').focus()
  await page.getByRole('radio', { name: 'first tick right' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/Bend the crutch foot 1\.0 mm to the left/)).toBeVisible()
  await expect(page.getByText(/raise the left side 2\.6 mm/)).toBeVisible()
  await page.keyboard.press('l')
  await bar('Press to keep this listening')
  await press(page)
  await expect(page.getByText('This visit')).toBeVisible()

  // Set: the rate.
  await key('Rate', 'link')
  await bar('Press as the hand crosses a minute')
  await press(page)
  await expect(page.getByText('reading by pedal, minute hand on the mark')).toBeVisible()
  await type(/The clock is ahead by/, '-12.5')
  await page.keyboard.press('Enter')
  await expect(page.getByText('−12.5 s')).toBeVisible()

  // Return: gates overridden in writing, the key ticked off, the job closed.
  await key('Return', 'link')
  await key('key or crank', 'checkbox')
  await expect(page.getByRole('checkbox', { name: 'key or crank' })).toBeChecked()
  await expect(page.getByRole('button', { name: 'Hand over and close' })).toBeDisabled()
  for (let left = await page.getByRole('button', { name: 'Override…' }).count(); left > 0; left--) {
    await key('Override…')
    await type('Reason', 'Goes home on approval for a month.')
    await key('Override this gate')
    await expect(page.getByLabel('Reason', { exact: true })).toHaveCount(0)
  }
  await expect(page.getByRole('article', { name: 'The owner’s card' })).toContainText('1 worn hole bushed')
  await key('Hand over and close')
  await expect(page.getByRole('button', { name: 'Reopen this job' })).toBeVisible()

  // The journal remembers every step, and is searched.
  await key('Journal', 'link')
  for (const words of [
    'Took in Pilot’s shelf clock',
    'Parted the plates; every train was confirmed off',
    'Bushed: Third arbor',
    'Listened by practice',
    'Handed over',
  ])
    await expect(page.getByText(words).first()).toBeVisible()
  await type('Find in the journal', 'bushed')
  await expect(page.getByText('Handed over')).toBeHidden()
  await expect(page.getByText('Bushed: Third arbor').first()).toBeVisible()
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
