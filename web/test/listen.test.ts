import { beatIntervals } from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { offsetOf, sided, signedMs } from '../src/hear/beatFigures.ts'

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
