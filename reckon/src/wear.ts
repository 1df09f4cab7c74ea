import { depthAfterWear, fromLean, TURNS, wearDirection } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { figure, number, only, string } from './fields.ts'

const point = () => only({ xMm: number().required(), yMm: number().required() })

/** Calculations of wear and what it does to the depth. */
export const WEAR: Calculation[] = [
  calculation({
    name: 'wear.direction',
    title: 'Which way a hole wears',
    about: 'From the push of the driver and that of what it drives, each by the pressure angle.',
    input: only({
      at: point().label('Arbor at'),
      turns: string().oneOf(TURNS).required().label('Turns'),
      drivenFrom: point().label('Driven from'),
      pinionRadiusMm: figure('Pinion, pitch radius').required(),
      drives: point().default(undefined).notRequired().label('Drives'),
      wheelRadiusMm: figure('Wheel, pitch radius'),
      pressureAngleDeg: figure('Pressure angle'),
    }),
    fields: {
      at: { unit: 'mm', example: { xMm: 0, yMm: 0 } },
      turns: { unit: '', example: 'anticlockwise' },
      drivenFrom: { unit: 'mm', example: { xMm: 0, yMm: -30 } },
      pinionRadiusMm: { unit: 'mm', example: 4 },
      drives: { unit: 'mm', example: { xMm: 20, yMm: 22 }, note: 'none: the last of the train' },
      wheelRadiusMm: { unit: 'mm', example: 26 },
      pressureAngleDeg: { unit: '°', note: '20 when not given, with friction' },
    },
    output: { clockAngleDeg: '° from 12', forceRatio: 'driven side’s over the driver’s' },
    run: (i) => ({ ...wearDirection({ ...i, drives: i.drives ?? undefined }) }),
  }),
  calculation({
    name: 'wear.fromLean',
    title: 'Play from the lean test',
    about: 'A cylinder tilted till it touches both rims, the other plate off.',
    input: only({
      leanDeg: figure('Lean from upright').required(),
      pivotMm: figure('Pivot').required(),
      plateMm: figure('Plate').required(),
    }),
    fields: {
      leanDeg: { unit: '°', example: 5 },
      pivotMm: { unit: 'mm', example: 1 },
      plateMm: { unit: 'mm', example: 2.4 },
    },
    output: { holeMm: 'mm', playMm: 'mm' },
    run: (i) => ({ ...fromLean(i.leanDeg, i.pivotMm, i.plateMm) }),
  }),
  calculation({
    name: 'depth.afterWear',
    title: 'Depth after wear',
    about: 'How far a worn hole opens its gearing: what of the shift lies along the line of centres.',
    input: only({
      wheelTeeth: figure('Wheel').required(),
      pinionLeaves: figure('Pinion').required(),
      centreDistanceMm: figure('Centre distance').required(),
      shiftMm: figure('Shift').required(),
      shiftClockAngleDeg: figure('Shift toward').required(),
      lineClockAngleDeg: figure('Line, from the partner').required(),
    }),
    fields: {
      wheelTeeth: { unit: 'teeth', example: 64 },
      pinionLeaves: { unit: 'leaves', example: 8 },
      centreDistanceMm: { unit: 'mm', example: 36 },
      shiftMm: { unit: 'mm', example: 0.2 },
      shiftClockAngleDeg: { unit: '° from 12', example: 60 },
      lineClockAngleDeg: { unit: '° from 12', example: 45 },
    },
    output: { moduleMm: 'mm', depthShiftMm: 'mm, + apart', percentOfModule: '% of the module' },
    run: (i) => ({
      ...depthAfterWear(
        i.wheelTeeth,
        i.pinionLeaves,
        i.centreDistanceMm,
        i.shiftMm,
        i.shiftClockAngleDeg,
        i.lineClockAngleDeg,
      ),
    }),
  }),
]
