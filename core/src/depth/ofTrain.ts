import { wearOf, type HoleFacts } from '../hole/facts.ts'
import type { MovementTrain } from '../movement/trains.ts'
import { meshDepths, type HoleWorn } from '../plate/movement.ts'
import { type Centre, type MeshDepth } from './meshes.ts'

/** The depth of a train’s meshes run in their wear, as planned, and bushed in the middle of the slots instead. */
export type DepthTable = Record<Centre, MeshDepth[]>

type Worn = Pick<HoleFacts, 'train' | 'arbor' | 'plate' | 'longAxisMm' | 'shortAxisMm' | 'wearDeg' | 'bushed'>

/** The depth of every mesh of a train: run in its wear, after the plan, and bushed in the middle of the slots instead. */
export function depthsOf<H extends Worn>(
  { train, arbors }: MovementTrain,
  holes: H[],
  willBeBushed: (hole: H) => boolean,
): DepthTable {
  const worn = holes.flatMap((h): HoleWorn[] => {
    const wearMm = wearOf(h)
    if (h.train !== train || wearMm === null || h.wearDeg === null) return []
    return [{ arbor: h.arbor, plate: h.plate, wearMm, wearDeg: h.wearDeg, bushed: h.bushed || willBeBushed(h) }]
  })
  return {
    worn: meshDepths(arbors, worn, 'worn'),
    middle: meshDepths(arbors, worn, 'middle'),
    true: meshDepths(arbors, worn, 'true'),
  }
}
