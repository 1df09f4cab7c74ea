import { describe, expect, test } from 'vitest'
import { rateBook, type RateReading } from '../src/index.ts'
import { madeLog } from './madeLogs.ts'

const DAY_S = 86_400
const NUT = { pitchMm: 0.7, lengthMm: 994 }

/** A clock that loses half a second for each degree, through a month that grows warmer and cold again; exact. */
function summer(perC: number, warmer = 0): RateReading[] {
  const warmth = (day: number) => 15 + 0.8 * Math.min(day, 30 - day)
  let error = 0
  return Array.from({ length: 31 }, (_, day) => {
    if (day > 0) error += 3 + perC * ((warmth(day) + warmth(day - 1)) / 2 - 15)
    return { atS: day * DAY_S, errorS: error, temperatureC: warmth(day) + warmer }
  })
}

describe('what a rate follows beside its nut', () => {
  test('a degree’s half second is learnt, and the rate now is that of now’s warmth', () => {
    const book = rateBook({ readings: summer(-0.5), events: [] })
    expect(Math.abs(book.secondsPerDayPerC! + 0.5)).toBeLessThan(2 * book.perCStandardError!)
    expect(book.perCStandardError).toBeLessThan(0.1)
    // The last three days are 15 to 17.4 degrees warm.
    expect(Math.abs(book.rateSecondsPerDay! - (3 - 0.5 * 1.2))).toBeLessThan(0.3)
    expect(book.arcShare).toBeNull()
  })

  test('where it is measured from changes nothing', () => {
    const [here, kelvin] = [
      rateBook({ readings: summer(-0.5), events: [] }),
      rateBook({ readings: summer(-0.5, 20), events: [] }),
    ]
    expect(kelvin.secondsPerDayPerC).toBeCloseTo(here.secondsPerDayPerC!, 9)
    expect(kelvin.rateSecondsPerDay).toBeCloseTo(here.rateSecondsPerDay!, 9)
    expect(kelvin.standardError).toBeCloseTo(here.standardError!, 9)
  })

  test('nothing is said of warmth that was not read, or never changed', () => {
    const untold = summer(-0.5).map(({ temperatureC: _, ...r }) => r)
    const level = untold.map((r) => ({ ...r, temperatureC: 18 }))
    for (const readings of [untold, level])
      expect(rateBook({ readings, events: [] })).toMatchObject({ secondsPerDayPerC: null, perCStandardError: null })
  })

  test.each([
    [{ temperatureC: 200 }, /readings\[1\]\.temperatureC/],
    [{ semiArcDeg: -1 }, /readings\[1\]\.semiArcDeg/],
  ])('%o is refused by name', (part, message) => {
    const readings = summer(0).map((r, i) => (i === 1 ? { ...r, ...part } : r))
    expect(() => rateBook({ readings, events: [] })).toThrow(message)
  })

  test('made logs through weather: the truth within two errors of nearly all, and no turn the wrong way', () => {
    const all = Array.from({ length: 100 }, (_, i) => madeLog(i + 1))
    let [warmth, rate, wrong] = [0, 0, 0]
    for (const log of all) {
      const book = rateBook({ ...NUT, readings: log.readings, events: log.events })
      if (Math.abs(book.secondsPerDayPerC! - log.perC) < 2 * book.perCStandardError!) warmth++
      if (Math.abs(book.rateSecondsPerDay! - log.rateLately) < 2 * book.standardError!) rate++
      if (book.move !== null && (book.move === 'lower') !== log.rateLately > 0) wrong++
    }
    expect(warmth).toBeGreaterThanOrEqual(92)
    expect(rate).toBeGreaterThanOrEqual(90)
    expect(wrong).toBe(0)
  })

  test('an arc that changes is told from warmth: its share of the circular error', () => {
    const all = Array.from({ length: 60 }, (_, i) => madeLog(i + 500, { arcs: true }))
    let [arc, warmth] = [0, 0]
    for (const log of all) {
      const book = rateBook({ ...NUT, readings: log.readings, events: log.events })
      if (Math.abs(book.arcShare! - log.arcShare) < 2 * book.arcShareStandardError!) arc++
      if (Math.abs(book.secondsPerDayPerC! - log.perC) < 2 * book.perCStandardError!) warmth++
    }
    expect(arc).toBeGreaterThanOrEqual(53)
    expect(warmth).toBeGreaterThanOrEqual(55)
  })
})
