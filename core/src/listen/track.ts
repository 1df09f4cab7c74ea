import { median } from 'simple-statistics'
import type { FoundPeriod } from './period.ts'
import { bestFit } from './bestFit.ts'
import { AFTER_S, BEFORE_S, shapeAt, soundAlike, type Shape } from './shape.ts'
import type { OnsetStrength } from './strength.ts'

/** One release that was heard. */
export interface TrackedBeat {
  /** running number from the first beat heard; even ones are of the first side */
  index: number
  /** time of the reference point on its rise, s from the start of the recording */
  atS: number
  /** how well it has its side's shape, −1 to 1 */
  likeness: number
}

export interface Tracked {
  beats: TrackedBeat[]
  beatsExpected: number
  /** what the two sides' rises leave unknown of the beat, s */
  referenceErrorS: number
  /** whether tick and tock sound the same */
  sidesAlike: boolean
}

/** A recorder may slip by 20 ms and a tooth be bent by several; farther off nothing is taken for a beat. */
export const REACH_S = 0.028
const LEAST_LIKENESS = 0.5
const QUIETEST = 0.2
const RECENT = 5
/** What the reference point itself leaves unknown, s. */
const REFERENCE_BIAS_S = 6.2e-5

/**
 * Every beat of the recording, each timed by its own side's shape.
 *
 * The shapes are learnt in the stretch where the period was found, then followed both ways through the recording; the
 * recent beats say where the next is looked for, so that a slip of the recorder or a slow change of rate is followed.
 *
 * @param reachS - how far from there
 */
export function trackBeats(
  amplitude: Float32Array,
  binS: number,
  strength: OnsetStrength,
  found: FoundPeriod,
  reachS = REACH_S,
): Tracked {
  const follower = new Follower(amplitude, binS, found, learnShapes(amplitude, binS, strength, found), reachS)
  let marks = follower.follow()
  // Once more with shapes learnt from the whole recording: steadier templates, one reference for all.
  follower.shapes = bothSides((side) =>
    shapeAt(
      amplitude,
      binS,
      marks.filter((m) => sideOf(m.index) === side).map((m) => m.mark),
    ),
  )
  marks = follower.follow()
  const shapes = bothSides((side) =>
    shapeAt(
      amplitude,
      binS,
      marks.filter((m) => sideOf(m.index) === side).map((m) => m.mark),
    ),
  )
  const firstIndex = marks[0]?.index ?? 0
  const beats = marks.map(({ index, mark, likeness }) => ({
    index: index - firstIndex,
    atS: mark * binS + shapes[sideOf(index)].referenceS,
    likeness,
  }))
  return {
    beats,
    beatsExpected: follower.expected,
    referenceErrorS: Math.hypot(REFERENCE_BIAS_S, 0.3 * (shapes[0].riseS - shapes[1].riseS)),
    sidesAlike: soundAlike(...shapes),
  }
}

/** Every release, each side followed on its own by the shapes of the stretch where the period was found. */
export function followSides(
  amplitude: Float32Array,
  binS: number,
  strength: OnsetStrength,
  found: FoundPeriod,
  reachS: number,
): { index: number; atS: number }[] {
  const shapes = learnShapes(amplitude, binS, strength, found)
  const follower = new Follower(amplitude, binS, found, shapes, reachS, 'each side')
  const marks = follower.follow()
  const firstIndex = marks[0]?.index ?? 0
  return marks.map(({ index, mark }) => ({
    index: index - firstIndex,
    atS: mark * binS + shapes[sideOf(index)].referenceS,
  }))
}

type Shapes = [Shape, Shape]

function bothSides<T>(make: (side: 0 | 1) => T): [T, T] {
  return [make(0), make(1)]
}

export function sideOf(index: number): 0 | 1 {
  return (((index % 2) + 2) % 2) as 0 | 1
}

function learnShapes(amplitude: Float32Array, binS: number, strength: OnsetStrength, found: FoundPeriod): Shapes {
  return bothSides((s) => {
    const phase = found.firstS + (s === 0 ? 0 : found.firstToSecondS)
    let marks: number[] = []
    for (let t = phase; t < found.toS; t += found.periodS) {
      const at = strongestNear(strength, t, 0.008)
      if (at !== null) marks.push(at / binS)
    }
    let shape = shapeAt(amplitude, binS, marks)
    for (let round = 0; round < 3; round++) {
      marks = marks.map((mark) => bestFit(amplitude, shape, mark, Math.round(0.005 / binS), binS).mark)
      shape = shapeAt(amplitude, binS, centred(marks, shape, binS))
    }
    return shape
  })
}

/** Marks moved so that the common rise stands at the mark: templates then sit in their window whatever set them. */
function centred(marks: number[], shape: Shape, binS: number): number[] {
  return marks.map((mark) => mark + shape.referenceS / binS)
}

function strongestNear(strength: OnsetStrength, atS: number, reachS: number): number | null {
  const middle = Math.round(atS / strength.stepS)
  const reach = Math.round(reachS / strength.stepS)
  let best = -1
  for (let k = Math.max(0, middle - reach); k <= Math.min(strength.values.length - 1, middle + reach); k++)
    if (strength.values[k]! > (best < 0 ? 0 : strength.values[best]!)) best = k
  return best < 0 ? null : (best + 1.5) * strength.stepS
}

interface Mark {
  index: number
  mark: number
  likeness: number
}

class Follower {
  expected = 0

  constructor(
    readonly amplitude: Float32Array,
    readonly binS: number,
    readonly found: FoundPeriod,
    public shapes: Shapes,
    readonly reachS: number,
    /** whether the two sides keep their distance, so that either tells where the other comes */
    readonly by: 'both sides' | 'each side' = 'both sides',
  ) {}

  /** All beats from the stretch outward, in order of time, numbered from the first of the recording. */
  follow(): Mark[] {
    const { found, binS } = this
    const length = this.amplitude.length * binS
    // Twice through the stretch: the first pass brings the prediction to where the templates put the marks.
    const start = this.#run(0, 1, Math.min(length, found.toS), [0, 0])
    const forward = this.#run(0, 1, length, start.early)
    const back = this.#run(-1, -1, length, forward.early)
    this.expected = back.steps + forward.steps
    return [...back.marks.reverse(), ...forward.marks]
  }

  #predictedS(index: number): number {
    return (
      this.found.firstS +
      Math.floor(index / 2) * this.found.periodS +
      (sideOf(index) === 1 ? this.found.firstToSecondS : 0)
    )
  }

  /** @param offS - how far off either side's first may be, s */
  #run(first: number, direction: 1 | -1, lengthS: number, offS: [number, number]) {
    const { binS } = this
    const marks: Mark[] = []
    const recent = offS.map((off) => [off]) as [number[], number[]]
    const earlyOnes: [number[], number[]] = [[], []]
    const sidesTold = (index: number): (0 | 1)[] => (this.by === 'each side' ? [sideOf(index)] : [0, 1])
    let steps = 0
    for (let index = first; ; index += direction) {
      const predicted = this.#predictedS(index) + median(recent[sideOf(index)])
      if (predicted - BEFORE_S < 0 || predicted + AFTER_S + this.reachS > lengthS) {
        // The edge may still hold a beat on the way in; on the way out the run is over.
        if (direction === 1 ? predicted > lengthS / 2 : predicted < lengthS / 2) break
        continue
      }
      steps++
      const hit = this.#look(index, predicted)
      if (!hit) continue
      marks.push(hit)
      const off = hit.mark * binS - this.#predictedS(index)
      for (const side of sidesTold(index)) {
        recent[side] = [...recent[side].slice(1 - this.#remembered), off]
        if (earlyOnes[side].length < RECENT) earlyOnes[side].push(off)
      }
    }
    const early = bothSides((side) => (earlyOnes[side].length > 0 ? median(earlyOnes[side]) : offS[side]))
    return { marks, early, steps }
  }

  /** A side that goes its own way is looked for where it was last; one knock then leads it astray for one swing only. */
  get #remembered(): number {
    return this.by === 'each side' ? 3 : RECENT
  }

  #look(index: number, predictedS: number): Mark | null {
    const shape = this.shapes[sideOf(index)]
    const reach = Math.round(this.reachS / this.binS)
    const fit = bestFit(this.amplitude, shape, predictedS / this.binS, reach, this.binS)
    if (fit.likeness < LEAST_LIKENESS || fit.amplitude < QUIETEST * shape.amplitude) return null
    return { index, mark: fit.mark, likeness: fit.likeness }
  }
}
