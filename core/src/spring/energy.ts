import { FieldError, requirePositive, requireWithin } from '../check/require.ts'

/** A mainspring in its barrel, mm; barrel and arbor by their diameters. */
export interface Mainspring {
  widthMm: number
  thicknessMm: number
  lengthMm: number
  barrelInsideMm: number
  arborMm: number
}

export interface SpringEnergy {
  /** turns of the barrel from run down to fully wound */
  turnsAvailable: number
  /** length that gives the most turns in this barrel, mm */
  bestLengthMm: number
  turnsAtBest: number
  /** fully wound, and run down in its barrel: a spring is never slack there; N·mm */
  torqueWoundNmm: number
  torqueRunDownNmm: number
  /** at the turns asked for, N·mm */
  torqueNmm: number
  /** given out from there to run down, J */
  energyJ: number
  /** how far 1 kg must fall to carry as much, mm */
  dropOf1kgMm: number
}

/** Where spring steel begins to take a set: what is usual, and what safety reckons with, MPa. */
export const YIELD_MPA = 1800
export const SAFE_YIELD_MPA = 2000
const STANDARD_GRAVITY = 9.80665

/**
 * What a mainspring holds when it is wound by `turns` from run down: turns it has, torque in N·mm, energy in J.
 *
 * Coils wound N_w = (√(r² + l·t/π) − r)/t, run down N_d = (R − √(R² − l·t/π))/t with R and r the radii of barrel and
 * arbor; turns = N_w − N_d, most at l = π(R² − r²)/(2t). Wound to a mean curvature κ = 2πN_w/l far beyond its elastic
 * limit κ_y = 2σ/(E·t) a strip takes a set and pulls with M = σ·w·t²/4·(1 − ⅓(κ_y/κ)²) (Timoshenko, Strength of
 * Materials II: the elastic-plastic bending of a rectangular strip), or E·I·κ below that limit. From there it unbends
 * elastically, by E·I·2π/l a turn, and still pulls when run down; the energy is the work done on the way. Coils that
 * rub take some of it from the train, none from the danger.
 *
 * @param turns - from run down, above 0, at most the turns available; all of them when not given
 * @param elasticGpa - Young's modulus, GPa, 50 to 300
 * @param yieldMpa - stress at which the strip begins to take a set, MPa, 200 to 4000
 * @throws FieldError when a dimension is not above 0, or the strip does not fit the barrel
 * @example springEnergy({ widthMm: 19, thicknessMm: 0.4, lengthMm: 1708, barrelInsideMm: 44, arborMm: 14 }).energyJ // 52
 */
export function springEnergy(spring: Mainspring, turns?: number, elasticGpa = 205, yieldMpa = YIELD_MPA): SpringEnergy {
  const { widthMm, thicknessMm: t, lengthMm: l, barrelInsideMm, arborMm } = spring
  requirePositive('widthMm', widthMm)
  requirePositive('thicknessMm', t)
  requirePositive('lengthMm', l)
  requirePositive('barrelInsideMm', barrelInsideMm)
  requirePositive('arborMm', arborMm)
  requireWithin('elasticGpa', elasticGpa, 50, 300)
  requireWithin('yieldMpa', yieldMpa, 200, 4000)
  if (arborMm >= barrelInsideMm)
    throw new FieldError('arborMm', arborMm, `it must be smaller than barrelInsideMm, ${barrelInsideMm}`)
  const R = barrelInsideMm / 2
  const r = arborMm / 2
  const free = Math.PI * (R * R - r * r)
  if (l * t >= free)
    throw new FieldError('lengthMm', l, `a strip ${t} mm thick fits this barrel only below ${(free / t).toFixed(0)} mm`)
  const bestLengthMm = free / (2 * t)
  const turnsAvailable = turnsOf(l, t, R, r)
  if (turnsAvailable <= 0)
    throw new FieldError('lengthMm', l, 'in this barrel it can’t be wound by as much as one coil')
  const wound = turns ?? turnsAvailable
  if (!Number.isFinite(wound) || wound <= 0 || wound > turnsAvailable + 1e-9)
    throw new FieldError('turns', wound, `it must be above 0 and at most the ${turnsAvailable.toFixed(2)} available`)
  const stiffness = elasticGpa * 1000 * ((widthMm * t ** 3) / 12)
  const perTurnNmm = (2 * Math.PI * stiffness) / l
  const curvature = (2 * Math.PI * coilsWound(l, t, r)) / l
  const yieldCurvature = (2 * yieldMpa) / (elasticGpa * 1000 * t)
  const torqueWoundNmm =
    curvature <= yieldCurvature
      ? stiffness * curvature
      : ((yieldMpa * widthMm * t * t) / 4) * (1 - (yieldCurvature / curvature) ** 2 / 3)
  const after = (given: number) => Math.max(0, torqueWoundNmm - perTurnNmm * given)
  const torqueNmm = after(turnsAvailable - wound)
  const torqueRunDownNmm = after(turnsAvailable)
  // A strip that has taken so much set that it is slack before the wall stops pushing there.
  const pushing = Math.min(wound, torqueNmm / perTurnNmm)
  const energyJ = (0.5 * (torqueNmm + torqueRunDownNmm) * 2 * Math.PI * pushing) / 1000
  return {
    turnsAvailable,
    bestLengthMm,
    turnsAtBest: turnsOf(bestLengthMm, t, R, r),
    torqueWoundNmm,
    torqueRunDownNmm,
    torqueNmm,
    energyJ,
    dropOf1kgMm: (1000 * energyJ) / STANDARD_GRAVITY,
  }
}

function turnsOf(l: number, t: number, R: number, r: number): number {
  return coilsWound(l, t, r) - (R - Math.sqrt(R * R - (l * t) / Math.PI)) / t
}

function coilsWound(l: number, t: number, r: number): number {
  return (Math.sqrt(r * r + (l * t) / Math.PI) - r) / t
}
