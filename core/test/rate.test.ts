import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { daysToTellRate, errorAtMinuteMark, rateBook, type RateEvent, type RateReading } from '../src/index.ts'
import { normal, random } from './clockSound.ts'
import { madeBook } from './madeBooks.ts'

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
  // Slope Σ(x−x̄)y/Σ(x−x̄)² with x = 0…4; standard error 1/√10 by the readings, and the clock's own walk beside it.
  const slope = (-2 * 0 - 1 * -8.7 + 1 * -27.1 + 2 * -35.8) / 10
  expect(book.rateSecondsPerDay).toBeCloseTo(slope, 1)
  expect(book.standardError).toBeGreaterThanOrEqual(Math.sqrt(1 / 10) - 1e-9)
  expect(book.standardError).toBeLessThan(0.6)
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

// Binomial: of 240 books 228 ± 3.4 by right; the bounds leave room for steady clocks, whose steadiness few readings tell.
test.each([0.25, 0.5, 1])(
  'of a clock that walks by %d s a day the truth lies within two standard errors about 95 times in a hundred',
  (walk) => {
    let within = 0
    let perTurn = 0
    let runs = 0
    for (const days of [5, 10, 20])
      for (let seed = 1; seed <= 80; seed++) {
        const made = madeBook(seed, days, walk, seed % 2 === 0)
        const book = rateBook(made.input)
        runs++
        if (Math.abs(book.rateSecondsPerDay! - made.rate) < 2 * book.standardError!) within++
        if (Math.abs(book.secondsPerDayPerTurn! - made.perTurn) < 2 * book.perTurnStandardError!) perTurn++
      }
    expect(within / runs).toBeGreaterThan(0.88)
    expect(perTurn / runs).toBeGreaterThan(0.9)
  },
)

describe('a reading that does not belong', () => {
  const book = (errors: number[], events: RateEvent[] = []) =>
    rateBook({
      readings: errors.map((errorS, day) => ({ atS: at(day), errorS, sigmaS: 1 })),
      events,
      pitchMm: 0.8,
      lengthMm: 994,
    })

  test('is named among three, where any one might be wrong, by what clocks do; and no turn is proposed', () => {
    const doubted = book([0, -10, 3580])
    expect(doubted.suspects.map((s) => s.index)).toEqual([2])
    expect(doubted).toMatchObject({ advice: 'doubted', suggestedTurns: 0, move: null })
    expect(doubted.rateSecondsPerDay).toBeCloseTo(-10, 6)
  })

  test('mistyped by a minute spoils no rate, wherever it stands', () => {
    let named = 0
    for (let seed = 1; seed <= 64; seed++) {
      const gauss = normal(random(seed))
      const base = 15 * gauss()
      const wrong = seed % 8
      let error = 0
      const errors = Array.from({ length: 8 }, (_, day) => {
        error += base + 0.5 * gauss()
        return error + 0.5 * gauss() + (day === wrong ? 60 * (seed % 16 < 8 ? 1 : -1) : 0)
      })
      const result = book(errors)
      if (result.suspects.some((s) => s.index === wrong)) named++
      expect(Math.abs(result.rateSecondsPerDay! - base)).toBeLessThan(3 * result.standardError!)
      expect(result.suggestedTurns).toBe(0)
    }
    expect(named).toBeGreaterThanOrEqual(58)
  })

  test('hands set without a word are told from a mistyped reading', () => {
    const shifted = book([0, -10, -20, 30, 20, 10])
    expect(shifted.suspects).toEqual([{ index: 3, kind: 'hands' }])
    expect(shifted.rateSecondsPerDay).toBeCloseTo(-10, 6)
  })

  test('hands set without a word beside a turn leave the nut its figure', () => {
    const turned: RateEvent[] = [{ atS: at(2.01), kind: 'nut', turns: 0.5 }]
    const one = book([0, -20, -40, 60], turned)
    expect(one.suspects.map((s) => s.index)).toEqual([3])
    expect(one.secondsPerDayPerTurn).toBeCloseTo(34.77, 1)
    const two = book([0, -20, -40, 60, 55], turned)
    expect(two.suspects).toEqual([{ index: 3, kind: 'hands' }])
    expect(two.move).toBeNull()
  })

  test('is not found where nothing is wrong', () => {
    let doubted = 0
    for (let seed = 1; seed <= 100; seed++)
      if (rateBook(madeBook(seed, 12, 0.5, seed % 2 === 0).input).suspects.length > 0) doubted++
    expect(doubted).toBeLessThanOrEqual(1)
  })

  test('the order in which readings are given changes nothing but their numbers', () => {
    const readings = [0, -10, -20, 50, -40, -50].map((errorS, day) => ({
      atS: at(day),
      errorS,
      sigmaS: day === 5 ? 3 : 1,
    }))
    const [forward, backward] = [readings, [...readings].reverse()].map((r) => rateBook({ readings: r, events: [] }))
    expect(forward!.suspects.map((s) => s.index)).toEqual([3])
    expect(backward!.suspects.map((s) => s.index)).toEqual([2])
    const { suspects: _, ...figures } = forward!
    expect(backward).toMatchObject(figures)
  })
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
      toleranceSecondsPerDay: 1,
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
    expect(rateBook({ readings: [0, 5].map((d) => ({ atS: at(d), errorS: 19 * d })), events: [] }).advice).toBe(
      'nut-unknown',
    )
  })

  test('a turn beyond what a thread can do', () => {
    const book = rateBook({
      readings: [0, 2, 4].map((d) => ({ atS: at(d), errorS: -1500 * d })),
      events: [],
      pitchMm: 0.8,
      lengthMm: 994,
    })
    expect(book).toMatchObject({ advice: 'beyond-the-nut', suggestedTurns: 0, move: null })
  })

  test('without a tolerance given, the workshop’s usual ten seconds a day', () => {
    const nine = rateBook({ readings: [0, 5].map((d) => ({ atS: at(d), errorS: 9 * d })), events: [] })
    expect(nine.advice).toBe('within-tolerance')
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
    // Ten million seconds a day is what they say; that is to say nothing.
    expect(book.rateSecondsPerDay).toBeNull()
    expect(book.suggestedTurns).toBe(0)
    expect(book.advice).toBe('too-few-readings')
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
