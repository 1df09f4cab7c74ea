import { escapementAction, escapeTopping } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only } from './fields.ts'

const outline = (label: string) =>
  array(only({ xMm: number().required(), yMm: number().required() }))
    .required()
    .label(label)

const pointsOf = (pairs: [number, number][]) => pairs.map(([xMm, yMm]) => ({ xMm, yMm }))

/** Calculations of escapements. */
export const ESCAPEMENT: Calculation[] = [
  calculation({
    name: 'escape.topping',
    title: 'Topping an escape wheel',
    about: 'What comes off each tooth to make all as long as the shortest, and how much nearer the pallets go.',
    input: only({
      tipRadiiMm: array(number().required()).required().label('Tips from the arbor'),
      spannedSpaces: figure('Spaces spanned'),
    }),
    fields: {
      tipRadiiMm: {
        unit: 'mm, in their order',
        example: [18, 18, 17.95, 18, 18, 17.99, 18, 18, 18, 18, 18, 18, 18, 18, 18],
      },
      spannedSpaces: { unit: 'spaces', example: 3.5, note: 'without it nothing is said of the pallets' },
    },
    output: { toRadiusMm: 'mm', takeOffMm: 'mm, each', mostMm: 'mm', palletsNearerMm: 'mm, or null' },
    run: (i) => ({ ...escapeTopping(i.tipRadiiMm, i.spannedSpaces) }),
  }),
  calculation({
    name: 'escape.action',
    title: 'What an escapement does',
    about: 'Release, drop, lock and recoil on both pallets, from the wheel and the outlines of the pallets.',
    input: only({
      teeth: figure('Teeth').required(),
      tipRadiusMm: figure('Tips from the arbor').required(),
      centreDistanceMm: figure('Arbors apart').required(),
      palletEntry: outline('Entry pallet'),
      palletExit: outline('Exit pallet'),
      swingDeg: figure('Swing either way').required(),
    }),
    fields: {
      teeth: { unit: '', example: 30 },
      tipRadiusMm: { unit: 'mm', example: 18 },
      centreDistanceMm: { unit: 'mm', example: 25.4558 },
      palletEntry: {
        unit: 'mm about the pallets’ arbor, x right, y up',
        example: pointsOf([
          [-16.6, -9.5],
          [-13.588, -13.019],
          [-11.903, -12.408],
          [-11.95, -11.5],
        ]),
      },
      palletExit: {
        unit: 'likewise',
        example: pointsOf([
          [15, -8.2],
          [12.5, -11.852],
          [12.928, -13.674],
          [13.9, -13.4],
        ]),
      },
      swingDeg: { unit: '°', example: 5 },
    },
    output: {
      entry: 'releaseDeg, dropDeg (of the wheel), lockDeg, recoilDeg (of the wheel)',
      exit: 'likewise',
      releaseHalfDeg: '°; what the beat is reckoned by',
      middleDeg: '°; + to the entry’s side',
      verdict: 'works, runs through or jams',
      reasons: '',
    },
    run: ({ swingDeg, ...geometry }) => ({ ...escapementAction(geometry, swingDeg) }),
  }),
]
