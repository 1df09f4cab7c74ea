import { median } from 'simple-statistics'
import { nth } from '../check/nth.ts'

/** A minute as the findings ask for it. */
export interface WatchedMinute {
  fromS: number
  seconds: number
  rateSecondsPerDay: number | null
  rateStandardError: number | null
  aheadS: number | null
  /** when the listening that it is of began */
  sinceS: number
}

/** How warm it was at a moment of the watch. */
export interface TemperatureAt {
  /** s from the beginning of the watch */
  atS: number
  celsius: number
}

/** Half an hour of a watch: neighbouring minutes wander together, so that it counts as one. */
export interface WatchBlock {
  atS: number
  /** s/day, the middle one of its minutes */
  rate: number
  /** which winding it is after, and hours since: since the beginning where none is known */
  winding: number
  hours: number
  /** null: nobody knows */
  celsius: number | null
}

const BLOCK_S = 1800
const LEAST_MINUTES = 10
/** Between two temperatures farther apart than this nobody knows how warm it was, s. */
const KNOWN_S = 6 * 3600

/**
 * The half hours of a watch, a winding beginning a new one.
 *
 * @param windingsS - when it was wound, s from the beginning of the watch
 * @param temperatures - in order of time
 */
export function watchBlocks(
  minutes: WatchedMinute[],
  windingsS: number[] = [],
  temperatures: TemperatureAt[] = [],
): WatchBlock[] {
  const windings = [-Infinity, ...[...windingsS].sort((a, b) => a - b)]
  const groups = new Map<string, { winding: number; atS: number[]; rates: number[] }>()
  for (const m of minutes) {
    if (m.rateSecondsPerDay === null) continue
    const atS = m.fromS + m.seconds / 2
    const winding = windings.filter((w) => w <= atS).length - 1
    const key = `${winding} ${Math.floor(atS / BLOCK_S)}`
    const group = groups.get(key) ?? { winding, atS: [], rates: [] }
    group.atS.push(atS)
    group.rates.push(m.rateSecondsPerDay)
    groups.set(key, group)
  }
  return [...groups.values()].flatMap(({ winding, atS, rates }) => {
    if (rates.length < LEAST_MINUTES) return []
    const middle = median(atS)
    const from = nth(windings, winding)
    const zero = Number.isFinite(from) ? from : (minutes[0]?.fromS ?? 0)
    return [
      {
        winding,
        atS: middle,
        hours: (middle - zero) / 3600,
        rate: median(rates),
        celsius: temperatureAt(temperatures, middle),
      },
    ]
  })
}

function temperatureAt(temperatures: TemperatureAt[], atS: number): number | null {
  const next = temperatures.findIndex((t) => t.atS >= atS)
  const [before, after] = next === -1 ? [temperatures.at(-1), undefined] : [temperatures[next - 1], temperatures[next]]
  if (before && after) {
    if (after.atS - before.atS > 2 * KNOWN_S) return null
    return before.celsius + ((atS - before.atS) / (after.atS - before.atS)) * (after.celsius - before.celsius)
  }
  const only = before ?? after
  return only && Math.abs(only.atS - atS) <= KNOWN_S ? only.celsius : null
}
