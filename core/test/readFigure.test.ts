import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readFigure, tenTimesOff, type FigureUnit } from '../src/index.ts'

const value = (typed: string, unit: FigureUnit = 'mm', rest = {}) => {
  const figure = readFigure(typed, unit, rest)
  return figure.read ? figure.value : figure.sentence
}

describe('a figure as it is typed', () => {
  test.each<[string, number | null]>([
    ['', null],
    ['2.5', 2.5],
    ['2,5', 2.5],
    ['.5', 0.5],
    ['−0.3', -0.3],
    ['-0.3', -0.3],
    ['+4', 4],
    ['1/2', 0.5],
    ['1 1/2', 1.5],
    ['1½', 1.5],
    ['½', 0.5],
    [' 2.50 ', 2.5],
    ['2.5mm', 2.5],
    ['2.5 mm', 2.5],
    ['98 thou', 2.4892],
    ['1/2 in', 12.7],
    ['3/8"', 9.525],
    ['3 cm', 30],
  ])('“%s” is %s mm', (typed, mm) => {
    expect(value(typed)).toBe(mm)
  })

  test.each<[string, number]>([
    ['2:30', 150],
    ['-2:30', -150],
    ['0:07,5', 7.5],
    ['2 min', 120],
    ['90', 90],
  ])('“%s” is %s s', (typed, seconds) => {
    expect(value(typed, 's')).toBe(seconds)
  })

  test('a caliper that counts in thousandths is meant where no unit is said', () => {
    expect(value('40', 'mm', { typedIn: 'thou' })).toBeCloseTo(1.016, 12)
    expect(value('40mm', 'mm', { typedIn: 'thou' })).toBe(40)
  })

  test.each(['3.002.97', '3.00 2.97', '2:30', '1/0', 'abc', '1e999', '1/2/3', '--2', '2..5', '1.2,3', 'NaN', '∞'])(
    '“%s” is refused whole, never half read',
    (typed) => {
      expect(value(typed)).toMatch(/can’t be read|no unit/)
    },
  )

  test('a unit of something else is refused by name', () => {
    expect(value('2.5 kg')).toMatch(/“kg” is no unit of this figure/)
    expect(value('3 turns', '', { named: ['turns'] })).toBe(3)
  })

  test('what is shown, typed again, is the same', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 }), (x) => {
        const shown = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 4, useGrouping: false }).format(x)
        const again = value(shown.replace('-', '−'))
        expect(again).toBeCloseTo(Number(shown), 12)
      }),
    )
  })

  test('whatever is typed is read or refused, and never thrown at', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom<FigureUnit>('mm', 's', 'kg', '°', ''), (typed, unit) => {
        const figure = readFigure(typed, unit)
        expect(figure.read ? figure.value === null || Number.isFinite(figure.value) : figure.sentence).toBeTruthy()
      }),
    )
  })
})

describe('a figure ten times off', () => {
  test('is told by the middle of the others', () => {
    expect(tenTimesOff(29, [2.9, 2.8, 3])).toBe(2.9)
    expect(tenTimesOff(0.29, [2.9])).toBe(2.9)
    expect(tenTimesOff(4, [2.9, 2.8])).toBeNull()
    expect(tenTimesOff(29, [])).toBeNull()
    expect(tenTimesOff(29, [null, 0])).toBeNull()
  })
})
