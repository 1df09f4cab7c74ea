import { median } from 'simple-statistics'
import { autocorrelation } from './autocorrelation.ts'
import type { OnsetStrength } from './strength.ts'

/** A full period with its two releases, as found in one stretch of a recording. */
export interface FoundPeriod {
  periodS: number
  /** first release of either side in the stretch, s from the start of the recording */
  firstS: number
  /** from a release of the first side to the next of the second, s */
  firstToSecondS: number
  /** the stretch it was found in */
  fromS: number
  toS: number
  /** share of all sudden sounds that the two sides explain, 0 to 1 */
  explained: number
  /** how loud its usual strikes are, both sides together, dB */
  loudDb: number
  louderSideDb: number
}

/** Fastest and slowest beat looked for: 18,000 and 2,400 an hour, with a tenth to spare. */
const SHORTEST_PERIOD_S = 0.36
const LONGEST_PERIOD_S = 3.3
const STRETCH_S = 20
const CANDIDATES = 24
const LEAST_SHARE = 0.27
const HALF_WINDOW_S = 0.006
/** Least share of all onsets, and how many times what any two windows of the period would hold. */
const LEAST_EXPLAINED = 0.06
const LEAST_OVER_CHANCE = 2.5
/** A slot is struck when the onset there stands this far out of the noise, dB. */
const STRUCK_DB = 1
/** Natural logarithm of the odds against chance; about ten thousand periods and phases are tried. */
const LEAST_ODDS = 14
/** Two clocks' loudness must differ by so much to tell which is meant, dB. */
const LOUDER_DB = 4
/** Two periods are multiples of one when their ratio is that of two numbers up to this, within this share. */
const MOST_MULTIPLE = 6
const SAME_PERIOD = 2e-3
/** A slower rhythm may be every so manieth beat of a faster clock that is about as loud. */
const MOST_FASTER = 10
const AS_LOUD_DB = 3
/** A side that has so much less than the other must stand alone: nothing as high so far from both. */
const FAINT_SIDE = 0.4
const AS_MUCH = 0.7
const TICK_S = 0.03
/** Of a stretch, how long a lag may be that is a period, and how long a multiple that makes one exact. */
const LONGEST_SHARE = 0.7
const SHARPENED_SHARE = 0.6
/** Of a given count nothing farther off is considered. */
const GIVEN_WITHIN = 0.02

/**
 * The clock's full period, unaided, or null where no clock is heard.
 *
 * The autocorrelation of the onsets proposes periods, each sharpened on its multiples. A period is accepted when the
 * sound folded by it has exactly the two sides of a beat: both struck far more often than chance, between 27 and 73
 * per cent apart. Of those the one that explains most of all onsets is the clock: at twice the period half of the
 * ticks stay unexplained, and at half of it the second side is missing or each is struck every other time. Periods
 * that are no simple multiples of one another belong to two clocks in one room: there the louder wins.
 *
 * @param periodS - where the clock's period is known: only rhythms within two in a hundred of it are considered
 */
export function findPeriod(strength: OnsetStrength, periodS?: number): FoundPeriod | null {
  const { stepS, values, levels } = strength
  const stretch = Math.min(values.length, Math.round(STRETCH_S / stepS))
  const count = Math.max(1, Math.min(8, Math.ceil(values.length / stretch) * 2 - 1))
  let best: FoundPeriod | null = null
  for (let i = 0; i < count; i++) {
    const start = count === 1 ? 0 : Math.round(((values.length - stretch) * i) / (count - 1))
    const found = findInStretch(
      { values: values.subarray(start, start + stretch), levels: levels.subarray(start, start + stretch), stepS },
      start * stepS,
      periodS,
    )
    if (found && (!best || wins(found, best))) best = found
  }
  return best
}

/** Whether one rhythm is the clock rather than the other: of one clock's multiples the fuller, of two clocks the louder. */
function wins(one: FoundPeriod, other: FoundPeriod): boolean {
  if (isLouderClock(one, other)) return true
  if (isLouderClock(other, one)) return false
  return one.explained > other.explained
}

/** A multiple of a clock's period picks its louder side at most; what is louder than that is another clock. */
function isLouderClock(one: FoundPeriod, other: FoundPeriod): boolean {
  return one.loudDb > (related(one.periodS, other.periodS) ? other.louderSideDb : other.loudDb) + LOUDER_DB
}

/** Whether two periods are simple multiples of one another, and so may be one clock's. */
function related(one: number, other: number): boolean {
  const ratio = one / other
  for (let a = 1; a <= MOST_MULTIPLE; a++)
    for (let b = 1; b <= MOST_MULTIPLE; b++) if (Math.abs((ratio * b) / a - 1) < SAME_PERIOD) return true
  return false
}

/** Whether a beat of `periodS` a full period is within two in a hundred of the given one. */
function isRhythmOf(periodS: number, givenS: number): boolean {
  return Math.abs(givenS / periodS - 1) <= GIVEN_WITHIN
}

function findInStretch(strength: OnsetStrength, fromS: number, givenS?: number): FoundPeriod | null {
  const { values, stepS } = strength
  const chance = chanceOfStrike(values, stepS)
  if (chance === 0) return null
  let best: FoundPeriod | null = null
  for (const periodS of candidatePeriods(values, stepS, givenS)) {
    for (const weight of WEIGHTS) {
      const folded = judge(strength, periodS, chance, weight)
      if (!folded || (givenS !== undefined && isOfFaster(strength, periodS, folded, chance))) continue
      const found = { ...folded, periodS, firstS: fromS + folded.firstS, fromS, toS: fromS + values.length * stepS }
      if (!best || wins(found, best)) best = found
    }
  }
  return best
}

/**
 * Whether a rhythm is only every third, fourth… beat of a faster clock, which is as loud and explains more.
 *
 * Unaided the faster one is among the candidates and wins; where a count is given it is not, and must be asked about.
 */
function isOfFaster(strength: OnsetStrength, periodS: number, slow: Folded, chance: number): boolean {
  for (let beats = 3; beats <= MOST_FASTER; beats++) {
    const fast = judge(strength, (2 * periodS) / beats, chance)
    if (fast && fast.explained > 1.2 * slow.explained && fast.loudDb > slow.loudDb - AS_LOUD_DB) return true
  }
  return false
}

function candidatePeriods(values: Float32Array, stepS: number, givenS?: number): number[] {
  const beatLag = SHORTEST_PERIOD_S / 2 / stepS
  // What is known to be slower is looked for: ticks that come once in a long period.
  const longestS = Math.max(LONGEST_PERIOD_S, (1 + GIVEN_WITHIN) * (givenS ?? 0))
  const farthest = Math.min(longestS / stepS, values.length * LONGEST_SHARE)
  // A candidate is looked at doubled as well, and made exact on multiples.
  const lags = Math.max(2 * farthest, values.length * SHARPENED_SHARE) + 8
  const correlation = smooth3(autocorrelation(values, Math.min(lags, values.length - 1)))
  const at = (lag: number) => correlation[Math.round(lag)] ?? 0
  const peaks: number[] = []
  for (let lag = Math.floor(beatLag); lag < farthest; lag++)
    if (at(lag) > 0 && at(lag) >= at(lag - 1) && at(lag) > at(lag + 1)) peaks.push(lag)
  peaks.sort((a, b) => at(b) - at(a))
  const found: number[] = []
  // A given count is looked for among all peaks, however much louder another clock is.
  const near = (lag: number) => [1, 2].some((m) => isRhythmOf(lag * m * stepS, givenS ?? 0))
  for (const lag of (givenS === undefined ? peaks : peaks.filter(near)).slice(0, CANDIDATES))
    for (const multiple of [1, 2]) {
      const periodS = sharpen(correlation, lag * multiple, values.length * SHARPENED_SHARE) * stepS
      if (periodS < SHORTEST_PERIOD_S || periodS > longestS) continue
      if (givenS !== undefined && !isRhythmOf(periodS, givenS)) continue
      if (!found.some((other) => Math.abs(other - periodS) < 2e-4 * periodS)) found.push(periodS)
    }
  return found
}

/** The lag, made exact on its doubled, fourfold… multiples as far as they can be seen. */
function sharpen(correlation: Float64Array, lag: number, farthest: number): number {
  let exact = peakNear(correlation, lag, 3) ?? lag
  for (let multiple = 2; multiple * exact < farthest; multiple *= 2) {
    const peak = peakNear(correlation, multiple * exact, 5)
    if (peak === null) break
    exact = peak / multiple
  }
  return exact
}

function peakNear(correlation: Float64Array, lag: number, reach: number): number | null {
  const middle = Math.round(lag)
  let best = -1
  for (let i = Math.max(1, middle - reach); i <= Math.min(correlation.length - 2, middle + reach); i++)
    if (best < 0 || correlation[i]! > correlation[best]!) best = i
  if (best < 0 || correlation[best]! <= 0) return null
  const [a, b, c] = [best - 1, best, best + 1].map((i) => correlation[i]!) as [number, number, number]
  const bend = a - 2 * b + c
  return bend < 0 ? best + Math.max(-0.5, Math.min(0.5, (a - c) / (2 * bend))) : best
}

function smooth3(values: Float64Array): Float64Array {
  return values.map(
    (v, i) => (2 * v + (values[Math.max(0, i - 1)] ?? v) + (values[Math.min(values.length - 1, i + 1)] ?? v)) / 4,
  )
}

/** How often a window put down anywhere holds an onset. */
function chanceOfStrike(values: Float32Array, stepS: number): number {
  const half = Math.round(HALF_WINDOW_S / stepS)
  let struck = 0
  let until = -1
  for (let k = 0; k < values.length; k++) {
    if (values[k]! > STRUCK_DB) {
      struck += k + half - Math.max(until, k - half - 1)
      until = k + half
    }
  }
  return Math.min(0.9, struck / values.length)
}

/** Whether the fainter side is only one of several peaks like it: then it is another clock's, or none. */
function isOneOfMany(profile: Float64Array, one: number, two: number, tick: number): boolean {
  const side = profile[two]!
  if (side > FAINT_SIDE * profile[one]!) return false
  const bins = profile.length
  const away = (i: number, from: number) => Math.min(Math.abs(i - from), bins - Math.abs(i - from)) > tick
  return profile.some((v, i) => v > AS_MUCH * side && away(i, one) && away(i, two))
}

interface Folded {
  firstS: number
  firstToSecondS: number
  explained: number
  loudDb: number
  louderSideDb: number
}

/**
 * What a clock sounds like folded by its period: every onset counts by how sudden it is, which hears a faint side, or
 * by how loud, which hears a loud clock through a faster faint one.
 */
const WEIGHTS = [
  (sudden: number) => sudden,
  (sudden: number, levelDb: number) => (sudden > 0 ? 10 ** (levelDb / 20) : 0),
]

const onsetsOf = new WeakMap<Float32Array, Uint32Array>()

/** Where a stretch has onsets: it is folded by a hundred periods, and most of it is none. */
function onsets(values: Float32Array): Uint32Array {
  let found = onsetsOf.get(values)
  if (!found) {
    const at: number[] = []
    for (let k = 0; k < values.length; k++) if (values[k]! !== 0) at.push(k)
    found = Uint32Array.from(at)
    onsetsOf.set(values, found)
  }
  return found
}

function judge(strength: OnsetStrength, periodS: number, chance: number, weight = WEIGHTS[0]!): Folded | null {
  const { values, levels, stepS } = strength
  const bins = Math.round(periodS / 0.002)
  const folded = new Float64Array(bins)
  let total = 0
  const at = onsets(values)
  for (let i = 0; i < at.length; i++) {
    const k = at[i]!
    const v = values[k]!
    total += v
    const phase = (k * stepS) / periodS
    const bin = Math.floor((phase - Math.floor(phase)) * bins)
    folded[bin]! += weight(v, levels[k]!)
  }
  const profile = new Float64Array(bins)
  for (let i = 0; i < bins; i++) for (let by = -2; by <= 2; by++) profile[i]! += folded[(i + by + bins) % bins]!
  let one = 0
  profile.forEach((v, i) => {
    if (v > profile[one]!) one = i
  })
  let two = -1
  for (let i = Math.ceil(LEAST_SHARE * bins); i <= Math.floor((1 - LEAST_SHARE) * bins); i++) {
    const at = (one + i) % bins
    if (two < 0 || profile[at]! > profile[two]!) two = at
  }
  if (isOneOfMany(profile, one, two, Math.round(TICK_S / 0.002))) return null
  const phases = [one, two].map((bin) => ((bin + 0.5) / bins) * periodS).sort((a, b) => a - b) as [number, number]
  const sides = phases.map((phaseS) => strikes(strength, periodS, phaseS))
  const [better, worse] = sides.map((s) => s.share).sort((a, b) => b - a) as [number, number]
  if (better < 0.55 || worse < 0.35 || worse < chance + 0.25) return null
  if (sides.reduce((sum, s) => sum + oddsAgainstChance(s.share, s.slots, chance), 0) < LEAST_ODDS) return null
  if (sides.some((s) => s.slots < 2)) return null
  const explained = sides.reduce((sum, s) => sum + s.strength, 0) / total
  if (explained < Math.max(LEAST_EXPLAINED, (LEAST_OVER_CHANCE * 4 * HALF_WINDOW_S) / periodS)) return null
  const [quieter, louder] = sides.map((s) => s.loudDb).sort((a, b) => a - b) as [number, number]
  return {
    firstS: phases[0],
    firstToSecondS: phases[1] - phases[0],
    explained,
    loudDb: (quieter + louder) / 2,
    louderSideDb: louder,
  }
}

function strikes({ values, levels, stepS }: OnsetStrength, periodS: number, phaseS: number) {
  const half = Math.round(HALF_WINDOW_S / stepS)
  let slots = 0
  let struck = 0
  let strength = 0
  const loud: number[] = []
  for (let t = phaseS; t < values.length * stepS; t += periodS) {
    const middle = Math.round(t / stepS)
    let most = 0
    let level = -Infinity
    for (let k = Math.max(0, middle - half); k <= Math.min(values.length - 1, middle + half); k++) {
      const v = values[k]!
      strength += v
      if (v > most) most = v
      if (levels[k]! > level) level = levels[k]!
    }
    slots++
    if (most > STRUCK_DB) {
      struck++
      loud.push(level)
    }
  }
  return { slots, share: struck / Math.max(1, slots), strength, loudDb: loud.length > 0 ? median(loud) : -Infinity }
}

/** n·KL(share ‖ chance): the logarithm of how unlikely so many strikes are by chance. */
function oddsAgainstChance(share: number, slots: number, chance: number): number {
  const c = Math.max(0.01, chance)
  if (share <= c) return 0
  const h = Math.min(share, 1 - 1e-9)
  return slots * (h * Math.log(h / c) + (1 - h) * Math.log((1 - h) / (1 - c)))
}
