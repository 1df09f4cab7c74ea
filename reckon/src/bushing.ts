import { assignBushes, bushFromStock, bushingPlan } from '@treadle/core'
import { calculation, type Calculation } from './calculation.ts'
import { array, figure, number, only, string } from './fields.ts'

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
const role = () =>
  string()
    .oneOf(['escape', 'pallet', 'other'] as const)
    .label('Role')
const STOCK = [
  { id: 'a', outsideMm: 2.02, insideMm: 1, lengthMm: 3, count: 2 },
  { id: 'b', outsideMm: 2.02, insideMm: 0.9, lengthMm: 3, count: 5 },
]

/** Calculations of bushes. */
export const BUSHING: Calculation[] = [
  calculation({
    name: 'bushing.plan',
    title: 'A worn hole',
    about: 'Verdict of the three schools and the sizes to cut, for one hole.',
    input: only({
      longAxisMm: figure('Long way').required(),
      shortAxisMm: figure('Short way').required(),
      pivotMm: figure('Pivot, finished').required(),
      plateMm: figure('Plate here').required(),
      role: role().required(),
      moduleMm: figure('Module'),
      depthShiftMm: figure('Shift along the line of centres'),
      cutters: array(number().required()).required().label('Cutters'),
    }),
    fields: {
      longAxisMm: { unit: 'mm', example: 1.32 },
      shortAxisMm: { unit: 'mm', example: 1.1 },
      pivotMm: { unit: 'mm', example: 1 },
      plateMm: { unit: 'mm', example: 2.4 },
      role: { unit: '', example: 'other' },
      moduleMm: { unit: 'mm' },
      depthShiftMm: { unit: 'mm' },
      cutters: { unit: 'mm', example: [1.6, 1.8, 2, 2.3] },
    },
    output: {
      wearMm: 'mm',
      originalCentreOffsetMm: 'mm',
      fileBackMm: 'mm',
      playPercent: '%',
      verdict: 'bush or leave',
      reasons: 'every limit exceeded; when left, also those kept',
      schools: 'play, oval and depth: over its limit, near it, and why',
      nearLimit: 'left, but so near that it is done while the plates are apart',
      leastCutterMm: 'mm',
      cutterMm: 'mm',
      bushOutsideMm: 'mm',
      drilledMm: 'mm',
      finishedHoleMm: 'mm',
      wallMm: 'mm',
      lengthMm: 'mm',
    },
    run: ({ cutters, ...hole }) => ({ ...bushingPlan(hole, cutters) }),
  }),
  calculation({
    name: 'bushing.fromStock',
    title: 'A bush from the drawers',
    about: 'The bush that fits cutter, pivot and plate and needs least broaching; and why the others don’t fit.',
    input: only({
      finishedPivotMm: figure('Finished pivot').required(),
      cutterMm: figure('Cutter').required(),
      plateMm: figure('Plate').required(),
      role: role(),
      stock: bushes(),
    }),
    fields: {
      finishedPivotMm: { unit: 'mm', example: 1 },
      cutterMm: { unit: 'mm', example: 2 },
      plateMm: { unit: 'mm', example: 2.4 },
      role: { unit: '', note: 'other when not given; escape and pallet arbors are left less play' },
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
          role: role(),
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
