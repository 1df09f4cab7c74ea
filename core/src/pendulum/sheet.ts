import { FieldError, requirePositive } from '../check/require.ts'
import type { HoldsAt, PendulumPart } from './compound.ts'
import { MERCURY_PER_MILLION } from './compensation.ts'
import type { BobShape, SheetPartKind } from './kinds.ts'
import { MATERIAL_FACTS, type PendulumMaterial } from './materials.ts'

/**
 * A part as one finds it on the bench. What a kind has no use for is null.
 *
 * Depths are below the point at which the suspension leaves its cock, mm.
 */
export interface SheetPart {
  kind: SheetPartKind
  /** of a bob */
  shape: BobShape | null
  material: PendulumMaterial
  /** weighed; null: from its size and what it is made of */
  massG: number | null
  /** depth of its middle: of a jar the bottom inside, of a sleeve and a gridiron not said (they stand under the bob and beside the rod) */
  atMm: number | null
  /** along the pendulum: of a rod, cylinder, sleeve; of a gridiron each pair that rises; of a jar what stands in it */
  lengthMm: number | null
  /** of a round thing; of a jar inside */
  acrossMm: number | null
  /** of a disc or lens; of a flat rod; of the wall of a jar or sleeve */
  thickMm: number | null
  /** of a gridiron: pairs of rising rods */
  pairs: number | null
  /** the point of a bob that rests on the rod */
  holdsAt: HoldsAt | null
  /** where it is better known than by the material, millionths a degree */
  alphaPerMillion: number | null
}

/** A part as it swings, and which one of the sheet it is. */
export interface SheetBody extends PendulumPart {
  of: number
}

const CM3 = 1000
/** A rod of a gridiron that rises, and its wall where nothing is said of them, mm. */
const GRID_ACROSS = 6
const SLEEVE_WALL = 1.5

/** The rod that carries the rest; throws FieldError where there is none. */
export function rodOf(parts: readonly SheetPart[]): SheetPart {
  const rod = parts.find((p) => p.kind === 'rod')
  if (!rod) throw new FieldError('parts', parts.length, 'a pendulum needs its rod')
  return rod
}

export function alphaOf({ alphaPerMillion, material }: SheetPart): number {
  return alphaPerMillion ?? MATERIAL_FACTS[material].alphaPerMillion
}

/**
 * The parts of a pendulum as bodies that swing, grow with warmth, and rise with the nut.
 *
 * A jar is two bodies, its glass and what stands in it; a gridiron is its pairs: a steel pair hangs, the rising pair
 * stands on its foot, and so on; the rod itself hangs from the last and carries the bob. A sleeve stands on the nut and
 * the bob on it.
 *
 * @throws FieldError naming the part (parts[i].…) and what of it is missing
 */
export function bodiesOf(parts: readonly SheetPart[]): SheetBody[] {
  const rod = rodOf(parts)
  const rodAlpha = alphaOf(rod)
  const grid = riseOf(
    parts.filter((p) => p.kind === 'gridiron'),
    rodAlpha,
  )
  const all = riseOf(
    parts.filter((p) => p.kind === 'gridiron' || p.kind === 'sleeve'),
    rodAlpha,
  )
  return parts.flatMap((part, of): SheetBody[] => {
    const need = (field: 'atMm' | 'lengthMm' | 'acrossMm' | 'thickMm' | 'pairs'): number => {
      const value = part[field]
      if (value === null) throw new FieldError(`parts[${of}].${field}`, undefined, 'it is needed')
      requirePositive(`parts[${of}].${field}`, value)
      return value
    }
    const { density } = MATERIAL_FACTS[part.material]
    /** the mass that was weighed, or that of so many mm³ */
    const mass = (volume: () => number) => part.massG ?? (volume() * density) / CM3
    const alphaPerMillion = alphaOf(part)
    const across = () => need('acrossMm')
    switch (part.kind) {
      case 'rod': {
        const lengthMm = need('lengthMm')
        const section = () => (part.thickMm === null ? round(across()) : across() * part.thickMm)
        return [
          {
            of,
            shape: 'rod',
            massG: mass(() => section() * lengthMm),
            centreMm: need('atMm'),
            lengthMm,
            alphaPerMillion,
            holdsAt: 'top',
            ...grid,
          },
        ]
      }
      case 'bob': {
        const centreMm = need('atMm')
        const d = need('acrossMm')
        const shape = part.shape ?? 'disc'
        const common = {
          of,
          centreMm,
          moves: true,
          alphaPerMillion,
          holdsAt: part.holdsAt ?? ('centre' as const),
          ...all,
        }
        switch (shape) {
          case 'disc':
            return [{ ...common, shape, massG: mass(() => round(d) * need('thickMm')), radiusMm: d / 2 }]
          case 'lens':
            return [{ ...common, shape, massG: mass(() => (round(d) * need('thickMm')) / 2), radiusMm: d / 2 }]
          case 'cylinder': {
            const lengthMm = need('lengthMm')
            return [{ ...common, shape, massG: mass(() => round(d) * lengthMm), radiusMm: d / 2, lengthMm }]
          }
          case 'ball':
            return [{ ...common, shape, massG: mass(() => (Math.PI / 6) * d ** 3), radiusMm: d / 2 }]
        }
        return []
      }
      case 'nut':
        return [
          {
            of,
            shape: 'point',
            massG: mass(() => round(across()) * need('lengthMm')),
            centreMm: need('atMm'),
            moves: true,
            alphaPerMillion,
            ...grid,
          },
        ]
      case 'jar':
        return jarOf(part, of, need, grid)
      case 'sleeve': {
        const lengthMm = need('lengthMm')
        const top = restOfBob(parts)
        const outer = part.acrossMm ?? (rod.acrossMm ?? GRID_ACROSS) + 2 * (part.thickMm ?? SLEEVE_WALL)
        const inner = Math.max(0, outer - 2 * (part.thickMm ?? SLEEVE_WALL))
        return [
          {
            of,
            shape: 'rod',
            massG: mass(() => (round(outer) - round(inner)) * lengthMm),
            centreMm: top + lengthMm / 2,
            lengthMm,
            moves: true,
            alphaPerMillion,
            holdsAt: 'bottom',
            ...grid,
          },
        ]
      }
      case 'gridiron':
        return gridOf(part, of, need, rod, rodAlpha)
      case 'tray':
      case 'weight': {
        const massG = part.massG
        if (massG === null) throw new FieldError(`parts[${of}].massG`, undefined, 'it is needed')
        return [{ of, shape: 'point', massG, centreMm: need('atMm'), alphaPerMillion }]
      }
    }
  })
}

type Need = (field: 'atMm' | 'lengthMm' | 'acrossMm' | 'thickMm' | 'pairs') => number
type Carried = Pick<PendulumPart, 'riseMm' | 'riseAlphaPerMillion'>

/** What stands between the rod's foot and what is carried: lengths and how they grow, taken together. */
function riseOf(rising: SheetPart[], rodAlpha: number): Carried {
  const each = rising.map((p) => ({
    mm: (p.lengthMm ?? 0) * (p.kind === 'gridiron' ? (p.pairs ?? 0) : 1),
    alpha: alphaOf(p),
  }))
  const riseMm = each.reduce((sum, r) => sum + r.mm, 0)
  if (riseMm <= 0) return {}
  return {
    riseMm,
    riseAlphaPerMillion: each.reduce((sum, r) => sum + r.mm * r.alpha, 0) / riseMm || rodAlpha,
  }
}

/** Depth at which the bob rests: on the rod, or on the sleeve. */
export function restOfBob(parts: readonly SheetPart[]): number {
  const bob = parts.find((p) => p.kind === 'bob')
  if (!bob || bob.atMm === null) throw new FieldError('parts', parts.length, 'a sleeve needs the bob that stands on it')
  const half = (bob.shape === 'cylinder' ? (bob.lengthMm ?? 0) : (bob.acrossMm ?? 0)) / 2
  return bob.atMm + (bob.holdsAt === 'bottom' ? half : bob.holdsAt === 'top' ? -half : 0)
}

/** A jar with what stands in it: mercury rises by its own growth less that of the glass about it. */
function jarOf(part: SheetPart, of: number, need: Need, grid: Carried): SheetBody[] {
  const bottom = need('atMm')
  const column = need('lengthMm')
  const inside = need('acrossMm') / 2
  const wall = part.thickMm ?? 2
  const glass = part.alphaPerMillion ?? MATERIAL_FACTS.glass.alphaPerMillion
  const high = column * 1.15
  const { density, alphaPerMillion } = MATERIAL_FACTS[part.material]
  const fills = part.massG ?? (Math.PI * inside ** 2 * column * density) / CM3
  const outer = inside + wall
  const glassG =
    (MATERIAL_FACTS.glass.density * Math.PI * ((outer ** 2 - inside ** 2) * high + outer ** 2 * wall)) / CM3
  return [
    {
      of,
      shape: 'cylinder',
      massG: glassG,
      centreMm: bottom - high / 2,
      lengthMm: high,
      radiusMm: outer,
      moves: true,
      alphaPerMillion: glass,
      holdsAt: 'bottom',
      ...grid,
    },
    {
      of,
      shape: 'cylinder',
      massG: fills,
      centreMm: bottom - column / 2,
      lengthMm: column,
      radiusMm: inside,
      moves: true,
      alphaPerMillion: part.material === 'mercury' ? MERCURY_PER_MILLION - 2 * glass : alphaPerMillion,
      acrossAlphaPerMillion: glass,
      holdsAt: 'bottom',
      ...grid,
    },
  ]
}

/** The pairs of a gridiron but for the rod in its middle, which is the rod of the sheet. */
function gridOf(part: SheetPart, of: number, need: Need, rod: SheetPart, rodAlpha: number): SheetBody[] {
  const pairs = need('pairs')
  const lengthMm = need('lengthMm')
  const section = round(part.acrossMm ?? GRID_ACROSS)
  const top = (rod.atMm ?? 0) - (rod.lengthMm ?? 0) / 2
  const alpha = alphaOf(part)
  const massOf = (material: PendulumMaterial) => (2 * section * lengthMm * MATERIAL_FACTS[material].density) / CM3
  return Array.from({ length: pairs }, (_, k): SheetBody[] => {
    const carried: Carried = k === 0 ? {} : { riseMm: k * lengthMm, riseAlphaPerMillion: alpha }
    const centreMm = top + lengthMm / 2
    const hung = part.massG === null ? massOf(rod.material) : part.massG / (2 * pairs)
    const standing = part.massG === null ? massOf(part.material) : part.massG / (2 * pairs)
    return [
      { of, shape: 'rod', massG: hung, centreMm, lengthMm, alphaPerMillion: rodAlpha, holdsAt: 'top', ...carried },
      { of, shape: 'rod', massG: standing, centreMm, lengthMm, alphaPerMillion: alpha, holdsAt: 'bottom', ...carried },
    ]
  }).flat()
}

function round(across: number): number {
  return (Math.PI / 4) * across ** 2
}
