import { strikeBlows } from './blows.ts'

export interface CountSlot {
  /** the hour whose blows end here: 1 to 12; 1.5 is half past one */
  after: number
  atDeg: number
}

/**
 * The divisions of a count wheel and where its slots stand: the end of each hour’s blows, 1 to 12, then that of each
 * half’s, 1.5 to 12.5. Degrees round from the end of twelve’s, in the order in which they come: twelve’s own is 360.
 *
 * A blow is one division. Source: the blows of a round of the dial, 78 or 90, one after another.
 */
export function countWheel(halves: 'none' | 'one'): { divisions: number; slots: CountSlot[] } {
  const { inTwelveHours: divisions } = strikeBlows(halves)
  const half = halves === 'one' ? 1 : 0
  const hours: CountSlot[] = []
  const halfHours: CountSlot[] = []
  const at = (blows: number) => (360 * blows) / divisions
  // Round from twelve’s end: half past twelve, one, half past one…
  let blows = half
  const afterTwelve = { after: 12.5, atDeg: at(blows) }
  for (let hour = 1; hour <= 12; hour++) {
    blows += hour
    hours.push({ after: hour, atDeg: at(blows) })
    if (hour === 12) break
    blows += half
    halfHours.push({ after: hour + 0.5, atDeg: at(blows) })
  }
  return { divisions, slots: half === 0 ? hours : [...hours, ...halfHours, afterTwelve] }
}
