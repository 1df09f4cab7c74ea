import { Body, Illumination, SearchMoonPhase } from 'astronomy-engine'
import { FieldError } from '../check/require.ts'

export interface MoonAge {
  /** since the last new moon, 0 to 29.85 */
  ageDays: number
  /** of its face, 0 to 100 */
  illuminatedPercent: number
  nextNewAtS: number
  nextFullAtS: number
}

/** No lunation is longer, days. */
const LONGEST_LUNATION = 30
const DAY_S = 86_400
/** Between these the package's own accuracy is kept, and the earth's turning is known or well foretold. */
const FROM_S = Date.UTC(1700, 0, 1) / 1000
const TO_S = Date.UTC(2200, 0, 1) / 1000

/**
 * Age of the moon in days since the last new moon, how much of it is lit, and the next new and full moon, Unix seconds.
 *
 * New and full are where its geocentric apparent longitude is that of the sun, or opposite. From Astronomy Engine's
 * lunar theory; within a minute of published almanacs.
 *
 * @param atS - Unix seconds, of the years 1700 to 2199
 * @throws FieldError where the moment is out of that range
 */
export function moonAge(atS: number): MoonAge {
  if (!(atS >= FROM_S && atS < TO_S)) throw new FieldError('at', atS, 'it must be a moment of the years 1700 to 2199')
  const at = new Date(atS * 1000)
  return {
    ageDays: (atS - phaseNear(at, 0, -LONGEST_LUNATION)) / DAY_S,
    illuminatedPercent: 100 * Illumination(Body.Moon, at).phase_fraction,
    nextNewAtS: phaseNear(at, 0, LONGEST_LUNATION),
    nextFullAtS: phaseNear(at, 180, LONGEST_LUNATION),
  }
}

function phaseNear(at: Date, longitudeDeg: number, withinDays: number): number {
  const found = SearchMoonPhase(longitudeDeg, at, withinDays)
  if (!found) throw new Error(`No moon at ${longitudeDeg}° within ${withinDays} days of ${at.toISOString()}.`)
  return found.date.getTime() / 1000
}
