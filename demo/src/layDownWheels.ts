import { blankDepthTrial, blankEscapement, blankSpringSheet, blankWheelSheet } from '@treadle/contract'
import { demoId, type DemoApi } from './api.ts'
import { putRow } from './history.ts'

/** The drum clock's wheels, springs and escapement, as they were found on the bench. */
export async function layDownWheels(api: DemoApi, ago: (days: number) => Date, drum: string): Promise<void> {
  api.at(ago(0.4), 'Ida Vos')
  const place = (train: string, arbor: string, arborIndex: number, part: 'wheel' | 'lantern') =>
    blankWheelSheet(demoId(`wheel ${drum} ${train} ${arbor}`), { train, arbor, arborIndex, part })
  const wheel = (row: ReturnType<typeof place>) =>
    putRow(api, drum, 'wheels', `wheel ${drum} ${row.train} ${row.arbor}`, row)

  // The great wheel of the going train is worn on the flank that works, and its click is sound.
  await wheel({
    ...place('going', 'Great wheel', 0, 'wheel'),
    count: 84,
    outsideMm: 65,
    boreMm: 6.4,
    thickMm: 2.2,
    worn: 'working',
    faults: [
      { tooth: 17, fault: 'worn' },
      { tooth: 18, fault: 'worn' },
      { tooth: 19, fault: 'worn' },
    ],
    click: 'sound',
    clickSpring: 'sound',
    rivet: 'sound',
    rivetMm: 2.4,
    arms: 4,
    armMm: 7,
    holes: [
      { name: 'click rivet', xMm: 11.3, yMm: 11.3, diameterMm: 2.4 },
      { name: 'spring wire', xMm: 16.5, yMm: 15.2, diameterMm: 1.2 },
    ],
  })
  // A lantern pinion of the strike, one trundle of which is worn thin.
  await wheel({
    ...place('strike', 'Pin wheel', 1, 'lantern'),
    count: 8,
    trundlesMm: [1.2, 1.2, 1.21, 1.2, 1.14, 1.2, 1.21, 1.2],
    shroud: 'sound',
  })

  // The escape wheel has two bent teeth and one that is short.
  await putRow(api, drum, 'escapements', `escapement ${drum}`, {
    ...blankEscapement(demoId(`escapement ${drum}`)),
    kind: 'recoil',
    teeth: 30,
    tipRadiusMm: 15,
    centreDistanceMm: 21.1,
    acrossMm: 20.62,
    spannedSpaces: 7.5,
    palletMm: 1.2,
    liftDeg: 4.8,
    swingDeg: 5,
    bent: [10, 23],
    tipRadiiMm: Array.from({ length: 30 }, (_, i) => (i === 15 ? 14.91 : i % 4 === 0 ? 14.99 : 15)),
    grooveEntryMm: 0.04,
    grooveExitMm: 0.02,
  })

  const spring = blankSpringSheet(demoId(`spring ${drum} strike`), 'strike')
  await putRow(api, drum, 'springs', `spring ${drum} strike`, {
    ...spring,
    widthMm: 16,
    innerMm: 0.34,
    middleMm: 0.34,
    outerMm: 0.34,
    lengthMm: 1250,
    barrelInsideMm: 36,
    barrelHeightMm: 17,
    arborMm: 11,
    turnsUsed: 5,
    end: 'hole',
    holeEnd: 'sound',
    rust: true,
  })

  const depth = blankDepthTrial(demoId(`depth ${drum}`), { train: 'going', arbor: 'Third arbor', arborIndex: 2 })
  await putRow(api, drum, 'depths', `depth ${drum}`, {
    ...depth,
    runnerMm: 6,
    trials: [
      { acrossMm: 31.17, feel: 'click' },
      { acrossMm: 31.14, feel: 'smooth' },
      { acrossMm: 31.11, feel: 'smooth' },
      { acrossMm: 31.08, feel: '' },
      { acrossMm: 31.05, feel: '' },
    ],
  })
}
