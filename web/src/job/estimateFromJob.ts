import type { Estimate, JobPage, PriceBook, PriceLine, Settings } from '@treadle/contract'
import { pivotRulesOf, workCounted, type Movement } from '@treadle/core'
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
): Line[] {
  const { measured, ...counts } = workCounted(data, judged, pivotRulesOf(settings))
  return prices.lines.flatMap((price): Line[] => {
    if (price.counts === 'once') return []
    if (price.counts === 'bush' && !measured) return [{ ...lineOf(price, 1), kind: 'if-needed' }]
    const quantity = counts[price.counts]
    return quantity === 0 ? [] : [lineOf(price, quantity)]
  })
}

/** A first estimate, or the next revision of the last one: the same lines, to be changed. */
export function newRevision(
  before: Estimate | undefined,
  prices: PriceBook,
  data: JobPage,
  settings: Settings,
  movement: Pick<Movement, 'judged'>,
): Estimate {
  return {
    id: uuid(),
    version: 0,
    revision: (before?.revision ?? 0) + 1,
    state: 'draft',
    lines: before?.lines ?? linesFromJob(prices, data, settings, movement),
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
export function merged(lines: Line[], found: Line[]): Line[] {
  const known = lines.map((line) => {
    const now = found.find((f) => f.title === line.title)
    if (!now) return line
    return line.kind === 'if-needed'
      ? { ...line, quantity: now.quantity, kind: now.kind, upToPrice: line.upToPrice ?? now.upToPrice }
      : { ...line, quantity: now.quantity }
  })
  return [...known, ...found.filter((f) => !lines.some((l) => l.title === f.title))]
}

/** "225.00", or "225.00 to 297.50" */
export function spanWords(least: string, most: string): string {
  return least === most ? least : `${least} to ${most}`
}
