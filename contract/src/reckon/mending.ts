import {
  assignBushes,
  bushFromStock,
  clearance,
  depthAfterWear,
  fromLean,
  locate,
  markerPlace,
  pivotPlan,
  TURNS,
  wearDirection,
} from '@treadle/core'
import { array, boolean, number, only, string } from '../fields.ts'
import { calculation, type Calculation } from './calculation.ts'

const figure = (label: string) => number().label(label)
const point = () => only({ xMm: number().required(), yMm: number().required() })
const plateHoles = () =>
  array(
    only({
      name: string().required(),
      xMm: number().required(),
      yMm: number().required(),
      diameterMm: number().required(),
    }),
  )
    .required()
    .label('Holes')
const bushes = () =>
  array(
    only({
      id: string().required(),
      outsideMm: number().required(),
      insideMm: number().required(),
      lengthMm: number().required(),
      count: number().required(),
    }),
  )
    .required()
    .label('Stock')

const HOLES = [
  { name: 'centre', xMm: 0, yMm: 0, diameterMm: 4 },
  { name: 'third', xMm: 22, yMm: 24, diameterMm: 2 },
  { name: 'escape', xMm: 24.6, yMm: 24.4, diameterMm: 2 },
]
const STOCK = [
  { id: 'a', outsideMm: 2.02, insideMm: 1, lengthMm: 3, count: 2 },
  { id: 'b', outsideMm: 2.02, insideMm: 0.9, lengthMm: 3, count: 5 },
]
const EDGE_NOTE = 'the plate’s corners in order; none when not given'

/** The calculations of mending: places on a plate, wear and depth, pivots, bushes. */
export const MENDING: Calculation[] = [
  calculation({
    name: 'plate.locate',
    title: 'Where a hole is',
    about: 'From its distances to two known holes, both places; from three or more, by least squares.',
    input: only({
      from: array(only({ xMm: number().required(), yMm: number().required(), distanceMm: number().required() }))
        .required()
        .label('Known holes'),
    }),
    fields: {
      from: {
        unit: 'mm',
        example: [
          { xMm: 0, yMm: 0, distanceMm: 5 },
          { xMm: 6, yMm: 0, distanceMm: 5 },
        ],
      },
    },
    output: { solutions: 'mm, by x then y', residualMm: 'mm' },
    run: ({ from }) => {
      const solutions = locate(from)
      return { solutions, residualMm: solutions[0]?.residualMm ?? 0 }
    },
  }),
  calculation({
    name: 'plate.clearance',
    title: 'Plate left between holes',
    about: 'Where less than the wall is left between holes, or to the edge; nearest first.',
    input: only({ holes: plateHoles(), wallMm: figure('Wall'), edge: array(point()).label('Edge') }),
    fields: {
      holes: { unit: 'mm', example: HOLES },
      wallMm: { unit: 'mm', note: '0.8 when not given' },
      edge: { unit: 'mm', note: EDGE_NOTE },
    },
    output: { conflicts: 'between, mm left' },
    run: (i) => ({ conflicts: clearance(i.holes, i.wallMm, i.edge) }),
  }),
  calculation({
    name: 'plate.marker',
    title: 'How to lay the marker',
    about: 'So that its two outer points fall on brass, as far as can be from other holes and the edge.',
    input: only({
      holes: plateHoles(),
      hole: string().required().label('Hole'),
      reachMm: figure('Reach').required(),
      spreadDeg: figure('Spread'),
      edge: array(point()).label('Edge'),
    }),
    fields: {
      holes: { unit: 'mm', example: HOLES },
      hole: { unit: '', example: 'third' },
      reachMm: { unit: 'mm', example: 8, note: 'from the middle point to the outer ones' },
      spreadDeg: { unit: '°', note: '60 when not given' },
      edge: { unit: 'mm', note: EDGE_NOTE },
    },
    output: { clockAngleDeg: '° from 12', points: 'mm', clearMm: 'mm' },
    run: (i) => ({ ...markerPlace(i.holes, i.hole, i.reachMm, i.spreadDeg, i.edge) }),
  }),
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
  calculation({
    name: 'pivot.plan',
    title: 'What to do with a pivot',
    about: 'How thick and how strong it will be; the gravest verdict wins.',
    input: only({
      diameterMm: figure('Diameter').required(),
      originalMm: figure('As it was made'),
      grooveDepthMm: figure('Groove, deep').required(),
      runoutMm: figure('Runs out'),
      rust: boolean().label('Rust'),
    }),
    fields: {
      diameterMm: { unit: 'mm', example: 1 },
      originalMm: { unit: 'mm', note: 'the diameter when not given' },
      grooveDepthMm: { unit: 'mm', example: 0.03 },
      runoutMm: { unit: 'mm' },
      rust: { unit: 'true or false' },
    },
    output: { finishedMm: 'mm', strengthPercent: '% of the original', verdict: '', reasons: '' },
    run: (i) => ({ ...pivotPlan(i) }),
  }),
  calculation({
    name: 'bushing.fromStock',
    title: 'A bush from the drawers',
    about: 'The bush that fits cutter, pivot and plate and needs least broaching; and why the others don’t fit.',
    input: only({
      finishedPivotMm: figure('Finished pivot').required(),
      cutterMm: figure('Cutter').required(),
      plateMm: figure('Plate').required(),
      stock: bushes(),
    }),
    fields: {
      finishedPivotMm: { unit: 'mm', example: 1 },
      cutterMm: { unit: 'mm', example: 2 },
      plateMm: { unit: 'mm', example: 2.4 },
      stock: { unit: 'mm', example: STOCK },
    },
    output: { choice: 'id', fits: 'ids, best first', whyNot: 'id, why' },
    run: ({ stock, ...hole }) => ({ ...bushFromStock(hole, stock) }),
  }),
  calculation({
    name: 'bushing.assign',
    title: 'Bushes for a whole plan',
    about: 'The fewest holes without one, then the least to broach in all; no bush is promised twice.',
    input: only({
      holes: array(
        only({
          name: string().required(),
          finishedPivotMm: number().required(),
          cutterMm: number().required(),
          plateMm: number().required(),
        }),
      )
        .required()
        .label('Holes'),
      stock: bushes(),
    }),
    fields: {
      holes: {
        unit: 'mm',
        example: [
          { name: 'third, back', finishedPivotMm: 1, cutterMm: 2, plateMm: 2.4 },
          { name: 'escape, front', finishedPivotMm: 0.9, cutterMm: 2, plateMm: 2.4 },
        ],
      },
      stock: { unit: 'mm', example: STOCK },
    },
    output: { assigned: 'hole, bush', missing: 'holes', broachMm: 'mm in all' },
    run: (i) => ({ ...assignBushes(i.holes, i.stock) }),
  }),
]
