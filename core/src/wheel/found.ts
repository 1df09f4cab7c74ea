import { requireCount, requirePositive, requireWithin } from '../check/require.ts'
import { opposite, type Turn } from '../train/directions.ts'

export const TOOTH_FAULTS = ['bent', 'short', 'worn', 'cracked', 'missing'] as const
export type ToothFault = (typeof TOOTH_FAULTS)[number]

export const WHEEL_PARTS = ['wheel', 'pinion', 'lantern'] as const
/** what of an arbor a sheet is of: its wheel, its cut pinion, or its lantern pinion */
export type WheelPart = (typeof WHEEL_PARTS)[number]

export const FLANKS = ['', 'none', 'working', 'other', 'both'] as const
/** which flanks are worn: nobody has looked, none, the one that works, the one behind it, both */
export type WornFlank = (typeof FLANKS)[number]

export const CLICK_STATES = ['', 'sound', 'bad'] as const
/** the click, the click spring or its rivet, as it was felt; empty: nobody has yet */
export type ClickState = (typeof CLICK_STATES)[number]

export interface ClickFound {
  /** the nose fits the ratchet tooth’s root and is not rounded */
  click: ClickState
  clickSpring: ClickState
  rivet: ClickState
}

/** What was found of a wheel or a pinion. */
export interface WheelFound {
  part: WheelPart
  faults: { tooth: number; fault: ToothFault }[]
  worn: WornFlank
  /** lantern: each trundle, mm; null: not gauged yet */
  trundlesMm: (number | null)[]
  shroud: ClickState
  /** cut pinion: how deep the wheel has grooved the leaves, mm */
  grooveMm: number | null
}

/**
 * Which flank of the teeth does the work, as the part turns: a wheel pushes with the side it turns towards, a pinion is
 * pushed on the side it turns away from. As seen from the front.
 */
export function workingFlank(turn: Turn, drives: boolean): Turn {
  return drives ? turn : opposite(turn)
}

/** Whether anything at all is said of it. */
export function isLookedAt(found: WheelFound): boolean {
  return (
    found.faults.length > 0 ||
    found.worn !== '' ||
    found.grooveMm !== null ||
    found.shroud !== '' ||
    found.trundlesMm.some((mm) => mm !== null)
  )
}

/** "2 bent, 1 missing" in the order of the kinds; empty where there is none. */
export function faultsInWords(faults: WheelFound['faults']): string {
  return TOOTH_FAULTS.flatMap((kind) => {
    const n = faults.filter((f) => f.fault === kind).length
    return n === 0 ? [] : [`${n} ${kind}`]
  }).join(', ')
}

export interface FreshTrack {
  /** leaf left beside the groove, towards the front and towards the back, mm */
  frontMm: number
  backMm: number
  /** which way the wheel, or the pinion under it, is moved to run on unworn leaf; null: neither side has room */
  way: 'front' | 'back' | null
  moveMm: number
}

/** Unworn leaf that has to be left beside the wheel on its new track, mm: a workshop rule. */
const BESIDE_MM = 0.2

/**
 * How wide a fresh track a grooved pinion still has, and how far the wheel moves to run on it, mm.
 *
 * @param leafMm - length of the leaves
 * @param grooveFromMm - where the groove begins, from the leaves’ front end
 * @param grooveToMm - where it ends
 * @param wheelMm - how thick the wheel is that runs in it
 */
export function freshTrack(leafMm: number, grooveFromMm: number, grooveToMm: number, wheelMm: number): FreshTrack {
  requirePositive('leafMm', leafMm)
  requireWithin('grooveFromMm', grooveFromMm, 0, leafMm)
  requireWithin('grooveToMm', grooveToMm, grooveFromMm, leafMm)
  requirePositive('wheelMm', wheelMm)
  const frontMm = grooveFromMm
  const backMm = leafMm - grooveToMm
  const room = wheelMm + BESIDE_MM
  const way = Math.max(frontMm, backMm) < room ? null : backMm >= frontMm ? 'back' : 'front'
  // The whole wheel beside the groove: by the groove's width, so that its nearer face leaves the farther edge.
  return { frontMm, backMm, way, moveMm: way === null ? 0 : (grooveToMm - grooveFromMm + wheelMm) / 2 + BESIDE_MM / 2 }
}

/** A tooth’s outline as drawn, from its root to the next: radius in mm and degrees after the tooth’s middle. */
export interface ToothPoint {
  mm: number
  deg: number
}

/**
 * The outline of one clock tooth at its true count and size, to draw the wheel by: about the shape of cycloidal teeth,
 * 2.7 modules of them over the pitch circle, an escape tooth pointed and leaning forward.
 *
 * @param outsideMm - across the tips
 * @param escape - pointed; leaning the way the wheel turns
 */
export function toothOutline(count: number, outsideMm: number, escape: Turn | null = null): ToothPoint[] {
  requireCount('count', count, 3, 1000)
  requirePositive('outsideMm', outsideMm)
  const tip = outsideMm / 2
  const space = 360 / count
  if (escape) {
    const lean = escape === 'clockwise' ? 1 : -1
    return [
      { mm: tip * 0.86, deg: -lean * space * 0.42 },
      { mm: tip, deg: 0 },
      { mm: tip * 0.86, deg: lean * space * -0.05 },
    ].sort((a, b) => a.deg - b.deg)
  }
  const m = outsideMm / (count + 2.7)
  const root = Math.max(0.05 * tip, tip - 3.1 * m)
  return [
    { mm: root, deg: -space * 0.25 },
    { mm: tip - 1.35 * m, deg: -space * 0.25 },
    { mm: tip - 0.4 * m, deg: -space * 0.14 },
    { mm: tip, deg: 0 },
    { mm: tip - 0.4 * m, deg: space * 0.14 },
    { mm: tip - 1.35 * m, deg: space * 0.25 },
    { mm: root, deg: space * 0.25 },
  ]
}
