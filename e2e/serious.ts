import type { Page } from '@playwright/test'
import axeCore from 'axe-core'

interface Axe {
  run: (
    root: Document,
    options: { resultTypes: string[]; runOnly?: string[] },
  ) => Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>
}
declare const axe: Axe | undefined

/** What stands seriously in anybody's way on the page as it is shown, by these rules, or by all. */
export async function seriousOf(page: Page, rules: string[] = []): Promise<string[]> {
  // It is put in once: a page that is only moved on by its router still has it.
  if (!(await page.evaluate(() => typeof axe !== 'undefined'))) await page.evaluate(axeCore.source)
  const found = await page.evaluate(async (runOnly) => {
    const { violations } = await axe!.run(document, {
      resultTypes: ['violations'],
      ...(runOnly.length > 0 && { runOnly }),
    })
    return violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)
  }, rules)
  return found.map((v) => `${page.url()}: ${v}`)
}
