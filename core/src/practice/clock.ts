import { requireCount, requireFinite, requirePositive, requireWithin } from '../check/require.ts'
import { beatIntervals } from '../beat/offset.ts'
import type { GoingCounts } from '../listen/periodic.ts'
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
  escapeTeeth: number
  /** its first tooth drops so much late on both pallets, ms; negative: early */
  toothLateMs: number
  /** a wheel out of round makes the beats so much late and early in turn, half of peak to peak, ms */
  wobbleMs: number
  /** that wheel turns once in so long, s */
  wobblePeriodS: number
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
  escapeTeeth: 30,
  toothLateMs: 0,
  wobbleMs: 0,
  wobblePeriodS: 30,
  seed: 7,
}

/** The train of a practice clock as it comes; one that was given another beat or wheel has none that is known. */
export function practiceTrain(clock: PracticeClock): GoingCounts | null {
  const { beatsPerHour, escapeTeeth } = DEFAULT_PRACTICE_CLOCK
  const isUsual = clock.beatsPerHour === beatsPerHour && clock.escapeTeeth === escapeTeeth
  return isUsual ? { wheels: [84, 80], pinions: [7, 8], escapeTeeth } : null
}

/** A practice clock made as this one is, as far as that is known; its release always within its arc, so that it goes. */
export function practiceLike(
  pendulum: { beatsPerHour: number | null; semiArcDeg: number | null; releaseDeg: number | null },
  offsetDeg = 0,
): PracticeClock {
  const like = DEFAULT_PRACTICE_CLOCK
  const semiArcDeg = pendulum.semiArcDeg ?? like.semiArcDeg
  return {
    ...like,
    beatsPerHour: pendulum.beatsPerHour ?? like.beatsPerHour,
    semiArcDeg,
    releaseDeg: Math.min(pendulum.releaseDeg ?? like.releaseDeg, 0.5 * semiArcDeg),
    offsetDeg: Math.max(-0.3 * semiArcDeg, Math.min(0.3 * semiArcDeg, offsetDeg)),
  }
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
  requireCount('escapeTeeth', clock.escapeTeeth, 4, 120)
  requireWithin('toothLateMs', clock.toothLateMs, -8, 8)
  requireWithin('wobbleMs', clock.wobbleMs, 0, 5)
  requireWithin('wobblePeriodS', clock.wobblePeriodS, 2, 7200)
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
/** A tooth comes to the left pallet so many drops after the right one. */
const TEETH_SPANNED = 7
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
  #lean = 0
  /** when each release came that has begun to sound, by its running number: leaning the case later does not move it */
  readonly #begun = new Map<number, number>()
  #heldDeg: number | null = null
  #released: 'right' | 'left' | null = null
  /** drops as a hand led it past a release */
  #led: { atS: number; side: 'right' | 'left' }[] = []
  readonly #periodS: number
  readonly #noise: () => number

  constructor(
    readonly clock: PracticeClock,
    readonly sampleRate: number,
    /** it begins so long after passing plumb to the right, s */
    fromS = 0,
  ) {
    checkPracticeClock(clock)
    this.#from = Math.round(fromS * sampleRate)
    this.#periodS = practicePeriodS(clock)
    this.#noise = seededRandom(clock.seed).normal
  }

  /**
   * The case is leant over to the right, its right side down, degrees: the pendulum hangs as it hung, nearer to the right
   * side, so that the escapement now stands farther to its left.
   *
   * @throws FieldError where it would stop, and leaves it as it was
   */
  lean(deg: number): void {
    const { beatsPerHour, semiArcDeg, releaseDeg, offsetDeg } = this.clock
    beatIntervals(beatsPerHour, semiArcDeg, releaseDeg, offsetDeg - deg)
    this.#lean = deg
  }

  /**
   * A hand holds the pendulum at an angle, degrees from plumb, + right: it drops as it is led past a release, left and
   * right in turn. null: it is let go and swings on as it would have.
   */
  hold(deg: number | null): void {
    this.#heldDeg = deg
    if (deg === null) return
    const { releaseDeg, offsetDeg } = this.clock
    const stands = offsetDeg - this.#lean
    const side = deg >= stands + releaseDeg ? 'right' : deg <= stands - releaseDeg ? 'left' : null
    if (side === null || side === this.#released) return
    this.#released = side
    this.#led.push({ atS: this.#from / this.sampleRate + UNLOCK_BEFORE_S, side })
  }

  /** The next `length` samples. */
  next(length: number): Float32Array {
    const out = new Float32Array(length)
    const { clock, sampleRate } = this
    if (clock.noise > 0) for (let i = 0; i < length; i++) out[i] = clock.noise * this.#noise()
    const startS = this.#from / sampleRate
    const endS = (this.#from + length) / sampleRate
    for (const { atS, side } of this.#led) {
      const [loud, modes] =
        side === 'right' ? ([clock.loudnessRight, RIGHT_MODES] as const) : ([clock.loudnessLeft, LEFT_MODES] as const)
      this.#ring(out, atS, loud, modes, 1)
    }
    this.#led = this.#led.filter((d) => d.atS + TAIL_S > endS)
    if (this.#heldDeg === null)
      for (let n = Math.floor((startS - TAIL_S) / this.#periodS) - 1; n * this.#periodS < endS; n++) {
        this.#drop(out, n, clock.loudnessRight, RIGHT_MODES, 0)
        this.#drop(out, n, clock.loudnessLeft, LEFT_MODES, 1)
      }
    for (const [drop, atS] of this.#begun) if (atS + 2 * this.#periodS < startS) this.#begun.delete(drop)
    this.#from += length
    return out
  }

  /** From the middle of the swing to the release of a side, as the case leans now, s. */
  #releaseS(side: number): number {
    const { releaseDeg, semiArcDeg, offsetDeg } = this.clock
    const stands = offsetDeg - this.#lean
    const deg = side === 0 ? releaseDeg + stands : releaseDeg - stands
    return (Math.asin(deg / semiArcDeg) * this.#periodS) / (2 * Math.PI)
  }

  /** What its escape wheel's bad tooth and the wheel that is out of round add to a drop, ms. */
  #wheelsLateMs(period: number, side: number): number {
    const { escapeTeeth, toothLateMs, wobbleMs, wobblePeriodS } = this.clock
    const tooth = (period - side * TEETH_SPANNED) % escapeTeeth
    const turns = ((period + side / 2) * this.#periodS) / wobblePeriodS
    return (tooth === 0 ? toothLateMs : 0) + wobbleMs * Math.sin(2 * Math.PI * turns)
  }

  #drop(out: Float32Array, period: number, loudness: number, modes: Mode[], side: number): void {
    // Each release has its own small chance, the same in whichever block it is asked for.
    const chance = seededRandom(this.clock.seed + 7919 * (2 * period + side + 1))
    const late = (this.clock.scatterMs * chance.normal() + this.#wheelsLateMs(period, side)) / 1000
    const drop = 2 * period + side
    const atS = this.#begun.get(drop) ?? (period + side / 2) * this.#periodS + this.#releaseS(side) + late
    // Kept once it has begun to sound.
    if (atS - UNLOCK_BEFORE_S < (this.#from + out.length) / this.sampleRate) this.#begun.set(drop, atS)
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
      out[i]! += loud * (1 - Math.exp(-t / RISE_S)) * value
    }
  }
}
