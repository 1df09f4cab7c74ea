import type { StockChange } from '@treadle/contract'
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

/** What the demo's drawers hold. */
const STOCK: StockChange[] = [
  ...[1.6, 1.8, 2, 2.3, 2.7, 3, 3.5, 4, 5].map((mm) =>
    item('cutter', { measuredMm: mm, widthMm: null, thickMm: null, name: `stamped ${mm.toFixed(1)}` }, 1, 0, 'C1'),
  ),
  item('reamer', { measuredMm: 2.01, widthMm: null, thickMm: null, name: 'stamped 2.0' }, 1, 0, 'C2'),
  item('reamer', { measuredMm: 3.02, widthMm: null, thickMm: null, name: 'stamped 3.0' }, 1, 0, 'C2'),
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
]

/** Fills the drawers. */
export async function layDownDrawers(api: DemoApi, ago: (days: number) => Date): Promise<void> {
  for (const one of STOCK) await api.at(ago(30), 'Ida Vos').send('PUT', `/stock/${one.id}`, one)
}
