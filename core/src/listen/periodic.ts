import { linearRegression, mean } from 'simple-statistics'
import { nth } from '../check/nth.ts'
import { trainBeats } from '../train/beats.ts'
import { LateRow } from './lines.ts'

/** The counts of a going train from the arbor that turns once an hour up to the escape wheel. */
export interface GoingCounts {
  wheels: number[]
  pinions: number[]
  escapeTeeth: number
}

/** A fault that comes back with the turns of one arbor. */
export interface PeriodicFault {
  /** 0 for the arbor that turns once an hour, then up to the escape arbor */
  arbor: number
  periodS: number
  /** half of peak to peak of the lateness that comes back */
  amplitudeMs: number
  /** how often chance alone would name an arbor here */
  chance: number
}

/** One that comes back with every tooth of the wheel on an arbor: a depth, or all teeth alike. */
export interface MeshFault extends PeriodicFault {
  /** teeth of the wheel whose meshing it is */
  teeth: number
}

export interface Periodic {
  arbors: PeriodicFault[]
  meshes: MeshFault[]
}

/** Named only what chance explains less often than this; a hundredth would be asked for, so with room to spare. */
const LEAST_CHANCE = 3e-3
/** A harmonic is taken in only when it is clearer than this. */
const HARMONIC_CHANCE = 1e-3
const HARMONICS = 6
/** Fewer turns than these can't be told from a clock that wanders. */
const LEAST_TURNS = 2
/** So many turns are listened for. */
export const TURNS_WANTED = 3
/** A tooth that passes in fewer beats than this is between the beats. */
const LEAST_BEATS = 2.5
/** The quiet is judged at so many places on either side. */
const NEIGHBOURS = 14
/** A line must stand within so much of the arbor's own place, in widths of a line. */
const OFF_PLACE = 0.45
/** Slowest of the frequencies that can be judged, in turns of the whole row. */
const SLOWEST = 0.8
/** Whatever comes oftener than every second step is mirrored there. */
const MIRROR = 0.5
/** E ln of an exponential number is −γ, its variance π²/6. */
const EULER = 0.5772

/**
 * Which arbors (and meshes, tooth by tooth) of a going train are heard in the lateness of its beats.
 *
 * At each arbor's own period a sinusoid is fitted, and what it explains is held against what neighbouring periods
 * explain: noise whose power falls with frequency, as a clock's own wander does, names nothing. The clearest is taken
 * out first, with its harmonics, and the rest asked again. The chance is for all arbors and meshes together: 1 − (1 + R/K)^−K
 * for a ratio R of powers whose ground is known from K places, times the number that were asked (Bonferroni).
 *
 * @param index - numbers of the healthy beats, rising from 0
 * @param lateMs - lateness of each against the steady rate and beat, ms
 * @param train - counts from the hourly arbor up; throws FieldError as trainBeats does
 */
export function periodicFaults(index: number[], lateMs: number[], train: GoingCounts): Periodic {
  const { beatsPerHour, periodsS } = trainBeats(train.wheels, train.pinions, train.escapeTeeth)
  return linesAt(index, lateMs, train, periodsS, beatsPerHour / 3600, 'beats')
}

/** The same for a row in any even step of time, `perS` steps a second. */
export function linesAt(
  index: number[],
  lateMs: number[],
  train: GoingCounts,
  periodsS: number[],
  perS: number,
  kind: 'beats' | 'minutes',
): Periodic {
  const found: Periodic = { arbors: [], meshes: [] }
  if (index.length < 4 * NEIGHBOURS) return found
  const row = new LateRow(index, lateMs, kind)
  const width = 1 / row.span
  const meshes = train.wheels
    .map((teeth, arbor) => ({ arbor, periodS: nth(periodsS, arbor) / teeth, teeth }))
    // A mesh so near to an arbor's own turn that so short a row can't tell them apart is left to the arbor.
    .filter(({ periodS }) => periodsS.every((other) => Math.abs(1 / periodS - 1 / other) / perS > width))
  const asked = [...periodsS.map((periodS, arbor) => ({ arbor, periodS, teeth: 0 })), ...meshes].filter(
    ({ periodS }) => periodS * perS >= LEAST_BEATS && row.span / (periodS * perS) >= LEAST_TURNS,
  )
  const open = new Set(asked)
  while (open.size > 0) {
    const judged = [...open].map((a) => ({ ...a, from: a, ...judge(row, 1 / (a.periodS * perS)) }))
    const best = judged.reduce((a, b) => (b.chance < a.chance ? b : a))
    const chance = Math.min(1, best.chance * asked.length)
    if (chance >= LEAST_CHANCE || !best.inPlace) {
      if (chance >= LEAST_CHANCE) break
      // Strong, but not where this arbor is: something else, which names nothing.
      open.delete(best.from)
      continue
    }
    open.delete(best.from)
    const amplitudeMs = takeWithHarmonics(row, 1 / (best.periodS * perS))
    const fault = { arbor: best.arbor, periodS: best.periodS, amplitudeMs, chance }
    if (best.teeth === 0) found.arbors.push(fault)
    else found.meshes.push({ ...fault, teeth: best.teeth })
  }
  found.arbors.sort((a, b) => a.arbor - b.arbor)
  found.meshes.sort((a, b) => a.arbor - b.arbor)
  return found
}

/** How unlikely the power at one place is by chance, and whether it is the top of its own line. */
function judge(row: LateRow, perBeat: number): { chance: number; inPlace: boolean } {
  const width = 1 / row.span
  const ratio = againstGround(row, perBeat)
  if (ratio === null) return { chance: 1, inPlace: false }
  const at = row.fit(perBeat).power
  const inPlace = [-1, -OFF_PLACE, OFF_PLACE, 1].every((off) => {
    const other = perBeat + off * width
    return other < SLOWEST * width || row.fit(other).power <= at
  })
  return { chance: (1 + ratio.ratio / ratio.known) ** -ratio.known, inPlace }
}

/** Power at a place over what its neighbours have, their slope taken into account; with how far those are known. */
function againstGround(row: LateRow, perBeat: number): { ratio: number; known: number } | null {
  const width = 1 / row.span
  const ground: [number, number][] = []
  for (let k = -NEIGHBOURS; k <= NEIGHBOURS; k++) {
    const other = perBeat + k * width
    if (k === 0 || other < SLOWEST * width || other > MIRROR) continue
    const { power } = row.fit(other)
    if (power > 0) ground.push([Math.log(other), Math.log(power)])
  }
  if (ground.length < 6) return null
  const line = linearRegression(ground)
  // Noise is level, or falls with frequency; a rise is taken for level.
  const slope = Math.max(-4, Math.min(0, line.m))
  const middle = mean(ground.map(([x, y]) => y - slope * x))
  const expected = Math.exp(middle + slope * Math.log(perBeat) + EULER)
  return { ratio: row.fit(perBeat).power / expected, known: (ground.length - 2) / 1.645 }
}

/** Takes a line and its clear harmonics out; half of peak to peak of what they make together. */
function takeWithHarmonics(row: LateRow, perBeat: number): number {
  const parts: { turns: number; cosine: number; sine: number }[] = []
  for (let turns = 1; turns <= HARMONICS && turns * perBeat < 1 / LEAST_BEATS; turns++) {
    if (turns > 1 && judge(row, turns * perBeat).chance > HARMONIC_CHANCE) continue
    const { cosine, sine } = row.fit(turns * perBeat)
    parts.push({ turns, cosine, sine })
    row.take(turns * perBeat)
  }
  let least = Infinity
  let most = -Infinity
  for (let i = 0; i < 360; i++) {
    const angle = (2 * Math.PI * i) / 360
    const value = parts.reduce(
      (s, p) => s + p.cosine * Math.cos(p.turns * angle) + p.sine * Math.sin(p.turns * angle),
      0,
    )
    least = Math.min(least, value)
    most = Math.max(most, value)
  }
  return (most - least) / 2
}

/**
 * How long one must listen to tell each arbor of a train, s: three of its turns.
 *
 * @example secondsToTell({ wheels: [64, 60], pinions: [8, 8], escapeTeeth: 30 }) // 10800, 1350, 180
 */
export function secondsToTell(train: GoingCounts): number[] {
  return trainBeats(train.wheels, train.pinions, train.escapeTeeth).periodsS.map((s) => TURNS_WANTED * s)
}
