import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { bushingPlan, leastToCleanUpMm } from '../src/index.ts'

const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const toward = (clockDeg: number, far: number): [number, number] => {
  const t = (clockDeg * Math.PI) / 180
  return [far * Math.sin(t), far * Math.cos(t)]
}

/** The farthest rim from the new centre, walked round in steps of a fifth of a degree: the pivot at every place it wore to. */
function byWalking(long: number, short: number, wearDeg: number, oldHole: number, off: { mm: number; deg: number }) {
  const [cx, cy] = toward(off.deg, off.mm)
  let farthest = 0
  for (let i = 0; i < 1800; i++) {
    const [rx, ry] = toward(i / 5, short / 2)
    for (const share of [0, 0.5, 1]) {
      const [wx, wy] = toward(wearDeg, share * (long - short))
      farthest = Math.max(farthest, Math.hypot(wx + rx - cx, wy + ry - cy))
    }
    const [ox, oy] = toward(i / 5, oldHole / 2)
    farthest = Math.max(farthest, Math.hypot(ox - cx, oy - cy))
  }
  return 2 * farthest
}

describe('what the cutter must take in', () => {
  test('is the farthest rim of slot and old bush from the new centre, by walking round them', () => {
    fc.assert(
      fc.property(
        mm(0.5, 4),
        mm(0, 0.8),
        mm(0, 360),
        mm(0.05, 3),
        mm(0, 0.6),
        mm(0, 360),
        (short, wear, wearDeg, wider, offMm, offDeg) => {
          const offCentre = { mm: offMm, deg: offDeg }
          const found = { longAxisMm: short + wear, shortAxisMm: short, wearDeg, oldHoleMm: short + wider, offCentre }
          const walked = byWalking(short + wear, short, wearDeg, short + wider, offCentre)
          expect(leastToCleanUpMm(found)).toBeCloseTo(walked, 3)
        },
      ),
      { numRuns: 150 },
    )
  })

  test('with nothing but wear it is twice the long way less the short', () => {
    expect(leastToCleanUpMm({ longAxisMm: 1.32, shortAxisMm: 1.1 })).toBeCloseTo(1.54)
  })

  test('not knowing which way it is worn never asks for less than knowing', () => {
    fc.assert(
      fc.property(mm(0, 0.8), mm(0, 360), mm(0, 0.6), mm(0, 360), (wear, wearDeg, off, deg) => {
        const hole = { longAxisMm: 1 + wear, shortAxisMm: 1, offCentre: { mm: off, deg } }
        expect(leastToCleanUpMm(hole)).toBeGreaterThanOrEqual(leastToCleanUpMm({ ...hole, wearDeg }) - 1e-9)
      }),
    )
  })

  test('goes into the plan: a screwed bush’s thread asks for a larger cutter', () => {
    const worn = { longAxisMm: 1.32, shortAxisMm: 1.1, pivotMm: 1, plateMm: 2.4, role: 'other' as const }
    const cutters = [1.6, 2, 2.5, 3, 3.5]
    expect(bushingPlan(worn, cutters).cutterMm).toBe(2)
    expect(bushingPlan({ ...worn, oldHoleMm: 2.96 }, cutters)).toMatchObject({ cutterMm: 3.5 })
    expect(bushingPlan({ ...worn, oldHoleMm: 4 }, cutters)).toMatchObject({ cutterMm: null, bushOutsideMm: null })
    expect(() => bushingPlan({ ...worn, oldHoleMm: -1 }, cutters)).toThrow(/oldHoleMm/)
  })
})
