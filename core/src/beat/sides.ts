import type { Side } from './remedy.ts'

export interface SideFinding {
  /** which end of the swing the first set of ticks belongs to, or null while it can't be told */
  first: Side | null
  taps: number
  /** 0 to 1: how well the taps agree among themselves and with one side */
  sureness: number
}

/**
 * Which ticks are the right-hand releases, from taps made each time the bob stood at the right-hand end.
 *
 * The bob reaches the right end a little after the right-hand release and well before the left-hand one, so the
 * taps gather in the stretch that follows the right-hand tick. Their mean phase in the period is compared with the
 * middle of both stretches; a hand's scatter of some tenths of a second only matters on quick clocks.
 *
 * @param tapsS - times of the taps, s, on the recording's own time
 * @param firstS - a time of the first set of ticks, s
 * @param firstToSecondS - from a tick of the first set to the next of the second, s
 * @param periodS - full period, s
 */
export function sideOfFirst(tapsS: number[], firstS: number, firstToSecondS: number, periodS: number): SideFinding {
  if (tapsS.length === 0) return { first: null, taps: 0, sureness: 0 }
  let x = 0
  let y = 0
  for (const tap of tapsS) {
    const angle = (2 * Math.PI * (tap - firstS)) / periodS
    x += Math.cos(angle)
    y += Math.sin(angle)
  }
  const together = Math.hypot(x, y) / tapsS.length
  const mean = Math.atan2(y, x)
  const afterFirst = (Math.PI * firstToSecondS) / periodS
  // +1 when the taps stand in the middle of the stretch after the first set, −1 after the second.
  const leaning = Math.cos(mean - afterFirst)
  const sureness = together * Math.abs(leaning)
  const told = tapsS.length >= 3 && sureness > 0.35
  return { first: told ? (leaning > 0 ? 'right' : 'left') : null, taps: tapsS.length, sureness }
}
