import { depthsOf, type DepthTable } from '../depth/ofTrain.ts'
import { movementOf, type CountedTrain, type MovementTrain, type PlacedArbor } from '../movement/trains.ts'
import { samePlace } from '../plate/samePlace.ts'
import type { HoleFacts } from './facts.ts'
import { judgeHole, type HoleJudged, type HoleRules, type PivotEnd } from './judge.ts'
import { expectedWear, placeOfHole } from './place.ts'

/** What is known of a movement, as far as its holes ask. */
export interface MovementFacts {
  plateMap: { arbors: PlacedArbor[] } | null
  trainSheets: CountedTrain[]
  holes: HoleFacts[]
  pivots: PivotEnd[]
}

/** A movement with its holes: its trains on the plates, and what the workshop’s rules say of each hole. */
export interface Movement {
  trains: MovementTrain[]
  rules: HoleRules
  /** the one verdict on a hole, whoever asks */
  judged: (hole: HoleFacts) => HoleJudged
  /** which way it should have worn, degrees clockwise from 12; null where the map does not tell */
  expected: (hole: Pick<HoleFacts, 'train' | 'arbor' | 'plate'>) => number | null
  depths: (train: MovementTrain) => DepthTable
}

/** The movement of a job by the workshop’s rules; each hole is judged once, however often it is asked for. */
export function movementOfJob({ plateMap, trainSheets, holes, pivots }: MovementFacts, rules: HoleRules): Movement {
  const trains = movementOf(plateMap, trainSheets)
  const known = new WeakMap<HoleFacts, HoleJudged>()
  const judged = (hole: HoleFacts) => {
    const there = known.get(hole)
    if (there) return there
    const now = judgeHole(hole, pivots, rules, placeOfHole(trains, hole))
    known.set(hole, now)
    return now
  }
  const toBush = (hole: HoleFacts) => holes.some((h) => samePlace(h, hole) && judged(h).verdict === 'bush')
  return {
    trains,
    rules,
    judged,
    expected: (hole) => expectedWear(trains, hole),
    depths: (train) => depthsOf(train, holes, toBush),
  }
}
