import type { Estimate, JobPage, PriceBook, PriceLine, Settings } from '@treadle/contract'
import { pivotRulesOf, waysChosen, workCounted, type ChosenWay, type Movement, type Way } from '@treadle/core'
import { v7 as uuid } from 'uuid'

export type Line = Estimate['lines'][number]

/** A line of the estimate from a line of the price book. */
export function lineOf(price: PriceLine, quantity: number): Line {
  return {
    id: uuid(),
    title: price.title,
    kind: price.upToPrice === null ? 'fixed' : 'range',
    quantity,
    unit: price.unit,
    unitPrice: price.unitPrice,
    upToPrice: price.upToPrice,
    taxed: price.taxed,
    order: false,
  }
}

/**
 * What this job’s findings come to by the price book: each train, each hole that is to be bushed, each pivot that goes in
 * the lathe, each that is let in anew. While nothing is measured, bushes are offered “if needed”, one by one.
 */
export function linesFromJob(
  prices: PriceBook,
  data: JobPage,
  settings: Settings,
  { judged }: Pick<Movement, 'judged'>,
  ways: readonly Way[],
): Line[] {
  const { measured, ...counts } = workCounted(data, judged, pivotRulesOf(settings))
  const byPiece = prices.lines.flatMap((price): Line[] => {
    if (price.counts === 'once') return []
    if (price.counts === 'bush' && !measured) return [{ ...lineOf(price, 1), kind: 'if-needed' }]
    const quantity = counts[price.counts]
    return quantity === 0 ? [] : [lineOf(price, quantity)]
  })
  return [...byPiece, ...waysChosen(data, ways).map((w) => wayLine(w, prices))]
}

/** A line for a way out that was chosen, by its pieces. */
function wayLine({ title, pieces, price, order }: ChosenWay, prices: PriceBook): Line {
  return {
    id: uuid(),
    title,
    kind: 'fixed',
    quantity: pieces,
    unit: '',
    unitPrice: price,
    upToPrice: null,
    taxed: prices.lines[0]?.taxed ?? true,
    order,
  }
}

/** A first estimate, or the next revision of the last one: the same lines, to be changed. */
export function newRevision(
  before: Estimate | undefined,
  prices: PriceBook,
  data: JobPage,
  settings: Settings,
  movement: Pick<Movement, 'judged'>,
  ways: readonly Way[],
): Estimate {
  return {
    id: uuid(),
    version: 0,
    revision: (before?.revision ?? 0) + 1,
    state: 'draft',
    lines: before?.lines ?? linesFromJob(prices, data, settings, movement, ways),
    choices: before?.choices ?? prices.choices,
    chosen: before?.chosen ?? '',
    currency: settings.currency,
    taxPercent: settings.taxPercent,
    depositPercent: settings.depositPercent,
    note: before?.note ?? '',
    sentAt: null,
    answer: null,
  }
}

/**
 * What was found changes the quantity of lines of the same name, and adds those that are new. What was only offered if
 * needed becomes as sure as the finding; a price, or a fixed sum, that was agreed by hand stays.
 */
export function merged(lines: Line[], found: Line[], ways: readonly Way[]): Line[] {
  // Another way was chosen for the part since: the line of the first one goes.
  const stand = lines.filter((line) => found.some((f) => f.title === line.title) || !isOfWay(line, ways))
  const known = stand.map((line) => {
    const now = found.find((f) => f.title === line.title)
    if (!now) return line
    return line.kind === 'if-needed'
      ? { ...line, quantity: now.quantity, kind: now.kind, upToPrice: line.upToPrice ?? now.upToPrice }
      : { ...line, quantity: now.quantity }
  })
  return [...known, ...found.filter((f) => !stand.some((l) => l.title === f.title))]
}

function isOfWay({ title }: Line, ways: readonly Way[]): boolean {
  return ways.some((w) => title === w.title || title.startsWith(`${w.title}: `))
}

/** "225.00", or "225.00 to 297.50" */
export function spanWords(least: string, most: string): string {
  return least === most ? least : `${least} to ${most}`
}

/** "3 × 18.00"; nothing where it is one, or where how many can't be read. */
export function timesWords({ quantity, unitPrice }: Pick<Line, 'quantity' | 'unitPrice'>): string {
  return quantity === 1 || Number.isNaN(quantity) ? '' : `${quantity} × ${unitPrice}`
}
