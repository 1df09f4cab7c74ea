import { describe, expect, test } from 'vitest'
import { rateBook, type RateReading, type RateRun } from '../src/index.ts'
import { rateBookOf, type WatchHeard } from '../src/rate/fromLog.ts'
import { normal, random } from './clockSound.ts'

const DAY = 86_400
const AIMS = {
  pendulum: { pitchMm: null, lengthMm: null },
  settings: { rateToleranceSecondsPerDay: 10, rateGoalSecondsPerDay: 1 },
}

function run(fromDay: number, days: number, secondsPerDay: number, part: Partial<RateRun> = {}): RateRun {
  return {
    fromS: fromDay * DAY,
    toS: (fromDay + days) * DAY,
    secondsPerDay,
    standardError: 0.2,
    device: 'bench',
    deviceError: 0.3,
    ...part,
  }
}

/** A made week: the clock walks by itself, a microphone listens for some nights, it is read by eye or by its strike. */
function week(seed: number) {
  const u = random(seed)
  const gauss = normal(u)
  const rate = 30 * gauss()
  const walk = 0.8
  const card = 0.6 * gauss()
  const strikesOff = 40 * gauss()
  const hours = 7 * 24
  const errors = [0]
  for (let h = 1; h <= hours; h++) errors.push(errors[h - 1]! + rate / 24 + (walk / Math.sqrt(24)) * gauss())
  const readings: RateReading[] = [12, 60, 108, 156].map((h) => ({
    atS: h * 3600,
    errorS: errors[h]! + gauss(),
    sigmaS: 1,
  }))
  for (let h = 20; h < 60; h += 10)
    readings.push({ atS: h * 3600, errorS: errors[h]! + strikesOff + 4 * gauss(), sigmaS: 4, byStrike: true })
  const runs = [18, 66, 114].map((h): RateRun => {
    const heard = (errors[h + 12]! - errors[h]!) * 2 + card + 0.2 * gauss()
    return run(h / 24, 0.5, heard, { deviceError: 0.6 })
  })
  return { rate, readings, runs, last: errors }
}

describe('the rate book with what watches heard', () => {
  test('a run alone tells the rate, with its own error, the sound card’s and the clock’s wander', () => {
    const book = rateBook({ readings: [], events: [], runs: [run(0, 0.5, 12, { standardError: 0.1, deviceError: 1 })] })
    expect(book.rateSecondsPerDay).toBeCloseTo(12, 1)
    expect(book.standardError!).toBeGreaterThan(Math.hypot(0.1, 1))
    expect(book.standardError!).toBeLessThan(4)
    expect(book.segments).toEqual([])
  })

  test('the truth lies within two standard errors as often as it should, over made weeks', () => {
    let within = 0
    const all = 150
    for (let seed = 1; seed <= all; seed++) {
      const { rate, readings, runs } = week(seed)
      const book = rateBook({ readings, events: [], runs })
      if (Math.abs(book.rateSecondsPerDay! - rate) < 2 * book.standardError!) within++
    }
    expect(within / all).toBeGreaterThan(0.9)
  })

  test('many nights by one sound card know the rate no better than that card is known', () => {
    const nights = (device: (i: number) => string) =>
      rateBook({
        readings: [],
        events: [],
        runs: Array.from({ length: 12 }, (_, i) =>
          run(i, 0.5, 5, { standardError: 0.05, deviceError: 2, device: device(i) }),
        ),
      }).standardError!
    expect(nights(() => 'bench')).toBeGreaterThan(1.9)
    expect(nights((i) => `card ${i}`)).toBeLessThan(1.1)
  })

  test('a run over a turn of the nut tells nothing of either side', () => {
    const events = [{ atS: 0.25 * DAY, kind: 'nut' as const, turns: 1 }]
    const reading = { atS: 0, errorS: 0 }
    expect(rateBook({ readings: [reading], events, runs: [run(0, 0.5, 9)] }).rateSecondsPerDay).toBeNull()
    expect(rateBook({ readings: [reading], events, runs: [run(0.3, 0.5, 9)] }).rateSecondsPerDay).toBeCloseTo(9, 1)
  })

  test('strikes that come forty seconds late by the dial shift no rate', () => {
    const eye = [0, 3, 6].map((d) => ({ atS: d * DAY, errorS: 10 * d, sigmaS: 1 }))
    const struck = [4, 5, 6.5].map((d) => ({ atS: d * DAY, errorS: 10 * d - 40, sigmaS: 4 }))
    const told = (byStrike: boolean) =>
      rateBook({ readings: [...eye, ...struck.map((r) => ({ ...r, byStrike }))], events: [] })
    expect(told(true).rateSecondsPerDay).toBeCloseTo(10, 0)
    expect(told(true).suspects).toEqual([])
    expect(Math.abs(told(false).rateSecondsPerDay! - 10) > 1 || told(false).suspects.length > 0).toBe(true)
  })

  test('a figure that can’t be is refused by name', () => {
    const wrong = (part: Partial<RateRun>) => () => rateBook({ readings: [], events: [], runs: [run(0, 1, 1, part)] })
    expect(wrong({ standardError: 0 })).toThrow('runs[0].standardError')
    expect(wrong({ toS: -1 })).toThrow('runs[0].seconds')
    expect(wrong({ secondsPerDay: NaN })).toThrow('runs[0].rateSecondsPerDay')
  })

  test('of a job’s log: watches by microphone and file count, the practice clock’s and those without a run do not', () => {
    const watch: WatchHeard = {
      beganAt: '2026-06-01T20:00:00.000Z',
      pickup: 'microphone',
      device: '',
      ppmError: 2,
      run: { fromS: 60, toS: 40_000, secondsPerDay: -7, standardError: 0.3 },
    }
    const of = (watches: WatchHeard[]) => rateBookOf({ readings: [], events: [], watches }, AIMS)
    expect(of([watch])?.rateSecondsPerDay).toBeCloseTo(-7, 1)
    expect(of([{ ...watch, ppmError: null }])!.standardError!).toBeGreaterThan(of([watch])!.standardError! + 1)
    expect(of([{ ...watch, pickup: 'practice' }])).toBeNull()
    expect(of([{ ...watch, run: null }])).toBeNull()
  })
})
