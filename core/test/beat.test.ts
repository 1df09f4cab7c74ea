import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  beatByEar,
  beatIntervals,
  beatOffset,
  beatRemedy,
  DEFAULT_BEAT_TOLERANCE,
  FieldError,
  gradeBeat,
  sideOfFirst,
  twoReadings,
} from '../src/index.ts'
import { walkedIntervals } from './simulatedPendulum.ts'

describe('intervals and offset', () => {
  test('the craft’s own check values', () => {
    const one = beatIntervals(7200, 5, 2, 0.5)
    expect(one.rightToLeftMs).toBeCloseTo(465.16, 2)
    expect(one.leftToRightMs).toBeCloseTo(534.84, 2)
    const two = beatIntervals(3600, 2, 1, 0.1)
    expect(two.rightToLeftMs).toBeCloseTo(963.2, 2)
    expect(two.leftToRightMs).toBeCloseTo(1036.8, 2)
  })

  test('are those of a swing walked along step by step', () => {
    for (const [arc, release, offset] of [
      [5, 2, 0.5],
      [3, 1.2, -0.9],
      [12, 4, 3],
    ] as const) {
      const walked = walkedIntervals(1, arc, release, offset)
      const reckoned = beatIntervals(7200, arc, release, offset)
      expect(reckoned.rightToLeftMs).toBeCloseTo(walked.rightToLeftMs, 3)
      expect(reckoned.leftToRightMs).toBeCloseTo(walked.leftToRightMs, 3)
    }
  })

  test('the offset comes back out of the intervals it made', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 15, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        fc.double({ min: -0.99, max: 0.99, noNaN: true }),
        fc.integer({ min: 2400, max: 18_000 }),
        (arc, releaseShare, offsetShare, beats) => {
          const release = arc * releaseShare
          const offset = (arc - release) * offsetShare
          const found = beatOffset(beatIntervals(beats, arc, release, offset), arc, release)
          expect(found.offsetDeg).toBeCloseTo(offset, 6)
          expect(found.marginDeg).toBeCloseTo(arc - release - Math.abs(offset), 6)
          expect(found.splitPercent).toBeGreaterThanOrEqual(50)
        },
      ),
    )
  })

  test('a release beyond the arc is refused, and both are named', () => {
    const refused = () => beatOffset({ rightToLeftMs: 465, leftToRightMs: 535 }, 2, 5)
    expect(refused).toThrow(FieldError)
    expect(refused).toThrow(/releaseDeg.*semiArcDeg/)
  })

  test('a split that no offset can make is refused', () => {
    expect(() => beatOffset({ rightToLeftMs: 100, leftToRightMs: 900 }, 5, 2)).toThrow(/splits no further/)
  })
})

describe('remedy', () => {
  test('off to the right: crutch foot left, left side up, bottom left; length × tan δ', () => {
    const remedy = beatRemedy(0.5, { crutchLengthMm: 120, footSpacingMm: 300, caseHeightMm: 700 })
    expect(remedy.crutchBendToward).toBe('left')
    expect(remedy.packUnder).toBe('left')
    expect(remedy.swingBottomToward).toBe('left')
    expect(remedy.crutchBendMm).toBeCloseTo(1.0472, 3)
    expect(remedy.packMm).toBeCloseTo(2.6181, 3)
    expect(remedy.swingBottomMm).toBeCloseTo(6.1088, 3)
  })

  test('is its own mirror image', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 5, noNaN: true }), (offset) => {
        const [right, left] = [
          beatRemedy(offset, { crutchLengthMm: 100 }),
          beatRemedy(-offset, { crutchLengthMm: 100 }),
        ]
        expect(left.crutchBendMm).toBe(right.crutchBendMm)
        expect([right.crutchBendToward, left.crutchBendToward]).toEqual(['left', 'right'])
      }),
    )
  })

  test('gives only what it has lengths for', () => {
    expect(Object.keys(beatRemedy(0.5, { footSpacingMm: 300 }))).toEqual(['packMm', 'packUnder'])
  })
})

describe('two readings', () => {
  test('the zero lies on the line through both', () => {
    expect(twoReadings(48, 35, 0.4).fromStartMm).toBeCloseTo(1.4769, 3)
    expect(twoReadings(48, 35, 0.4).fromNowMm).toBeCloseTo(1.0769, 3)
  })

  test('finds the crutch bend of a simulated clock without its arc or release', () => {
    // The crutch moves the escapement by change/length; intervals come from the walked swing.
    const out = (offset: number) => {
      const w = walkedIntervals(1, 5, 2, offset)
      return (w.leftToRightMs - w.rightToLeftMs) / 2
    }
    const perMm = 180 / Math.PI / 120
    const found = twoReadings(out(0.7), out(0.7 - 0.5 * perMm), 0.5)
    // Nearly linear: within 2 % of the true 0.7° / perMm.
    expect(found.fromStartMm / (0.7 / perMm)).toBeCloseTo(1, 1)
  })

  test('a change that moved nothing is refused', () => {
    expect(() => twoReadings(40, 40, 0.5)).toThrow(/secondMs/)
    expect(() => twoReadings(40, 30, 0)).toThrow(/changeMm/)
  })
})

describe('tolerance', () => {
  test.each([
    [50.4, 'sound', 'even'],
    [51.4, 'watch', 'a trained ear hears it limp'],
    [53, 'must', 'it limps'],
    [54.1, 'must', 'anyone hears it limp'],
  ])('%d per cent is %s: %s', (split, grade, words) => {
    expect(gradeBeat(split, 0, DEFAULT_BEAT_TOLERANCE)).toBe(grade)
    expect(beatByEar(split, DEFAULT_BEAT_TOLERANCE)).toBe(words)
  })

  test('a shop that goes by milliseconds has its own limit', () => {
    const shop = { ...DEFAULT_BEAT_TOLERANCE, by: 'milliseconds' as const }
    expect([4, 14, 16].map((ms) => gradeBeat(60, ms, shop))).toEqual(['sound', 'watch', 'must'])
  })
})

describe('which side is which', () => {
  // Right-hand release at 0, left-hand one at 0.465 of a 1 s period; the bob is at the right end 0.18 s after release.
  const taps = (late: number[]) => late.map((by, n) => 10 + n + 0.18 + by)

  test('taps at the right-hand end name the tick before them, also by a slow hand', () => {
    expect(sideOfFirst(taps([0.05, -0.04, 0.1, 0.02, 0.08]), 10, 0.465, 1).first).toBe('right')
    expect(sideOfFirst(taps([0.05, -0.04, 0.1, 0.02, 0.08]), 10.465, 0.535, 1).first).toBe('left')
  })

  test('taps all over the period tell nothing', () => {
    expect(sideOfFirst(taps([0, 0.25, 0.5, 0.75, 0.1, 0.6]), 10, 0.5, 1).first).toBeNull()
  })

  test('two taps are too few', () => {
    expect(sideOfFirst(taps([0, 0]), 10, 0.5, 1).first).toBeNull()
  })
})
