import type { EscapementSheetChange } from '@treadle/contract'
import { escapeTopping, leaveLow, toppingSteps, type LeaveSome, type Topping, type WorkStep } from '@treadle/core'

/** Less than this between the tips, mm, is not worth a stone. */
const EVEN_MM = 0.005

/** What the gauged tips ask for: the topping of all, the low ones that may be left, and the steps. */
export function toppingOf(sheet: EscapementSheetChange): {
  topping: Topping | null
  low: LeaveSome | null
  even: boolean
  steps: WorkStep[]
} {
  const gauged = sheet.tipRadiiMm.filter((mm): mm is number => mm !== null)
  const whole = gauged.length >= 3 && gauged.length === sheet.teeth ? gauged : null
  const topping = whole ? escapeTopping(whole, sheet.spannedSpaces) : null
  const low = whole ? leaveLow(whole, 2, sheet.spannedSpaces) : null
  const to = sheet.leftLow.length > 0 && low ? low : topping
  const even = topping !== null && topping.mostMm <= EVEN_MM
  const asks = sheet.bent.length > 0 || (topping !== null && !even)
  return { topping, low, even, steps: asks ? toppingSteps(to?.toRadiusMm ?? null, to?.mostMm ?? null) : [] }
}
