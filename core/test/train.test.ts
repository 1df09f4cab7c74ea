import { expect, test } from 'vitest'
import { trainBeats } from '../src/index.ts'

test('64/8, 60/8 and 30 teeth make a seconds beat', () => {
  expect(trainBeats([64, 60], [8, 8], 30)).toEqual({ beatsPerHour: 3600, periodsS: [3600, 450, 60] })
})

test('a train counted tooth by tooth agrees', () => {
  // 84/7, 77/7, 36: walked in whole teeth of the escape wheel for one hour.
  const turnsOfEscape = (84 / 7) * (77 / 7)
  expect(trainBeats([84, 77], [7, 7], 36).beatsPerHour).toBeCloseTo(turnsOfEscape * 36 * 2, 9)
})

test('an extra arbor is ordinary', () => {
  expect(trainBeats([72, 60, 50], [8, 10, 10], 20).periodsS).toHaveLength(4)
})

test('wheels and pinions go in pairs, and counts are whole', () => {
  expect(() => trainBeats([64, 60], [8], 30)).toThrow(/pinions/)
  expect(() => trainBeats([64.5], [8], 30)).toThrow(/wheels\[0\] is 64.5/)
  expect(() => trainBeats([64], [8], 2)).toThrow(/escapeTeeth/)
})
