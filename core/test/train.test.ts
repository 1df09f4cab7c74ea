import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  arborsOfPeriod,
  missingCounts,
  motionWork,
  trainBeats,
  trainDirections,
  trainDuration,
  trainSheet,
  type TrainArbor,
} from '../src/index.ts'

describe('beats of a train', () => {
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
})

describe('motion work', () => {
  test('12:1 is exact in whole teeth', () => {
    expect(motionWork(12, 36, 10, 40)).toEqual({ ratio: 12, right: true })
    expect(motionWork(14, 42, 12, 48)).toEqual({ ratio: 12, right: true })
    expect(motionWork(12, 36, 10, 41).right).toBe(false)
  })

  test('a ratio that only a float would call twelve is not right', () => {
    fc.assert(
      fc.property(fc.tuple(count(6, 40), count(10, 90), count(6, 40), count(10, 90)), ([c, m, p, h]) => {
        const { right, ratio } = motionWork(c, m, p, h)
        expect(right).toBe(BigInt(m) * BigInt(h) === 12n * BigInt(c) * BigInt(p))
        expect(ratio).toBeCloseTo((m * h) / (c * p), 9)
      }),
    )
  })

  test('a count that can’t be is named', () => {
    expect(() => motionWork(12, 36.5, 10, 40)).toThrow(/minuteWheel is 36.5/)
  })
})

describe('duration', () => {
  test('96 into 8 on sixteen turns runs eight days', () => {
    expect(trainDuration(96, 8, 16)).toEqual({ days: 8, hoursPerTurn: 12 })
  })

  test('an arbor between makes a month of it', () => {
    // Great wheel 144 into 12, its wheel 96 into 12, sixteen turns: 12 × 8 = 96 hours a turn.
    expect(trainDuration(144, 12, 16, [{ pinion: 12, wheel: 96 }])).toEqual({ days: 64, hoursPerTurn: 96 })
  })

  test('a leaf that is none is named by its place', () => {
    expect(() => trainDuration(96, 8, 16, [{ pinion: 2, wheel: 96 }])).toThrow(/between\[0\].pinion is 2/)
    expect(() => trainDuration(96, 8, 0)).toThrow(/turns/)
  })
})

test('every mesh turns the next arbor about', () => {
  expect(trainDirections(3, 'clockwise')).toEqual(['clockwise', 'anticlockwise', 'clockwise', 'anticlockwise'])
  expect(trainDirections(0, 'anticlockwise')).toEqual(['anticlockwise'])
  expect(() => trainDirections(2, 'left' as never)).toThrow(/first is "left"/)
})

describe('a lost wheel', () => {
  test('the one wheel that gives a seconds beat is found', () => {
    const [best] = missingCounts([64, null], [8, 8], 30, 3600)
    expect(best).toEqual({ wheels: [64, 60], pinions: [8, 8], escapeTeeth: 30, beatsPerHour: 3600, offPercent: 0 })
  })

  test('wheel and pinion lost together: all pairs are found, the plain one before the odd', () => {
    const all = missingCounts([64, null], [8, null], 30, 3600, 0.01)
    const pairs = all.map((c) => [c.wheels[1], c.pinions[1]])
    // 7.5 : 1 in whole counts of 24 to 160 teeth and 5 to 20 leaves, enumerated here by exact fractions.
    const exact: number[][] = []
    for (let leaves = 5; leaves <= 20; leaves++)
      for (let teeth = 24; teeth <= 160; teeth++) if (2 * teeth === 15 * leaves) exact.push([teeth, leaves])
    expect(pairs.filter((p) => exact.some((e) => e[0] === p[0] && e[1] === p[1]))).toHaveLength(exact.length)
    expect(all.slice(0, exact.length).every((c) => c.offPercent === 0)).toBe(true)
    expect(pairs[0]).toEqual([60, 8])
  })

  test('nearest comes first, and none is beyond the tolerance', () => {
    const all = missingCounts([null, 60], [8, 8], 30, 7219, 2)
    const offs = all.map((c) => Math.abs(c.offPercent))
    expect(offs).toEqual([...offs].sort((a, b) => a - b))
    expect(Math.max(...offs)).toBeLessThanOrEqual(2)
    expect(all[0]?.wheels).toEqual([128, 60])
  })

  test('a lost escape wheel', () => {
    expect(missingCounts([64, 60], [8, 8], null, 3840, 0.1)[0]?.escapeTeeth).toBe(32)
  })

  test('whatever was taken out of a train is among what is put back', () => {
    const train = fc.record({
      a: count(40, 96),
      b: count(40, 96),
      p: count(6, 12),
      q: count(6, 12),
      e: count(15, 50),
      lost: fc.subarray(['a', 'b', 'p', 'q', 'e'] as const, { minLength: 1, maxLength: 2 }),
    })
    fc.assert(
      fc.property(train, ({ a, b, p, q, e, lost }) => {
        const bph = trainBeats([a, b], [p, q], e).beatsPerHour
        const or = (name: (typeof lost)[number], n: number) => (lost.includes(name) ? null : n)
        const found = missingCounts([or('a', a), or('b', b)], [or('p', p), or('q', q)], or('e', e), bph, 0.001)
        expect(found.length).toBeGreaterThan(0)
        for (const c of found) {
          const beats = trainBeats(c.wheels, c.pinions, c.escapeTeeth).beatsPerHour
          expect(beats).toBeCloseTo(c.beatsPerHour, 6)
          expect(Math.abs(beats / bph - 1)).toBeLessThanOrEqual(1.001e-5)
        }
        if (found.length < 200)
          expect(found.some((c) => c.wheels[0] === a && c.wheels[1] === b && c.escapeTeeth === e)).toBe(true)
      }),
      { numRuns: 60 },
    )
  })

  test.each([
    [[64, 60], [8, 8], 30, 3600, /nothing is lost/],
    [[null, null, null], [null, null, 8], 30, 3600, /at most 4/],
    [[64, null], [8], 30, 3600, /pinions/],
    [[64, null], [8, 8], 30, 0, /beatsPerHour/],
    [[], [], 30, 3600, /wheels/],
  ])('%j %j %s at %s is refused', (wheels, pinions, escape, beats, message) => {
    expect(() => missingCounts(wheels, pinions, escape, beats)).toThrow(message)
  })
})

describe('the train sheet', () => {
  const EIGHT_DAY: TrainArbor[] = [
    { name: 'Great', pinion: null, wheel: 96 },
    { name: 'Centre', pinion: 8, wheel: 64 },
    { name: 'Third', pinion: 8, wheel: 60 },
    { name: 'Escape', pinion: 8, wheel: 30 },
  ]

  test('every arbor has its time and its way of turning', () => {
    const sheet = trainSheet(EIGHT_DAY, 1, true, 16)
    expect(sheet.arbors.map((a) => a.periodS)).toEqual([43_200, 3600, 450, 60])
    expect(sheet.arbors.map((a) => a.turn)).toEqual(['anticlockwise', 'clockwise', 'anticlockwise', 'clockwise'])
    expect(sheet.beatsPerHour).toBe(3600)
    expect(sheet.days).toBe(8)
  })

  test('one more arbor between centre and escape is nothing special', () => {
    const five = [
      ...EIGHT_DAY.slice(0, 3),
      { name: 'Fourth', pinion: 10, wheel: 50 },
      { name: 'Escape', pinion: 10, wheel: 15 },
    ]
    const sheet = trainSheet(five, 1, true)
    expect(sheet.beatsPerHour).toBeCloseTo(trainBeats([64, 60, 50], [8, 10, 10], 15).beatsPerHour, 9)
  })

  test('a lost wheel leaves open what depends on it, and only that', () => {
    const sheet = trainSheet(
      [EIGHT_DAY[0]!, EIGHT_DAY[1]!, { name: 'Third', pinion: 8, wheel: null }, EIGHT_DAY[3]!],
      1,
      true,
    )
    expect(sheet.arbors.map((a) => a.periodS)).toEqual([43_200, 3600, 450, null])
    expect(sheet.beatsPerHour).toBeNull()
    expect(sheet.arbors[3]?.turn).toBe('clockwise')
  })

  test('a strike train has no hourly arbor, so no times', () => {
    expect(trainSheet(EIGHT_DAY, null, false).arbors.every((a) => a.periodS === null && a.turn === null)).toBe(true)
  })

  test('a fault that comes back every minute is the escape wheel’s', () => {
    const sheet = trainSheet(EIGHT_DAY, 1, true)
    expect(arborsOfPeriod(sheet, 60.2)[0]?.name).toBe('Escape')
    expect(arborsOfPeriod(sheet, 447)[0]?.name).toBe('Third')
    expect(arborsOfPeriod(sheet, 200)).toEqual([])
  })
})

function count(min: number, max: number) {
  return fc.integer({ min, max })
}
