import { amount, twoPlaces } from './money.ts'
import { estimateTotal, type PricedLine } from './total.ts'

/** `fixed` is promised, `range` lies between two prices, `if-needed` comes only when it is found. */
export const LINE_KINDS = ['fixed', 'range', 'if-needed'] as const

export interface EstimateLine extends PricedLine {
  id: string
  title: string
  kind: (typeof LINE_KINDS)[number]
  /** the higher price of a range */
  upToPrice: string | null
}

export interface EstimateSpan {
  /** all that is fixed, ranges at their lower end */
  least: { net: string; tax: string; gross: string }
  /** ranges at their upper end and all that may be needed */
  most: { net: string; tax: string; gross: string }
}

/** What an estimate comes to at the least and at the most. */
export function estimateSpan(lines: EstimateLine[], taxPercent: string): EstimateSpan {
  return {
    least: estimateTotal(
      lines.filter((l) => l.kind !== 'if-needed'),
      taxPercent,
    ),
    most: estimateTotal(
      lines.map((l) => (l.kind === 'range' && l.upToPrice !== null ? { ...l, unitPrice: l.upToPrice } : l)),
      taxPercent,
    ),
  }
}

export interface LineChange {
  title: string
  change: 'added' | 'dropped' | 'changed'
  /** "2 × 18.00" as it was and as it is */
  was: string
  now: string
}

/** What a later revision changed, line by line, matched by their ids. */
export function revisionChanges(before: EstimateLine[], after: EstimateLine[]): LineChange[] {
  const was = new Map(before.map((l) => [l.id, l]))
  const now = new Set(after.map((l) => l.id))
  return [
    ...after.flatMap((line): LineChange[] => {
      const old = was.get(line.id)
      if (!old) return [{ title: line.title, change: 'added', was: '', now: said(line) }]
      return said(old) === said(line) && old.title === line.title
        ? []
        : [{ title: line.title, change: 'changed', was: said(old), now: said(line) }]
    }),
    ...before
      .filter((l) => !now.has(l.id))
      .map((l): LineChange => ({ title: l.title, change: 'dropped', was: said(l), now: '' })),
  ]
}

function said({ quantity, unitPrice, upToPrice, kind }: EstimateLine): string {
  const price = twoPlaces(amount('unitPrice', unitPrice))
  const upTo = kind === 'range' && upToPrice !== null ? ` to ${twoPlaces(amount('upToPrice', upToPrice))}` : ''
  return `${quantity} × ${price}${upTo}${kind === 'if-needed' ? ', if needed' : ''}`
}

/** What a choice costs for each year that it lasts, two places; null when it lasts no time. */
export function costPerYear(price: string, years: number): string | null {
  return years > 0 ? twoPlaces(amount('price', price).div(String(years))) : null
}
