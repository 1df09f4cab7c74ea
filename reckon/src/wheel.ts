import { lanternTrundles, wheelReversed } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'

/** Calculations of wheels and pinions. */
export const WHEEL: Calculation[] = [
  calculation({
    name: 'lantern.trundles',
    title: 'Trundles of a lantern pinion',
    about: 'The fewest to replace, so that the rest lie within the tolerance of each other.',
    input: only({
      diametersMm: array(number().required()).required().label('Trundles'),
      toleranceMm: figure('Tolerance'),
    }),
    fields: {
      diametersMm: { unit: 'mm, in their order', example: [1.2, 1.2, 1.14, 1.2, 1.2, 1.2] },
      toleranceMm: { unit: 'mm', note: '0.01 when not given' },
    },
    output: { spreadMm: 'mm; largest less smallest', replace: 'numbers from 1', verdict: '' },
    run: (i) => {
      const { spreadMm, replace, verdict } = lanternTrundles(i.diametersMm, i.toleranceMm)
      return { spreadMm, replace, verdict }
    },
  }),
  calculation({
    name: 'wheel.reversed',
    title: 'Holes of a reversed wheel',
    about:
      'The holes mirrored about a line through the wheel’s centre, and where too little metal is left to the old ones.',
    input: only({
      holes: array(
        only({
          name: string().required(),
          xMm: number().required(),
          yMm: number().required(),
          diameterMm: number().required(),
        }),
      )
        .min(1)
        .max(60)
        .required()
        .label('Holes'),
      aboutClockAngleDeg: figure('Mirrored about').required(),
      leaveMm: figure('Metal to leave'),
    }),
    fields: {
      holes: {
        unit: 'mm from the centre, x right, y up',
        example: [{ name: 'click rivet', xMm: 9, yMm: 4, diameterMm: 2.2 }],
      },
      aboutClockAngleDeg: { unit: '° clockwise from 12', example: 0 },
      leaveMm: { unit: 'mm', note: '0.8 when not given' },
    },
    output: { holes: 'mirrored', conflicts: 'new against old: between, mm left' },
    run: (i) => ({ ...wheelReversed(i.holes, i.aboutClockAngleDeg, i.leaveMm) }),
  }),
]
