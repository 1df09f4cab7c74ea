import { describe, expect, test } from 'vitest'
import { CALCULATIONS } from '../src/index.ts'

const reckon = (name: string, input: unknown) => CALCULATIONS.find((c) => c.name === name)!.reckon(input)
const readings = (...list: [string, number][]) => list.map(([at, errorSeconds]) => ({ at, errorSeconds }))

describe('figures that would overflow', () => {
  test.each([
    ['rate.book', { readings: [{ at: '2026-03-01T09:00:00Z', errorSeconds: 1e308 }] }, 'readings[0].errorSeconds'],
    ['drive.margin', { fittedKg: 1e308, leastKg: 1 }, 'fittedKg'],
    ['plate.clearance', { holes: [{ name: 'a', xMm: 1e308, yMm: 0, diameterMm: 1 }] }, 'holes[0].xMm'],
  ])('%s refuses them by name', (name, input, field) => {
    expect(() => reckon(name, input)).toThrow(`${field} is 1e+308: it must be at most 1,000,000,000 in size`)
  })

  test('no calculation answers its own example with anything that is no number', () => {
    for (const c of CALCULATIONS) {
      const input = Object.fromEntries(
        Object.entries(c.fields).flatMap(([name, f]) => (f.example === undefined ? [] : [[name, f.example]])),
      )
      expect(() => c.reckon(input), c.name).not.toThrow()
      for (const name of Object.keys(c.reckon(input))) expect(c.output, c.name).toHaveProperty(name)
    }
  })
})

describe('the rate book', () => {
  const days = readings(['2026-03-01T09:00:00Z', 0], ['2026-03-02T09:00:00Z', -10], ['2026-03-03T09:00:00+00:00', 3580])
  test('names the reading that does not belong by its place, and turns nothing', () => {
    expect(reckon('rate.book', { readings: days, pitchMm: 0.8, lengthMm: 994 })).toMatchObject({
      suspects: [2],
      advice: 'doubted',
      suggestedTurns: 0,
    })
  })

  test('hands set are told of', () => {
    const set = readings(
      ['2026-03-01T09:00:00Z', 0],
      ['2026-03-03T09:00:00Z', -40],
      ['2026-03-04T09:00:00Z', -10],
      ['2026-03-06T09:00:00Z', -50],
    )
    expect(reckon('rate.book', { readings: set }).suspects).toEqual([2])
    const told = reckon('rate.book', { readings: set, handsSet: ['2026-03-03T10:00:00Z'] })
    expect(told).toMatchObject({ suspects: [] })
    expect(told.rateSecondsPerDay).toBeCloseTo(-20, 1)
  })

  test.each(['2026-03-01T09:00:00', '3', '2026-02-30T09:00:00Z', 'yesterday', '2026-03-01'])(
    '%s is no moment',
    (at) => {
      expect(() => reckon('rate.book', { readings: [{ at, errorSeconds: 0 }] })).toThrow(
        /^readings\[0\]\.at is .*: it must be a moment with its zone/,
      )
    },
  )
})

test('a mainspring answers by the set it takes', () => {
  const spring = { widthMm: 19, thicknessMm: 0.4, lengthMm: 1708, barrelInsideMm: 44, arborMm: 14 }
  const answer = reckon('spring.energy', spring)
  expect(Object.keys(answer)).toEqual(
    expect.arrayContaining(['torqueWoundNmm', 'torqueRunDownNmm', 'torqueNmm', 'energyJ', 'dropOf1kgMm']),
  )
  expect(Number(answer.energyJ)).toBeCloseTo(52, 0)
  expect(Number(reckon('spring.energy', { ...spring, yieldMpa: 2000 }).energyJ)).toBeCloseTo(58, 0)
})

test('inner fields of lists are told with whether they must be there', () => {
  const { fields } = CALCULATIONS.find((c) => c.name === 'bushing.assign')!
  expect(fields.holes?.inner).toMatchObject({
    name: { required: true, type: 'string' },
    role: { required: false, choices: ['escape', 'pallet', 'other'] },
  })
})
