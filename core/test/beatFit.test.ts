import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { autocorrelation } from '../src/listen/autocorrelation.ts'
import { fitBeats } from '../src/listen/fit.ts'
import { findSlips } from '../src/listen/slips.ts'
import { robustSpread } from '../src/listen/spread.ts'
import { toothReports } from '../src/listen/teeth.ts'
import type { TrackedBeat } from '../src/listen/track.ts'
import { normal, random } from './clockSound.ts'

interface Made {
  count?: number
  beatS?: number
  unevenMs?: number
  scatterMs?: number
  seed?: number
  /** ms that a beat is late by itself */
  late?: (index: number) => number
  missing?: (index: number) => boolean
}

/** Beats as a clock drops them: one every beat, the second side later by half the unevenness and the first earlier. */
function beats({
  count = 200,
  beatS = 0.5,
  unevenMs = 14,
  scatterMs = 0.1,
  seed = 1,
  late,
  missing,
}: Made): TrackedBeat[] {
  const chance = normal(random(seed))
  return Array.from({ length: count }, (_, index) => {
    const side = index % 2 === 0 ? -0.5 : 0.5
    const lateMs = side * unevenMs + scatterMs * chance() + (late?.(index) ?? 0)
    return { index, atS: 3 + beatS * index + lateMs / 1000, likeness: 1 }
  }).filter((b) => !missing?.(b.index))
}

test('autocorrelation is the sum it is defined by, lag by lag', () => {
  fc.assert(
    fc.property(
      fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { minLength: 2, maxLength: 60 }),
      fc.integer({ min: 1, max: 70 }),
      (list, lags) => {
        const values = Float32Array.from(list)
        const mean = values.reduce((sum, v) => sum + v, 0) / values.length
        const found = autocorrelation(values, lags)
        expect(found).toHaveLength(Math.min(lags, values.length))
        found.forEach((v, lag) => {
          let sum = 0
          for (let i = 0; i + lag < values.length; i++) sum += (values[i]! - mean) * (values[i + lag]! - mean)
          expect(v).toBeCloseTo(sum / (values.length - lag), 6)
        })
      },
    ),
  )
})

describe('robust spread', () => {
  test('of normal scatter it is the standard deviation, within what chance allows', () => {
    const chance = normal(random(4))
    expect(robustSpread(Array.from({ length: 20_000 }, () => 7 + 0.3 * chance()))).toBeCloseTo(0.3, 2)
    expect(robustSpread([])).toBe(0)
  })

  test('less than half of the values, however wild, leave it finite and small', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { maxLength: 40 }), (wild) => {
        const chance = normal(random(9))
        const good = Array.from({ length: 101 }, () => chance())
        expect(robustSpread([...good, ...wild])).toBeLessThan(4)
      }),
    )
  })
})

describe('the fit of the beats', () => {
  test('without scatter it is exact', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 2, noNaN: true }),
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.integer({ min: 12, max: 300 }),
        (beatS, unevenMs, count) => {
          const fit = fitBeats(beats({ beatS, unevenMs, count, scatterMs: 0 }), [])
          expect(fit?.beatS).toBeCloseTo(beatS, 9)
          expect(1000 * (fit?.unevenS ?? NaN)).toBeCloseTo(unevenMs, 6)
        },
      ),
    )
  })

  test('its standard errors are those that two hundred clocks show', () => {
    const off = Array.from({ length: 200 }, (_, seed) => {
      const fit = fitBeats(beats({ seed: seed + 1, scatterMs: 0.2 }), [])!
      return {
        beat: (fit.beatS - 0.5) / fit.beatStandardErrorS,
        uneven: (fit.unevenS - 0.014) / fit.unevenStandardErrorS,
      }
    })
    for (const of of ['beat', 'uneven'] as const) {
      const rms = Math.sqrt(off.reduce((sum, o) => sum + o[of] ** 2, 0) / off.length)
      // Two hundred give the true one within 10 per cent two times in three.
      expect(rms).toBeGreaterThan(0.8)
      expect(rms).toBeLessThan(1.2)
    }
  })

  test('beats that are missing, and knocks far off, pull nothing', () => {
    const made = beats({
      missing: (n) => n % 7 === 3,
      late: (n) => (n % 31 === 5 ? 60 : 0),
      scatterMs: 0.05,
    })
    const fit = fitBeats(made, [])!
    expect(1000 * fit.unevenS).toBeCloseTo(14, 1)
    made.forEach((b, i) => expect(fit.healthy[i]).toBe(b.index % 31 !== 5))
  })

  test('too few are not fitted', () => {
    expect(fitBeats(beats({ count: 3 }), [])).toBeNull()
  })
})

describe('slips of the recorder', () => {
  test('a step in both sides is found where it is, and its size', () => {
    const made = beats({ late: (n) => (n >= 90 ? 12 : 0) + (n >= 140 ? -8 : 0) })
    const slips = findSlips(made)
    expect(slips.map((s) => s.beforeIndex)).toEqual([90, 140])
    expect(slips[0]?.stepMs).toBeCloseTo(12, 0)
    expect(slips[1]?.stepMs).toBeCloseTo(-8, 0)
    const fit = fitBeats(made, slips)!
    expect(Math.abs(fit.beatS - 0.5)).toBeLessThan(4 * fit.beatStandardErrorS)
    expect(1000 * fit.unevenS).toBeCloseTo(14, 1)
  })

  test('bent teeth come back to where they were and are none; nor is a clock that drifts', () => {
    expect(findSlips(beats({ late: (n) => (Math.floor(n / 2) % 30 < 3 ? 9 : 0) }))).toEqual([])
    expect(findSlips(beats({ late: (n) => 0.06 * n }))).toEqual([])
    expect(findSlips(beats({ late: (n) => 4 * Math.sin(n / 30) }))).toEqual([])
  })
})

test('a bent tooth is named, on the pallet where it is late', () => {
  const made = beats({ count: 400, late: (n) => (n % 2 === 1 && Math.floor(n / 2) % 30 === 11 ? 3 : 0) })
  const bent = toothReports(made, fitBeats(made, [])!, 30).filter((r) => r.bent)
  expect(bent).toMatchObject([{ tooth: 12, pallet: 'second' }])
  expect(bent[0]?.lateMs).toBeCloseTo(3, 0)
  expect(bent[0]?.turnsHeard).toBe(7)
})
