import { mean } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import type { SideSound } from '../listen/sideSound.ts'

/** How a clock sounds at one time: what a listening keeps of it. */
export interface SoundPrint {
  /** first side to second, second to first, ms */
  firstToSecondMs: number
  secondToFirstMs: number
  outOfBeatStandardError: number
  rateSecondsPerDay: number
  rateStandardError: number
  scatterMs: number
  sides: [SideSound, SideSound]
}

export type CallBackCause = 'tilt' | 'power' | 'dirt'
export type HowSure = 'clearly' | 'likely' | 'perhaps'

export interface CallBack {
  causes: { cause: CallBackCause; sure: HowSure }[]
  /** by how much its beat changed, ms; of the sides as they were told apart by their sound */
  beatChangeMs: number
  beatChangeError: number
  /** how much quieter both sides are, dB; says little where another recorder heard it */
  quieterDb: number
  scatterTimes: number
  rateChange: number
  rateChangeError: number
}

/** A beat that changed by so many errors, and so much, was tilted. */
const CLEAR_ERRORS = 3
const LEAST_TILT_MS = 1.5
const MUCH_TILT_MS = 5
/** Both sides so much quieter is power; much quieter clearly, dB. */
const QUIETER_DB = 3.5
const MUCH_QUIETER_DB = 7
const EACH_DB = 2
/** So many times the scatter, and so much more of it, ms. */
const SCATTERS = 1.7
const MUCH_SCATTERS = 2.5
const LEAST_SCATTER_MS = 0.1
/** What rustles so much more between the knocks, dB. */
const RUSTLES_DB = 6
/** Sides are told apart by so much more likeness one way than the other. */
const TOLD_APART = 0.08
/** A difference of loudness counts as much as a likeness of 1 by so many dB. */
const DB_A_LIKENESS = 8

/**
 * What became of a clock since it left, by how it sounds now against how it sounded then.
 *
 * The sides are matched by their shape and by which is louder; where that tells nothing the change of the beat is the
 * least it can be. A changed beat is a tilt; both sides quieter is power, the surer where it gains as a smaller arc
 * does; more scatter, or more rustle between the knocks, is dirt. Several may be so together; none: as it left.
 *
 * @param sameRecorder - heard by the same microphone at the same place: else loudness is only a hint
 */
export function callBackBySound(left: SoundPrint, now: SoundPrint, sameRecorder: boolean): CallBack {
  const then = uneven(left)
  const today = uneven(now)
  const match = matched(left.sides, now.sides)
  const changes = [today - then, -today - then]
  const beatChangeMs =
    match === 'same'
      ? nth(changes, 0)
      : match === 'swapped'
        ? nth(changes, 1)
        : changes.reduce((a, b) => (Math.abs(b) < Math.abs(a) ? b : a))
  const beatChangeError = Math.hypot(left.outOfBeatStandardError, now.outOfBeatStandardError)
  const sides = match === 'swapped' ? ([now.sides[1], now.sides[0]] as const) : now.sides
  const quieter = [0, 1].map((i) => nth(left.sides, i).loudnessDb - nth(sides, i).loudnessDb)
  const quieterDb = mean(quieter)
  const scatterTimes = now.scatterMs / Math.max(left.scatterMs, 0.02)
  const rateChange = now.rateSecondsPerDay - left.rateSecondsPerDay
  const rateChangeError = Math.hypot(left.rateStandardError, now.rateStandardError)
  const causes: CallBack['causes'] = []
  if (Math.abs(beatChangeMs) > Math.max(CLEAR_ERRORS * beatChangeError, LEAST_TILT_MS))
    causes.push({ cause: 'tilt', sure: Math.abs(beatChangeMs) > MUCH_TILT_MS ? 'clearly' : 'likely' })
  if (quieterDb > QUIETER_DB && quieter.every((db) => db > EACH_DB)) {
    const gains = rateChange > 2 * rateChangeError
    const much = quieterDb > MUCH_QUIETER_DB
    causes.push({
      cause: 'power',
      sure: !sameRecorder ? (gains ? 'likely' : 'perhaps') : gains && much ? 'clearly' : 'likely',
    })
  }
  const rustles = [0, 1].every((i) => nth(sides, i).rustleDb - nth(left.sides, i).rustleDb > RUSTLES_DB)
  const scatters = scatterTimes > SCATTERS && now.scatterMs - left.scatterMs > LEAST_SCATTER_MS
  if (scatters || (rustles && sameRecorder))
    causes.push({
      cause: 'dirt',
      sure: scatterTimes > MUCH_SCATTERS && scatters ? 'clearly' : scatters ? 'likely' : 'perhaps',
    })
  return { causes, beatChangeMs, beatChangeError, quieterDb, scatterTimes, rateChange, rateChangeError }
}

/** Half by how much the first interval is longer, ms. */
function uneven({ firstToSecondMs, secondToFirstMs }: SoundPrint): number {
  return (firstToSecondMs - secondToFirstMs) / 2
}

/** Whether the first side of one is the first of the other; not told where both ways are about as like. */
function matched(left: SoundPrint['sides'], now: SoundPrint['sides']): 'same' | 'swapped' | 'not told' {
  const louder = (sides: SoundPrint['sides']) => sides[0].loudnessDb - sides[1].loudnessDb
  const way = (a: SideSound, b: SideSound, sign: 1 | -1) =>
    (likeness(left[0].shape, a.shape) + likeness(left[1].shape, b.shape)) / 2 -
    Math.abs(louder(left) - sign * louder(now)) / DB_A_LIKENESS
  const same = way(now[0], now[1], 1)
  const swapped = way(now[1], now[0], -1)
  if (Math.abs(same - swapped) < TOLD_APART) return 'not told'
  return same > swapped ? 'same' : 'swapped'
}

/** Correlation of two shapes about their means. */
function likeness(a: number[], b: number[]): number {
  const [ma, mb] = [mean(a), mean(b)]
  let [ab, aa, bb] = [0, 0, 0]
  a.forEach((v, i) => {
    const [x, y] = [v - ma, (b[i] ?? 0) - mb]
    ab += x * y
    aa += x * x
    bb += y * y
  })
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0
}
