import { readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { expect, test } from './workshop.ts'

const ASSETS = join(import.meta.dirname, '../web/dist/assets')
/** A worklet is a file of its own, whatever its size, and so is what joins the parts. */
const OWN_FILE = /worklet|rolldown-runtime/

/** Counts what crosses the wire until the first screen stands; what is fetched for later, once all is still, comes after. */
async function crossing(page: Page, address: string) {
  const sizes: { url: string; bytes: number; packed: string | undefined }[] = []
  const reading: Promise<void>[] = []
  page.on('requestfinished', (request) => {
    const read = async () => {
      const [{ responseBodySize, responseHeadersSize }, response] = [await request.sizes(), await request.response()]
      const packed = (await response?.allHeaders())?.['content-encoding']
      sizes.push({ url: request.url(), bytes: responseBodySize + responseHeadersSize, packed })
    }
    reading.push(read().catch(() => undefined))
  })
  await page.goto(address)
  await expect(page.getByRole('heading', { name: 'Now' })).toBeVisible()
  await expect(page.getByRole('link', { name: /drum clock/ }).first()).toBeVisible()
  await page.waitForLoadState('networkidle')
  await Promise.all(reading)
  return sizes.filter(({ url }) => !/\.woff2?$/.test(url))
}

test('the first page is light: all that crosses the wire, fonts aside, is 300 kB at most in 30 requests or fewer', async ({
  demo,
  page,
}) => {
  const sizes = await crossing(page, demo.url)
  const told = sizes.map(({ url, bytes, packed }) => `${bytes} ${packed ?? '-'} ${url}`).join('\n')
  expect(
    sizes.reduce((sum, { bytes }) => sum + bytes, 0),
    told,
  ).toBeLessThanOrEqual(300_000)
  expect(sizes.length, told).toBeLessThanOrEqual(30)
  // Packed as small as the browser takes it, before anybody asked; lists as they are asked for.
  for (const { url, packed } of sizes)
    if (/assets\/.*\.(js|css)$|\/$|\/api\/bench$/.test(url) && !OWN_FILE.test(url))
      expect([url, packed]).toEqual([url, expect.stringMatching(/^(br|gzip)$/)])
  expect(sizes.filter(({ url }) => /echarts|charts|worker|camera/.test(url))).toEqual([])
})

test('what comes next is fetched while the page is idle', async ({ demo, browser }) => {
  // A context of its own: the others' are kept from fetching for later.
  const context = await browser.newContext()
  const page = await context.newPage()
  const surfaces = new Set<string>()
  page.on('request', (request) => /assets\/\w+Surface-/.test(request.url()) && surfaces.add(request.url()))
  await page.goto(demo.url)
  await expect.poll(() => surfaces.size).toBeGreaterThan(1)
  await context.close()
})

test('no part of the pages is a crumb, and each is named by what is in it', () => {
  const parts = readdirSync(ASSETS).filter((name) => /\.(js|css)$/.test(name) && !OWN_FILE.test(name))
  expect(parts.filter((name) => statSync(join(ASSETS, name)).size < 1000)).toEqual([])
  expect(parts.filter((name) => !/^[A-Za-z][\w.-]{2,60}-[\w-]{8}\.(js|css)$/.test(name))).toEqual([])
})

test('a page that was open while the shop got a new version says so, and goes on after one press with what was typed', async ({
  demo,
  page,
}) => {
  let begins: string | null = null
  await page.route('**/api/**', async (route) => {
    if (begins === null || route.request().headers().accept === 'text/event-stream') return route.continue()
    const response = await route.fetch()
    return route.fulfill({ response, headers: { ...response.headers(), 'x-pages': begins } })
  })
  await page.goto(`${demo.url}/take-in`)
  await page.getByLabel('What you call it').fill('Harbour clock')
  const banner = page.getByText('The workshop has a new version of these pages.')
  await expect(banner).toBeHidden()
  begins = 'index-of-another-version.js'
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link').first().click()
  await expect(banner).toBeVisible()
  await page.goBack()
  begins = null
  await page.getByRole('button', { name: 'Go on with it' }).click()
  await expect(banner).toBeHidden()
  await expect(page.getByLabel('What you call it')).toHaveValue('Harbour clock')
})

test('a part that is gone with its version is asked for by a press, in words', async ({ demo, page }) => {
  await page.goto(demo.url)
  await expect(page.getByRole('heading', { name: 'Now' })).toBeVisible()
  await page.route('**/assets/**', (route) => route.fulfill({ status: 404, body: '' }))
  await page.evaluate(() => {
    history.pushState(null, '', '/year')
    dispatchEvent(new PopStateEvent('popstate', { state: null }))
  })
  await expect(page.getByRole('heading', { name: 'This page is of an older version' })).toBeVisible()
  await page.unroute('**/assets/**')
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(page.getByRole('heading', { name: /year/i }).first()).toBeVisible()
})
