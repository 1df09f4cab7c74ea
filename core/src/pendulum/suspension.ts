import { FieldError, requirePositive, requireWithin } from '../check/require.ts'
import { STANDARD_GRAVITY } from './gravity.ts'

/** A suspension spring: one or two blades side by side, mm. */
export interface Suspension {
  thicknessMm: number
  /** of one blade */
  widthMm: number
  blades: number
  /** between its clamps */
  freeMm: number
}

/** A pendulum below its suspension spring, against the same one on a hinge at the spring's upper edge. */
export interface HungBody {
  /** seconds of one full swing */
  periodS: number
  /** what the spring does to the rate, s/day, + gains */
  secondsPerDay: number
  /** how far below the upper edge a hinge would give the same time: where it really bends */
  bendsAtMm: number
}

/**
 * Seconds of one full swing of a rigid pendulum below a spring blade, for small swings.
 *
 * Clamped above and pulled by the weight W the blade bends as EI·y⁗ = W·y″; its bending and the weight’s rise are the
 * potential of two freedoms (shift y and slope θ of its lower end), ½m(y′ + hθ′)² + ½I_c·θ′² the kinetic energy with h
 * the depth of the centre of gravity below the blade. The slower of the two ways of swinging is the clock’s. With EI → 0
 * it is a body on a thread as long as the blade; a stiff blade swings faster.
 *
 * @param body - massG; moment and inertia about the blade's upper edge, g·mm and g·mm²
 * @param elasticGpa - of the blade: steel 205, bronze about 110
 * @throws FieldError naming the figure
 * @see Timoshenko, Strength of Materials II, beams under axial tension
 */
export function hungBody(
  spring: Suspension,
  body: { massG: number; moment: number; inertia: number },
  gravity = STANDARD_GRAVITY,
  elasticGpa = 205,
): HungBody {
  const { thicknessMm, widthMm, blades, freeMm } = spring
  requirePositive('thicknessMm', thicknessMm)
  requirePositive('widthMm', widthMm)
  requireWithin('blades', blades, 1, 4)
  requirePositive('freeMm', freeMm)
  requirePositive('massG', body.massG)
  const m = body.massG / 1000
  const depth = body.moment / body.massG / 1000
  const l = freeMm / 1000
  const h = depth - l
  const own = body.inertia * 1e-9 - m * depth ** 2
  requirePositive('freeMm, the centre of gravity below it', h)
  if (own < 0) throw new FieldError('inertia', body.inertia, 'no body has so little about its own middle')
  const EI = (elasticGpa * 1e9 * blades * (widthMm / 1000) * (thicknessMm / 1000) ** 3) / 12
  const W = m * gravity
  const q = Math.sqrt(W / EI)
  const x = q * l
  // Force and moment at the lower end for a unit shift and a unit slope there: the stiffness of a clamped beam-column
  // in tension, scaled by e^−x so that long, limp blades do not overflow.
  const e = Math.exp(-x)
  const sinh = (1 - e * e) / 2
  const cosh = (1 + e * e) / 2
  const det = 2 * e - 2 * cosh + x * sinh
  const kYY = (EI * q ** 3 * sinh) / det
  const kYT = (-EI * q ** 2 * (cosh - e)) / det
  const kTT = (EI * q * (x * cosh - sinh)) / det + W * h
  // det(K − ω²M) with M = m·[1, h; h, h² + own/m] is A·ω⁴ − B·ω² + C.
  const A = m * own
  const B = kTT * m + kYY * (m * h * h + own) - 2 * kYT * m * h
  const C = kYY * kTT - kYT * kYT
  const omega2 = (2 * C) / (B + Math.sqrt(Math.max(0, B * B - 4 * A * C)))
  const periodS = (2 * Math.PI) / Math.sqrt(omega2)
  const hingeS = 2 * Math.PI * Math.sqrt((body.inertia * 1e-9) / (m * depth * gravity))
  return { periodS, secondsPerDay: 86_400 * (hingeS / periodS - 1), bendsAtMm: 1000 * hingeDepth(periodS) }

  /** Depth b at which a hinge gives that period: (I_c + m·(d − b)²)/(m·(d − b)·g) = (T/2π)², the root by the spring. */
  function hingeDepth(period: number): number {
    const L = gravity * (period / (2 * Math.PI)) ** 2
    const k2 = own / m
    const arm = (L + Math.sqrt(Math.max(0, L * L - 4 * k2))) / 2
    return depth - arm
  }
}

/** Seconds of one full swing of a small bob on a light rod below a spring blade: `hungBody` of a point. */
export function suspendedPeriodS(spring: Suspension, massKg: number, rodMm: number, elasticGpa = 205): number {
  requirePositive('massKg', massKg)
  requirePositive('rodMm', rodMm)
  const depth = spring.freeMm + rodMm
  const massG = massKg * 1000
  return hungBody(spring, { massG, moment: massG * depth, inertia: massG * depth ** 2 }, STANDARD_GRAVITY, elasticGpa)
    .periodS
}

/** What another suspension spring does to the rate, s/day: + gains; the pendulum’s length from clamp to bob stays. */
export function suspensionRate(old: Suspension, fitted: Suspension, massKg: number, rodMm: number): number {
  // The clamps stand where they stood: a longer blade has its bob as much lower only where the rod is left as it is.
  const was = suspendedPeriodS(old, massKg, rodMm)
  const now = suspendedPeriodS(fitted, massKg, rodMm)
  return 86_400 * (was / now - 1)
}
