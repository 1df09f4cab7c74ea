import { blankDonor, blankTool, type DonorChange, type StockChange, type ToolChange } from '@treadle/contract'
import { demoId, type DemoApi } from './api.ts'

const item = (
  kind: StockChange['kind'],
  sizes: Partial<StockChange>,
  count: number,
  lowAt: number,
  drawer: string,
): StockChange => ({
  id: demoId(`stock ${kind} ${JSON.stringify(sizes)}`),
  version: 0,
  kind,
  name: '',
  material: '',
  outsideMm: null,
  insideMm: null,
  lengthMm: null,
  measuredMm: null,
  widthMm: null,
  thickMm: null,
  ...sizes,
  count,
  lowAt,
  drawer,
})

const bush = (outsideMm: number, insideMm: number, lengthMm: number, count: number): StockChange =>
  item('bush', { outsideMm, insideMm, lengthMm, material: 'bronze' }, count, 2, 'B2')

const strip = (
  kind: 'mainspring' | 'suspension spring',
  widthMm: number,
  thickMm: number,
  lengthMm: number,
  n: number,
) => item(kind, { widthMm, thickMm, lengthMm, material: 'steel' }, n, 1, 'S1')

/** Used parts out of movements that were scrapped. */
const DONORS: [kind: DonorChange['kind'], count: number | null, part: Partial<DonorChange>][] = [
  ['wheel', 84, { moduleMm: 0.75, outsideMm: 65, boreMm: 6.4, from: 'a drum movement, burnt', drawer: 'D1' }],
  ['wheel', 84, { moduleMm: 0.76, outsideMm: 65.9, boreMm: 7, from: 'a wall movement', drawer: 'D1' }],
  ['wheel', 75, { moduleMm: 0.62, outsideMm: 48.2, boreMm: 4, from: 'a drum movement, burnt', drawer: 'D1' }],
  ['wheel', 72, { moduleMm: 0.55, outsideMm: 41, from: 'a shelf clock', drawer: 'D2' }],
  ['pinion', 8, { moduleMm: 0.6, arborMm: 2.4, from: 'a shelf clock', drawer: 'D2' }],
  ['escape wheel', 30, { outsideMm: 29.8, boreMm: 2.2, from: 'a wall movement', drawer: 'D3' }],
  ['platform', null, { outsideMm: 32, from: 'a carriage movement', drawer: 'D4' }],
]

/** A beginner's set of files, and what comes after them. */
const TOOLS: Partial<ToolChange>[] = [
  { shape: 'hand', cut: '0', lengthMm: 150, widthMm: 16, keptFor: 'brass' },
  { shape: 'hand', cut: '2', lengthMm: 150, widthMm: 16, keptFor: 'brass' },
  { shape: 'hand', cut: '2', lengthMm: 150, widthMm: 14, keptFor: 'steel', worn: 'worn' },
  { shape: 'hand', cut: '4', lengthMm: 150, widthMm: 14, keptFor: 'both' },
  { shape: 'barrette', cut: '2', lengthMm: 120, widthMm: 8, keptFor: 'both' },
  { shape: 'three-square', cut: '2', lengthMm: 120, widthMm: 7, keptFor: 'both' },
  { shape: 'half-round', cut: '2', lengthMm: 150, widthMm: 12, keptFor: 'brass' },
  { shape: 'round', cut: '2', lengthMm: 120, widthMm: 3, keptFor: 'both' },
  { shape: 'hand', cut: '2', lengthMm: 150, widthMm: 12, keptFor: 'steel', hard: true, name: 'for hard steel' },
]

/** What the demo's drawers hold. */
const STOCK: StockChange[] = [
  ...[1.6, 1.8, 2, 2.3, 2.7, 3, 3.5, 4, 5].map((mm) =>
    item('cutter', { measuredMm: mm, name: `stamped ${mm.toFixed(1)}` }, 1, 0, 'C1'),
  ),
  item('reamer', { measuredMm: 2.01, name: 'stamped 2.0' }, 1, 0, 'C2'),
  item('reamer', { measuredMm: 3.02, name: 'stamped 3.0' }, 1, 0, 'C2'),
  bush(1.82, 0.75, 2.5, 4),
  bush(2.02, 0.95, 2.5, 6),
  bush(2.02, 1, 3, 1),
  bush(2.32, 1, 2.5, 3),
  bush(2.72, 1.6, 2.5, 2),
  bush(3.52, 2.3, 3, 5),
  item('rod', { outsideMm: 3, lengthMm: 300, material: 'bronze' }, 2, 1, 'R'),
  item('rod', { outsideMm: 5, lengthMm: 250, material: 'bronze' }, 1, 1, 'R'),
  item('pivot steel', { outsideMm: 1.25, lengthMm: 200 }, 4, 1, 'R'),
  item('trundle wire', { outsideMm: 1.1, lengthMm: 500 }, 3, 1, 'R'),
  item('trundle wire', { outsideMm: 1.21, lengthMm: 500 }, 2, 1, 'R'),
  strip('mainspring', 16, 0.34, 1250, 1),
  strip('mainspring', 16, 0.36, 1300, 2),
  strip('mainspring', 15, 0.34, 1200, 1),
  strip('mainspring', 19, 0.4, 1700, 1),
  strip('suspension spring', 5, 0.1, 22, 6),
]

/** Fills the drawers. */
export async function layDownDrawers(api: DemoApi, ago: (days: number) => Date): Promise<void> {
  api.at(ago(30), 'Ida Vos')
  for (const one of STOCK) await api.send('PUT', `/stock/${one.id}`, one)
  for (const [kind, count, part] of DONORS) {
    const id = demoId(`donor ${kind} ${count ?? ''} ${part.moduleMm ?? ''} ${part.outsideMm ?? ''}`)
    await api.send('PUT', `/donors/${id}`, { ...blankDonor(id), kind, count, ...part })
  }
  for (const [i, part] of TOOLS.entries()) {
    const id = demoId(`file ${i}`)
    await api.send('PUT', `/tools/${id}`, { ...blankTool(id, 'file'), drawer: 'F1', ...part })
  }
  for (const grit of [800, 2000]) {
    const id = demoId(`paper ${grit}`)
    await api.send('PUT', `/tools/${id}`, { ...blankTool(id, 'abrasive'), name: 'paper', grit, drawer: 'F2' })
  }
  const stone = demoId('stone 1000')
  await api.send('PUT', `/tools/${stone}`, {
    ...blankTool(stone, 'stone'),
    name: 'fine stone',
    grit: 1000,
    drawer: 'F2',
  })
}
