import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  bushingPlan,
  byWorkingOrder,
  checkHole,
  DEFAULT_BUSHING_RULES,
  formatClockDirection,
  fromMm,
  holeOutline,
  parseClockDirection,
  toMm,
} from '../src/index.ts'

const WORN = { longAxisMm: 1.32, shortAxisMm: 1.1, pivotMm: 1, plateMm: 2.4, role: 'other' as const }
const CUTTERS = [1.4, 1.6, 1.8, 2, 2.3]

describe('plan', () => {
  test('a third arbor worn oval: sizes as a master sets them down', () => {
    const plan = bushingPlan(WORN, CUTTERS)
    expect(plan.verdict).toBe('bush')
    expect(plan.wearMm).toBeCloseTo(0.22)
    expect(plan.originalCentreOffsetMm).toBeCloseTo(0.11)
    expect(plan.playPercent).toBeCloseTo(21)
    // 1.6 cleans up (2a − b + 0.05 = 1.59), but a wall of 0.4 about a hole of 1.04 needs 1.82.
    expect(plan.cutterMm).toBe(2)
    expect(plan.bushOutsideMm).toBeCloseTo(2.02)
    expect(plan.drilledMm).toBeCloseTo(0.93)
    expect(plan.finishedHoleMm).toBeCloseTo(1.04)
    expect(plan.wallMm).toBeCloseTo(0.49)
    expect(plan.lengthMm).toBe(2.4)
  })

  test('the cutter cleans up slot and file-back: every point of both lies inside it, by brute force', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.6, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 0.6, noNaN: true }),
        fc.double({ min: 0, max: 359, noNaN: true }),
        (short, wear, direction) => {
          const hole = { longAxisMm: short + wear, shortAxisMm: short, pivotMm: short * 0.95 }
          const plan = bushingPlan({ ...hole, plateMm: 2, role: 'other' }, [])
          const outline = holeOutline(hole, direction)
          for (const centre of [{ x: 0, y: 0 }, outline.wornCentre, outline.filedCentre])
            for (let a = 0; a < 360; a += 5) {
              const x = centre.x + (short / 2) * Math.cos((a * Math.PI) / 180)
              const y = centre.y + (short / 2) * Math.sin((a * Math.PI) / 180)
              expect(2 * Math.hypot(x, y)).toBeLessThan(plan.leastCutterMm)
            }
        },
      ),
      { numRuns: 40 },
    )
  })

  test('the filed slot is long both ways about the original centre', () => {
    const { wornCentre, filedCentre } = holeOutline({ longAxisMm: 1.3, shortAxisMm: 1.1, pivotMm: 1 }, 60)
    expect(wornCentre.x + filedCentre.x).toBeCloseTo(0, 12)
    expect(wornCentre.y + filedCentre.y).toBeCloseTo(0, 12)
    // Worn toward 2 o'clock: right, and up on the screen.
    expect(wornCentre.x).toBeCloseTo(0.2 * Math.sin(Math.PI / 3), 12)
    expect(wornCentre.y).toBeCloseTo(-0.1, 12)
  })

  test('play and ovalness together ask for a bush, either alone does not', () => {
    expect(bushingPlan({ ...WORN, longAxisMm: 1.12, shortAxisMm: 1.12 }, CUTTERS).verdict).toBe('leave')
    expect(bushingPlan({ ...WORN, longAxisMm: 1.08, shortAxisMm: 1.02, pivotMm: 1.01 }, CUTTERS).verdict).toBe('leave')
  })

  test('the depth alone asks for a bush', () => {
    const sound = { ...WORN, longAxisMm: 1.03, shortAxisMm: 1.02 }
    expect(bushingPlan({ ...sound, moduleMm: 0.5, depthShiftMm: 0.04 }, CUTTERS).verdict).toBe('leave')
    const spoilt = bushingPlan({ ...sound, moduleMm: 0.5, depthShiftMm: 0.06 }, CUTTERS)
    expect(spoilt.verdict).toBe('bush')
    expect(spoilt.reasons.join(' ')).toContain('12 % of its module')
  })

  test('escape and pallet arbors are held to the finer limit', () => {
    const hole = { ...WORN, longAxisMm: 1.11, shortAxisMm: 1.055, pivotMm: 1 }
    expect(bushingPlan(hole, CUTTERS).verdict).toBe('leave')
    expect(bushingPlan({ ...hole, role: 'escape' }, CUTTERS).verdict).toBe('bush')
  })

  test('a hole near two limits is said to be near', () => {
    expect(bushingPlan({ ...WORN, longAxisMm: 1.115, shortAxisMm: 1.07 }, CUTTERS).nearLimit).toBe(true)
  })

  test('a shop may go by one school', () => {
    const hole = { ...WORN, longAxisMm: 1.12, shortAxisMm: 1.12 }
    expect(bushingPlan(hole, CUTTERS, { ...DEFAULT_BUSHING_RULES, rule: 'play' }).verdict).toBe('bush')
  })

  test('without a cutter large enough it says what is needed', () => {
    const plan = bushingPlan(WORN, [1, 1.5])
    expect(plan.cutterMm).toBeNull()
    expect(plan.bushOutsideMm).toBeNull()
    expect(plan.leastCutterMm).toBeCloseTo(1.82)
  })
})

describe('impossible figures', () => {
  test.each([
    [{ longAxisMm: 1.1, shortAxisMm: 1.3, pivotMm: 1 }, 'shortAxisMm'],
    [{ longAxisMm: 1.3, shortAxisMm: 1.1, pivotMm: 1.2 }, 'pivotMm'],
    [{ longAxisMm: 130, shortAxisMm: 110, pivotMm: 1 }, 'longAxisMm'],
    [{ longAxisMm: Number.NaN, shortAxisMm: 1.1, pivotMm: 1 }, 'longAxisMm'],
  ])('%j is refused at %s', (hole, field) => {
    expect(() => checkHole(hole)).toThrow(new RegExp(`^${field} is `))
  })
})

test('directions on the dial read both ways', () => {
  expect(parseClockDirection('1:50')).toBe(55)
  expect(parseClockDirection('12')).toBe(0)
  expect(formatClockDirection(55)).toBe('1:50')
  expect(formatClockDirection(-2)).toBe('12:00')
  expect(() => parseClockDirection('north')).toThrow(/wearDirection/)
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 71 }), (n) => {
      expect(parseClockDirection(formatClockDirection(5 * n))).toBe(5 * n)
    }),
  )
})

test('a thou is 25.4 micrometres, exactly', () => {
  expect(toMm(1000, 'thou')).toBe(25.4)
  expect(fromMm(toMm(39.37, 'thou'), 'thou')).toBeCloseTo(39.37, 12)
})

test('holes are bushed train by train, a plate at a time, great wheel up', () => {
  const place = (train: string, plate: 'front' | 'back', arborIndex: number) => ({ train, plate, arborIndex })
  const list = [
    place('strike', 'front', 0),
    place('going', 'back', 0),
    place('going', 'front', 3),
    place('going', 'front', 0),
  ]
  expect(list.sort(byWorkingOrder)).toEqual([
    place('going', 'front', 0),
    place('going', 'front', 3),
    place('going', 'back', 0),
    place('strike', 'front', 0),
  ])
})
