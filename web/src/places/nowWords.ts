import { whenThere, type Owed } from '@treadle/core'

/** What is done away from the screen, so that only a person can tick it off; the rest is done on its own surface. */
const TICKED = new Set<Owed['kind']>(['wind', 'promise', 'order', 'answer', 'no-cutter', 'card'])

export function mayTick(owed: Pick<Owed, 'kind'>): boolean {
  return TICKED.has(owed.kind)
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
  const today = new Intl.DateTimeFormat('en-CA', { timeZone }).format(at)
  const dayOn = (n: number) => new Date(Date.parse(today) + n * 86_400_000).toISOString().slice(0, 10)
  const evening = whenThere(today, 17, timeZone)
  return [
    { title: 'in an hour', untilS: nowS + HOUR_S },
    ...(evening - nowS >= EVENING_NEAR_S ? [{ title: 'this evening', untilS: evening }] : []),
    { title: 'tomorrow morning', untilS: whenThere(dayOn(1), 8, timeZone) },
    { title: 'in three days', untilS: whenThere(dayOn(3), 8, timeZone) },
  ]
}
