import type { BrowserContext, Locator, Page, Request } from '@playwright/test'
import { random } from '../core/test/clockSound.ts'
import { changedInSilence } from './journalled.ts'
import { expect, open, type Workshop } from './workshop.ts'

/** What nobody may ever read. */
const NEVER_SAID = /\b(NaN|undefined)\b|\[object/
/** What can be pressed. What takes a file, leads out of the workshop, or is chosen already, is left alone. */
const PRESSABLE = [
  'button:not([aria-pressed="true"]):not([aria-selected="true"]):not([aria-current])',
  'a[href^="/"]:not([download]):not([target]):not([href^="/api"])',
  'input[type="checkbox"]',
  'input[type="radio"]:not(:checked)',
  'summary',
  '[role="option"]',
]
  .map((one) => `${one}:not(:disabled):not([data-disabled])`)
  .join(', ')
const TYPABLE = 'input:not([type="checkbox"]):not([type="radio"]):not([type="file"]):not([readonly]), textarea'
/** What a hurried or a curious hand types. */
const TYPED = [
  ...['0', '1', '7', '2.5', '2,5', '-3', '1e3', '999999999', '0.0001', '12.', '.5', '½', ''],
  ...['Third arbor', 'ß ø ✓ 🕰', "O'Neil; --", '<b>bold</b>', ' ', '01/02/2026', '2026-02-31', '25:61', 'x'.repeat(400)],
]
/** Longer than the pedal is held to take something back, ms. */
const HELD_MS = 900

export interface Presser {
  context: BrowserContext
  shop: Workshop
  views: string[]
  seed: number
  steps: number
}

/**
 * Presses, types, holds, goes back, loads anew and works in a second tab, at random, over every view. The same seed does
 * the same as far as the workshop does.
 *
 * @throws at the first error, word that is never said, request without an answer, row changed without its line in the
 *   journal, or press that says nothing; with what was done last
 */
export async function pressAtRandom({ context, shop, views, seed, steps }: Presser): Promise<void> {
  const uniform = random(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(uniform() * list.length)]!
  const done: string[] = []
  const wrong: string[] = []
  const tabs: Tab[] = []
  for (let i = 0; i < 2; i++) tabs.push(await Tab.open(context, pick(views), wrong))

  const actions: [weight: number, name: string, act: (tab: Tab) => Promise<string | null>][] = [
    [40, 'presses', (tab) => tab.pressOne(uniform)],
    [18, 'types', (tab) => tab.typeOne(uniform, pick(TYPED))],
    [8, 'goes to', (tab) => tab.goTo(pick(views))],
    [8, 'pedal', (tab) => tab.pedal(0)],
    [4, 'holds the pedal', (tab) => tab.pedal(HELD_MS)],
    [4, 'key', (tab) => tab.key(pick(['Escape', 'Enter', 'Tab', 'ArrowDown', 'ArrowUp', '?', ' ', 'Backspace']))],
    [3, 'back', (tab) => tab.back()],
    [3, 'loads anew', (tab) => tab.reload()],
  ]
  const total = actions.reduce((sum, [weight]) => sum + weight, 0)

  for (let step = 0; step < steps; step++) {
    const tab = uniform() < 0.85 ? tabs[0]! : tabs[1]!
    let drawn = uniform() * total
    const [, name, act] = actions.find(([weight]) => (drawn -= weight) < 0) ?? actions[0]!
    done.push(`${step}, tab ${tabs.indexOf(tab) + 1}, ${tab.at}: ${name}`)
    const what = await act(tab).catch((error: unknown) => {
      throw new Error(`seed ${seed}\n${done.slice(-12).join('\n')}\n${(error as Error).message}`, { cause: error })
    })
    done.push(`${done.pop()} ${what ?? '(nothing there)'}`)
    await tab.settled()
    const said = await tab.words()
    const never = NEVER_SAID.exec(said)
    if (never) wrong.push(`It says “${said.slice(Math.max(0, never.index - 60), never.index + 40)}”.`)
    if (step % 20 === 19 || wrong.length > 0)
      for (const table of await changedInSilence(shop)) wrong.push(`A row of ${table} was changed without its line.`)
    expect(wrong, `seed ${seed}\n${done.slice(-12).join('\n')}`).toEqual([])
  }
  for (const tab of tabs) await tab.page.close()
}

/** One tab, with all that goes on in it. */
class Tab {
  readonly #waiting = new Set<Request>()
  #asked = 0
  #happened = 0

  private constructor(
    readonly page: Page,
    readonly wrong: string[],
  ) {}

  static async open(context: BrowserContext, address: string, wrong: string[]): Promise<Tab> {
    const tab = new Tab(await context.newPage(), wrong)
    tab.#watch()
    await tab.page.addInitScript(() => {
      // What leaves the page is told instead of done.
      window.print = () => document.documentElement.setAttribute('data-printed', String(performance.now()))
    })
    await tab.page.goto(address)
    await tab.settled()
    return tab
  }

  get at(): string {
    const { pathname, search } = new URL(this.page.url())
    return pathname.replace(/[0-9a-f-]{36}/, '…') + search
  }

  #watch(): void {
    const { page } = this
    const isOurs = (request: Request) => {
      const url = new URL(request.url())
      return url.pathname.startsWith('/api/') && request.resourceType() !== 'eventsource'
    }
    page.on('pageerror', (error) => this.wrong.push(`An error: ${error.stack ?? error.message}`))
    page.on('console', (message) => {
      // That something was refused is the page's to say.
      if (message.type() === 'error' && !/Failed to load resource: .* 4\d\d/.test(message.text()))
        this.wrong.push(`An error on the console: ${message.text()}`)
    })
    page.on('dialog', (dialog) => {
      this.#happened++
      void dialog.accept().catch(() => undefined)
    })
    page.on('download', (download) => {
      this.#happened++
      void download.cancel().catch(() => undefined)
    })
    page.on('filechooser', () => this.#happened++)
    page.on('popup', (popup) => {
      this.#happened++
      void popup.close().catch(() => undefined)
    })
    page.on('request', (request) => {
      if (!isOurs(request)) return
      this.#asked++
      this.#waiting.add(request)
    })
    page.on('requestfinished', (request) => this.#waiting.delete(request))
    page.on('requestfailed', (request) => this.#waiting.delete(request))
    page.on('response', (response) => {
      if (response.status() >= 500)
        this.wrong.push(`${response.request().method()} ${response.url()} was answered ${response.status()}.`)
    })
  }

  /** Waits until all that was asked is answered and drawn. */
  async settled(): Promise<void> {
    await expect
      .poll(() => [...this.#waiting].map((r) => `${r.method()} ${r.url()}`), { message: 'requests without an answer' })
      .toEqual([])
    await this.page.locator('#main').waitFor()
    await this.page.evaluate(
      () => new Promise<void>((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve()))),
    )
  }

  words(): Promise<string> {
    return this.page.locator('body').innerText()
  }

  async goTo(address: string): Promise<string> {
    await open(this.page, address)
    return this.at
  }

  async back(): Promise<string> {
    const before = this.page.url()
    await this.page.goBack()
    // Before the first page of all there is none of ours.
    if (!this.page.url().startsWith('http')) await this.page.goto(before)
    return this.at
  }

  async reload(): Promise<string> {
    await this.page.reload()
    return this.at
  }

  async key(key: string): Promise<string> {
    await this.page.keyboard.press(key)
    return key
  }

  async pedal(heldMs: number): Promise<string> {
    await this.page.locator('#main').evaluate((main) => (main as HTMLElement).focus({ preventScroll: true }))
    await this.page.keyboard.press('PageDown', { delay: heldMs })
    return ''
  }

  async typeOne(uniform: () => number, text: string): Promise<string | null> {
    const field = await this.#one(TYPABLE, uniform)
    if (!field) return null
    const name = await nameOf(field)
    const isText = await field.evaluate(
      (el) => !/^(date|time|datetime-local|range|color)$/.test((el as HTMLInputElement).type),
    )
    if (!isText) return null
    await field.fill('', { timeout: 5000 }).catch(() => undefined)
    await field.pressSequentially(text.slice(0, 60), { timeout: 20_000 }).catch(() => undefined)
    if (text.length > 60) await field.fill(text, { timeout: 5000 }).catch(() => undefined)
    const leave = uniform() < 0.5 ? 'Enter' : 'Tab'
    await this.page.keyboard.press(leave)
    return `“${text.slice(0, 20)}” into ${name}, ${leave}`
  }

  async pressOne(uniform: () => number): Promise<string | null> {
    const one = await this.#one(PRESSABLE, uniform)
    if (!one) return null
    const name = await nameOf(one)
    const before = await this.#state()
    const [asked, happened] = [this.#asked, this.#happened]
    await watchChanges(this.page)
    // What moved away, or under another, meanwhile is pressed by nobody.
    const pressed = await one.click({ timeout: 3000 }).then(
      () => true,
      () => false,
    )
    if (!pressed) return `${name} (which went)`
    const saysSomething = async () =>
      this.#asked > asked || this.#happened > happened || (await changed(this.page)) || (await this.#state()) !== before
    await expect.poll(saysSomething, { message: `${this.at}: ${name} says nothing`, timeout: 10_000 }).toBe(true)
    return name
  }

  /** Where one is, and what has the focus. */
  #state(): Promise<string> {
    return this.page
      .evaluate(() => `${location.href} ${document.documentElement.getAttribute('data-printed')}`)
      .catch(() => 'gone elsewhere')
  }

  /** One of those that can be seen, within what lies on top. */
  async #one(selector: string, uniform: () => number): Promise<Locator | null> {
    const dialog = this.page.locator('[role="dialog"]:visible').last()
    const within = (await dialog.count()) > 0 ? dialog : this.page.locator('body')
    const all = within.locator(selector).locator('visible=true')
    const count = await all.count()
    return count === 0 ? null : all.nth(Math.floor(uniform() * count))
  }
}

const nameOf = (one: Locator): Promise<string> =>
  one
    .evaluate(
      (el) => {
        const labels = (el as HTMLInputElement).labels
        const words = el.getAttribute('aria-label') ?? labels?.[0]?.textContent ?? el.textContent
        return `${el.tagName.toLowerCase()} “${words.trim().slice(0, 60)}”`
      },
      undefined,
      { timeout: 3000 },
    )
    .catch(() => 'what went')

declare global {
  interface Window {
    pageChanges?: number
  }
}

/** Counts from now on what changes on the page. */
async function watchChanges(page: Page): Promise<void> {
  await page.evaluate(() => {
    if (window.pageChanges === undefined) {
      const observer = new MutationObserver((list) => (window.pageChanges = (window.pageChanges ?? 0) + list.length))
      observer.observe(document, { subtree: true, childList: true, characterData: true, attributes: true })
      for (const name of ['input', 'change', 'focusin', 'scroll'])
        document.addEventListener(
          name,
          (e) => {
            // That a button has the focus says nothing yet of what it did.
            if (e.type !== 'focusin' || !(e.target as Element).matches('button'))
              window.pageChanges = (window.pageChanges ?? 0) + 1
          },
          true,
        )
    }
    window.pageChanges = 0
  })
}

const changed = (page: Page): Promise<boolean> =>
  page.evaluate(() => window.pageChanges === undefined || window.pageChanges > 0).catch(() => true)
