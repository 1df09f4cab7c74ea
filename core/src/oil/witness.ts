import { secondsOf, type Moment } from '../care/moment.ts'

/** An oiling of a clock on one of its visits: with which pivot oil, when. */
export interface Oiling {
  jobId: string
  oilId: string | null
  at: Moment
}

/**
 * The oiling that a picture of the sinks bears witness of: its own visit’s, or, of a clock as it came back, the last of an
 * earlier visit; null: nobody wrote one down.
 */
export function oilingSeen(
  picture: { jobId: string; moment: 'oiled' | 'trial' | 'visit'; takenAt: Moment },
  oilings: Oiling[],
): Oiling | null {
  const own = (o: Oiling) => o.jobId === picture.jobId
  const fits = oilings.filter((o) =>
    picture.moment === 'visit' ? !own(o) && secondsOf(o.at) <= secondsOf(picture.takenAt) : own(o),
  )
  return fits.reduce<Oiling | null>((last, o) => (!last || secondsOf(o.at) >= secondsOf(last.at) ? o : last), null)
}

const YEAR_S = 365.25 * 86_400

export interface OilSeen {
  oilId: string
  /** pictures that were judged, by how the oil stood */
  stays: number
  spread: number
  dry: number
  /** the longest that it was seen to stay, and the soonest that it was seen not to, years; null: never */
  stayedYears: number | null
  failedYears: number | null
}

/** What the workshop’s own pictures tell of each oil: how often it stays, for how long, and how soon it did not. */
export function oilsSeen(
  pictures: { oilId: string | null; oiledAt: Moment | null; takenAt: Moment; state: '' | 'stays' | 'spread' | 'dry' }[],
): OilSeen[] {
  const seen = new Map<string, OilSeen>()
  for (const { oilId, oiledAt, takenAt, state } of pictures) {
    if (oilId === null || oiledAt === null || state === '') continue
    const of = seen.get(oilId) ?? { oilId, stays: 0, spread: 0, dry: 0, stayedYears: null, failedYears: null }
    const years = Math.max(0, secondsOf(takenAt) - secondsOf(oiledAt)) / YEAR_S
    of[state]++
    if (state === 'stays') of.stayedYears = Math.max(of.stayedYears ?? 0, years)
    else of.failedYears = Math.min(of.failedYears ?? Infinity, years)
    seen.set(oilId, of)
  }
  return [...seen.values()]
}

/** How an open bottle stands: `fresh`, `old` within half a year of its end, `over` past it; null: nobody wrote when. */
export function bottleStands(
  { openedOn, keepsYears }: { openedOn: string | null; keepsYears: number },
  nowS: number,
): { years: number; stands: 'fresh' | 'old' | 'over' } | null {
  if (openedOn === null || openedOn === '') return null
  const years = Math.max(0, nowS - Date.parse(`${openedOn}T00:00:00Z`) / 1000) / YEAR_S
  return { years, stands: years >= keepsYears ? 'over' : years >= keepsYears - 0.5 ? 'old' : 'fresh' }
}
