import { FieldError, requirePositive, requireWithin } from '../check/require.ts'
import { bodyOf, checkParts, ownInertia, type PendulumPart } from './compound.ts'

const HALF_DAY_S = 43_200
const MILLION = 1e6
/** Mercury: cubic expansion, millionths a degree at 20 °C, and density, g/cm³ (CRC Handbook). */
export const MERCURY_PER_MILLION = 181.8
export const MERCURY_G_PER_CM3 = 13.546
/** Linear expansion of common jar glass, millionths a degree. */
export const GLASS_PER_MILLION = 9

/**
 * What a degree of warmth does to the rate of a whole pendulum, s/day, + gains.
 *
 * The point at which a part rests on the rod goes with the rod from the suspension; the part grows about that point,
 * and its own size with it: dc = R·α_rod + (c − R)·α, dI₀ = 2·α·I₀; then −43200·(dI/I − dS/S). First order, as the
 * materials' figures are: over 20 °C it is true to a thousandth of itself.
 *
 * @param parts - as of `compoundPendulum`
 * @param rodAlphaPerMillion - linear expansion of the rod
 * @returns s/day for each °C
 * @example temperatureSecondsPerDay([{ shape: 'point', massG: 1, centreMm: 994 }], 11.5) // −0.497
 */
export function temperatureSecondsPerDay(parts: PendulumPart[], rodAlphaPerMillion: number): number {
  checkParts(parts)
  requireWithin('rodAlphaPerMillion', rodAlphaPerMillion, -50, 500)
  const { moment, inertia } = bodyOf(parts)
  let momentGrows = 0
  let inertiaGrows = 0
  for (const part of parts) {
    const own = part.alphaPerMillion ?? rodAlphaPerMillion
    const across = part.acrossAlphaPerMillion ?? own
    const rise = part.riseMm ?? 0
    const rests = part.centreMm + restsBelowCentre(part)
    // Down the rod to where what carries it stands, up that, and on by its own growth.
    const carried = (rests + rise) * rodAlphaPerMillion - rise * (part.riseAlphaPerMillion ?? rodAlphaPerMillion)
    const moves = carried + (part.centreMm - rests) * own
    const wide = ownInertia({ ...part, lengthMm: 0 })
    momentGrows += part.massG * moves
    inertiaGrows += 2 * part.massG * part.centreMm * moves + 2 * own * (ownInertia(part) - wide) + 2 * across * wide
  }
  return (-HALF_DAY_S * (inertiaGrows / inertia - momentGrows / moment)) / MILLION
}

/** How far below its centre a part rests on the rod, mm. */
function restsBelowCentre({ shape, lengthMm = 0, radiusMm = 0, holdsAt = 'centre' }: PendulumPart): number {
  if (holdsAt === 'centre' || shape === 'point') return 0
  const half = shape === 'rod' || shape === 'cylinder' ? lengthMm / 2 : radiusMm
  return holdsAt === 'bottom' ? half : -half
}

export interface MercuryJar {
  /** depth of its bottom inside */
  jarBottomMm: number
  rodAlphaPerMillion: number
  /** inside */
  jarRadiusMm: number
  /** 9 when not given */
  jarAlphaPerMillion?: number | undefined
}

/** How the centre of oscillation of a column goes down with a degree, mm × 10⁶; jar and rod without mass. */
export function mercurySinks(jar: MercuryJar, columnMm: number): number {
  const glass = jar.jarAlphaPerMillion ?? GLASS_PER_MILLION
  // A wider jar takes up some of what the mercury grows.
  const rises = MERCURY_PER_MILLION - 2 * glass
  const centre = jar.jarBottomMm - columnMm / 2
  const own = columnMm ** 2 / 12 + jar.jarRadiusMm ** 2 / 4
  const down = jar.jarBottomMm * jar.rodAlphaPerMillion - (columnMm / 2) * rises
  const ownGrows = (columnMm ** 2 * rises) / 6 + (jar.jarRadiusMm ** 2 * glass) / 2
  return down * (1 - own / centre ** 2) + ownGrows / centre
}

/**
 * The column of mercury whose centre of oscillation stays where it is, warm or cold.
 *
 * L = c + (h²/12 + r²/4)/c with c the depth of the column's middle; dL/dθ = 0 found by halving. Not the centre of mass
 * alone: its column would be a twentieth too short.
 *
 * @throws FieldError where no column in such a jar does it
 */
export function mercuryColumn(jar: MercuryJar): { columnMm: number; massG: number } {
  requirePositive('jarBottomMm', jar.jarBottomMm)
  requireWithin('rodAlphaPerMillion', jar.rodAlphaPerMillion, 0, 50)
  requirePositive('jarRadiusMm', jar.jarRadiusMm)
  if (jar.jarAlphaPerMillion !== undefined) requireWithin('jarAlphaPerMillion', jar.jarAlphaPerMillion, 0, 50)
  const step = jar.jarBottomMm / 400
  let low = 0
  let high = step
  while (mercurySinks(jar, high) > 0) {
    low = high
    high += step
    if (high > jar.jarBottomMm)
      throw new FieldError('rodAlphaPerMillion', jar.rodAlphaPerMillion, 'no column in such a jar makes up for it')
  }
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (mercurySinks(jar, middle) > 0) low = middle
    else high = middle
  }
  const columnMm = (low + high) / 2
  return { columnMm, massG: (MERCURY_G_PER_CM3 * Math.PI * jar.jarRadiusMm ** 2 * columnMm) / 1000 }
}
