import { requireWithin } from '../check/require.ts'
import { gravityAt, gravityChangeSecondsPerDay } from '../pendulum/gravity.ts'
import type { Figure } from './solve.ts'

export interface OnEarth {
  latitudeDeg: number
  altitudeM: number
}

/** What to expect of a clock that was right here, where it will stand; s/day, + gains. */
export interface AtHome {
  /** null where the place is not known */
  gravitySecondsPerDay: number | null
  /** by the warmth of its room over the year; null where either is not known */
  warmthSecondsPerDay: number | null
  /** both, ± by the error of its figure for a degree and of gravity at a place */
  total: Figure
}

/** True gravity differs from the reckoned one by as much, m/s²: one standard deviation; near by it differs alike. */
const GRAVITY_ERROR = 2e-4
const ALIKE_DEG = 1
const HALF_DAY_S = 43_200

/**
 * What another place does to a clock: its gravity, and a room warmer or colder than this one.
 *
 * @param to - the owner's place; null: not known, so as here
 * @param perC - s/day for a degree
 * @param warmer - how much warmer it is there than here, °C
 */
export function atHome(from: OnEarth, to: OnEarth | null, perC: Figure | null, warmer: number | null): AtHome {
  const gravitySecondsPerDay =
    to === null
      ? null
      : gravityChangeSecondsPerDay(gravityAt(from.latitudeDeg, from.altitudeM), gravityAt(to.latitudeDeg, to.altitudeM))
  const warmthSecondsPerDay = perC === null || warmer === null ? null : perC.value * warmer
  const unsure = [
    to === null
      ? 0
      : ((HALF_DAY_S * GRAVITY_ERROR * Math.SQRT2) / 9.8) *
        Math.min(1, Math.abs(to.latitudeDeg - from.latitudeDeg) / ALIKE_DEG),
    warmthSecondsPerDay === null ? 0 : perC!.standardError * warmer!,
  ]
  return {
    gravitySecondsPerDay,
    warmthSecondsPerDay,
    total: {
      value: (gravitySecondsPerDay ?? 0) + (warmthSecondsPerDay ?? 0),
      standardError: Math.hypot(...unsure),
    },
  }
}

/** How warm the rooms of a house are, °C: the means of its coldest and its warmest month. */
export interface Rooms {
  winterC: number
  summerC: number
}

/** A month of the year ahead for a clock that is right on the whole. */
export interface MonthAhead {
  /** 1 to 12 */
  month: number
  celsius: number
  /** against what it keeps at the year's mean, + gains */
  secondsPerDay: number
}

export interface SeasonAhead {
  months: MonthAhead[]
  /** standard error of the rate at the two ends of the year, s/day */
  standardError: number
  /** how far it strays between the seasons if it is right on the mean, at most, s */
  straysS: number
  /** what to leave it at now so that it is right on the whole, + fast */
  leaveAtSecondsPerDay: number
}

const MONTH_DAYS = 30.44
/** Rooms are coldest at the end of January where it is winter then. */
const COLDEST_MONTH = 1.9

/**
 * The year ahead by what a degree does: warmth swings between the rooms' coldest and warmest month as a cosine.
 *
 * Left so that it is right over the year it gains in winter and loses in summer (or the other way round where it is
 * over-compensated); what it strays by between is the sum of half a year's rates.
 *
 * @param perC - s/day for a degree, + gains when warmer
 * @param latitudeDeg - south of the equator the seasons are turned round
 * @param month - now, 1 to 12
 */
export function seasonAhead(perC: Figure, rooms: Rooms, latitudeDeg: number, month: number): SeasonAhead {
  requireWithin('winterC', rooms.winterC, -40, 60)
  requireWithin('summerC', rooms.summerC, -40, 60)
  const mean = (rooms.winterC + rooms.summerC) / 2
  const half = (rooms.summerC - rooms.winterC) / 2
  const coldest = latitudeDeg < 0 ? COLDEST_MONTH + 6 : COLDEST_MONTH
  const warmth = (m: number) => mean - half * Math.cos((2 * Math.PI * (m + 0.5 - coldest)) / 12)
  const rate = (m: number) => perC.value * (warmth(m) - mean)
  const months = Array.from({ length: 12 }, (_, i): MonthAhead => {
    const m = ((month - 1 + i) % 12) + 1
    return { month: m, celsius: warmth(m), secondsPerDay: rate(m) }
  })
  return {
    months,
    standardError: Math.abs(perC.standardError * half),
    // ∫ over half a wave of amplitude a: a·(half year)·2/π.
    straysS: Math.abs(perC.value * half) * 6 * MONTH_DAYS * (2 / Math.PI),
    leaveAtSecondsPerDay: rate(month),
  }
}
