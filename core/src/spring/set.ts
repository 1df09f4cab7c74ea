import { requirePositive } from '../check/require.ts'

/** Laid loose a sound spring opens to so many times its barrel, or more; one that stays under the second is set. */
export const LOOSE = { sound: 3, set: 2 }

export interface SetJudged {
  /** across the loose coil against the barrel, inside */
  times: number
  verdict: 'sound' | 'watch' | 'set'
}

/**
 * Whether a mainspring has taken a set, by how far it opens out of its barrel, laid loose on the bench.
 *
 * What set it has taken in winding it keeps: it stays coiled, and has as much less to give between wound and run down.
 * Three times the barrel and more is sound, under twice is worn out: rules of thumb.
 */
export function judgeSet(looseMm: number, barrelInsideMm: number): SetJudged {
  requirePositive('looseMm', looseMm)
  requirePositive('barrelInsideMm', barrelInsideMm)
  const times = looseMm / barrelInsideMm
  return { times, verdict: times >= LOOSE.sound ? 'sound' : times >= LOOSE.set ? 'watch' : 'set' }
}
