import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { ownClock, SECONDS_PER_PPM, type ClockPoint, ownClockByRate } from '../src/index.ts'
import { clockSound } from './clockSound.ts'
import { listen } from './hearClock.ts'
import { normal, random } from './clockSound.ts'
import { heard } from './hearClock.ts'

/** Blocks of 10 ms from a recorder that is fast by so much, each late by its own chance, some by much. */
function blocks(ppm: number, seconds: number, seed: number, leap?: { atS: number; byS: number }): ClockPoint[] {
  const u = random(seed)
  const gauss = normal(u)
  return Array.from({ length: Math.round(seconds * 20) }, (_, i) => {
    const trueS = i * 0.05
    const lateS = 0.004 + Math.abs(0.002 * gauss()) + (u() < 0.05 ? 0.2 * u() : 0)
    const computerS = 1000 + trueS + lateS + (leap && trueS > leap.atS ? leap.byS : 0)
    return { soundS: trueS * (1 + ppm / 1e6), computerS }
  })
}

describe('the recorder’s own clock against the computer’s', () => {
  test('is told within two errors about 95 times in a hundred, and to a few millionths in five minutes', () => {
    let held = 0
    const all = 100
    for (let seed = 1; seed <= all; seed++) {
      const ppm = 200 * (random(seed)() - 0.5)
      const told = ownClock(blocks(ppm, 300, seed))!
      if (Math.abs(told.ppm - ppm) < 2 * told.standardError) held++
      expect(told.standardError).toBeLessThan(4)
    }
    expect(held).toBeGreaterThanOrEqual(90)
  })
  test('the longer it is compared the better it is known', () => {
    const error = (seconds: number) => ownClock(blocks(30, seconds, 7))!.standardError
    expect(error(1200)).toBeLessThan(error(300) / 4)
  })
  test('a clock of the computer that is set in between takes nothing from it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 30, noNaN: true }), fc.boolean(), (byS, back) => {
        const told = ownClock(blocks(40, 400, 3, { atS: 150, byS: back ? -byS : byS }))!
        expect(Math.abs(told.ppm - 40)).toBeLessThan(4 * told.standardError)
        expect(told.seconds).toBeLessThan(255)
      }),
      { numRuns: 12 },
    )
  })
  test('nothing is told of half a minute', () => {
    expect(ownClock(blocks(40, 30, 1))).toBeNull()
    expect(ownClock([])).toBeNull()
  })
  test('a millionth is 0.0864 s a day', () => {
    expect(SECONDS_PER_PPM).toBeCloseTo(86_400 / 1e6, 10)
  })
  test('what is not known of it stays in the error of a rate, by the root of the squares', () => {
    const clock = { seconds: 20, sampleRate: 16_000, unevenMs: 3 }
    const alone = heard(clock).rateStandardError
    expect(heard(clock, { ppmError: 10 }).rateStandardError).toBeCloseTo(Math.hypot(alone, 0.864), 9)
  })
})

describe('by a clock whose rate is known', () => {
  test('a sound card that gives a hundred samples in a million too many is found so, with both errors', () => {
    const seconds = 60
    // Made at 20,002 samples a second and taken for 20,000: the card runs fast.
    const made = clockSound({ beatsPerHour: 3600, seconds, sampleRate: 20_002, rateSecondsPerDay: 2, scatterMs: 0.1 })
    const result = listen({ ...made, sampleRate: 20_000 }, { beatsPerHour: 3600 })
    if (!result.heard) throw new Error(result.sentence)
    const told = ownClockByRate(
      { secondsPerDay: result.rateSecondsPerDay, standardError: result.rateStandardError },
      { secondsPerDay: 2, standardError: 0.1 },
      seconds,
    )
    expect(Math.abs(told.ppm - 100)).toBeLessThan(2.5 * told.standardError)
    expect(told.standardError).toBeGreaterThan(0.1 / 0.0864)
    expect(told.standardError).toBeLessThan(20)
  })
})
