import { FieldError, requireFinite, requirePositive, requireWithin } from '../check/require.ts'
import { STANDARD_GRAVITY } from './gravity.ts'
import { pendulumBeatsPerHour } from './length.ts'

export const PART_SHAPES = ['rod', 'cylinder', 'disc', 'lens', 'ball', 'point'] as const
export type PartShape = (typeof PART_SHAPES)[number]

/** The point of a part that rests on the rod: where the rod carries it as both grow. */
export const HOLDS_AT = ['centre', 'bottom', 'top'] as const
export type HoldsAt = (typeof HOLDS_AT)[number]

/**
 * A part of a pendulum. Depths are below the suspension.
 *
 * A rod is thin and lies along the pendulum, as a cylinder does; a disc is seen face on by one who sees the swing, and so
 * is a lens, whose thickness falls to its rim as a parabola.
 */
export interface PendulumPart {
  shape: PartShape
  massG: number
  /** depth of its centre of mass */
  centreMm: number
  /** of a rod or cylinder */
  lengthMm?: number | undefined
  /** of a cylinder, disc, lens or ball */
  radiusMm?: number | undefined
  /** it rides on the nut */
  moves?: boolean | undefined
  /** linear expansion, millionths a degree; as the rod's when not given */
  alphaPerMillion?: number | undefined
  /** across the pendulum, where it grows otherwise than along it */
  acrossAlphaPerMillion?: number | undefined
  /** centre when not given */
  holdsAt?: HoldsAt | undefined
  /** it stands so high on something that stands on the rod: a sleeve, the rising rods of a gridiron */
  riseMm?: number | undefined
  riseAlphaPerMillion?: number | undefined
}

/** A whole pendulum as a swinging body. */
export interface CompoundPendulum {
  massG: number
  /** depth of the centre of gravity */
  cgMm: number
  /** to the centre of oscillation: the simple pendulum that keeps its time */
  lengthMm: number
  /** of a very small swing */
  beatsPerHour: number
  /** for each mm that all moving parts are raised, + gains */
  secondsPerDayPerMm: number
  /** for one turn of the nut that raises them; null when the pitch is not known */
  secondsPerDayPerTurn: number | null
}

const HALF_DAY_S = 43_200
/** More parts than this are no pendulum. */
const MOST_PARTS = 200

/** Moment of inertia about the part's own centre across the plane of the swing, g·mm². */
export function ownInertia({ shape, massG, lengthMm = 0, radiusMm = 0 }: PendulumPart): number {
  switch (shape) {
    case 'rod':
      return (massG * lengthMm ** 2) / 12
    case 'cylinder':
      return massG * (lengthMm ** 2 / 12 + radiusMm ** 2 / 4)
    case 'disc':
      return (massG * radiusMm ** 2) / 2
    case 'lens':
      return (massG * radiusMm ** 2) / 3
    case 'ball':
      return 0.4 * massG * radiusMm ** 2
    case 'point':
      return 0
  }
}

/** Σm, Σm·x and Σ(m·x² + own inertia): all that a rigid pendulum's time depends on. */
export function bodyOf(parts: PendulumPart[]): { massG: number; moment: number; inertia: number } {
  return parts.reduce(
    (sum, p) => ({
      massG: sum.massG + p.massG,
      moment: sum.moment + p.massG * p.centreMm,
      inertia: sum.inertia + p.massG * p.centreMm ** 2 + ownInertia(p),
    }),
    { massG: 0, moment: 0, inertia: 0 },
  )
}

/** Throws FieldError naming what of which part can't be; a body that hangs upside down does not swing. */
export function checkParts(parts: PendulumPart[]): void {
  requireWithin('parts', parts.length, 1, MOST_PARTS)
  parts.forEach((p, i) => {
    const at = (field: string) => `parts[${i}].${field}`
    requirePositive(at('massG'), p.massG)
    requireFinite(at('centreMm'), p.centreMm)
    const has = (field: 'lengthMm' | 'radiusMm', needed: boolean) => {
      if (needed) requirePositive(at(field), p[field] ?? Number.NaN)
    }
    has('lengthMm', p.shape === 'rod' || p.shape === 'cylinder')
    has('radiusMm', ['cylinder', 'disc', 'lens', 'ball'].includes(p.shape))
    if (p.alphaPerMillion !== undefined) requireWithin(at('alphaPerMillion'), p.alphaPerMillion, -50, 500)
  })
  const { moment } = bodyOf(parts)
  if (moment <= 0) throw new FieldError('parts', moment, 'their centre of gravity must hang below the suspension')
}

/**
 * A pendulum of real parts: L = ΣI/Σ(m·x) about the suspension.
 *
 * What a raise of the moving parts does is the derivative: dL/dx = (2·Σₘm·x·S − I·Σₘm)/S², and 43200/L of that.
 * Errors are those of the figures given: the suspension is taken as a point, the parts as rigid.
 *
 * @param parts - 1 to 200
 * @param gravity - m/s², 9.7 to 9.9
 * @param pitchMm - of the nut's thread
 * @throws FieldError naming the part and its figure
 * @see Landau & Lifshitz, Mechanics, §32; Huygens, Horologium oscillatorium, part 4
 * @example compoundPendulum([{ shape: 'rod', massG: 100, centreMm: 500, lengthMm: 1000 }]).lengthMm // 666.67
 */
export function compoundPendulum(
  parts: PendulumPart[],
  gravity = STANDARD_GRAVITY,
  pitchMm?: number,
): CompoundPendulum {
  checkParts(parts)
  if (pitchMm !== undefined) requirePositive('pitchMm', pitchMm)
  const { massG, moment, inertia } = bodyOf(parts)
  const lengthMm = inertia / moment
  const moving = bodyOf(parts.filter((p) => p.moves === true))
  const follows = (2 * moving.moment * moment - inertia * moving.massG) / moment ** 2
  const secondsPerDayPerMm = (HALF_DAY_S / lengthMm) * follows
  return {
    massG,
    cgMm: moment / massG,
    lengthMm,
    beatsPerHour: pendulumBeatsPerHour(lengthMm, gravity),
    secondsPerDayPerMm,
    secondsPerDayPerTurn: pitchMm === undefined ? null : secondsPerDayPerMm * pitchMm,
  }
}

const DAY_S = 86_400

/**
 * What a small weight at a depth does to the rate, s/day, + gains; exact for a weight that is small in size.
 *
 * L′ = (M·h·L + m·x²)/(M·h + m·x). Above the centre of oscillation it gains, most at half length; below it loses.
 *
 * @param massG - of the weight; negative: taken off
 * @param atMm - its depth
 * @param pendulumMassG - M
 * @param cgMm - h
 * @param lengthMm - L, to the centre of oscillation
 * @throws FieldError naming the figure
 * @example addedMassSecondsPerDay(1, 497, 5000, 994, 994) // 2.16
 */
export function addedMassSecondsPerDay(
  massG: number,
  atMm: number,
  pendulumMassG: number,
  cgMm: number,
  lengthMm: number,
): number {
  requireFinite('massG', massG)
  requireFinite('atMm', atMm)
  requirePositive('pendulumMassG', pendulumMassG)
  requirePositive('cgMm', cgMm)
  requirePositive('lengthMm', lengthMm)
  const moment = pendulumMassG * cgMm + massG * atMm
  const inertia = pendulumMassG * cgMm * lengthMm + massG * atMm ** 2
  if (moment <= 0 || inertia <= 0) throw new FieldError('massG', massG, 'with it the pendulum would not hang')
  return DAY_S * (Math.sqrt((lengthMm * moment) / inertia) - 1)
}
