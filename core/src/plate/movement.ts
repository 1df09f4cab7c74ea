import { meshDepth, shiftOfWear, type Centre, type MeshArbor, type MeshDepth } from '../depth/meshes.ts'
import type { Turn } from '../train/directions.ts'
import { opposite } from '../train/directions.ts'
import { arborForces, pushAtPlate, type Push } from '../wear/direction.ts'
import { angleApartDeg, clockAngleOf, distanceMm, type Point } from './point.ts'

/** An arbor of one train on the map, from the great wheel up. */
export interface MapArbor {
  name: string
  at: Point | null
  pinion: number | null
  wheel: number | null
  turn: Turn | null
  /** place along the arbor, 0 at the front plate, 1 at the back plate */
  pinionAt: number
  wheelAt: number
}

/** How worn one hole is, and which way. */
export interface HoleWorn {
  arbor: string
  plate: 'front' | 'back'
  wearMm: number
  wearDeg: number
  /** its centre will be brought back: by the plan, or because it was bushed already */
  bushed: boolean
}

/**
 * Which way each arbor’s hole in one plate is expected to wear, degrees clockwise from 12; null where counts or places
 * are not known, and for an arbor that no gear drives or loads.
 *
 * The great arbor is loaded by what it drives only: its spring turns it without pushing it aside. The last arbor is
 * loaded by its driver only.
 */
export function predictedWear(arbors: MapArbor[], plate: 'front' | 'back'): (number | null)[] {
  return arbors.map((arbor, i) => {
    const push = pushOn(arbors, i, plate)
    return arbor.at && push && Math.hypot(push.x, push.y) > 1e-9 ? clockAngleOf(push.x, push.y) : null
  })
}

function pushOn(arbors: MapArbor[], i: number, plate: 'front' | 'back'): Push | null {
  const arbor = arbors[i]
  const below = arbors[i - 1]
  const above = arbors[i + 1]
  if (!arbor?.at || !arbor.turn) return null
  const driven = below?.at && below.wheel && arbor.pinion ? radii(below, arbor) : null
  const drives = above?.at && arbor.wheel && above.pinion ? radii(arbor, above) : null
  if (driven && below?.at) {
    // An arbor that should drive another, but whose part in it is not known, can't be told.
    if (above && above.pinion !== null && !drives) return null
    const forces = arborForces({
      at: arbor.at,
      turns: arbor.turn,
      drivenFrom: below.at,
      pinionRadiusMm: driven.pinionMm,
      ...(drives && above?.at && { drives: above.at, wheelRadiusMm: drives.wheelMm }),
    })
    return pushAtPlate(forces, plate, arbor.pinionAt, arbor.wheelAt)
  }
  if (!drives || !above?.at || i > 0) return null
  // What the great wheel drives pushes it back, as a driver would that turned it the other way.
  const { driven: back } = arborForces({
    at: arbor.at,
    turns: opposite(arbor.turn),
    drivenFrom: above.at,
    pinionRadiusMm: drives.wheelMm,
  })
  return pushAtPlate({ driven: { x: 0, y: 0 }, drives: back, forceRatio: 0 }, plate, arbor.pinionAt, arbor.wheelAt)
}

/** Pitch radii of an arbor’s wheel and pinion, mm, where the centres and counts on either side tell them; else null. */
export function pitchRadiiOf(arbors: MapArbor[], name: string): { wheelMm: number | null; pinionMm: number | null } {
  const i = arbors.findIndex((a) => a.name === name)
  const [below, here, above] = [arbors[i - 1], arbors[i], arbors[i + 1]]
  return {
    wheelMm: (here && above && radii(here, above)?.wheelMm) ?? null,
    pinionMm: (below && here && radii(below, here)?.pinionMm) ?? null,
  }
}

/** Pitch radii of a pair, mm, from the distance of its centres. */
function radii(driver: MapArbor, driven: MapArbor): { wheelMm: number; pinionMm: number } | null {
  if (!driver.at || !driven.at || !driver.wheel || !driven.pinion) return null
  const apart = distanceMm(driver.at, driven.at)
  if (apart < 1e-6) return null
  const share = driver.wheel / (driver.wheel + driven.pinion)
  return { wheelMm: apart * share, pinionMm: apart * (1 - share) }
}

/** Two standard errors of the difference of two caliper readings, mm: of less wear than that nobody can say which way it goes. */
const LEAST_TOLD_MM = 0.03

/** Measured and expected wear that are more than a right angle apart deserve a question, where there is wear to tell. */
export function wearQuestioned(measuredDeg: number, predictedDeg: number, wearMm: number): boolean {
  return wearMm >= LEAST_TOLD_MM - 1e-9 && angleApartDeg(measuredDeg, predictedDeg) > 90
}

export const WEAR_QUESTIONS = [
  'Was it bushed off its centre before?',
  'Has the plate been turned, or is it seen from the other side?',
  'Is it the right hole, and the right arbor?',
] as const

/** How far each mesh of a train has come apart, from both holes of both arbors, with the centres as said. */
export function meshDepths(arbors: MapArbor[], holes: HoleWorn[], centre: Centre): MeshDepth[] {
  const one = (arbor: MapArbor & { at: Point }): MeshArbor => {
    const shift = (plate: 'front' | 'back') => {
      const hole = holes.find((h) => h.arbor === arbor.name && h.plate === plate)
      if (!hole) return null
      // What is not bushed goes on running in its wear, whatever the plan does to the others.
      return shiftOfWear(hole.wearMm, hole.wearDeg, centre === 'worn' || !hole.bushed ? 'worn' : centre)
    }
    return { name: arbor.name, at: arbor.at, front: shift('front'), back: shift('back') }
  }
  return arbors.flatMap((driven, i) => {
    const driver = arbors[i - 1]
    if (!driver?.at || !driven.at || !driver.wheel || !driven.pinion) return []
    if (distanceMm(driver.at, driven.at) < 1e-6) return []
    return [
      meshDepth({
        driver: one({ ...driver, at: driver.at }),
        driven: one({ ...driven, at: driven.at }),
        wheelTeeth: driver.wheel,
        pinionLeaves: driven.pinion,
        place: (driver.wheelAt + driven.pinionAt) / 2,
      }),
    ]
  })
}
