import { careDueS, careOwed, type CareDue } from './due.ts'
import type { Owed } from './now.ts'

/** So long before it falls due a clock at home is thought of, days. */
const AHEAD_DAYS = 30
const DAY_S = 86_400

/**
 * What is owed now to a clock that went home: its service, or a look at its oil, by the oil's own age; and a word before
 * its guarantee ends. Nothing while none of them is near.
 */
export function recallsOf(dues: CareDue[], timeZone: string, nowS: number): Owed[] {
  const of = (kind: CareDue['kind']) => dues.find((d) => d.kind === kind)
  const isNear = (due: CareDue | undefined): due is CareDue =>
    due !== undefined && careDueS(due, timeZone) - nowS <= AHEAD_DAYS * DAY_S
  const oil = [of('service'), of('check')].find(isNear)
  const guarantee = of('guarantee')
  return [
    ...(oil ? [careOwed(oil, timeZone, nowS)] : []),
    // Once it is over nothing is owed for it.
    ...(isNear(guarantee) && careDueS(guarantee, timeZone) + DAY_S > nowS ? [careOwed(guarantee, timeZone, nowS)] : []),
  ]
}
