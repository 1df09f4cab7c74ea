import type { Halves } from '../strike/blows.ts'
import { DIAL_MINUTES, dialTime } from './dialTime.ts'

/** What stops the hands on their way: a clock that does not strike has no halves, one that chimes stops at each quarter. */
export interface HandsStrike {
  halves?: Halves | undefined
  quarters?: boolean | undefined
}

/** A time at which the hands wait until it has struck, or chimed. */
export interface HandsStop {
  /** minutes past twelve */
  atMinutes: number
  /** as the dial shows it */
  time: string
  /** of the hour, or of the half */
  blows: number
  /** quarters that are chimed there, 1 to 4; 0: it does not chime */
  quarters: number
}

/**
 * The times that the hands come to on their way forward, one after another: past the first, up to and with the last.
 *
 * @param fromMinutes - what it shows, minutes past twelve, 0 to 719
 * @param forwardMinutes - how far they go, 0 to 719
 */
export function handsStops(
  fromMinutes: number,
  forwardMinutes: number,
  { halves, quarters }: HandsStrike,
): HandsStop[] {
  const every = quarters ? 15 : halves === undefined ? null : halves === 'none' ? 60 : 30
  if (every === null) return []
  const stops: HandsStop[] = []
  for (let at = (Math.floor(fromMinutes / every) + 1) * every; at <= fromMinutes + forwardMinutes; at += every) {
    const atMinutes = at % DIAL_MINUTES
    const past = atMinutes % 60
    stops.push({
      atMinutes,
      time: dialTime(atMinutes),
      blows: blowsAt(Math.floor(atMinutes / 60) || 12, past, halves),
      quarters: quarters ? past / 15 || 4 : 0,
    })
  }
  return stops
}

function blowsAt(hour: number, past: number, halves: Halves | undefined): number {
  if (halves === undefined) return 0
  if (past === 0) return hour
  return past === 30 ? { none: 0, one: 1, hour }[halves] : 0
}
