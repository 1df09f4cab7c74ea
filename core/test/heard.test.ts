import { describe, expect, test } from 'vitest'
import {
  beatIntervals,
  gradeHeard,
  offsetOf,
  offsetRange,
  outOfBeatMs,
  remediesOf,
  sided,
  signedMs,
  splitPercent,
  zeroByTwo,
  DEFAULT_BEAT_TOLERANCE,
} from '../src/index.ts'

/** Intervals of a clock whose escapement stands half a degree to the right, heard with the right-hand tick first. */
const { rightToLeftMs, leftToRightMs } = beatIntervals(7200, 5, 2, 0.5)
const RIGHT_FIRST = { firstToSecondMs: rightToLeftMs, secondToFirstMs: leftToRightMs, firstSide: 'right' as const }
const LEFT_FIRST = { firstToSecondMs: leftToRightMs, secondToFirstMs: rightToLeftMs, firstSide: 'left' as const }

describe('sides', () => {
  test('are the same whichever tick was heard first', () => {
    expect(sided(RIGHT_FIRST)).toEqual(sided(LEFT_FIRST))
    expect(signedMs(RIGHT_FIRST)).toBeCloseTo(34.84, 2)
    expect(signedMs(LEFT_FIRST)).toBeCloseTo(34.84, 2)
  })

  test('taken for one another, the sign turns', () => {
    expect(signedMs({ ...RIGHT_FIRST, firstSide: 'left' })).toBeCloseTo(-34.84, 2)
  })

  test('not told, there is no sign', () => {
    expect(sided({ ...RIGHT_FIRST, firstSide: null })).toBeNull()
    expect(signedMs({ ...RIGHT_FIRST, firstSide: null })).toBeNull()
  })
})

describe('offset', () => {
  test('comes back with its side', () => {
    expect(offsetOf(RIGHT_FIRST, 5, 2)).toMatchObject({
      ok: true,
      offset: { offsetDeg: expect.closeTo(0.5, 6) },
    })
    expect(offsetOf({ ...RIGHT_FIRST, firstSide: 'left' }, 5, 2)).toMatchObject({
      ok: true,
      offset: { offsetDeg: expect.closeTo(-0.5, 6) },
    })
  })

  test('its size is known before the side is', () => {
    for (const intervals of [RIGHT_FIRST, LEFT_FIRST])
      expect(offsetOf({ ...intervals, firstSide: null }, 5, 2)).toMatchObject({
        ok: true,
        offset: { offsetDeg: expect.closeTo(0.5, 6) },
      })
  })

  test('is nothing without arc or release', () => {
    expect(offsetOf(RIGHT_FIRST, null, 2)).toBeNull()
    expect(offsetOf(RIGHT_FIRST, 5, null)).toBeNull()
  })

  test('figures that can’t be are told in a sentence, not thrown', () => {
    expect(offsetOf(RIGHT_FIRST, 2, 5)).toEqual({
      ok: false,
      sentence: 'The release angle, 5°, must be below the semi-arc, 2°.',
    })
    expect(offsetOf({ firstToSecondMs: 100, secondToFirstMs: 900, firstSide: 'right' }, 5, 2)).toMatchObject({
      ok: false,
      sentence: expect.stringMatching(/measure both again/) as string,
    })
  })
})

describe('how even it is', () => {
  const even = { firstToSecondMs: 500, secondToFirstMs: 500 }
  const limping = { firstToSecondMs: 530, secondToFirstMs: 470 }

  test('half the difference, and the longer one’s share', () => {
    expect([outOfBeatMs(even), splitPercent(even)]).toEqual([0, 50])
    expect([outOfBeatMs(limping), splitPercent(limping)]).toEqual([30, 53])
    expect(gradeHeard(even, DEFAULT_BEAT_TOLERANCE)).toBe('sound')
    expect(gradeHeard(limping, DEFAULT_BEAT_TOLERANCE)).toBe('must')
  })
})

describe('what puts it in beat', () => {
  const lengths = { crutchLengthMm: 150, footSpacingMm: 300, caseHeightMm: 900 }
  const order = (school: 'size' | 'pack' | 'crutch' | 'adjuster', outMs: number) =>
    remediesOf(0.5, outMs, lengths, { school, packUpToMs: 20 }).remedies.map((r) => r.key)

  test('by size: the case for little, the crutch for much; a school has its own way', () => {
    expect(order('size', 20)).toEqual(['pack', 'swing', 'crutch'])
    expect(order('size', 21)).toEqual(['crutch', 'pack', 'swing'])
    expect(order('pack', 90)[0]).toBe('pack')
    expect(order('crutch', 1)[0]).toBe('crutch')
  })

  test('only what its lengths tell', () => {
    expect(remediesOf(0.5, 5, {}, { school: 'size', packUpToMs: 20 }).remedies).toEqual([])
  })

  test('with the arc alone, a range that holds where it stands', () => {
    const [least, most] = offsetRange(RIGHT_FIRST, 5)!
    // Its release is at 2° of 5°, between the shares that clocks have.
    expect(least).toBeLessThan(0.5)
    expect(most).toBeGreaterThan(0.5)
    expect(offsetRange(RIGHT_FIRST, null)).toBeNull()
  })
})

describe('the zero by two listenings', () => {
  const heard = (signed: number, changeMm: number | null) => ({
    firstToSecondMs: 500 - signed,
    secondToFirstMs: 500 + signed,
    firstSide: 'right' as const,
    changeMm,
  })

  test('10 ms came of 2 mm: the 20 that are left want 4 more', () => {
    expect(zeroByTwo([heard(30, null), heard(20, 2)])).toEqual({
      moved: true,
      fromNowMm: expect.closeTo(4),
      sameWay: true,
    })
    expect(zeroByTwo([heard(30, null), heard(40, 2)])).toMatchObject({ sameWay: false })
  })

  test('nothing without a known change, and a change that moved nothing says so', () => {
    expect(zeroByTwo([heard(30, null), heard(20, null)])).toBeNull()
    expect(zeroByTwo([heard(20, 2)])).toBeNull()
    expect(zeroByTwo([heard(30, null), heard(30, 2)])).toEqual({ moved: false })
  })
})
