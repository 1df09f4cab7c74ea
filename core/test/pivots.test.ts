import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { pivotPlan, repivotSizes } from '../src/index.ts'

describe('what to do with a pivot', () => {
  test.each([
    [{ diameterMm: 1, grooveDepthMm: 0 }, 'leave', 1, 100],
    [{ diameterMm: 1, grooveDepthMm: 0.005 }, 'polish', 0.99, 97.03],
    [{ diameterMm: 1, grooveDepthMm: 0.03 }, 'file and burnish', 0.94, 83.06],
    [{ diameterMm: 1, grooveDepthMm: 0.06 }, 're-pivot', 0.88, 68.15],
    [{ diameterMm: 1, originalMm: 1.2, grooveDepthMm: 0 }, 're-pivot', 1, 57.87],
    [{ diameterMm: 1, grooveDepthMm: 0, runoutMm: 0.05 }, 'straighten', 1, 100],
    [{ diameterMm: 1, grooveDepthMm: 0.03, runoutMm: 0.05 }, 'straighten', 0.94, 83.06],
    [{ diameterMm: 1, grooveDepthMm: 0, rust: true }, 'file and burnish', 1, 100],
    [{ diameterMm: 0.9, originalMm: 1, grooveDepthMm: 0 }, 'leave', 0.9, 72.9],
  ] as const)('%j → %s', (pivot, verdict, finished, strength) => {
    const plan = pivotPlan(pivot)
    expect(plan.verdict).toBe(verdict)
    expect(plan.finishedMm).toBeCloseTo(finished)
    expect(plan.strengthPercent).toBeCloseTo(strength, 1)
    expect(plan.reasons.length).toBeGreaterThan(0)
  })

  test('a deeper groove never makes it thicker, stronger or better', () => {
    const grave = ['leave', 'polish', 'file and burnish', 'straighten', 're-pivot']
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        fc.double({ min: 0, max: 0.04, noNaN: true }),
        (diameterMm, groove, more) => {
          const one = pivotPlan({ diameterMm, grooveDepthMm: groove })
          const two = pivotPlan({ diameterMm, grooveDepthMm: groove + more })
          expect(two.strengthPercent).toBeLessThanOrEqual(one.strengthPercent)
          expect(grave.indexOf(two.verdict)).toBeGreaterThanOrEqual(grave.indexOf(one.verdict))
          // Bending strength as a section modulus, πd³/32, put together from the sizes themselves.
          const modulus = (d: number) => (Math.PI * d ** 3) / 32
          expect(one.strengthPercent).toBeCloseTo((100 * modulus(one.finishedMm)) / modulus(diameterMm), 6)
        },
      ),
    )
  })

  test('what can’t be is refused by name', () => {
    expect(() => pivotPlan({ diameterMm: 1, originalMm: 0.8, grooveDepthMm: 0 })).toThrow(/no pivot grows/)
    expect(() => pivotPlan({ diameterMm: 1, grooveDepthMm: 0.5 })).toThrow(/grooveDepthMm/)
    expect(() => pivotPlan({ diameterMm: 120, grooveDepthMm: 0 })).toThrow(/another unit/)
  })
})

describe('a new pivot', () => {
  test('drill, plug and depth leave a wall; a thin arbor says so', () => {
    const sizes = repivotSizes(1, 2.4)
    expect(sizes.drillMm).toBeCloseTo(1.25)
    expect(sizes.depthMm).toBeCloseTo(3.75)
    expect(sizes.plugMm).toBeGreaterThan(sizes.drillMm)
    expect(sizes.wallMm).toBeCloseTo(0.575)
    expect(repivotSizes(1, 1.7).drillMm).toBeCloseTo(1.1)
    expect(() => repivotSizes(1, 1.5)).toThrow(/wall of 0.25 mm/)
  })
})
