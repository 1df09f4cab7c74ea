import { nth } from '../check/nth.ts'
import { requireFinite, requirePositive, requireWithin } from '../check/require.ts'
import { beatIntervals } from '../beat/offset.ts'
import { seededRandom } from './random.ts'

/** A pretended pendulum clock; it stands in for the microphone wherever there is no clock to hear. */
export interface PracticeClock {
  /** what it was made for */
  beatsPerHour: number
  /** its error of rate, s/day, + gains */
  rateSecondsPerDay: number
  semiArcDeg: number
  /** half the angle between the two releases, degrees */
  releaseDeg: number
  /** how far the escapement stands to the right of plumb, degrees */
  offsetDeg: number
  /** standard deviation of one beat's time, ms */
  scatterMs: number
  /** loudness of the right-hand and left-hand drop, 0 to 1 */
  loudnessRight: number
  loudnessLeft: number
  /** noise of the room, rms, 0 to 0.2 */
  noise: number
  seed: number
}

export const DEFAULT_PRACTICE_CLOCK: PracticeClock = {
  beatsPerHour: 7200,
  rateSecondsPerDay: -42,
  semiArcDeg: 5,
  releaseDeg: 2,
  offsetDeg: 0.5,
  scatterMs: 0.2,
  loudnessRight: 0.4,
  loudnessLeft: 0.25,
  noise: 0.004,
  seed: 7,
}

/** Throws FieldError naming the setting that can't be; a clock whose arc is below its release would stand still. */
export function checkPracticeClock(clock: PracticeClock): void {
  requireWithin('beatsPerHour', clock.beatsPerHour, 2400, 18_000)
  requireWithin('rateSecondsPerDay', clock.rateSecondsPerDay, -7200, 7200)
  requirePositive('semiArcDeg', clock.semiArcDeg)
  requireFinite('offsetDeg', clock.offsetDeg)
  requireWithin('scatterMs', clock.scatterMs, 0, 5)
  requireWithin('loudnessRight', clock.loudnessRight, 0, 1)
  requireWithin('loudnessLeft', clock.loudnessLeft, 0, 1)
  requireWithin('noise', clock.noise, 0, 0.2)
  beatIntervals(clock.beatsPerHour, clock.semiArcDeg, clock.releaseDeg, clock.offsetDeg)
}

/** Angle of the pendulum at `atS`, degrees, + right: θ = A·sin ωt, passing plumb to the right at 0. */
export function practiceAngleDeg(clock: PracticeClock, atS: number): number {
  return clock.semiArcDeg * Math.sin((2 * Math.PI * atS) / practicePeriodS(clock))
}

/** Its true full period, s. */
export function practicePeriodS(clock: PracticeClock): number {
  return 7200 / (clock.beatsPerHour * (1 + clock.rateSecondsPerDay / 86_400))
}

interface Mode {
  hz: number
  decayS: number
  share: number
}

const RIGHT_MODES: Mode[] = [
  { hz: 2900, decayS: 0.006, share: 0.55 },
  { hz: 4700, decayS: 0.004, share: 0.35 },
  { hz: 7100, decayS: 0.002, share: 0.2 },
]
const LEFT_MODES: Mode[] = [
  { hz: 2300, decayS: 0.008, share: 0.6 },
  { hz: 3900, decayS: 0.004, share: 0.3 },
  { hz: 6200, decayS: 0.002, share: 0.2 },
]
const UNLOCK_BEFORE_S = 0.006
const UNLOCK_SHARE = 0.18
const RISE_S = 1.5e-4
const TAIL_S = 0.05

/**
 * The clock's sound, block after block: a soft unlocking, then the drop at the moment the pendulum passes the release.
 *
 * The same seed gives the same sound, however it is cut into blocks.
 */
export class PracticeSound {
  #from = 0
  readonly #rightS: number
  readonly #leftS: number
  readonly #periodS: number
  readonly #noise: () => number

  constructor(
    readonly clock: PracticeClock,
    readonly sampleRate: number,
  ) {
    checkPracticeClock(clock)
    this.#periodS = practicePeriodS(clock)
    const at = (deg: number) => (Math.asin(deg / clock.semiArcDeg) * this.#periodS) / (2 * Math.PI)
    this.#rightS = at(clock.releaseDeg + clock.offsetDeg)
    this.#leftS = this.#periodS / 2 + at(clock.releaseDeg - clock.offsetDeg)
    this.#noise = seededRandom(clock.seed).normal
  }

  /** The next `length` samples. */
  next(length: number): Float32Array {
    const out = new Float32Array(length)
    const { clock, sampleRate } = this
    if (clock.noise > 0) for (let i = 0; i < length; i++) out[i] = clock.noise * this.#noise()
    const startS = this.#from / sampleRate
    const endS = (this.#from + length) / sampleRate
    for (let n = Math.floor((startS - TAIL_S) / this.#periodS) - 1; n * this.#periodS < endS; n++) {
      this.#drop(out, n, this.#rightS, clock.loudnessRight, RIGHT_MODES, 0)
      this.#drop(out, n, this.#leftS, clock.loudnessLeft, LEFT_MODES, 1)
    }
    this.#from += length
    return out
  }

  #drop(out: Float32Array, period: number, phaseS: number, loudness: number, modes: Mode[], side: number): void {
    // Each release has its own small chance, the same in whichever block it is asked for.
    const chance = seededRandom(this.clock.seed + 7919 * (2 * period + side + 1))
    const atS = period * this.#periodS + phaseS + (this.clock.scatterMs / 1000) * chance.normal()
    const loud = loudness * (1 + 0.06 * chance.normal())
    this.#ring(out, atS - UNLOCK_BEFORE_S, UNLOCK_SHARE * loud, modes, 0.4)
    this.#ring(out, atS, loud, modes, 1)
  }

  #ring(out: Float32Array, atS: number, loud: number, modes: Mode[], length: number): void {
    const first = Math.max(0, Math.ceil(atS * this.sampleRate) - this.#from)
    const last = Math.min(out.length, Math.ceil((atS + TAIL_S) * this.sampleRate) - this.#from)
    for (let i = first; i < last; i++) {
      const t = (this.#from + i) / this.sampleRate - atS
      let value = 0
      for (const mode of modes)
        value += mode.share * Math.cos(2 * Math.PI * mode.hz * t) * Math.exp(-t / (mode.decayS * length))
      out[i] = nth(out, i) + loud * (1 - Math.exp(-t / RISE_S)) * value
    }
  }
}
