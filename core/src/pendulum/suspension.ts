import { requirePositive, requireWithin } from '../check/require.ts'

/** A suspension spring: one or two blades side by side, mm. */
export interface Suspension {
  thicknessMm: number
  /** of one blade */
  widthMm: number
  blades: number
  /** between its clamps */
  freeMm: number
}

const STANDARD_GRAVITY = 9.80665

/**
 * Seconds of one full swing of a bob on a light rod below a spring blade, for small swings.
 *
 * Clamped above and pulled by the weight W the blade bends as EI·y⁗ = W·y″; its bending and the weight’s rise are the
 * potential of two freedoms (shift and slope of its lower end), the bob’s speed the kinetic energy. The slower of the two
 * ways of swinging is the clock’s. With EI → 0 it is a thread as long as blade and rod; a stiff blade swings faster.
 *
 * @param massKg - of the bob, above 0
 * @param rodMm - from the blade’s lower clamp to the bob’s centre, above 0
 * @param elasticGpa - of the blade: steel 205, bronze about 110
 * @see Timoshenko, Strength of Materials II, beams under axial tension
 */
export function suspendedPeriodS(spring: Suspension, massKg: number, rodMm: number, elasticGpa = 205): number {
  const { thicknessMm, widthMm, blades, freeMm } = spring
  requirePositive('thicknessMm', thicknessMm)
  requirePositive('widthMm', widthMm)
  requireWithin('blades', blades, 1, 4)
  requirePositive('freeMm', freeMm)
  requirePositive('massKg', massKg)
  requirePositive('rodMm', rodMm)
  const EI = (elasticGpa * 1e9 * blades * (widthMm / 1000) * (thicknessMm / 1000) ** 3) / 12
  const W = massKg * STANDARD_GRAVITY
  const l = freeMm / 1000
  const h = rodMm / 1000
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
  const kTT = (EI * q * (x * cosh - sinh)) / det
  // Potential ½(kYY·y² + 2kYT·yθ + kTT·θ²) + ½W·h·θ²; kinetic ½m(y′ + hθ′)²: one mass, so only y + hθ moves it.
  const c = kTT + W * h
  // With u = y + hθ held, the blade takes the θ that costs least.
  const a = kYY * h * h - 2 * kYT * h + c
  const stiffness = (kYY * c - kYT * kYT) / a
  return 2 * Math.PI * Math.sqrt(massKg / stiffness)
}

/** What another suspension spring does to the rate, s/day: + gains; the pendulum’s length from clamp to bob stays. */
export function suspensionRate(old: Suspension, fitted: Suspension, massKg: number, rodMm: number): number {
  // The clamps stand where they stood: a longer blade has its bob as much lower only where the rod is left as it is.
  const was = suspendedPeriodS(old, massKg, rodMm)
  const now = suspendedPeriodS(fitted, massKg, rodMm)
  return 86_400 * (was / now - 1)
}
