import { mean } from 'simple-statistics'
import type { RateBook, RateBookInput } from './book.ts'
import { atHome, seasonAhead, type AtHome, type OnEarth, type SeasonAhead } from './atHome.ts'
import type { Figure } from './solve.ts'

/** Where a clock goes, as far as it is known. */
export interface HomeKnown {
  latitudeDeg: number | null
  altitudeM: number | null
  winterC: number | null
  summerC: number | null
}

export interface Ahead {
  home: AtHome
  /** what to leave it at here so that it is right there over the year, s/day; null: nothing is known of there */
  leaveAt: Figure | null
  season: SeasonAhead | null
}

/**
 * What to expect of a clock at its owner's, from its own figure for a degree, or that of its pendulum, and the place.
 *
 * @param here - the workshop
 * @param hereC - how warm it is beside the clock of late; null: nobody looked
 * @param perC - s/day for a degree; null: neither readings nor pendulum tell
 * @param month - now, 1 to 12
 */
export function aheadOf(
  here: OnEarth,
  hereC: number | null,
  known: HomeKnown,
  perC: Figure | null,
  month: number,
): Ahead | null {
  const { latitudeDeg, altitudeM, winterC, summerC } = known
  const to = latitudeDeg === null ? null : { latitudeDeg, altitudeM: altitudeM ?? 0 }
  const mean = winterC === null || summerC === null ? null : (winterC + summerC) / 2
  if (to === null && mean === null) return null
  const home = atHome(here, to, perC, mean === null || hereC === null ? null : mean - hereC)
  const season =
    perC === null || winterC === null || summerC === null
      ? null
      : seasonAhead(perC, { winterC, summerC }, latitudeDeg ?? here.latitudeDeg, month)
  return { home, leaveAt: { ...home.total, value: -home.total.value }, season }
}

const LATELY_S = 3 * 86_400

/** How warm it was beside the clock over the last three days of what was read of it, °C; null: nobody looked. */
export function warmthLately({ readings, temperatures = [] }: RateBookInput): number | null {
  const all = [
    ...readings.flatMap((r) => (r.temperatureC === undefined ? [] : [{ atS: r.atS, celsius: r.temperatureC }])),
    ...temperatures,
  ]
  const latest = Math.max(...all.map((t) => t.atS))
  const lately = all.filter((t) => t.atS > latest - LATELY_S)
  return lately.length === 0 ? null : mean(lately.map((t) => t.celsius))
}

/** The figure for a degree by the readings where they tell it well enough, else by the pendulum laid out. */
export function perDegreeOf(book: RateBook | null, pendulum: Figure | null): Figure | null {
  if (book?.secondsPerDayPerC != null && book.perCStandardError !== null)
    return { value: book.secondsPerDayPerC, standardError: book.perCStandardError }
  return pendulum
}

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

/** "At its owner’s it should gain 0.1 s a day by gravity and lose 0.4 by a warmer room." and what to leave it at. */
export function homeInWords({ home, leaveAt }: Ahead): string {
  const does = (value: number, by: string) => `${value >= 0 ? 'gain' : 'lose'} ${Math.abs(value).toFixed(1)} ${by}`
  const { gravitySecondsPerDay: gravity, warmthSecondsPerDay: warmth } = home
  const parts = [
    gravity !== null && Math.abs(gravity) >= 0.05 ? does(gravity, 's a day by gravity') : '',
    warmth !== null && Math.abs(warmth) >= 0.05 ? does(warmth, 's a day by the warmth of its room') : '',
  ].filter((w) => w !== '')
  if (parts.length === 0 || leaveAt === null) return 'At its owner’s it should keep the rate it keeps here.'
  const fast = leaveAt.value
  return `At its owner’s it should ${parts.join(' and ')}: leave it ${Math.abs(fast).toFixed(1)} ± ${Math.max(0.1, leaveAt.standardError).toFixed(1)} s a day ${fast > 0 ? 'fast' : 'slow'} here, and it is right there over the year.`
}

/** What the year does to it, in a sentence or two; null where it does nothing that an owner would see. */
export function seasonInWords({ months, straysS, leaveAtSecondsPerDay }: SeasonAhead): string | null {
  if (straysS < 10) return null
  const fastest = months.reduce((a, b) => (b.secondsPerDay > a.secondsPerDay ? b : a))
  const slowest = months.reduce((a, b) => (b.secondsPerDay < a.secondsPerDay ? b : a))
  const gains = Math.abs(fastest.secondsPerDay)
  const leave =
    Math.abs(leaveAtSecondsPerDay) < 0.3
      ? ''
      : ` Left ${Math.abs(leaveAtSecondsPerDay).toFixed(1)} s a day ${leaveAtSecondsPerDay > 0 ? 'fast' : 'slow'} in ${MONTHS[months[0]!.month - 1]} it is right over the year.`
  return `By the warmth of its room it gains up to ${gains.toFixed(1)} s a day in ${MONTHS[fastest.month - 1]} and loses as much in ${MONTHS[slowest.month - 1]}: set right at the turn, it strays by ${strays(straysS)} till the next.${leave}`
}

function strays(s: number): string {
  return s >= 90 ? `${Math.round(s / 60)} minutes` : `${Math.round(s / 5) * 5} seconds`
}
