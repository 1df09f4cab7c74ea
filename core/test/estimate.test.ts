import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { costPerYear, estimateSpan, estimateTotal, revisionChanges, shareOf, type EstimateLine } from '../src/index.ts'

describe('totals, reckoned by hand', () => {
  test.each([
    // 3 × 14.35 = 43.05; 21 % of it 9.0405 → 9.04
    [[{ quantity: 3, unitPrice: '14.35' }], '21', { net: '43.05', tax: '9.04', gross: '52.09' }],
    // 0.1 + 0.2 in floats is 0.30000000000000004
    [
      [
        { quantity: 1, unitPrice: '0.1' },
        { quantity: 1, unitPrice: '0.2' },
      ],
      '0',
      { net: '0.30', tax: '0.00', gross: '0.30' },
    ],
    // 1.005 in floats rounds down; half up makes 1.01
    [[{ quantity: 1, unitPrice: '1.005' }], '0', { net: '1.01', tax: '0.00', gross: '1.01' }],
    // Three lines of 0.335: net 1.005 is rounded once, 1.01, not three times, 1.02
    [
      Array.from({ length: 3 }, () => ({ quantity: 1, unitPrice: '0.335' })),
      '0',
      { net: '1.01', tax: '0.00', gross: '1.01' },
    ],
    // Tax on the taxed lines only: 20 % of 12.52 is 2.504
    [
      [
        { quantity: 2, unitPrice: '6.26' },
        { quantity: 1, unitPrice: '30', taxed: false },
      ],
      '20',
      { net: '42.52', tax: '2.50', gross: '45.02' },
    ],
    // Tax from the exact sum: 0.004 × 10 % is not taken of a rounded nought
    [[{ quantity: 1.5, unitPrice: '33.33' }], '7.7', { net: '50.00', tax: '3.85', gross: '53.85' }],
    [
      [
        { quantity: 1, unitPrice: '100' },
        { quantity: 1, unitPrice: '-12.50' },
      ],
      '10',
      { net: '87.50', tax: '8.75', gross: '96.25' },
    ],
    [[], '20', { net: '0.00', tax: '0.00', gross: '0.00' }],
  ])('%j at %s %%', (lines, tax, total) => {
    expect(estimateTotal(lines, tax)).toEqual(total)
  })

  test('whole cents agree with whole-number arithmetic', () => {
    const line = fc.record({ quantity: fc.integer({ min: 0, max: 40 }), cents: fc.integer({ min: 0, max: 99_999 }) })
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), fc.integer({ min: 0, max: 30 }), (lines, percent) => {
        const cents = lines.reduce((s, l) => s + BigInt(l.quantity) * BigInt(l.cents), 0n)
        const tax = (cents * BigInt(percent) + 50n) / 100n
        const text = (n: bigint) => `${n / 100n}.${String(n % 100n).padStart(2, '0')}`
        const priced = lines.map((l) => ({ quantity: l.quantity, unitPrice: text(BigInt(l.cents)) }))
        expect(estimateTotal(priced, String(percent))).toEqual({
          net: text(cents),
          tax: text(tax),
          gross: text(cents + tax),
        })
      }),
    )
  })

  test('what is no amount is refused by its place', () => {
    expect(() => estimateTotal([{ quantity: 1, unitPrice: '12,50' }], '20')).toThrow(/lines\[0\].unitPrice is "12,50"/)
    expect(() => estimateTotal([{ quantity: 1, unitPrice: '1e3' }], '20')).toThrow(/unitPrice/)
    expect(() => estimateTotal([{ quantity: -1, unitPrice: '1' }], '20')).toThrow(/quantity is -1/)
    expect(() => estimateTotal([{ quantity: Number.NaN, unitPrice: '1' }], '20')).toThrow(/quantity/)
    expect(() => estimateTotal([], '120')).toThrow(/taxPercent is "120"/)
  })
})

const line = (id: string, part: Partial<EstimateLine> = {}): EstimateLine => ({
  id,
  title: id,
  kind: 'fixed',
  quantity: 1,
  unitPrice: '10',
  upToPrice: null,
  taxed: true,
  ...part,
})

test('the least and the most: ranges and what may be needed', () => {
  const { least, most } = estimateSpan(
    [
      line('service', { unitPrice: '120' }),
      line('bush', { kind: 'range', quantity: 4, unitPrice: '15', upToPrice: '20' }),
      line('spring', { kind: 'if-needed', unitPrice: '38' }),
    ],
    '25',
  )
  expect(least).toEqual({ net: '180.00', tax: '45.00', gross: '225.00' })
  expect(most).toEqual({ net: '238.00', tax: '59.50', gross: '297.50' })
})

test('a later revision says what it changed', () => {
  const before = [line('service', { unitPrice: '120' }), line('bush', { quantity: 2, unitPrice: '18' }), line('glass')]
  const after = [
    line('service', { unitPrice: '120.00' }),
    line('bush', { quantity: 5, unitPrice: '18' }),
    line('spring', { kind: 'if-needed' }),
  ]
  expect(revisionChanges(before, after)).toEqual([
    { title: 'bush', change: 'changed', was: '2 × 18.00', now: '5 × 18.00' },
    { title: 'spring', change: 'added', was: '', now: '1 × 10.00, if needed' },
    { title: 'glass', change: 'dropped', was: '1 × 10.00', now: '' },
  ])
})

test('cost a year, and a deposit', () => {
  expect(costPerYear('240', 7)).toBe('34.29')
  expect(costPerYear('240', 0)).toBeNull()
  expect(shareOf('225.55', '30')).toBe('67.67')
})
