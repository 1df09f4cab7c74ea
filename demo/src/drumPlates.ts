import type { PlacedArbor, PlateMapChange } from '@treadle/contract'

type Place = [name: string, x: number, y: number, role?: PlacedArbor['role'], moduleMm?: number]

const GOING: Place[] = [
  ['Great wheel', 20, -27.65],
  ['Centre', 0, 0, 'other', 0.75],
  ['Third arbor', 16.5, 18.93, 'other', 0.62],
  ['Escape arbor', -0.9, 27.7, 'escape'],
  ['Pallet arbor', -0.9, 41, 'pallet'],
]
const STRIKE: Place[] = [
  ['Great wheel', -23, -27],
  ['Pin wheel', -31, 4],
  ['Locking arbor', -22, 24],
  ['Warning arbor', -31, 37],
  ['Fly', -16, 47],
]

const placed = (train: PlacedArbor['train'], list: Place[]): PlacedArbor[] =>
  list.map(([name, xMm, yMm, role = 'other', moduleMm], index) => ({
    train,
    name,
    index,
    role,
    xMm,
    yMm,
    pinionAt: index % 2 === 0 ? 0.7 : 0.35,
    wheelAt: index % 2 === 0 ? 0.35 : 0.65,
    frontMm: 2.4,
    backMm: 2.4,
    cock: role === 'pallet' ? 'back' : '',
    moduleMm: moduleMm ?? null,
  }))

/** The drum clock's plates: round, with both trains side by side. */
export const DRUM_PLATES: Omit<PlateMapChange, 'id' | 'version'> = {
  arbors: [...placed('going', GOING), ...placed('strike', STRIKE)],
  fixtures: [
    [-52, 12],
    [50, 14],
    [37, -42],
    [-40, -42],
  ].map(([x, y], i) => ({
    name: `Pillar ${i + 1}`,
    kind: 'pillar' as const,
    plate: 'both' as const,
    xMm: x ?? 0,
    yMm: y ?? 0,
    diameterMm: 6,
  })),
  edge: Array.from({ length: 36 }, (_, i) => ({
    xMm: Math.round(620 * Math.sin((i * Math.PI) / 18)) / 10,
    yMm: Math.round(620 * Math.cos((i * Math.PI) / 18)) / 10,
  })),
  betweenMm: 34,
  photoId: null,
  trueing: null,
  note: '',
}

/** Counts of its trains: pinion and wheel of each arbor, great wheel up. */
export const DRUM_GOING: [name: string, pinion: number | null, wheel: number | null][] = [
  ['Great wheel', null, 84],
  ['Centre', 7, 75],
  ['Third arbor', 6, 72],
  ['Escape arbor', 6, 30],
]
export const DRUM_STRIKE: [name: string, pinion: number | null, wheel: number | null][] = [
  ['Great wheel', null, 78],
  ['Pin wheel', 8, 64],
  ['Locking arbor', 8, 56],
  ['Warning arbor', 7, 49],
  ['Fly', 7, null],
]
