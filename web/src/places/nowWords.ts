import type { Owed } from '@treadle/core'
import type dayjs from 'dayjs'

/** What is done away from the screen, so that only a person can tick it off; the rest is done on its own surface. */
const TICKED = new Set<Owed['kind']>(['wind', 'promise', 'order', 'answer', 'no-cutter', 'card'])

export function mayTick(owed: Pick<Owed, 'kind'>): boolean {
  return TICKED.has(owed.kind)
}

/** When a thing put off comes back: in an hour, this evening while it is not yet near, tomorrow, in three days. */
export function laterTimes(at: dayjs.Dayjs): { title: string; untilS: number }[] {
  const evening = at.startOf('day').add(17, 'hour')
  const morning = at.startOf('day').add(1, 'day').add(8, 'hour')
  return [
    { title: 'in an hour', untilS: at.add(1, 'hour').unix() },
    ...(evening.diff(at, 'hour') >= 2 ? [{ title: 'this evening', untilS: evening.unix() }] : []),
    { title: 'tomorrow morning', untilS: morning.unix() },
    { title: 'in three days', untilS: morning.add(2, 'day').unix() },
  ]
}
