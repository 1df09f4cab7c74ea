import { blankEscapement, blankSpringSheet, type JobPage, type StockRow } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { merged, type Line } from '../src/job/estimateFromJob.ts'
import { toppingOf } from '../src/surfaces/escapement/toppingOf.ts'
import { springsOf, stripsOf, withKnown } from '../src/surfaces/springs/strips.ts'
import { DEFAULT_WAYS } from '@treadle/core'

describe('what the gauged tips ask for', () => {
  const sheet = { ...blankEscapement('a'), teeth: 12 }
  const tips = (low: number) => Array.from({ length: 12 }, (_, i) => (i === 4 ? low : 18))
  test('nothing while one is not gauged, nor where they are even', () => {
    expect(toppingOf({ ...sheet, tipRadiiMm: [...tips(18).slice(1), null] })).toMatchObject({
      topping: null,
      steps: [],
    })
    expect(toppingOf({ ...sheet, tipRadiiMm: tips(17.996) })).toMatchObject({ even: true, steps: [] })
  })
  test('bent teeth alone ask for the work; a low one may be left', () => {
    expect(toppingOf({ ...sheet, bent: [3] }).steps[0]!.key).toBe('straighten')
    const { low, steps } = toppingOf({ ...sheet, tipRadiiMm: tips(17.9), leftLow: [5] })
    expect(low?.left).toEqual([5])
    expect(steps.find((s) => s.key === 'top')!.does).toMatch(/18\.00 mm: at most 0\.00 mm/)
  })
})

describe('a mainspring’s strips', () => {
  const sheet = { ...blankSpringSheet('a', 'going'), widthMm: 16, barrelInsideMm: 36, arborMm: 11 }
  test('the mean of what was gauged, its length measured or by its coils', () => {
    const gauged = { ...sheet, innerMm: 0.34, outerMm: 0.36 }
    expect(stripsOf({ ...gauged, lengthMm: 1250 }).old).toMatchObject({ thicknessMm: 0.35, lengthMm: 1250 })
    // 12 coils of 0.35 mm against a wall of 18 mm: rings of 17.825, 17.475 … 13.975 mm, summed.
    const rings = Array.from({ length: 12 }, (_, i) => 2 * Math.PI * (18 - 0.35 * (i + 0.5)))
    const laid = rings.reduce((sum, mm) => sum + mm, 0)
    expect(stripsOf({ ...gauged, coils: 12 }).old?.lengthMm).toBeCloseTo(laid, 6)
    expect(stripsOf({ ...gauged, coils: 60 }).old).toBeNull()
  })
  test('nothing is fitted before it is chosen', () => {
    const fitted = { ...sheet, fittedWidthMm: 16, fittedThickMm: 0.34, fittedLengthMm: 1250 }
    expect(stripsOf(fitted).fitted).toBeNull()
    expect(stripsOf({ ...fitted, choice: 'order' }).fitted).toEqual({ widthMm: 16, thicknessMm: 0.34, lengthMm: 1250 })
  })
  test('what is promised to others is not there; the one in hand is', () => {
    const row = {
      id: 'a',
      kind: 'mainspring',
      widthMm: 16,
      thickMm: 0.34,
      lengthMm: 1250,
      count: 2,
      reserved: 1,
    } as StockRow
    expect(springsOf([row], null)[0]?.count).toBe(1)
    expect(springsOf([{ ...row, count: 0, reserved: 0 }], 'a')[0]?.count).toBe(1)
    expect(springsOf([{ ...row, kind: 'bush' }], null)).toEqual([])
  })
  test('begins with what is known of the clock', () => {
    const spring = { widthMm: 19, thicknessMm: 0.4, lengthMm: 1700, barrelInsideMm: 44, arborMm: 14 }
    const train = { train: 'going', power: 'spring', spring } as JobPage['clock']['trains'][number]
    expect(withKnown(blankSpringSheet('a', 'going'), train)).toMatchObject({ widthMm: 19, middleMm: 0.4, arborMm: 14 })
  })
})

test('another way chosen for a part takes the place of the first one’s line; lines by hand stay', () => {
  const line = (title: string): Line => ({
    id: title,
    title,
    kind: 'fixed',
    quantity: 1,
    unit: '',
    unitPrice: '95.00',
    upToPrice: null,
    taxed: true,
    order: false,
  })
  const before = [line('Reverse the wheel on its arbor: great wheel, going'), line('Clean the case')]
  const found = [line('A new wheel cut: great wheel, going')]
  expect(merged(before, found, DEFAULT_WAYS).map((l) => l.title)).toEqual([
    'Clean the case',
    'A new wheel cut: great wheel, going',
  ])
})
