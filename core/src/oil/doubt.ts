import { secondsOf, type Moment } from '../care/moment.ts'
import { bottleStands } from './witness.ts'

/** Why the oil in a clock is doubted from the first day, in words. */
export const OIL_DOUBTS = {
  'bottle-over': 'the bottle was past its time',
  'ran-out': 'its oil was seen not to stay in its sinks',
} as const
export type OilDoubt = keyof typeof OIL_DOUBTS

/**
 * Whether oil that was put in is doubted: its bottle was past its time, or the last picture of its sinks since then shows
 * that it did not stay; null: it is not.
 *
 * @param bottle - of the pivot oil; null: nobody wrote down which
 * @param seen - pictures of the sinks on the visit that oiled it, in order of time
 */
export function oilDoubt(
  oiledAt: Moment,
  bottle: { openedOn: string | null; keepsYears: number } | null,
  seen: { moment: 'oiled' | 'trial' | 'visit'; state: '' | 'stays' | 'spread' | 'dry'; at: Moment }[],
): OilDoubt | null {
  if (bottle !== null && bottleStands(bottle, secondsOf(oiledAt))?.stands === 'over') return 'bottle-over'
  // A clock as it came shows the oil of an earlier visit.
  const last = seen.findLast((w) => w.moment !== 'visit' && w.state !== '' && secondsOf(w.at) >= secondsOf(oiledAt))
  return last?.state === 'spread' || last?.state === 'dry' ? 'ran-out' : null
}
