import type { Halves } from './blows.ts'
import { strikesRight, type StrikeKind, type Struck } from './kinds.ts'

/** A strike is of a time that its clock shows within so long of it, minutes. */
const NEAR_MIN = 6
const HALF_DAY_S = 43_200
/** More blows than twelve are a chime's notes, not an hour's. */
const MOST_BLOWS = 12

/**
 * Which time of the round a strike was that began at a time of day, or null where it can't be told.
 *
 * The clock may be some minutes off; its notes of a chime are no blows, and a time that strikes no blows is left out.
 *
 * @param clock - the time of day as HH:MM, in the workshop
 */
export function timeOfStrike(
  clock: string,
  blows: number,
  strike: { kind: StrikeKind; halves: Halves },
): Struck | null {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number)
  const at = (hours % 12) * 60 + minutes
  if (blows > MOST_BLOWS) return null
  const near = strikesRight(strike.kind, strike.halves).filter((t) => {
    const due = (t.hour % 12) * 60 + 15 * t.quarter
    const off = Math.abs(at - due)
    return t.blows > 0 && Math.min(off, 720 - off) <= NEAR_MIN
  })
  return near.length === 1 ? (near[0] ?? null) : null
}

/**
 * A clock’s error by the first blow of a strike: what it shows when it strikes, less the time of day, s; + ahead.
 *
 * @param secondsOfDay - when the first blow was heard, s since midnight in the workshop
 */
export function errorByStrike(secondsOfDay: number, time: Pick<Struck, 'hour' | 'quarter'>): number {
  const off = (time.hour % 12) * 3600 + time.quarter * 900 - (secondsOfDay % HALF_DAY_S)
  return off > HALF_DAY_S / 2 ? off - HALF_DAY_S : off < -HALF_DAY_S / 2 ? off + HALF_DAY_S : off
}
