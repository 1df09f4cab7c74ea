import { blankPivot, type PivotChange } from '@treadle/contract'
import { demoId, type DemoApi } from './api.ts'
import { countTrain } from './arrivals.ts'
import { DRUM_GOING, DRUM_PLATES, DRUM_STRIKE } from './drumPlates.ts'
import { putRow } from './history.ts'
import { platePicture } from './pictures.ts'

/** The drum clock in pieces: plates set out, tested, some pivots done, one hole half bushed. */
export async function layDownPlates(api: DemoApi, ago: (days: number) => Date, drum: string): Promise<void> {
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
