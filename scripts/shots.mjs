import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { CHROMIUM_FLAGS, ensureChromium } from './lib/chromium.mjs'
import { ensureModules } from './lib/modules.mjs'
import { ROOT } from './lib/root.mjs'

ensureModules()
const { chromium } = await import('@playwright/test')
const base = process.env.TREADLE_URL ?? 'http://127.0.0.1:4173'
const only = process.argv[2]
const folder = process.argv[3] ?? join(ROOT, 'docs', 'screenshots')
const theme = process.env.THEME
const width = Number(process.env.WIDTH ?? 1280)
mkdirSync(folder, { recursive: true })

const bench = await (await fetch(`${base}/api/bench`)).json()
const job = (name) => {
  const tag = bench.tags.find((t) => t.clock.name === name)
  if (!tag) throw new Error(`The demo has no ${name}: start it with npm start on an unused workshop.`)
  return `/jobs/${tag.job.id}`
}
const SHOTS = [
  ['bench', '/', 'light'],
  ['trains', `${job('Ferry-house wall clock')}/trains`, 'light'],
  ['estimate', `${job('Round-top drum clock')}/estimate`, 'light'],
  ['watch', `${job('Assembly-room chiming clock')}/watch`, 'dark'],
  ['plates', `${job('Round-top drum clock')}/plates`, 'light', chooseThird],
  [
    'holes',
    `${job('Round-top drum clock')}/holes`,
    'light',
    async (page) => {
      await page.getByRole('button', { name: /Hole \d+: going train, Third arbor, back/ }).click()
      await page.getByRole('heading', { level: 1 }).scrollIntoViewIfNeeded()
    },
  ],
  ['bushings', `${job('Round-top drum clock')}/bushings`, 'dark'],
  ['wheels', `${job('Round-top drum clock')}/wheels`, 'light'],
  ['escapement', `${job('Round-top drum clock')}/escapement`, 'light'],
  ['assemble', `${job('Net-loft bird clock')}/assemble`, 'light'],
  ['oil', `${job('Assembly-room chiming clock')}/oil`, 'dark'],
  ['strike', `${job('Assembly-room chiming clock')}/strike`, 'light', runStrike],
  ['listen', `${job('School dial')}/listen`, 'dark', listenAgain],
  [
    'rate',
    `${job('Harbour regulator')}/rate`,
    'light',
    async (page) =>
      page
        .getByRole('img', { name: /^Error over time/ })
        .locator('svg')
        .first()
        .waitFor(),
  ],
  ['laboratory', `${job('Harbour regulator')}/pendulum`, 'light'],
  ['set-up', `${job('Custom-house tall clock')}/set-up?at=spacer`, 'light', undefined, 390],
  ['hands', `${job('Custom-house tall clock')}/hands`, 'dark', tellHands],
  ['card', `${job('Custom-house tall clock')}/card`, 'light'],
  ['year', '/year', 'light', async (page) => page.getByRole('img', { name: /Clocks by month/ }).waitFor()],
]
/** Views that have no picture in the docs: taken when they are named. */
const MORE = [
  ['trial', `${job('Assembly-room chiming clock')}/trial`, 'light'],
  ['trouble', `${job('School dial')}/trouble`, 'dark'],
  ['strip', `${job('Round-top drum clock')}/strip`, 'light'],
  ['moon', `${job('Custom-house tall clock')}/moon`, 'light'],
  ['journey', `${job('Custom-house tall clock')}/journey?way=away&at=weights-off`, 'light'],
  ['mercury', `${job('Pilot-house regulator')}/mercury`, 'dark'],
  ['invoice', `${job('Custom-house tall clock')}/invoice`, 'light'],
  ['report', `${job('Custom-house tall clock')}/report`, 'light'],
  ['care', '/care?months=24', 'light'],
  ['drawers', '/drawers/bushes', 'light'],
  ['power', `${job('Chapel tower clock')}/power`, 'dark'],
  ['arrive', `${job('Chapel tower clock')}/arrive`, 'light'],
  ['clean', `${job('Round-top drum clock')}/clean`, 'dark'],
  ['springs', `${job('Round-top drum clock')}/springs?at=strike`, 'dark'],
  ['practice', '/practice', 'light', practise],
  ['reckoner', '/reckoner/beat.offset', 'light'],
  ['pivots', `${job('Round-top drum clock')}/pivots?at=going%20Third%20arbor%20back`, 'light'],
  ['journal', `${job('Long café clock')}/journal`, 'light'],
  ['take-in', '/take-in', 'light'],
  ['visit', `${job('Ferry-house wall clock')}/visit`, 'light'],
  ['clock', `/clocks/${bench.tags.find((t) => t.clock.name === 'Harbour regulator').clock.id}`, 'light'],
  ['owner', `/owners/${bench.tags[0].owner.id}`, 'light'],
  ['observe', `${job('School dial')}/observe?at=drive`, 'light'],
  ['clocks', '/clocks', 'light'],
  ['settings', '/settings', 'dark'],
  ['between-plates', `${job('Round-top drum clock')}/between-plates?at=going%20Third%20arbor`, 'light'],
  ['set-out', `${job('Round-top drum clock')}/plates?do=set-out`, 'light'],
  ['cutters', '/drawers/cutters', 'light'],
  ['lists', '/drawers/lists', 'light'],
  ['to-order', '/drawers/order', 'light'],
  ['condition', `${job('Light-keeper’s bracket clock')}/condition`, 'light'],
  ['tag', `${job('Long café clock')}/papers`, 'light'],
  ['receipt', `${job('Long café clock')}/papers?show=receipt`, 'light'],
  ['scale', `${job('School dial')}/papers?show=scale`, 'light'],
  ['oils', '/drawers/oils', 'light'],
  ['in-place', `${job('Lantern-top shelf clock')}/clean?where=house`, 'light'],
  ['open-power', `${job('Lantern-top shelf clock')}/power`, 'light'],
  ['marks', `${job('Lantern-top shelf clock')}/strip`, 'light'],
  ['prices', '/tables/prices', 'light'],
  ['baths', '/tables/baths', 'light'],
  ['causes', '/tables/trouble', 'dark'],
  ['spring', '/reckoner/spring.energy', 'dark'],
]

/** Hears a kept listening again and says which side is which, so that the swing is drawn. */
async function listenAgain(page) {
  await page.getByRole('button', { name: 'hear again' }).last().click()
  await page.getByText(/ms out of beat/).waitFor()
  await page.getByText('on the right', { exact: true }).click()
}

/** A worn hole of the back plate, chosen in the list. */
async function chooseThird(page) {
  await page
    .getByRole('button', { name: /Third arbor/ })
    .last()
    .click()
}

/** What the dial shows and should show, so that the way is told. */
async function tellHands(page) {
  await page.getByLabel('It shows', { exact: true }).fill('10:50')
  await page.getByLabel('It should show').fill('13:04')
  await page.locator('#main').evaluate((main) => main.focus({ preventScroll: true }))
}

/** The strike on its way: warned, dropped, and a few blows struck. */
async function runStrike(page) {
  await page.getByLabel('Move the hands').focus()
  for (let i = 0; i < 9; i++) await page.keyboard.press('ArrowRight')
  await page.getByText('Blow 2.').waitFor()
}

async function practise(page) {
  await page.getByRole('button', { name: 'Set it going' }).click()
  await page
    .getByText(/ms out/)
    .first()
    .waitFor({ timeout: 15_000 })
  await page.getByText('on the right', { exact: true }).click()
}

const browser = await chromium.launch({ executablePath: ensureChromium(), args: CHROMIUM_FLAGS })
try {
  const named = only && only !== 'all' ? [...SHOTS, ...MORE].filter(([name]) => only.split(',').includes(name)) : SHOTS
  for (const [name, path, usual, prepare, wide = width] of named) {
    const context = await browser.newContext({
      viewport: { width: wide, height: 800 },
      colorScheme: theme ?? usual,
      reducedMotion: 'reduce',
    })
    const page = await context.newPage()
    page.on('console', (message) => message.type() === 'error' && console.error(`${name}: ${message.text()}`))
    page.on('pageerror', (error) => console.error(`${name}: ${error.message}`))
    await page.goto(base + path)
    await page.getByRole('heading').first().waitFor()
    await page.waitForLoadState('networkidle')
    await prepare?.(page)
    await page.evaluate('document.fonts.ready')
    // A chart comes after its page, with its own script, and is drawn after that.
    await page.waitForFunction(areChartsDrawn)
    await page.screenshot({ path: join(folder, `${name}.png`), animations: 'disabled' })
    console.log(join(folder, `${name}.png`))
    await context.close()
  }
} finally {
  await browser.close()
}

/** Within the page. */
function areChartsDrawn() {
  const isDrawn = (canvas) => {
    const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height)
    return data.some((value) => value !== 0)
  }
  return [...globalThis.document.querySelectorAll('div[role=img]')].every(
    (chart) => chart.firstElementChild && [...chart.querySelectorAll('canvas')].slice(0, 1).every(isDrawn),
  )
}
