import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { daysToTellRate, errorAtMinuteMark, rateBook, type RateEvent, type RateReading } from '../src/index.ts'
import { normal, random } from './clockSound.ts'

const DAY = 86_400
const at = (days: number) => 1.78e9 + days * DAY

/** Readings of a clock whose rate is given day by day: the error is summed up, and read with a person's scatter. */
function readings(days: number[], rateOn: (day: number) => number, sigma: number, gauss: () => number): RateReading[] {
  return days.map((day) => {
    let error = 4
    for (let d = 0; d < day; d += 0.01) error += rateOn(d) * Math.min(0.01, day - d)
    return { atS: at(day), errorS: error + sigma * gauss(), sigmaS: Math.max(sigma, 1e-3) }
  })
}

test('a straight line: the closed form of least squares, and its standard error', () => {
  const errors = [0, -8.7, -18.6, -27.1, -35.8]
  const book = rateBook({ readings: errors.map((errorS, day) => ({ atS: at(day), errorS, sigmaS: 1 })), events: [] })
  // Slope Σ(x−x̄)y/Σ(x−x̄)² with x = 0…4; standard error 1/√10, and the clock's own 0.2 s/day beside it.
  const slope = (-2 * 0 - 1 * -8.7 + 1 * -27.1 + 2 * -35.8) / 10
  expect(book.rateSecondsPerDay).toBeCloseTo(slope, 3)
  expect(book.standardError).toBeGreaterThanOrEqual(Math.sqrt(1 / 10) - 1e-9)
  expect(book.standardError).toBeLessThan(0.45)
})

test('learns what a turn does on this clock, whatever thread and length say', () => {
  const gauss = normal(random(3))
  const rate = (day: number) => (day < 10 ? -30 : day < 20 ? -30 + 28 : -30 + 42)
  const events: RateEvent[] = [
    { atS: at(10), kind: 'nut', turns: 1 },
    { atS: at(20), kind: 'nut', turns: 0.5 },
  ]
  const days = Array.from({ length: 30 }, (_, i) => i + 0.5)
  const book = rateBook({ readings: readings(days, rate, 0.5, gauss), events, pitchMm: 0.8, lengthMm: 994 })
  expect(book.priorSecondsPerDayPerTurn).toBeCloseTo(34.77, 1)
  expect(Math.abs(book.secondsPerDayPerTurn! - 28)).toBeLessThan(2 * book.perTurnStandardError! + 0.1)
  expect(Math.abs(book.rateSecondsPerDay! - 12)).toBeLessThan(2.5 * book.standardError!)
  expect(book.move).toBe('lower')
  expect(book.suggestedTurns).toBeCloseTo(12 / 28, 1)
})

test('the truth lies within two of its standard errors about 95 times in a hundred', () => {
  let within = 0
  const runs = 300
  for (let seed = 1; seed <= runs; seed++) {
    const gauss = normal(random(seed))
    const base = 20 * gauss()
    const perTurn = 34.77 * (1 + 0.25 * gauss())
    const wander = [0, 1].map(() => 0.2 * gauss())
    const rate = (day: number) => (day < 5 ? base + wander[0]! : base + 0.5 * perTurn + wander[1]!)
    const book = rateBook({
      readings: readings([0, 1.5, 3, 4.5, 6, 7], rate, 0.5, gauss),
      events: [{ atS: at(5), kind: 'nut', turns: 0.5 }],
      pitchMm: 0.8,
      lengthMm: 994,
    })
    if (Math.abs(book.rateSecondsPerDay! - rate(7)) < 2 * book.standardError!) within++
  }
  expect(within / runs).toBeGreaterThan(0.91)
  expect(within / runs).toBeLessThan(1)
})

test('the hands set right shift the error and not the rate', () => {
  const log = (shift: number): RateReading[] =>
    [0, 1, 2, 3, 4, 5].map((day) => ({ atS: at(day), errorS: -9 * day + (day > 2.5 ? shift : 0), sigmaS: 0.5 }))
  const told = rateBook({ readings: log(25), events: [{ atS: at(2.5), kind: 'hands' }] })
  expect(told.rateSecondsPerDay).toBeCloseTo(-9, 6)
})

test('hands set without a word, beside a turn of the nut, are noticed', () => {
  const log = [0, 1, 2, 3, 4, 5, 6, 7].map((day) => ({
    atS: at(day),
    errorS: day < 3.5 ? -20 * day : 100 - 5 * (day - 3.5),
    sigmaS: 0.5,
  }))
  const book = rateBook({ readings: log, events: [{ atS: at(3.5), kind: 'nut', turns: 0.5 }] })
  expect(book.rateSecondsPerDay).toBeCloseTo(-5, 1)
  expect(book.secondsPerDayPerTurn).toBeCloseTo(30, 0)
})

test('anything else that changes the clock begins anew', () => {
  const log = [0, 1, 2, 3, 4].map((day) => ({ atS: at(day), errorS: -9 * day, sigmaS: 0.5 }))
  const book = rateBook({ readings: log, events: [{ atS: at(4.1), kind: 'change' }] })
  expect(book.rateSecondsPerDay).toBeNull()
  expect(book.advice).toBe('too-few-readings')
})

describe('what it does not propose', () => {
  test('a turn that the readings can’t tell from chance', () => {
    const book = rateBook({
      readings: [
        { atS: at(0), errorS: 0 },
        { atS: at(0.5), errorS: -1 },
      ],
      events: [],
      pitchMm: 0.8,
      lengthMm: 994,
    })
    expect(book.advice).toBe('not-told-from-zero')
    expect(book.suggestedTurns).toBe(0)
    expect(book.move).toBeNull()
  })

  test('a turn within the tolerance', () => {
    const book = rateBook({
      readings: [0, 5, 10].map((d) => ({ atS: at(d), errorS: 3 * d, sigmaS: 0.5 })),
      events: [],
      pitchMm: 0.8,
      lengthMm: 994,
      toleranceSecondsPerDay: 5,
    })
    expect(book.advice).toBe('within-tolerance')
  })

  test('a turn of a nut that nobody knows', () => {
    expect(rateBook({ readings: [0, 5].map((d) => ({ atS: at(d), errorS: 9 * d })), events: [] }).advice).toBe(
      'nut-unknown',
    )
  })
})

describe('conditioning', () => {
  test('two readings that differ in the ninth digit', () => {
    const book = rateBook({
      readings: [
        { atS: 1.78e9, errorS: 123_456.789 },
        { atS: 1.78e9 + 0.001, errorS: 123_456.7891 },
      ],
      events: [],
      pitchMm: 0.8,
      lengthMm: 994,
    })
    expect(Number.isFinite(book.rateSecondsPerDay)).toBe(true)
    expect(book.standardError).toBeGreaterThan(1e7)
    expect(book.suggestedTurns).toBe(0)
  })

  test('two at the very same moment tell no rate', () => {
    expect(
      rateBook({
        readings: [
          { atS: 5, errorS: 1 },
          { atS: 5, errorS: 2 },
        ],
        events: [],
      }).rateSecondsPerDay,
    ).toBeNull()
  })

  test('moving the whole book in time and error changes nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e9, max: 1e9 }), fc.integer({ min: -40_000, max: 40_000 }), (later, ahead) => {
        const log = [0, 1, 2.5, 4].map((d) => ({ atS: d * DAY, errorS: -7 * d + (d === 1 ? 0.4 : 0) }))
        const [one, two] = [
          rateBook({ readings: log, events: [] }),
          rateBook({ readings: log.map((r) => ({ atS: r.atS + later, errorS: r.errorS + ahead })), events: [] }),
        ]
        expect(two.rateSecondsPerDay!).toBeCloseTo(one.rateSecondsPerDay!, 6)
        expect(two.standardError!).toBeCloseTo(one.standardError!, 6)
      }),
    )
  })

  test('a reading that is no number is refused by its place', () => {
    expect(() =>
      rateBook({
        readings: [
          { atS: 0, errorS: 0 },
          { atS: Number.NaN, errorS: 0 },
        ],
        events: [],
      }),
    ).toThrow(/readings\[1\]\.at/)
  })
})

describe('the next reading', () => {
  test('brings the rate to a second a day, and no sooner', () => {
    const log = [
      { atS: at(0), errorS: 0, sigmaS: 0.5 },
      { atS: at(0.1), errorS: 0.3, sigmaS: 0.5 },
    ]
    const next = rateBook({ readings: log, events: [] }).nextReadingAtS!
    // Three readings at 0, 0.1 and x days: Σ(x−x̄)²/σ² = 1 by the closed form.
    const x = (next - at(0)) / DAY
    const mean = (0 + 0.1 + x) / 3
    expect(((0 - mean) ** 2 + (0.1 - mean) ** 2 + (x - mean) ** 2) / 0.25).toBeCloseTo(1, 2)
  })

  test('comes soon after a change, and within a week at the latest', () => {
    const log = [0, 1, 2].map((d) => ({ atS: at(d), errorS: -9 * d }))
    expect(rateBook({ readings: log, events: [{ atS: at(2.5), kind: 'nut', turns: 0.25 }] }).nextReadingAtS).toBe(
      at(2.5) + 1800,
    )
    const poor = rateBook({ readings: [{ atS: at(0), errorS: 0, sigmaS: 60 }], events: [] })
    expect(poor.nextReadingAtS! - at(0)).toBeLessThanOrEqual(7 * DAY)
  })

  test('σ·√2/goal days lie between two readings', () => {
    expect(daysToTellRate(1, 1)).toBeCloseTo(Math.SQRT2)
  })
})

test('a hand on the minute mark tells the error to the nearest minute, or to the minute expected', () => {
  expect(errorAtMinuteMark(1_000_000_000 - 40 - 9)).toBe(9)
  expect(errorAtMinuteMark(1_000_000_000 - 40 + 9)).toBe(-9)
  expect(errorAtMinuteMark(1_000_000_000 - 40 - 9, 70)).toBe(69)
})
