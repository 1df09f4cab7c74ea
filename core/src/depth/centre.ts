import type { MovementTrain } from '../movement/trains.ts'
import { centreDistanceOf } from './afterWear.ts'
import { backToDistance, type Correction } from './meshes.ts'

/** Less of a module than the first is within what a plate can be measured to; more than the second is no repair. */
const OFF_CENTRE_MODULES = { from: 0.1, to: 2 }

export interface CentreFound extends Correction {
  moduleMm: number
  /** further off than a plate can be measured to */
  off: boolean
  /** so far off that it is no repair: a figure is wrong */
  unlikely: boolean
}

/**
 * The centre distance of an arbor from the one that drives it, as found, against the one that the counts and a measured
 * wheel ask for; null where places, counts or module are not known.
 */
export function centreFound({ arbors }: MovementTrain, arbor: string): CentreFound | null {
  const i = arbors.findIndex((a) => a.name === arbor)
  const [below, here] = [arbors[i - 1], arbors[i]]
  const moduleMm = here?.placed.moduleMm ?? null
  if (!below?.at || !here?.at || !below.wheel || !here.pinion || moduleMm === null) return null
  const found = backToDistance(below.at, here.at, centreDistanceOf(below.wheel, here.pinion, moduleMm))
  const modules = Math.abs(found.moveMm) / moduleMm
  return {
    ...found,
    moduleMm,
    off: modules > OFF_CENTRE_MODULES.from,
    unlikely: modules >= OFF_CENTRE_MODULES.to,
  }
}
