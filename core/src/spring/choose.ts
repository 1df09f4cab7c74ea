import { FieldError, requirePositive } from '../check/require.ts'
import { checkStrip, ofOld, SPRING_LIMITS } from './compare.ts'
import { inBarrel, strongerPercent, type Barrel, type Strip } from './strip.ts'

export interface StockedSpring extends Strip {
  id: string
  count: number
}

export interface SpringChoice {
  choice: string | null
  /** ids, the nearest in strength first */
  fits: string[]
  whyNot: { id: string; why: string }[]
}

/** Of the old spring’s turns a replacement needs this share, where nobody says how many are needed. */
const TURNS_SHARE = 0.9
const GRACE = 1e-9

/**
 * The spring of the drawers that replaces an old one best, and why each other does not.
 *
 * One fits that is no wider than the barrel is high inside (than the old one where that is not told), −15 to +10 % as
 * strong turn for turn, has the turns needed (nine tenths of the old one’s where not told), goes into the barrel, and is
 * there.
 *
 * @throws FieldError where the old spring can’t have been in this barrel, or a figure can’t be
 */
export function chooseMainspring(
  barrel: Barrel & { barrelHeightMm?: number | null },
  old: Strip,
  stock: StockedSpring[],
  turnsNeeded?: number | null,
): SpringChoice {
  checkStrip('old', old)
  if (barrel.barrelHeightMm != null) requirePositive('barrelHeightMm', barrel.barrelHeightMm)
  if (turnsNeeded != null) requirePositive('turnsNeeded', turnsNeeded)
  const was = inBarrel(old, barrel)
  if (was instanceof FieldError) throw ofOld(was)
  const widest = barrel.barrelHeightMm ?? old.widthMm
  const turns = turnsNeeded ?? TURNS_SHARE * was.turnsAvailable
  const whyNot: SpringChoice['whyNot'] = []
  const fits: { id: string; apart: number }[] = []
  stock.forEach((spring, i) => {
    checkStrip(`stock[${i}]`, spring)
    const why = whyNotThis(spring, barrel, old, widest, turns)
    if (why === null) fits.push({ id: spring.id, apart: Math.abs(strongerPercent(spring, old)) })
    else whyNot.push({ id: spring.id, why })
  })
  fits.sort((a, b) => a.apart - b.apart)
  return { choice: fits[0]?.id ?? null, fits: fits.map((f) => f.id), whyNot }
}

function whyNotThis(spring: StockedSpring, barrel: Barrel, old: Strip, widest: number, turns: number): string | null {
  if (!(spring.count > 0)) return 'None is left.'
  if (spring.widthMm > widest + GRACE) return `It is ${spring.widthMm} mm wide; at most ${widest} mm goes in.`
  const there = inBarrel(spring, barrel)
  if (there instanceof FieldError) return `It does not go into the barrel: ${there.allowed}.`
  const by = strongerPercent(spring, old)
  if (by > SPRING_LIMITS.strongerPercent + GRACE) return `It is ${by.toFixed(0)} % too strong.`
  if (by < -SPRING_LIMITS.weakerPercent - GRACE) return `It is ${(-by).toFixed(0)} % too weak.`
  if (there.turnsAvailable < turns - GRACE)
    return `It has ${there.turnsAvailable.toFixed(1)} turns; ${turns.toFixed(1)} are needed.`
  return null
}
