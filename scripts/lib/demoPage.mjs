import { CHROMIUM_FLAGS, ensureChromium } from './chromium.mjs'
import { serve } from './serve.mjs'
import { prepareTestDatabases } from './testDatabase.mjs'

/** A page of the demo, served by a database of its own, with the address of one of its clocks’ jobs, and a way to fill the database; gone afterwards. `flags`: more for the browser. */
export async function withDemoPage(clockName, work, flags = []) {
  const prepared = await prepareTestDatabases({ demo: true })
  const { chromium } = await import('@playwright/test')
  const browser = await chromium.launch({ executablePath: ensureChromium(), args: [...CHROMIUM_FLAGS, ...flags] })
  const url = prepared.environment.TREADLE_TEST_DATABASE.replace(/[^/]*$/, 't_demo')
  const { base, stop } = await serve(url)
  const query = async (text) => {
    const { default: pg } = await import('pg')
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    await client.query(text).finally(() => client.end())
  }
  try {
    const bench = await (await fetch(`${base}/api/bench`)).json()
    const { job } = bench.tags.find((t) => t.clock.name === clockName)
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    return await work({ page, base, jobId: job.id, browser, query })
  } finally {
    await stop()
    await browser.close()
    prepared.stop()
  }
}
