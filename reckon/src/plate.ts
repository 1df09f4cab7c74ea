import { clearance, locate, markerPlace } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'

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
const HOLES = [
  { name: 'centre', xMm: 0, yMm: 0, diameterMm: 4 },
  { name: 'third', xMm: 22, yMm: 24, diameterMm: 2 },
  { name: 'escape', xMm: 24.6, yMm: 24.4, diameterMm: 2 },
]
const EDGE_NOTE = 'the plate’s corners in order; none when not given'

/** Calculations of places on a plate. */
export const PLATE: Calculation[] = [
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
]
