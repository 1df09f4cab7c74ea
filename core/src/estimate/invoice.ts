import Big from 'big.js'
import { amount, twoPlaces } from './money.ts'
import { estimateTotal, type EstimateTotal, type PricedLine } from './total.ts'

export interface InvoiceTotal extends EstimateTotal {
  /** what came in */
  paid: string
  /** still to be paid; never below nought */
  owed: string
  /** paid beyond what it came to, to be given back */
  over: string
}

interface InvoiceFacts {
  lines: (PricedLine & { source: string })[]
  payments: { amount: string }[]
  taxPercent: string
}

/**
 * What an invoice comes to, what is paid of it and what is still owed, as decimal strings with two places.
 *
 * Lines that were left out cost nothing. Exact decimals; net and tax are each rounded once, half up.
 *
 * @throws FieldError naming the amount that is none
 */
export function invoiceTotal({ lines, payments, taxPercent }: InvoiceFacts): InvoiceTotal {
  const total = estimateTotal(
    lines.filter((l) => l.source !== 'left'),
    taxPercent,
  )
  const paid = payments.reduce((sum, p, i) => sum.plus(amount(`payments[${i}].amount`, p.amount)), new Big(0))
  const rest = new Big(total.gross).minus(twoPlaces(paid))
  const none = new Big(0)
  return {
    ...total,
    paid: twoPlaces(paid),
    owed: twoPlaces(rest.gt(0) ? rest : none),
    over: twoPlaces(rest.lt(0) ? rest.times(-1) : none),
  }
}
