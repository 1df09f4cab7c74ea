import { requireWithin } from '../check/require.ts'
import { DIAL_MINUTES } from './dialTime.ts'
import { handsStops, type HandsStop, type HandsStrike } from './stops.ts'

export interface HandsPlanInput extends HandsStrike {
  /** minutes past twelve that it shows, 0 to 719 */
  showsMinutes: number
  /** minutes past midnight, 0 to 1439 */
  trueMinutes: number
  /** 0.2 to 20 s */
  secondsPerBlow?: number | undefined
  /** its maker allows the minute hand to go back: only modern self-correcting movements, and clocks that strike nothing */
  backAllowed?: boolean | undefined
}

export interface HandsPlan {
  /** 0 to 719 */
  forwardMinutes: number
  /** times it must be left to strike or chime, the arriving one counts */
  stops: number
  /** hours and halves */
  blows: number
  /** until the true time comes round to what it shows, 0 to 719 */
  waitMinutes: number
  advise: 'forward' | 'wait' | 'back'
  why: string
  /** the stops, one by one */
  way: HandsStop[]
}

/** A blow, where nobody timed it. */
export const SECONDS_PER_BLOW = 1.5
/** The work of each way, s: to take hold of the hand, an hour of turning, a stop, a quarter’s phrase. */
const TAKE_HOLD_S = 10
const HOUR_OF_TURNING_S = 5
const STOP_S = 5
const PHRASE_S = 3
/** To stop the pendulum now and to start it at the moment, s; and what of the time between is lost to other work. */
const STOP_AND_START_S = 30
const WAITING_SHARE = 0.1

/**
 * How the hands of a twelve-hour dial come from what it shows to what it should: forward through every strike, the
 * pendulum stopped till the true time has come round, or back where its kind allows; the way of least work is advised.
 *
 * Work is reckoned in seconds: 10 to take hold, 5 for each hour of turning, at each stop 5, its blows, and 3 for each
 * quarter’s phrase; to wait costs 30 and a tenth of the time. The counts need no such guess.
 *
 * @throws FieldError naming what is out of range
 */
export function handsPlan(input: HandsPlanInput): HandsPlan {
  const { showsMinutes, trueMinutes, secondsPerBlow = SECONDS_PER_BLOW, backAllowed = false } = input
  requireWithin('shows', showsMinutes, 0, DIAL_MINUTES - 1)
  requireWithin('trueTime', trueMinutes, 0, 2 * DIAL_MINUTES - 1)
  requireWithin('secondsPerBlow', secondsPerBlow, 0.2, 20)
  const forwardMinutes = (trueMinutes - showsMinutes + 2 * DIAL_MINUTES) % DIAL_MINUTES
  const waitMinutes = (DIAL_MINUTES - forwardMinutes) % DIAL_MINUTES
  const way = handsStops(showsMinutes, forwardMinutes, input)
  const blows = way.reduce((sum, stop) => sum + stop.blows, 0)
  const phrases = way.reduce((sum, stop) => sum + stop.quarters, 0)
  const told = { forwardMinutes, stops: way.length, blows, waitMinutes, way }
  if (forwardMinutes === 0) return { ...told, advise: 'forward', why: 'It shows the time already.' }

  const turning = (minutes: number) => TAKE_HOLD_S + (HOUR_OF_TURNING_S * minutes) / 60
  const costS = {
    forward: turning(forwardMinutes) + STOP_S * way.length + secondsPerBlow * blows + PHRASE_S * phrases,
    wait: STOP_AND_START_S + WAITING_SHARE * 60 * waitMinutes,
    back: backAllowed ? turning(waitMinutes) : Infinity,
  }
  const advise = (['forward', 'back', 'wait'] as const).reduce((best, one) => (costS[one] < costS[best] ? one : best))
  const why = {
    forward: `Forward by ${hoursAndMinutes(forwardMinutes)}${stopsInWords(way.length, blows)}: some ${roundly(costS.forward)} of work. To wait for it would take ${hoursAndMinutes(waitMinutes)}.`,
    wait: `It is ahead by ${hoursAndMinutes(waitMinutes)}: stopped, and started when the time has come round, it needs no turning. Forward would be ${hoursAndMinutes(forwardMinutes)}${stopsInWords(way.length, blows)}, some ${roundly(costS.forward)} of work.`,
    back: `It is ahead by ${hoursAndMinutes(waitMinutes)}, and its kind allows the hand to go back. Forward would be ${hoursAndMinutes(forwardMinutes)}${stopsInWords(way.length, blows)}.`,
  }[advise]
  return { ...told, advise, why }
}

/** A stretch of time in hours and minutes: "2 h 14 min". */
export function hoursAndMinutes(minutes: number): string {
  const hours = Math.floor(minutes / 60)
  const rest = Math.round(minutes % 60)
  return [hours > 0 ? `${hours} h` : '', rest > 0 || hours === 0 ? `${rest} min` : ''].filter(Boolean).join(' ')
}

function stopsInWords(stops: number, blows: number): string {
  if (stops === 0) return ''
  return ` with ${stops} ${stops === 1 ? 'stop' : 'stops'} and ${blows} ${blows === 1 ? 'blow' : 'blows'}`
}

function roundly(seconds: number): string {
  return seconds < 90 ? `${Math.round(seconds / 5) * 5} s` : `${Math.round(seconds / 60)} min`
}
