import { whenThere, type Owed } from '@treadle/core'
import { dayOf } from '../parts/say.ts'

/** What is done away from the screen, so that only a person can tick it off; the rest is done on its own surface. */
const TICKED = new Set<Owed['kind']>(['wind', 'promise', 'order', 'answer', 'no-cutter', 'card', 'recall'])

export function mayTick(owed: Pick<Owed, 'kind'>): boolean {
  return TICKED.has(owed.kind)
}

/** What falls due within so long presses; what is further off can wait behind a button. */
const PRESSING_S = 2 * 86_400
/** What is waited for, until it is time to ask again. */
const WAITED = new Set<Owed['kind']>(['waits', 'answer'])

/**
 * What is owed in order of time: what presses within two days, what comes later, and what is waited for.
 *
 * The next step of a clock that nothing hurries is on its tag and not here. Whatever is due within two days presses, so
 * that no promise of tomorrow hides behind a button.
 */
export function sortNow<T extends { owed: Owed }>(all: T[], nowS: number): { pressing: T[]; later: T[]; waited: T[] } {
  const byTime = (a: T, b: T) => (a.owed.dueS ?? nowS) - (b.owed.dueS ?? nowS)
  const waits = ({ owed }: T) => WAITED.has(owed.kind) && (owed.dueS === null || owed.dueS > nowS)
  const presses = ({ owed }: T) => owed.kind === 'tell-owner' || (owed.dueS !== null && owed.dueS <= nowS + PRESSING_S)
  const rest = all.filter((t) => !waits(t))
  return {
    pressing: rest.filter(presses).sort(byTime),
    later: rest
      .filter((t) => !presses(t) && (t.owed.dueS !== null || t.owed.kind === 'order' || t.owed.kind === 'no-cutter'))
      .sort((a, b) => (a.owed.dueS ?? Infinity) - (b.owed.dueS ?? Infinity)),
    waited: all.filter(waits).sort((a, b) => (a.owed.dueS ?? Infinity) - (b.owed.dueS ?? Infinity)),
  }
}

const HOUR_S = 3600
/** Later than this the evening is near: it is not offered. */
const EVENING_NEAR_S = 2 * HOUR_S

/**
 * When a thing put off comes back: in an hour, this evening while it is not yet near, tomorrow, in three days; by the
 * workshop’s own clock.
 */
export function laterTimes(at: Date, timeZone: string): { title: string; untilS: number }[] {
  const nowS = Math.floor(at.getTime() / 1000)
  const today = dayOf(at, timeZone)
  const dayOn = (n: number) => new Date(Date.parse(today) + n * 86_400_000).toISOString().slice(0, 10)
  const evening = whenThere(today, 17, timeZone)
  return [
    { title: 'in an hour', untilS: nowS + HOUR_S },
    ...(evening - nowS >= EVENING_NEAR_S ? [{ title: 'this evening', untilS: evening }] : []),
    { title: 'tomorrow morning', untilS: whenThere(dayOn(1), 8, timeZone) },
    { title: 'in three days', untilS: whenThere(dayOn(3), 8, timeZone) },
  ]
}
