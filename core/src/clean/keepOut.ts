import type { BathKind } from './recipes.ts'

/** What a part is made of, as a workshop says it. */
export const MATERIALS = [
  'brass',
  'bronze',
  'steel',
  'iron',
  'mainspring',
  'glass',
  'wood',
  'paper',
  'leather',
  'bone',
  'ivory',
  'shellac or glue',
  'textile or line',
  'plastic',
  'aluminium or zinc',
  'lead',
  'mercury',
  'platform escapement',
  'radium dial',
] as const
export type Material = (typeof MATERIALS)[number]

export const FINISHES = [
  'bare',
  'polished',
  'lacquered',
  'gilt',
  'silvered',
  'painted',
  'plated',
  'blued',
  'rusty',
] as const
export type Finish = (typeof FINISHES)[number]

const WATER: BathKind[] = ['ammoniated', 'non-ammoniated', 'chelating']

/** Why a material must stay out of every bath; those not named may go in one. */
const NEVER: Partial<Record<Material, string>> = {
  wood: 'wood swells and its glue lets go: wipe it dry',
  paper: 'paper is lost in any bath: dust it with a soft brush',
  leather: 'leather hardens and shrinks: keep it dry',
  bone: 'bone cracks and takes up the bath: wipe it dry',
  ivory: 'ivory cracks and takes up the bath: wipe it dry',
  'shellac or glue': 'shellac and glue let go in it: clean round it by hand',
  'textile or line': 'line and cloth hold the bath and rot: replace or brush',
  plastic: 'plastic may cloud or crack: wipe with a damp cloth',
  mercury: 'a mercury jar is never bathed: stop, its own procedure first',
  'platform escapement': 'a platform escapement has its own procedure, as a watch has',
  'radium dial': 'a luminous dial may hold radium: do not wet, scrape or sand it; ask for advice',
}

const ONLY_KIND: Partial<Record<Material, (kind: BathKind) => string | null>> = {
  mainspring: (kind) =>
    kind === 'spirit' ? null : 'a mainspring rusts in water: wipe it with spirit, dry it and oil it',
  'aluminium or zinc': (kind) =>
    kind === 'ammoniated' || kind === 'chelating' ? 'aluminium and zinc are eaten by it' : null,
  lead: (kind) => (WATER.includes(kind) ? 'lead is poisonous and fouls the bath: wipe it with gloves on' : null),
  brass: (kind) => (kind === 'chelating' ? 'the rust bath is for steel and iron; it dulls brass' : null),
  bronze: (kind) => (kind === 'chelating' ? 'the rust bath is for steel and iron; it dulls bronze' : null),
  glass: () => null,
  steel: () => null,
  iron: () => null,
}

/** Why a finish must stay out of a bath, or null where it may go in. */
function finishOut(finish: Finish, kind: BathKind): string | null {
  switch (finish) {
    case 'silvered':
      return 'silvering is a skin that any bath takes off'
    case 'painted':
      return 'paint lifts: dust it, and leave the rest to a dial painter'
    case 'gilt':
      return 'gilding is thin and may have lacquer over it: soft brush and clean water by hand'
    case 'lacquered':
      return kind === 'ammoniated' || kind === 'spirit' ? 'it strips old lacquer' : null
    case 'plated':
      return kind === 'ammoniated' || kind === 'chelating' ? 'it lifts worn plating' : null
    case 'blued':
      return kind === 'chelating' ? 'the rust bath takes bluing off' : null
    default:
      return null
  }
}

/** Why this part must stay out of a bath of this kind, in a sentence; null where it may go in. */
export function keepOut(material: Material, finish: Finish, kind: BathKind): string | null {
  return NEVER[material] ?? finishOut(finish, kind) ?? ONLY_KIND[material]?.(kind) ?? null
}
