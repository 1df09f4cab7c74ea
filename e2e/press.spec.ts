import { noteChanges } from './journalled.ts'
import { pressAtRandom } from './presser.ts'
import { test, Workshop } from './workshop.ts'
import { viewsOf } from './views.ts'

/** Of `npm run press`; of the suite, a short one that is always the same. */
const SEED = Number(process.env.TREADLE_PRESS_SEED ?? 28)
const STEPS = Number(process.env.TREADLE_PRESS_STEPS ?? 25)

test.describe.configure({ mode: 'parallel' })

for (const [i, width] of [1280, 820, 390].entries())
  test(`whatever is pressed ${width} wide, at random, is answered, says something, and is written down`, async ({
    browser,
  }) => {
    test.setTimeout(120_000 + STEPS * 30_000)
    const shop = new Workshop()
    await shop.open('t_demo')
    try {
      await noteChanges(shop)
      const context = await browser.newContext({
        viewport: { width, height: width === 390 ? 800 : 1000 },
        reducedMotion: 'reduce',
      })
      await pressAtRandom({ context, shop, views: await viewsOf(shop), seed: SEED * 3 + i, steps: STEPS })
      await context.close()
    } finally {
      await shop.close()
    }
  })
