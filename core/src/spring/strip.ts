import { FieldError } from '../check/require.ts'
import { unlessRefused } from '../check/unlessRefused.ts'
import { springEnergy, type Mainspring, type SpringEnergy } from './energy.ts'

/** A mainspring out of its barrel, mm. */
export type Strip = Pick<Mainspring, 'widthMm' | 'thicknessMm' | 'lengthMm'>
/** What it goes into: by diameters, mm. */
export type Barrel = Pick<Mainspring, 'barrelInsideMm' | 'arborMm'>

/** How strong a strip is turn for turn, while it is elastic: width × thickness³ / length, for comparing only. */
export function turnStrength({ widthMm, thicknessMm, lengthMm }: Strip): number {
  return (widthMm * thicknessMm ** 3) / lengthMm
}

/** How much stronger one strip is than another at the same turns, %; below 0 weaker. */
export function strongerPercent(strip: Strip, than: Strip): number {
  return 100 * (turnStrength(strip) / turnStrength(than) - 1)
}

/** The share of a barrel’s free area, between its wall and its arbor, that a strip takes, %. */
export function fillPercent(strip: Strip, { barrelInsideMm, arborMm }: Barrel): number {
  const free = (Math.PI * (barrelInsideMm ** 2 - arborMm ** 2)) / 4
  return (100 * strip.lengthMm * strip.thicknessMm) / free
}

/** What a strip does in a barrel, or why it does not go in. */
export function inBarrel(strip: Strip, barrel: Barrel): SpringEnergy | FieldError {
  return unlessRefused(() => springEnergy({ ...strip, ...barrel }))
}

/** The strip’s length from coils counted while it lies run down against the barrel’s wall, mm. */
export function lengthFromCoils(coils: number, thicknessMm: number, barrelInsideMm: number): number {
  const inner = barrelInsideMm / 2 - coils * thicknessMm
  if (!(inner > 0)) throw new FieldError('coils', coils, 'so many would fill the barrel to its middle')
  return (Math.PI * ((barrelInsideMm / 2) ** 2 - inner ** 2)) / thicknessMm
}

/** Radii between which the coils lie, mm: round the arbor when wound, against the wall when run down. */
export function coilsLie({ lengthMm, thicknessMm }: Strip, { barrelInsideMm, arborMm }: Barrel) {
  const area = (lengthMm * thicknessMm) / Math.PI
  const r = arborMm / 2
  const R = barrelInsideMm / 2
  const wound = Math.sqrt(r * r + area)
  const runDown = Math.sqrt(Math.max(0, R * R - area))
  return {
    wound: { fromMm: r, toMm: wound, coils: (wound - r) / thicknessMm },
    runDown: { fromMm: runDown, toMm: R, coils: (R - runDown) / thicknessMm },
  }
}

/** Torque of a strip in its barrel from run down to fully wound, N·mm, at so many places; none where it does not go in. */
export function torqueCurve(strip: Strip, barrel: Barrel, places = 25): { turns: number; torqueNmm: number }[] {
  const all = inBarrel(strip, barrel)
  if (all instanceof FieldError) return []
  return Array.from({ length: places }, (_, i) => {
    const turns = (all.turnsAvailable * i) / (places - 1)
    if (i === 0) return { turns, torqueNmm: all.torqueRunDownNmm }
    return { turns, torqueNmm: springEnergy({ ...strip, ...barrel }, turns).torqueNmm }
  })
}
