import Big from 'big.js'
import { FieldError } from '../check/require.ts'
import { amount, twoPlaces } from './money.ts'

export interface PricedLine {
  quantity: number | string
  unitPrice: string
  /** bears tax; it does when nothing is said */
  taxed?: boolean | undefined
}

export interface EstimateTotal {
  net: string
  tax: string
  gross: string
}

/**
 * Net, tax and gross of an estimate, as decimal strings with two places.
 *
 * Exact decimals throughout; net and tax are each rounded once, half up, and gross is the sum of the two.
 *
 * @param taxPercent - "0" to "100"
 * @example estimateTotal([{ quantity: 3, unitPrice: "14.35" }], "21") // 43.05, 9.04, 52.09
 */
export function estimateTotal(lines: PricedLine[], taxPercent: string): EstimateTotal {
  const percent = amount('taxPercent', taxPercent)
  if (percent.lt(0) || percent.gt(100)) throw new FieldError('taxPercent', taxPercent, 'it must be from "0" to "100"')
  let net = new Big(0)
  let bearing = new Big(0)
  lines.forEach((line, i) => {
    const quantity = amount(`lines[${i}].quantity`, line.quantity)
    if (quantity.lt(0)) throw new FieldError(`lines[${i}].quantity`, line.quantity, 'it must not be below 0')
    const sum = quantity.times(amount(`lines[${i}].unitPrice`, line.unitPrice))
    net = net.plus(sum)
    if (line.taxed !== false) bearing = bearing.plus(sum)
  })
  const netText = twoPlaces(net)
  const tax = twoPlaces(bearing.times(percent).div(100))
  return { net: netText, tax, gross: new Big(netText).plus(tax).toFixed(2) }
}

/** A share of an amount, as a deposit is: two places. */
export function shareOf(sum: string, percent: string): string {
  return twoPlaces(amount('sum', sum).times(amount('percent', percent)).div(100))
}
