import {
  depthsOf,
  expectedWear,
  judgeHole,
  movementOf,
  placeOfHole,
  withFinishedPivot,
  type DepthTable,
  type Hole,
  type HoleJudged,
  type HoleRules,
  type MovementTrain,
} from '@treadle/contract'
import { useMemo } from 'react'
import { useHoleRules } from '../data/queries.ts'
import { useJobData } from './useJobData.ts'

export interface Movement {
  trains: MovementTrain[]
  rules: HoleRules
  judged: (hole: Hole) => HoleJudged
  /** which way it should have worn, degrees clockwise from 12 */
  expected: (hole: Pick<Hole, 'train' | 'arbor' | 'plate'>) => number | null
  depths: (train: MovementTrain) => DepthTable
}

/** The movement of this job: its trains on the plates, and what the rules say of each hole. Nothing until they are here. */
export function useMovement(): Movement | undefined {
  const { plateMap, trainSheets, holes, pivots } = useJobData()
  const rules = useHoleRules()
  return useMemo(() => {
    if (!rules) return undefined
    const trains = movementOf(plateMap, trainSheets)
    const judged = (hole: Hole) => judgeHole(withFinishedPivot(hole, pivots), rules, placeOfHole(trains, hole))
    return {
      trains,
      rules,
      judged,
      expected: (hole) => expectedWear(trains, hole),
      depths: (train) =>
        depthsOf(train, holes, (h) =>
          holes.some(
            (one) =>
              one.train === h.train && one.arbor === h.arbor && one.plate === h.plate && judged(one).verdict === 'bush',
          ),
        ),
    }
  }, [plateMap, trainSheets, holes, pivots, rules])
}
