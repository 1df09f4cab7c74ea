import { pivotPlan } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { boolean, figure, only } from './fields.ts'

/** Calculations of pivots. */
export const PIVOT: Calculation[] = [
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
]
