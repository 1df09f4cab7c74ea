import { expect, test } from 'vitest'
import { cuttersOf, stockTitle } from '../src/index.ts'

test('cutters of the drawers: measured, there, smallest first', () => {
  const cutter = (measuredMm: number, count = 1) => ({ kind: 'cutter' as const, measuredMm, count })
  expect(cuttersOf([cutter(3), cutter(1.6), cutter(2, 0), { kind: 'reamer', measuredMm: 1, count: 1 }])).toEqual([
    1.6, 3,
  ])
  const sizes = { name: '', outsideMm: 2.02, insideMm: 1, lengthMm: 3, measuredMm: null, widthMm: null, thickMm: null }
  expect(stockTitle({ kind: 'bush', material: 'bronze', ...sizes })).toBe('Bush 2.02 × 1.00 × 3.00 mm, bronze')
  const strip = { ...sizes, outsideMm: null, insideMm: null, widthMm: 19, thickMm: 0.4, lengthMm: 1700 }
  expect(stockTitle({ kind: 'mainspring', material: 'steel', ...strip })).toBe(
    'Mainspring 19.00 × 0.40 × 1700.00 mm, steel',
  )
})
