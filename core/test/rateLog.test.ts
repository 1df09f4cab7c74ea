import { describe, expect, test } from 'vitest'
import { learnedOf, rateBookOf, rateInWords, turnInWords } from '../src/index.ts'

describe('the log as the rate book reckons with it', () => {
  const at = (day: number) => new Date(Date.UTC(2026, 0, 1 + day)).toISOString()
  const readings = [0, 1, 2, 3].map((day) => ({ at: at(day), errorSeconds: -6 * day, sigmaSeconds: 0.5 }))

  const AIMS = {
    pendulum: { pitchMm: null, lengthMm: null },
    settings: { rateToleranceSecondsPerDay: 10, rateGoalSecondsPerDay: 1 },
  }

  test('is none without readings', () => {
    expect(rateBookOf({ readings: [], events: [] }, AIMS)).toBeNull()
  })

  test('winding and the start of a trial change no rate; moving it does', () => {
    const rate = (kind: 'winding' | 'trial' | 'moon' | 'moved') =>
      rateBookOf({ readings, events: [{ at: at(3.5), kind, turns: null }] }, AIMS)?.rateSecondsPerDay
    expect(rate('winding')).toBeCloseTo(-6)
    expect(rate('trial')).toBeCloseTo(-6)
    expect(rate('moon')).toBeCloseTo(-6)
    expect(rate('moved')).toBeNull()
  })

  test('is told in words', () => {
    expect(rateInWords(-8.766, 0.8)).toBe('loses 8.8 ± 0.8 s a day')
    expect(rateInWords(42, 5)).toBe('gains 42 ± 5 s a day')
    expect(rateInWords(0.123, 0.02)).toBe('gains 0.12 ± 0.02 s a day')
    expect(turnInWords({ advice: 'turn', move: 'raise', suggestedTurns: 0.27 })).toBe('Raise the nut by ¼ turn')
    expect(turnInWords({ advice: 'turn', move: 'lower', suggestedTurns: 1.5 })).toBe('Lower the nut by 1½ turns')
    expect(turnInWords({ advice: 'turn', move: 'lower', suggestedTurns: 0.02 })).toBe(
      'Lower the nut by less than ⅛ of a turn',
    )
    expect(turnInWords({ advice: 'within-tolerance', move: null, suggestedTurns: 0 })).toBeNull()
  })
})

describe('what earlier visits taught', () => {
  const SETTINGS = { rateToleranceSecondsPerDay: 10, rateGoalSecondsPerDay: 1 }
  /** Readings at a rate of −8, and after one turn at day 4 of +2: the turn gains ten seconds a day. */
  const visit = (from: string, perTurn: number) => {
    const at = (n: number) => new Date(Date.parse(from) + n * 86_400_000).toISOString()
    const error = (n: number) => (n <= 4 ? -8 * n : -32 + (-8 + perTurn) * (n - 4))
    return {
      job: { receivedAt: from },
      clock: { pendulum: { pitchMm: null, lengthMm: null } },
      readings: [0, 1, 2, 3, 3.9, 4.1, 5, 6, 7, 8].map((n) => ({
        at: at(n),
        errorSeconds: error(n),
        sigmaSeconds: 0.1,
      })),
      events: [
        { at: at(4), kind: 'nut' as const, turns: 1 },
        { at: at(8), kind: 'oiled' as const, turns: null },
      ],
    }
  }

  test('a visit with a thermometer tells what a degree does', () => {
    const at = (n: number) => new Date(Date.parse('2022-01-01T00:00:00Z') + n * 86_400_000).toISOString()
    const warmth = (n: number) => 17 + 4 * Math.sin(n / 4)
    let error = 0
    const readings = Array.from({ length: 40 }, (_, n) => {
      if (n > 0) error += 1 - 0.4 * ((warmth(n) + warmth(n - 1)) / 2 - 17)
      return { at: at(n), errorSeconds: error, sigmaSeconds: 0.1 }
    })
    const temperatures = readings.map((r, n) => ({ at: r.at, celsius: warmth(n) }))
    const warm = { ...visit(at(0), 10), readings, events: [], thermometers: [{ temperatures }] }
    const learned = learnedOf([warm, visit('2024-01-01T00:00:00Z', 10)], SETTINGS)
    expect(learned.secondsPerDayPerC).toBeCloseTo(-0.4, 1)
    expect(learned.secondsPerDayPerTurn).toBeCloseTo(10, 0)
  })

  test('the latest visit that turned the nut tells what a turn does', () => {
    const learned = learnedOf([visit('2020-01-01T00:00:00Z', 30), visit('2024-01-01T00:00:00Z', 10)], SETTINGS)
    expect(learned.secondsPerDayPerTurn).toBeCloseTo(10, 0)
    expect(learned.lastOiledAt).toBe('2024-01-09T00:00:00.000Z')
    expect(learned.secondsPerDayPerC).toBeNull()
    expect(learnedOf([], SETTINGS)).toEqual({
      secondsPerDayPerTurn: null,
      perTurnStandardError: null,
      secondsPerDayPerC: null,
      perCStandardError: null,
      lastOiledAt: null,
    })
  })
})
