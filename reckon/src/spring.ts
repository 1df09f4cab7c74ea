import { chooseMainspring, compareMainsprings } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'

const strip = (label: string) =>
  only({
    widthMm: number().required(),
    thicknessMm: number().required(),
    lengthMm: number().required(),
  }).label(label)

const OLD = { widthMm: 19, thicknessMm: 0.4, lengthMm: 1700 }

/** Calculations of mainsprings. */
export const SPRING: Calculation[] = [
  calculation({
    name: 'mainspring.compare',
    title: 'A new mainspring against the old',
    about: 'Strength turn for turn and fully wound, turns, how full the barrel is; what is too strong is said.',
    input: only({
      barrelInsideMm: figure('Barrel, inside').required(),
      arborMm: figure('Arbor').required(),
      old: strip('Old spring'),
      fitted: strip('Fitted spring'),
    }),
    fields: {
      barrelInsideMm: { unit: 'mm', example: 44 },
      arborMm: { unit: 'mm', example: 14 },
      old: { unit: 'width, thickness, length, mm', example: OLD },
      fitted: { unit: 'width, thickness, length, mm', example: { ...OLD, thicknessMm: 0.42 } },
    },
    output: {
      torquePercent: '%; fitted against old at the same turns, 0 alike',
      woundTorquePercent: '%; fully wound and set',
      oldTurns: 'turns',
      fittedTurns: 'turns',
      fillPercent: '% of the free area',
      verdict: 'alike, too strong (above +10), too weak (below −15) or does not fit',
      reasons: '',
    },
    run: ({ old, fitted, ...barrel }) => ({ ...compareMainsprings(barrel, old, fitted) }),
  }),
  calculation({
    name: 'mainspring.choose',
    title: 'A mainspring from the drawers',
    about: 'Which of those in stock fits the barrel and is as strong as the old one; why the others are not taken.',
    input: only({
      barrelInsideMm: figure('Barrel, inside').required(),
      arborMm: figure('Arbor').required(),
      barrelHeightMm: figure('Barrel, height inside'),
      old: strip('Old spring'),
      turnsNeeded: figure('Turns needed'),
      stock: array(
        only({
          id: string().required(),
          widthMm: number().required(),
          thicknessMm: number().required(),
          lengthMm: number().required(),
          count: number().required(),
        }),
      )
        .required()
        .label('Stock'),
    }),
    fields: {
      barrelInsideMm: { unit: 'mm', example: 44 },
      arborMm: { unit: 'mm', example: 14 },
      barrelHeightMm: { unit: 'mm', note: 'the old spring’s width when not given' },
      old: { unit: 'width, thickness, length, mm', example: OLD },
      turnsNeeded: { unit: 'turns', note: 'nine tenths of the old one’s when not given' },
      stock: {
        unit: 'mm and count',
        example: [
          { id: 'a', widthMm: 19, thicknessMm: 0.4, lengthMm: 1600, count: 1 },
          { id: 'b', widthMm: 19, thicknessMm: 0.45, lengthMm: 1700, count: 2 },
        ],
      },
    },
    output: { choice: 'id, or null', fits: 'ids, the nearest in strength first', whyNot: 'id and why' },
    run: ({ old, stock, turnsNeeded, ...barrel }) => ({ ...chooseMainspring(barrel, old, stock, turnsNeeded) }),
  }),
]
