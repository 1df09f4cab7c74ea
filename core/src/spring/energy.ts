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
  /** at the turns asked for, N·mm */
  torqueNmm: number
  energyJ: number
  /** how far 1 kg must fall to carry as much, mm */
  dropOf1kgMm: number
}

const STANDARD_GRAVITY = 9.80665

/**
 * What a mainspring holds when it is wound by `turns`: turns it has, torque in N·mm, energy in J.
 *
 * Coils wound N_w = (√(r² + l·t/π) − r)/t, run down N_d = (R − √(R² − l·t/π))/t with R and r the radii of barrel and
 * arbor; turns = N_w − N_d, most at l = π(R² − r²)/(2t). Torque is the pure bending of a strip from slack,
 * E·(w·t³/12)·2π·turns/l, and energy ½·torque·angle. A real spring is pre-set and rubs: it gives some tenths less and
 * holds rather more than the figure, so it is for judging danger and comparing springs, not for a guarantee.
 *
 * @param turns - from slack, above 0, at most the turns available; all of them when not given
 * @param elasticGpa - Young's modulus, GPa, 50 to 300
 * @throws FieldError when a dimension is not above 0, or the strip does not fit the barrel
 * @example springEnergy({ widthMm: 19, thicknessMm: 0.4, lengthMm: 1708, barrelInsideMm: 44, arborMm: 14 }).turnsAvailable // 9.1
 */
export function springEnergy(spring: Mainspring, turns?: number, elasticGpa = 205): SpringEnergy {
  const { widthMm, thicknessMm: t, lengthMm: l, barrelInsideMm, arborMm } = spring
  requirePositive('widthMm', widthMm)
  requirePositive('thicknessMm', t)
  requirePositive('lengthMm', l)
  requirePositive('barrelInsideMm', barrelInsideMm)
  requirePositive('arborMm', arborMm)
  requireWithin('elasticGpa', elasticGpa, 50, 300)
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
  const angle = 2 * Math.PI * wound
  const torqueNmm = (elasticGpa * 1000 * ((widthMm * t ** 3) / 12) * angle) / l
  const energyJ = (0.5 * torqueNmm * angle) / 1000
  return {
    turnsAvailable,
    bestLengthMm,
    turnsAtBest: turnsOf(bestLengthMm, t, R, r),
    torqueNmm,
    energyJ,
    dropOf1kgMm: (1000 * energyJ) / STANDARD_GRAVITY,
  }
}

function turnsOf(l: number, t: number, R: number, r: number): number {
  const area = (l * t) / Math.PI
  return (Math.sqrt(r * r + area) - r - (R - Math.sqrt(R * R - area))) / t
}
