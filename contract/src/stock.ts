import { boolean, id, idOrNone, line, measured, only, ruled, string, text, version, type InferType } from './fields.ts'

export const STOCK_KINDS = [
  'bush',
  'cutter',
  'reamer',
  'rod',
  'pivot steel',
  'trundle wire',
  'mainspring',
  'suspension spring',
] as const
export type StockKind = (typeof STOCK_KINDS)[number]
export const STOCK_TITLES: Record<StockKind, string> = {
  bush: 'Bushes',
  cutter: 'Cutters',
  reamer: 'Reamers',
  rod: 'Rod',
  'pivot steel': 'Pivot steel',
  'trundle wire': 'Trundle wire',
  mainspring: 'Mainsprings',
  'suspension spring': 'Suspension springs',
}

const isSpring = (kind: string | undefined) => kind === 'mainspring' || kind === 'suspension spring'

type Sizes = {
  kind?: string
  outsideMm?: number | null
  insideMm?: number | null
  lengthMm?: number | null
  measuredMm?: number | null
  widthMm?: number | null
  thickMm?: number | null
}

/** One kind of thing in the drawers, by its sizes, mm. */
export const StockChange = ruled(
  only({
    id: id(),
    version: version(),
    kind: string().oneOf(STOCK_KINDS).required().label('Kind'),
    name: line(80).defined().label('Name'),
    material: line(40).defined().label('Material'),
    outsideMm: measured(0.05, 100).nullable().defined().label('Outside'),
    insideMm: measured(0.02, 100).nullable().defined().label('Inside'),
    lengthMm: measured(0.1, 5000).nullable().defined().label('Length'),
    /** cutters and reamers: as measured, not as stamped */
    measuredMm: measured(0.2, 60).nullable().defined().label('Measured'),
    /** springs: the strip's width and thickness */
    widthMm: measured(0.3, 200).nullable().defined().label('Width'),
    thickMm: measured(0.01, 5).nullable().defined().label('Thick'),
    count: measured(0, 1_000_000).integer().required().label('Count'),
    lowAt: measured(0, 1_000_000).integer().required().label('Low at'),
    drawer: line(40).defined().label('Drawer'),
  }),
  [
    'bush',
    'Bush: it needs its outside, inside and length',
    (s: Sizes) => s.kind !== 'bush' || (s.outsideMm != null && s.insideMm != null && s.lengthMm != null),
  ],
  [
    'hollow',
    'Inside: it must be smaller than the outside',
    (s: Sizes) => s.insideMm == null || s.outsideMm == null || s.insideMm < s.outsideMm,
  ],
  [
    'measured',
    'Measured: a cutter or reamer needs its measured size',
    (s: Sizes) => (s.kind !== 'cutter' && s.kind !== 'reamer') || s.measuredMm != null,
  ],
  [
    'across',
    'Outside: rod, steel and wire need how thick they are',
    (s: Sizes) => !['rod', 'pivot steel', 'trundle wire'].includes(s.kind ?? '') || s.outsideMm != null,
  ],
  [
    'strip',
    'Spring: it needs its width, how thick it is, and its length',
    (s: Sizes) => !isSpring(s.kind) || (s.widthMm != null && s.thickMm != null && s.lengthMm != null),
  ],
)
export type StockChange = InferType<typeof StockChange>
export type StockRow = StockChange & {
  /** of its count, how many are promised to jobs and not yet taken */
  reserved: number
}

/** Some of a thing promised to a job, and whether it has been taken out of the drawer. */
export const ReservationChange = only({
  id: id(),
  version: version(),
  stockId: id(),
  holeId: idOrNone(),
  count: measured(1, 1000).integer().required().label('Count'),
  taken: boolean().required(),
})
export type ReservationChange = InferType<typeof ReservationChange>
export type ReservationRow = ReservationChange & { jobId: string; at: string; who: string; whoId?: string | null }

/** A drawer list as text, to be looked at first or taken in. */
export const StockCsv = only({
  id: id(),
  csv: text(900_000).required().label('List'),
  keep: boolean().required(),
})
export type StockCsv = InferType<typeof StockCsv>

/** The cutters of the drawers by their measured size, smallest first, mm. */
export function cuttersOf(stock: Pick<StockChange, 'kind' | 'measuredMm' | 'count'>[]): number[] {
  return stock
    .flatMap((s) => (s.kind === 'cutter' && s.count > 0 && s.measuredMm !== null ? [s.measuredMm] : []))
    .sort((a, b) => a - b)
}

/** What a thing is called in a line: "Bush 2.02 × 1.00 × 3.00 mm, bronze". */
export function stockTitle(s: Omit<StockChange, 'id' | 'version' | 'count' | 'lowAt' | 'drawer'>): string {
  const sizes =
    s.kind === 'cutter' || s.kind === 'reamer'
      ? `${s.measuredMm?.toFixed(2) ?? '?'}`
      : (isSpring(s.kind) ? [s.widthMm, s.thickMm, s.lengthMm] : [s.outsideMm, s.insideMm, s.lengthMm])
          .flatMap((mm) => (mm === null ? [] : [mm.toFixed(2)]))
          .join(' × ')
  const kind = `${s.kind.charAt(0).toUpperCase()}${s.kind.slice(1)}`
  return [`${kind} ${sizes} mm`, s.material, s.name].filter((w) => w !== '').join(', ')
}

/** What a list would do to the drawers. */
export interface StockPreview {
  added: StockChange[]
  changed: { before: StockChange; after: StockChange }[]
  same: number
  wrong: { line: number; message: string }[]
}

/** A list that was taken in, or taken back. */
export interface StockImport {
  id: string
  added: number
  changed: number
}

/** A piece of the drawers that is promised to a hole of an open job, and not taken yet. */
export interface StockPromise {
  id: string
  stockId: string
  count: number
  jobId: string
  number: number
  clock: string
  /** none where the hole was taken off the list since */
  arbor: string | null
  plate: string | null
}
