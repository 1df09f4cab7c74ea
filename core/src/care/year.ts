import { groupedBy } from '../check/grouped.ts'
import { shareOfSeen, type SeenShare } from './share.ts'
import { timeThere } from './workshopTime.ts'

/** A visit, as far as the year of the workshop asks. */
export interface YearVisit {
  jobId: string
  number: number
  clockId: string
  clock: string
  cameS: number
  /** null: it is here */
  leftS: number | null
  calledOff: boolean
  /** what it was, as somebody confirmed */
  causes: string[]
  /** it was oiled with; null: it was not, or nobody said with which */
  oil: string | null
  /** holes that were bushed, each by its name, and with what kind of bush */
  bushes: { hole: string; kind: string }[]
}

export interface CameAgain {
  jobId: string
  clockId: string
  clock: string
  /** since it had gone home */
  days: number
  causes: string[]
  /** of the visit before */
  oil: string | null
  bushes: string[]
}

export interface Evidence {
  name: string
  share: SeenShare
  /** of which nobody can tell yet */
  notYet: number
}

export interface YearTold {
  /** twelve months, the first one first */
  months: { month: string; came: number; left: number; again: number }[]
  causes: { cause: string; times: number }[]
  /** visits of the year of which no cause was confirmed */
  noCause: number
  again: CameAgain[]
  /** by the oil: how many came back within two years */
  oils: Evidence[]
  /** by the kind of bush: how many of those whose clock was seen again were bushed again */
  bushes: Evidence[]
}

/** A clock that comes back within so long came back too soon, years. */
export const AGAIN_YEARS = 2
const YEAR_S = 365.25 * 86_400
const DAY_S = 86_400

/**
 * A year of the workshop: what came and went, why, what came back within two years of going home; and over all its years
 * which oil and which kind of bush that was.
 *
 * Oils are judged by visits that ended at least two years ago or came back sooner: those at home for less tell nothing
 * yet. Bushes by holes whose clock was here again. Shares have their 95 % interval.
 *
 * @param until - last month of the year, YYYY-MM
 */
export function yearOf(visits: YearVisit[], until: string, timeZone: string, nowS: number): YearTold {
  const names = monthsUntil(until)
  const [from, to] = [Date.parse(`${names[0]}-01`) / 1000, Date.parse(`${names[11]}-01`) / 1000]
  // The calendar is asked only about what can be of this year: it is slow, and a workshop has many years.
  const monthOf = (s: number) => (s < from - 2 * DAY_S || s > to + 33 * DAY_S ? '' : timeThere(s, timeZone).slice(0, 7))
  const held = visits
    .filter((v) => !v.calledOff)
    .sort((a, b) => a.cameS - b.cameS)
    .map((v) => ({ ...v, came: monthOf(v.cameS), left: v.leftS === null ? '' : monthOf(v.leftS) }))
  const ofClock = groupedBy(held, (v) => v.clockId)
  const before = (visit: YearVisit) =>
    ofClock.get(visit.clockId)?.findLast((v) => v !== visit && v.leftS !== null && v.leftS <= visit.cameS) ?? null
  const next = (visit: YearVisit) => ofClock.get(visit.clockId)?.find((v) => v.cameS > visit.cameS) ?? null
  const cameSoon = (v: YearVisit | null, leftS: number) => v !== null && v.cameS - leftS <= AGAIN_YEARS * YEAR_S

  const inYear = held.filter((v) => names.includes(v.came))
  const again = inYear.flatMap((visit): CameAgain[] => {
    const last = before(visit)
    if (last?.leftS == null || !cameSoon(visit, last.leftS)) return []
    const { jobId, clockId, clock, causes } = visit
    const days = Math.round((visit.cameS - last.leftS) / DAY_S)
    return [
      { jobId, clockId, clock, causes, days, oil: last.oil, bushes: [...new Set(last.bushes.map((b) => b.kind))] },
    ]
  })
  const counted = new Map<string, number>()
  for (const cause of inYear.flatMap((v) => v.causes)) counted.set(cause, (counted.get(cause) ?? 0) + 1)

  const oils = new Evidences()
  const bushes = new Evidences()
  for (const visit of held) {
    if (visit.leftS === null) continue
    const later = next(visit)
    const soon = cameSoon(later, visit.leftS)
    if (visit.oil !== null) oils.add(visit.oil, soon, soon || nowS - visit.leftS >= AGAIN_YEARS * YEAR_S)
    const since = ofClock.get(visit.clockId)?.filter((v) => v.cameS > visit.cameS) ?? []
    for (const { hole, kind } of visit.bushes)
      bushes.add(
        kind,
        since.some((v) => v.bushes.some((b) => b.hole === hole)),
        since.length > 0,
      )
  }
  return {
    months: names.map((month) => ({
      month,
      came: held.filter((v) => v.came === month).length,
      left: held.filter((v) => v.left === month).length,
      again: again.filter((a) => inYear.some((v) => v.jobId === a.jobId && v.came === month)).length,
    })),
    causes: [...counted].map(([cause, times]) => ({ cause, times })).sort((a, b) => b.times - a.times),
    noCause: inYear.filter((v) => v.causes.length === 0).length,
    again: again.sort((a, b) => a.days - b.days),
    oils: oils.told(),
    bushes: bushes.told(),
  }
}

/** Twelve months as YYYY-MM that end with this one. */
function monthsUntil(until: string): string[] {
  const [year = 0, month = 1] = until.split('-').map(Number)
  return Array.from({ length: 12 }, (_, i) => {
    const at = new Date(Date.UTC(year, month - 12 + i, 1))
    return at.toISOString().slice(0, 7)
  })
}

class Evidences {
  readonly #of = new Map<string, { times: number; of: number; notYet: number }>()

  add(name: string, failed: boolean, known: boolean): void {
    const one = this.#of.get(name) ?? { times: 0, of: 0, notYet: 0 }
    if (known) one.of++
    else one.notYet++
    if (failed && known) one.times++
    this.#of.set(name, one)
  }

  told(): Evidence[] {
    return [...this.#of]
      .map(([name, { times, of, notYet }]) => ({ name, share: shareOfSeen(times, of), notYet }))
      .sort((a, b) => b.share.of - a.share.of || a.name.localeCompare(b.name))
  }
}
