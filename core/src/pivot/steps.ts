import type { PivotVerdict } from './plan.ts'

/** Scored pivots: file and burnisher, or a ladder of papers and paste. */
export type PivotSchool = 'burnish' | 'paste'

export const PIVOT_WORK = ['', 'left', 'polished', 'burnished', 'papered', 'straightened', 're-pivoted'] as const
export type PivotWork = (typeof PIVOT_WORK)[number]

const LATHE: Record<PivotSchool, string[]> = {
  burnish: [
    'Pivot file, lightly, till the groove is gone all round; keep it parallel and the shoulder square.',
    'Burnisher, oiled, pressed lightly and kept moving: it hardens the skin and shines.',
  ],
  paste: [
    'Papers on a flat backing, 600, then 1000, then 2500, till the groove is gone all round.',
    'Fine alumina paste on boxwood till it shines; wash every trace of it off.',
  ],
}

/** What is done to a pivot, in order, by the workshop's school. */
export function stepsOfPivot(verdict: PivotVerdict, school: PivotSchool): string[] {
  const lathe = LATHE[school]
  const end = 'Wash it, peg it dry, and gauge it: that figure sizes the bush.'
  switch (verdict) {
    case 'leave':
      return ['Wipe it with pith, and gauge it.']
    case 'polish':
      return ['Fine abrasive sheets on a split stick, by hand, along and round.', end]
    case 'file and burnish':
      return [...lathe, end]
    case 'straighten':
      return [
        'Tell the owner that it may break.',
        'Bend it back a little at a time between smooth jaws, warm if it is hard, and look at it turn after each.',
        ...lathe,
        end,
      ]
    case 're-pivot':
      return [
        'Cut off what is left, flat, and centre it in the lathe.',
        'Drill; drive in a plug of pivot steel; turn it down.',
        ...lathe.slice(-1),
        end,
      ]
  }
}

/** What was done once a pivot with this verdict is finished. */
export function doneBy(verdict: PivotVerdict, school: PivotSchool): Exclude<PivotWork, ''> {
  switch (verdict) {
    case 'leave':
      return 'left'
    case 'polish':
      return 'polished'
    case 'file and burnish':
      return school === 'burnish' ? 'burnished' : 'papered'
    case 'straighten':
      return 'straightened'
    case 're-pivot':
      return 're-pivoted'
  }
}
