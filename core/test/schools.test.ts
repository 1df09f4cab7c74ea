import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { bushOrLeave, DEFAULT_BUSHING_RULES, schoolVerdicts, type HoleWear } from '../src/bushing/schools.ts'

const rules = DEFAULT_BUSHING_RULES
/** A pivot of 1 mm in a train of module 0.5, at its limits: 10 % play, 0.05 mm oval, 0.05 mm along the line of centres. */
const limit = { wearMm: 0.05, pivotMm: 1, playPercent: 10, role: 'other', moduleMm: 0.5, depthShiftMm: 0.05 } as const
const over = (wear: HoleWear) => schoolVerdicts(wear, rules).map((v) => v.over)

describe('each school', () => {
  test('is met at its limit and exceeded just above it', () => {
    expect(over(limit)).toEqual([false, false, false])
    expect(schoolVerdicts(limit, rules).every((v) => v.near)).toBe(true)
    expect(over({ ...limit, playPercent: 10.01 })).toEqual([true, false, false])
    expect(over({ ...limit, wearMm: 0.0501 })).toEqual([false, true, false])
    expect(over({ ...limit, depthShiftMm: 0.0501 })).toEqual([false, false, true])
    expect(over({ ...limit, depthShiftMm: -0.0501 })).toEqual([false, false, true])
  })

  test('asks less play of escape and pallet arbors', () => {
    for (const role of ['escape', 'pallet'] as const) {
      expect(over({ ...limit, role, playPercent: 6 })[0]).toBe(false)
      expect(over({ ...limit, role, playPercent: 6.01 })[0]).toBe(true)
    }
  })

  test('takes the share of a thin pivot, and the 0.05 mm of a thick one, for the most a hole may be oval', () => {
    expect(over({ ...limit, pivotMm: 0.6, wearMm: 0.031 })[1]).toBe(true)
    expect(over({ ...limit, pivotMm: 0.6, wearMm: 0.03 })[1]).toBe(false)
    expect(over({ ...limit, pivotMm: 4, wearMm: 0.051 })[1]).toBe(true)
  })

  test('says nothing of a depth that was not measured', () => {
    expect(over({ ...limit, moduleMm: undefined })[2]).toBeNull()
    expect(over({ ...limit, depthShiftMm: undefined })[2]).toBeNull()
  })
})

describe('the workshop’s rule', () => {
  const verdict = (play: boolean, oval: boolean, depth: boolean, rule = rules.rule) =>
    bushOrLeave(
      schoolVerdicts(
        {
          ...limit,
          playPercent: play ? 12 : 8,
          wearMm: oval ? 0.07 : 0.02,
          depthShiftMm: depth ? 0.06 : 0.01,
        },
        rules,
      ),
      { ...rules, rule },
    )

  test.each([
    [false, false, false, 'leave'],
    [true, false, false, 'leave'],
    [false, true, false, 'leave'],
    [true, true, false, 'bush'],
    [false, false, true, 'bush'],
    [true, false, true, 'bush'],
    [false, true, true, 'bush'],
    [true, true, true, 'bush'],
  ] as const)('any two, or the depth alone: play %s, oval %s, depth %s: %s', (play, oval, depth, says) => {
    expect(verdict(play, oval, depth)).toBe(says)
  })

  test('one school alone decides where the workshop follows it', () => {
    for (const play of [true, false])
      for (const oval of [true, false])
        for (const depth of [true, false]) {
          expect(verdict(play, oval, depth, 'play')).toBe(play ? 'bush' : 'leave')
          expect(verdict(play, oval, depth, 'oval')).toBe(oval ? 'bush' : 'leave')
          expect(verdict(play, oval, depth, 'depth')).toBe(depth ? 'bush' : 'leave')
        }
  })

  test('a hole that is worn more is never left where one that is worn less is bushed', () => {
    const wear = fc.record({
      playPercent: fc.double({ min: 0, max: 30, noNaN: true }),
      wearMm: fc.double({ min: 0, max: 0.3, noNaN: true }),
      depthShiftMm: fc.double({ min: 0, max: 0.2, noNaN: true }),
    })
    const rule = fc.constantFrom('two-or-depth' as const, 'play' as const, 'oval' as const, 'depth' as const)
    fc.assert(
      fc.property(wear, wear, rule, (less, more, rule) => {
        const says = (w: typeof less) => bushOrLeave(schoolVerdicts({ ...limit, ...w }, rules), { ...rules, rule })
        const worse = {
          playPercent: less.playPercent + more.playPercent,
          wearMm: less.wearMm + more.wearMm,
          depthShiftMm: less.depthShiftMm + more.depthShiftMm,
        }
        if (says(less) === 'bush') expect(says(worse)).toBe('bush')
      }),
    )
  })
})
