import { FieldError, requirePositive, requireWithin } from '../check/require.ts'
import { clockAngleOf, distanceMm, requirePoint, type Point } from '../plate/point.ts'
import { TURNS, type Turn } from '../train/directions.ts'

/** An arbor between what drives it and what it drives; mm, as seen from the front. */
export interface LoadedArbor {
  at: Point
  turns: Turn
  /** the middle of the wheel that drives its pinion */
  drivenFrom: Point
  pinionRadiusMm: number
  /** the middle of the arbor that its wheel drives; none: the last of the train */
  drives?: Point | undefined
  wheelRadiusMm?: number | undefined
  pressureAngleDeg?: number | undefined
}

/** A push in the plane of the plates; in shares of the driving one. */
export interface Push {
  x: number
  y: number
}

export interface ArborForces {
  driven: Push
  drives: Push
  /** the driven side's force over the driver's */
  forceRatio: number
}

export interface WearDirection {
  /** where the hole wears, degrees clockwise from 12 */
  clockAngleDeg: number
  forceRatio: number
}

/**
 * The two pushes on an arbor: the driver's along its tooth motion and outward by the pressure angle, and that of what
 * it drives, back and outward likewise, smaller as the wheel is larger than the pinion (the same torque).
 *
 * @param arbor - radii are those of the pitch circles, mm; pressure angle 20° with friction when not given
 * @throws FieldError for figures that can't be
 */
export function arborForces(arbor: LoadedArbor): ArborForces {
  const { at, turns, drivenFrom, pinionRadiusMm, drives, wheelRadiusMm, pressureAngleDeg = 20 } = arbor
  requirePoint('at', at)
  requirePoint('drivenFrom', drivenFrom)
  requirePositive('pinionRadiusMm', pinionRadiusMm)
  requireWithin('pressureAngleDeg', pressureAngleDeg, 0, 60)
  if (!TURNS.includes(turns)) throw new FieldError('turns', turns, 'it must be clockwise or anticlockwise')
  if (distanceMm(at, drivenFrom) < 1e-9)
    throw new FieldError('drivenFrom', [drivenFrom.xMm, drivenFrom.yMm], 'it must be another place than the arbor')
  const driven = push(at, drivenFrom, turns, pressureAngleDeg)
  if (!drives) {
    if (wheelRadiusMm !== undefined)
      throw new FieldError('drives', undefined, 'say where the arbor is that this wheel drives')
    return { driven, drives: { x: 0, y: 0 }, forceRatio: 0 }
  }
  requirePoint('drives', drives)
  if (wheelRadiusMm === undefined)
    throw new FieldError('wheelRadiusMm', wheelRadiusMm, 'it is required where the arbor drives another')
  requirePositive('wheelRadiusMm', wheelRadiusMm)
  if (distanceMm(at, drives) < 1e-9)
    throw new FieldError('drives', [drives.xMm, drives.yMm], 'it must be another place than the arbor')
  const forceRatio = pinionRadiusMm / wheelRadiusMm
  // What is driven resists: its push turns this arbor the other way.
  const back = push(at, drives, turns === 'clockwise' ? 'anticlockwise' : 'clockwise', pressureAngleDeg)
  return { driven, drives: { x: back.x * forceRatio, y: back.y * forceRatio }, forceRatio }
}

/**
 * Which way a hole wears: where the sum of the two pushes on its arbor points, degrees clockwise from 12.
 *
 * Both are taken in the hole's own plate; {@link pushAtPlate} shares them over the plates by where wheel and pinion sit.
 *
 * @throws FieldError for figures that can't be
 */
export function wearDirection(arbor: LoadedArbor): WearDirection {
  const { driven, drives, forceRatio } = arborForces(arbor)
  return { clockAngleDeg: clockAngleOf(driven.x + drives.x, driven.y + drives.y), forceRatio }
}

/**
 * What of an arbor's pushes its hole in one plate bears: each is shared like a load on a beam between the plates.
 *
 * @param pinionAt - place of the pinion along the arbor, 0 at the front plate, 1 at the back plate
 * @param wheelAt - place of the wheel, likewise
 */
export function pushAtPlate(forces: ArborForces, plate: 'front' | 'back', pinionAt = 0.5, wheelAt = 0.5): Push {
  requireWithin('pinionAt', pinionAt, 0, 1)
  requireWithin('wheelAt', wheelAt, 0, 1)
  const share = (place: number) => (plate === 'front' ? 1 - place : place)
  const a = share(pinionAt)
  const b = share(wheelAt)
  return { x: a * forces.driven.x + b * forces.drives.x, y: a * forces.driven.y + b * forces.drives.y }
}

/** The push at a mesh on the arbor `at` from the arbor `from`, of size 1, that turns it `turns`. */
function push(at: Point, from: Point, turns: Turn, pressureDeg: number): Push {
  const apart = distanceMm(at, from)
  const ux = (at.xMm - from.xMm) / apart
  const uy = (at.yMm - from.yMm) / apart
  // The mesh lies toward `from`; an arbor that turns clockwise moves there to the left of the way away from it.
  const side = turns === 'clockwise' ? 1 : -1
  const cos = Math.cos((pressureDeg * Math.PI) / 180)
  const sin = Math.sin((pressureDeg * Math.PI) / 180)
  return { x: -side * uy * cos + ux * sin, y: side * ux * cos + uy * sin }
}
