import { depthAfterWear } from '../depth/afterWear.ts'
import { centreFound } from '../depth/centre.ts'
import { shiftOfWear } from '../depth/meshes.ts'
import type { MovementTrain } from '../movement/trains.ts'
import { predictedWear } from '../plate/movement.ts'
import { clockAngleBetween, distanceMm } from '../plate/point.ts'
import { wearOf, type HoleFacts } from './facts.ts'

/** What the plate map tells of a hole. */
export interface HolePlace {
  /** what its wear does to the depth of its gearing */
  depth: { moduleMm: number; depthShiftMm: number } | null
  /** how far, and which way, it goes back to the centre that the counts ask for, where a repair left it off that */
  offCentre: { mm: number; deg: number } | null
}

/** A hole of which no plate map tells anything. */
export const NOWHERE: HolePlace = { depth: null, offCentre: null }

type Worn = Pick<HoleFacts, 'train' | 'arbor' | 'longAxisMm' | 'shortAxisMm' | 'wearDeg'>

/** Which way a hole is expected to wear, degrees clockwise from 12; null where the map does not tell. */
export function expectedWear(
  movement: MovementTrain[],
  hole: Pick<HoleFacts, 'train' | 'arbor' | 'plate'>,
): number | null {
  const arbors = movement.find((t) => t.train === hole.train)?.arbors ?? []
  const at = arbors.findIndex((a) => a.name === hole.arbor)
  return at < 0 ? null : (predictedWear(arbors, hole.plate)[at] ?? null)
}

/**
 * What one hole's wear alone does to the gearing of its arbor: of its two meshes the one that suffers more, as a share
 * of its module; null where the map does not tell.
 */
function depthOfHole(movement: MovementTrain[], hole: Worn): HolePlace['depth'] {
  const arbors = movement.find((t) => t.train === hole.train)?.arbors ?? []
  const i = arbors.findIndex((a) => a.name === hole.arbor)
  const here = arbors[i]
  const wearMm = wearOf(hole)
  if (!here?.at || wearMm === null || hole.wearDeg === null) return null
  const shift = shiftOfWear(wearMm, hole.wearDeg, 'worn') ?? { mm: 0, deg: 0 }
  const at = here.at
  const meshes = [
    { partner: arbors[i - 1], wheel: arbors[i - 1]?.wheel, pinion: here.pinion },
    { partner: arbors[i + 1], wheel: here.wheel, pinion: arbors[i + 1]?.pinion },
  ].flatMap(({ partner, wheel, pinion }) => {
    if (!partner?.at || !wheel || !pinion || distanceMm(partner.at, at) < 1e-6) return []
    const line = clockAngleBetween(partner.at, at)
    return [depthAfterWear(wheel, pinion, distanceMm(partner.at, at), shift.mm, shift.deg, line)]
  })
  const worst = meshes.sort((a, b) => Math.abs(b.percentOfModule) - Math.abs(a.percentOfModule))[0]
  return worst ? { moduleMm: worst.moduleMm, depthShiftMm: worst.depthShiftMm } : null
}

/** How far a hole that an earlier repair left off its centre goes back, by the counts of the mesh that drives it. */
function offCentreOf(movement: MovementTrain[], hole: Pick<HoleFacts, 'train' | 'arbor'>): HolePlace['offCentre'] {
  const train = movement.find((t) => t.train === hole.train)
  const found = train && centreFound(train, hole.arbor)
  return found && found.off && !found.unlikely ? { mm: Math.abs(found.moveMm), deg: found.clockAngleDeg } : null
}

/** All that the plate map tells of a hole. */
export function placeOfHole(movement: MovementTrain[], hole: Worn): HolePlace {
  return { depth: depthOfHole(movement, hole), offCentre: offCentreOf(movement, hole) }
}
