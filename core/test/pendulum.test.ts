import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  circularLossSecondsPerDay,
  FieldError,
  gravityAt,
  nutTurnFor,
  pendulumBeatsPerHour,
  pendulumLengthMm,
  secondsPerDayPerTurn,
  turnFraction,
} from '../src/index.ts'
import { simulatedPeriodS } from './simulatedPendulum.ts'

describe('length', () => {
  // Table of the craft at standard gravity, to the hundredth of a millimetre it is given to.
  test.each([
    [3600, 993.62],
    [4800, 558.91],
    [5400, 441.61],
    [7200, 248.41],
    [9000, 158.98],
    [10_800, 110.4],
  ])('%d beats an hour is %d mm', (beats, mm) => {
    expect(pendulumLengthMm(beats)).toBeCloseTo(mm, 2)
  })

  test('agrees with the seconds pendulum measured for London', () => {
    // Weights and Measures Act 1824: 39.1393 in. 0.1 mm allows for the old measurement, not for our rounding.
    expect(Math.abs(pendulumLengthMm(3600, gravityAt(51.5)) - 39.1393 * 25.4)).toBeLessThan(0.1)
  })

  test.each([3600, 7200, 18_000])('a simulated pendulum of that length beats %d times an hour', (beats) => {
    // simulatedPeriodS steps θ″ = −(g/L)·sin θ and knows no formula for T; 0.01° makes its circular error 2e-9.
    const period = simulatedPeriodS(pendulumLengthMm(beats, 9.81) / 1000, 0.01, 9.81)
    expect(Math.abs(period / (7200 / beats) - 1)).toBeLessThan(1e-7)
  })

  test('turns back into the beats it came from', () => {
    fc.assert(
      fc.property(fc.double({ min: 700, max: 39_000, noNaN: true }), (beats) => {
        expect(pendulumBeatsPerHour(pendulumLengthMm(beats)) / beats).toBeCloseTo(1, 12)
      }),
    )
  })

  test.each([0, -3600, Number.NaN, Number.POSITIVE_INFINITY])('refuses %d beats an hour by name', (beats) => {
    expect(() => pendulumLengthMm(beats)).toThrow(/beatsPerHour/)
    expect(() => pendulumLengthMm(beats)).toThrow(FieldError)
  })
})

describe('gravity', () => {
  // WGS 84, as published: equator, 45°, 60° and pole at sea level.
  test.each([
    [0, 9.780327],
    [45, 9.806199],
    [60, 9.819178],
    [90, 9.832186],
  ])('at %d° is %d', (latitude, gravity) => {
    expect(gravityAt(latitude)).toBeCloseTo(gravity, 5)
  })

  test('falls by 3.086 micro-gal a metre, as the free-air gradient has it', () => {
    expect((gravityAt(45, 0) - gravityAt(45, 1000)) / 1000).toBeCloseTo(3.086e-6, 8)
  })

  test('a clock carried from 45° to 60° gains 57 s a day', () => {
    expect((43_200 * (gravityAt(60) - gravityAt(45))) / gravityAt(45)).toBeCloseTo(57.2, 0)
  })
})

describe('circular error', () => {
  test.each([
    [1, 1.64],
    [2, 6.58],
    [3, 14.81],
    [4, 26.33],
    [6, 59.25],
  ])('at %d° loses %d s a day', (arc, loss) => {
    expect(Math.abs(circularLossSecondsPerDay(arc) - loss)).toBeLessThan(0.0051)
  })

  test.each([1, 5, 20, 60])('agrees with a pendulum integrated step by step at %d°', (arc) => {
    const ratio = simulatedPeriodS(1, arc) / (2 * Math.PI * Math.sqrt(1 / 9.80665))
    expect(Math.abs(circularLossSecondsPerDay(arc) / 86_400 - (ratio - 1))).toBeLessThan(1e-8)
  })

  test('is nothing at no arc, and grows with it', () => {
    expect(circularLossSecondsPerDay(0)).toBe(0)
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 80, noNaN: true }), (arc) => {
        expect(circularLossSecondsPerDay(arc + 0.1)).toBeGreaterThan(circularLossSecondsPerDay(arc))
      }),
    )
  })
})

describe('nut', () => {
  test('994 mm and 0.8 mm pitch give 34.8 s a day for a turn; 248.4 and 0.7 give 121.7', () => {
    expect(secondsPerDayPerTurn(994, 0.8)).toBeCloseTo(34.77, 2)
    expect(secondsPerDayPerTurn(248.4, 0.7)).toBeCloseTo(121.74, 2)
  })

  test('agrees with the change of a pendulum’s own period', () => {
    const shorter = pendulumBeatsPerHour(994 - 0.8)
    const rate = 86_400 * (shorter / pendulumBeatsPerHour(994) - 1)
    // First order in p/L: the second is 0.06 %.
    expect(secondsPerDayPerTurn(994, 0.8) / rate).toBeCloseTo(1, 2)
  })

  test('lower is slower', () => {
    expect(nutTurnFor(9, 36)).toEqual({ turns: 0.25, move: 'lower' })
    expect(nutTurnFor(-9, 36)).toEqual({ turns: 0.25, move: 'raise' })
    expect(nutTurnFor(0, 36)).toEqual({ turns: 0, move: null })
  })

  test('a pitch longer than the pendulum is refused by name', () => {
    expect(() => secondsPerDayPerTurn(0.5, 0.8)).toThrow(/pitchMm is 0.8/)
  })

  test.each([
    [0.27, '¼'],
    [1.5, '1½'],
    [2, '2'],
    [0.03, 'less than ⅛'],
    [0, '0'],
    [-0.62, '⅝'],
  ])('%d turns reads %s', (turns, words) => {
    expect(turnFraction(turns)).toBe(words)
  })
})
