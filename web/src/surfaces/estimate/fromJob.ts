import {
  planOfHole,
  type Estimate,
  type JobPage,
  type PriceBook,
  type PriceLine,
  type Settings,
} from '@treadle/contract'
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
 * What this job’s findings come to by the price book: each train, each hole that is to be bushed. While no hole is
 * measured, bushes are offered “if needed”, one by one.
 */
export function linesFromJob(prices: PriceBook, data: JobPage, settings: Settings): Line[] {
  const bushes = data.holes.filter((h) => planOfHole(h, settings)?.verdict === 'bush').length
  const measured = data.holes.some((h) => planOfHole(h, settings) !== null)
  return prices.lines.flatMap((price): Line[] => {
    if (price.counts === 'train') return [lineOf(price, data.clock.trains.length)]
    if (price.counts !== 'bush') return []
    if (!measured) return [{ ...lineOf(price, 1), kind: 'if-needed' }]
    return bushes === 0 ? [] : [lineOf(price, bushes)]
  })
}

/** A first estimate, or the next revision of the last one: the same lines, to be changed. */
export function newRevision(
  before: Estimate | undefined,
  prices: PriceBook,
  data: JobPage,
  settings: Settings,
): Estimate {
  return {
    id: uuid(),
    version: 0,
    revision: (before?.revision ?? 0) + 1,
    state: 'draft',
    lines: before?.lines ?? linesFromJob(prices, data, settings),
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

/** "225.00", or "225.00 to 297.50" */
export function spanWords(least: string, most: string): string {
  return least === most ? least : `${least} to ${most}`
}
