import { blankPivot, type PivotChange, type StockChange } from '@treadle/contract'
import { demoId, type DemoApi } from './api.ts'
import { countTrain } from './arrivals.ts'
import { DRUM_GOING, DRUM_PLATES, DRUM_STRIKE } from './drumPlates.ts'
import { putRow } from './history.ts'
import { platePicture } from './pictures.ts'

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
]

/** The drawers, and the drum clock in pieces: plates set out, tested, some pivots done, one hole half bushed. */
export async function layDownMending(api: DemoApi, ago: (days: number) => Date, drum: string): Promise<void> {
  for (const one of STOCK) await api.at(ago(30), 'Ida Vos').send('PUT', `/stock/${one.id}`, one)

  api.at(ago(7), 'Rasmus Oake')
  await countTrain(api, drum, DRUM_GOING)
  await putRow(api, drum, 'trains', `train strike ${drum}`, {
    train: 'strike',
    arbors: DRUM_STRIKE.map(([name, pinion, wheel]) => ({ name, pinion, wheel })),
    hourly: null,
    escape: false,
    greatTurns: null,
    motion: null,
    faultPeriodS: null,
  })
  const photoId = demoId('photo drum plate')
  await api.sendBytes(
    `/jobs/${drum}/photos/${photoId}?caption=Front+plate`,
    'image/jpeg',
    await platePicture(DRUM_PLATES),
  )
  // 10 pixels to the millimetre, the plate's middle in the middle of the picture.
  const trueing = [0.1, 0, -80, 0, -0.1, 65, 0, 0, 1]
  await putRow(api, drum, 'plates', `plates ${drum}`, { ...DRUM_PLATES, photoId, trueing })

  const test = (arbor: string, arborIndex: number, rest: object) =>
    putRow(api.at(ago(1.2)), drum, 'arbor-tests', `test ${arbor}`, {
      train: 'going',
      arbor,
      arborIndex,
      endshakeMm: 0.3,
      binds: [],
      feel: 'smooth',
      tried: true,
      note: '',
      ...rest,
    })
  await test('Great wheel', 0, { endshakeMm: 0.45 })
  await test('Centre', 1, {})
  await test('Third arbor', 2, { feel: 'gritty', binds: ['dial up'] })

  const pivot = (arbor: string, arborIndex: number, plate: 'front' | 'back', rest: Partial<PivotChange>) =>
    putRow(api.at(ago(0.9)), drum, 'pivots', `pivot ${arbor} ${plate}`, {
      ...blankPivot(demoId(`pivot ${arbor} ${plate}`), { train: 'going', arbor, arborIndex, plate }),
      nail: 'smooth',
      shoulder: 'clean',
      ...rest,
    })
  await pivot('Third arbor', 2, 'front', { firstMm: 1.02, secondMm: 1.02, work: 'left', finishedMm: 1.02 })
  await pivot('Third arbor', 2, 'back', { firstMm: 1, secondMm: 0.99, nail: 'catches', grooveDepthMm: 0.03 })
  await pivot('Centre', 1, 'front', {
    firstMm: 1.75,
    secondMm: 1.75,
    work: 'polished',
    finishedMm: 1.74,
    nail: 'catches',
  })

  const front = demoId(`hole ${drum} going Third arbor front`)
  await putRow(api.at(ago(0.5)), drum, 'bushings', `bushing ${front}`, {
    holeId: front,
    method: 'hand',
    spoilt: false,
    source: 'stock',
    stockId: demoId(`stock bush ${JSON.stringify({ outsideMm: 2.02, insideMm: 1, lengthMm: 3, material: 'bronze' })}`),
    cutterMm: 2,
    outsideMm: 2.02,
    insideMm: 1,
    lengthMm: 3,
    pivotMm: 1.02,
    finishedMm: null,
    done: ['mark', 'reference', 'mask', 'centre'],
    note: '',
  })
}
