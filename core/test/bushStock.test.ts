import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  assignBushes,
  broachSteps,
  bushFromStock,
  bushingSteps,
  DEFAULT_BUSHING_RULES,
  finishedHoleMm,
  mayCut,
  turnedBush,
  whyItDoesNotFit,
  type HoleWork,
  type NamedHole,
  type StockBush,
} from '../src/index.ts'

const bush = (id: string, outsideMm: number, insideMm: number, lengthMm = 3, count = 1): StockBush => ({
  id,
  outsideMm,
  insideMm,
  lengthMm,
  count,
})
const HOLE = { finishedPivotMm: 1, cutterMm: 2, plateMm: 2.5 }

describe('a bush from the drawers', () => {
  test('the one that needs least broaching, then the shortest, then the best press', () => {
    const stock = [
      bush('narrow', 2.02, 0.9),
      bush('long', 2.02, 1.03, 5),
      bush('tight', 2.05, 1.03, 3),
      bush('right', 2.02, 1.03, 3),
    ]
    expect(bushFromStock(HOLE, stock)).toEqual({
      choice: 'right',
      fits: ['right', 'tight', 'long', 'narrow'],
      whyNot: [],
    })
  })

  test.each([
    [bush('x', 1.9, 1), /falls through/],
    [bush('x', 2.005, 1), /too loose/],
    [bush('x', 2.06, 1), /too tight/],
    [bush('x', 2.02, 1.05), /larger than the finished hole/],
    [bush('x', 2.02, 1, 2.4), /2.4 mm long; the plate is 2.5/],
    [bush('x', 2.02, 1, 3, 0), /None is left/],
  ])('%j does not fit: %s', (one, why) => {
    const { choice, whyNot } = bushFromStock(HOLE, [one])
    expect(choice).toBeNull()
    expect(whyNot[0]!.why).toMatch(why)
  })

  test('the limits themselves still fit, in spite of binary fractions', () => {
    expect(bushFromStock(HOLE, [bush('a', 2.01, 1), bush('b', 2.05, 1.04, 2.5)]).fits).toEqual(['b', 'a'])
  })

  test('a pivot that leaves no wall names the cutter', () => {
    expect(() => bushFromStock({ ...HOLE, cutterMm: 1.04 }, [])).toThrow(/cutterMm is 1.04: .*no wall/)
    expect(() => bushFromStock(HOLE, [bush('a', 1, 1.2)])).toThrow(/stock\[0\]\.insideMm/)
  })
})

describe('bushes for a whole plan at once', () => {
  const hole = (name: string, finishedPivotMm: number, cutterMm = 2, plateMm = 2.5): NamedHole => ({
    name,
    finishedPivotMm,
    cutterMm,
    plateMm,
  })

  test('the greedy choice would leave one without: the plan moves it on', () => {
    // Both fit the wide one best; the thin pivot can take only the narrow-bored.
    const stock = [bush('wide', 2.02, 1.15), bush('bored', 2.02, 1)]
    const found = assignBushes([hole('thick', 1.15), hole('thin', 1)], stock)
    expect(found).toMatchObject({ assigned: { thick: 'wide', thin: 'bored' }, missing: [] })
  })

  test('a bush that would be left too thin a wall is none, and an escape arbor is left less play', () => {
    // 1.2 and its play of 0.06 leave (2.02 − 1.26)/2 = 0.38 mm of wall.
    const thin = bushFromStock({ finishedPivotMm: 1.2, cutterMm: 2, plateMm: 2.5 }, [bush('a', 2.02, 1.2)])
    expect(thin.choice).toBeNull()
    expect(thin.whyNot[0]?.why).toMatch(/leave 0\.3\d mm of wall .* 0\.4 is the least/)
    // At an escape arbor 3 % of play: (2.02 − 1.18·1.03)/2 = 0.402; elsewhere, with 4 %, 0.396.
    const fine = { finishedPivotMm: 1.18, cutterMm: 2, plateMm: 2.5 }
    expect(bushFromStock({ ...fine, role: 'escape' }, [bush('a', 2.02, 1.15)]).choice).toBe('a')
    expect(bushFromStock({ ...fine, role: 'other' }, [bush('a', 2.02, 1.15)]).choice).toBeNull()
    const holes = [{ ...hole('escape', 1.18), role: 'escape' as const }, hole('third', 1.18)]
    expect(assignBushes(holes, [bush('a', 2.02, 1.15, 3, 2)]).missing).toEqual(['third'])
  })

  test('which of two goes without is part of the choice: the one that costs more broaching', () => {
    const found = assignBushes([hole('first', 1.15), hole('second', 1.02)], [bush('only', 2.02, 1)])
    expect(found.assigned).toEqual({ first: null, second: 'only' })
    expect(found.missing).toEqual(['first'])
    expect(found.broachMm).toBeCloseTo(finishedHoleMm(1.02) - 1, 6)
  })

  test('against every way there is: fewest without, then least broaching', () => {
    const size = fc.constantFrom(1, 1.05, 1.1, 1.2)
    fc.assert(
      fc.property(
        fc.array(fc.tuple(size, fc.constantFrom(2, 2.3)), { minLength: 1, maxLength: 5 }),
        fc.array(fc.tuple(fc.constantFrom(2.02, 2.32, 2.03), size, fc.integer({ min: 0, max: 2 })), { maxLength: 4 }),
        (wants, has) => {
          const holes = wants.map(([pivot, cutter], i) => hole(`h${i}`, pivot, cutter))
          const stock = has.map(([outside, inside, count], i) => bush(`s${i}`, outside, inside, 3, count))
          const found = assignBushes(holes, stock)
          const best = everyWay(holes, stock)
          expect(found.missing.length).toBe(best.missing)
          expect(found.broachMm).toBeCloseTo(best.broach, 5)
          for (const { id, count } of stock)
            expect(Object.values(found.assigned).filter((a) => a === id).length).toBeLessThanOrEqual(count)
        },
      ),
      { numRuns: 300 },
    )
  })

  test('sixty holes and four hundred rows come out whole', () => {
    const holes = Array.from({ length: 60 }, (_, i) => hole(`h${i}`, 0.6 + (i % 12) * 0.05, 2 + (i % 3) * 0.3))
    const stock = Array.from({ length: 400 }, (_, i) =>
      bush(`s${i}`, 2.02 + (i % 3) * 0.3, 0.6 + (i % 37) * 0.02, 2.5 + (i % 4) * 0.5, 1 + (i % 2)),
    )
    const found = assignBushes(holes, stock)
    expect(found.missing).toEqual([])
    expect(new Set(Object.keys(found.assigned)).size).toBe(60)
  })

  test('a name or an id given twice is refused', () => {
    expect(() => assignBushes([hole('a', 1), hole('a', 1)], [])).toThrow(/holes\[1\]\.name/)
    expect(() => assignBushes([], [bush('a', 2.02, 1), bush('a', 2.02, 1)])).toThrow(/stock\[1\]\.id/)
    expect(assignBushes([], [])).toEqual({ assigned: {}, missing: [], broachMm: 0 })
  })
})

describe('turning and broaching', () => {
  test('a drawing’s sizes: it still presses in at its smallest and its largest', () => {
    const drawn = turnedBush(2.02, 0.93, 2.5)
    expect(drawn.outside.mm - drawn.outside.belowMm - 2).toBeGreaterThanOrEqual(0.01)
    expect(drawn.outside.mm + drawn.outside.aboveMm - 2).toBeLessThanOrEqual(0.05)
    expect(drawn.bore.mm + drawn.bore.aboveMm).toBeLessThan(1)
    expect(drawn.length.mm - drawn.length.belowMm).toBeGreaterThan(2.5)
    expect(drawn.rodMm).toBe(2.5)
    expect(() => turnedBush(0, 1, 2)).toThrow(/outsideMm/)
  })

  test('the broach goes up evenly and ends at the finished hole', () => {
    const steps = broachSteps(0.93, 1.04)
    expect(steps).toHaveLength(4)
    expect(steps.at(-1)).toBeCloseTo(1.04)
    expect(steps[0]! - 0.93).toBeCloseTo(0.0275)
    expect(broachSteps(1.04, 1.04)).toEqual([])
  })
})

describe('the steps of one hole', () => {
  const work: HoleWork = {
    plate: 'back',
    method: 'hand',
    old: 'none',
    oldHoleMm: null,
    sinkMm: null,
    spoilt: false,
    cock: false,
    wearMm: 0.2,
    wearDeg: 60,
    marker: { reachMm: 6, fromDeg: 240, toDeg: 300 },
    neighbours: ['Centre', 'Escape'],
    correction: null,
    cutterMm: 2,
    bush: { from: 'turned', outsideMm: 2.02, insideMm: 0.93, lengthMm: 2.6 },
    finishedMm: 1.04,
    plateMm: 2.5,
  }
  const step = (key: string, change: Partial<HoleWork> = {}) =>
    bushingSteps({ ...work, ...change }).find((s) => s.key === key)

  test('the wear is marked where it is, and filed back on the other side, by as much', () => {
    expect(step('mark')!.does).toMatch(/toward 2:00.*0.20 mm/)
    expect(step('centre')!.does).toMatch(/unworn side, toward 8:00, back by 0.20 mm/)
    expect(step('centre', { method: 'jig' })!.does).toMatch(/0.10 mm from the middle of the slot toward 8:00/)
    expect(step('centre', { wearMm: 0 })!.does).toMatch(/round: nothing to file back/)
  })

  test('what is dangerous says so at that step', () => {
    expect(step('cut')!.caution).toMatch(/eyes covered/)
    expect(step('bush')!.caution).toMatch(/no gloves/)
    expect(step('press', { cock: true })!.does).toMatch(/support it close round the hole/)
  })

  test('old bushes come out, a spoilt hole is found again, a wrong centre goes back', () => {
    expect(step('old', { old: 'screwed' })!.does).toMatch(/thread’s hole/)
    expect(step('old', { old: 'pressed', oldHoleMm: 1.9 })!.does).toMatch(/leaves 1.90 mm: the 2.00 mm cutter/)
    expect(step('old', { old: 'pressed', oldHoleMm: 9, cutterMm: null })!.does).toMatch(
      /no cutter in the drawer is larger/,
    )
    expect(step('old')).toBeUndefined()
    expect(bushingSteps({ ...work, spoilt: true }).map((s) => s.key)).toEqual(
      expect.arrayContaining(['plug', 'find', 'drill']),
    )
    expect(step('centre', { correction: { mm: 0.4, deg: 270 } })!.does).toMatch(/go 0.40 mm toward 9:00/)
  })

  test('an oil sink wider than the bush: it is left long into it', () => {
    expect(step('press', { sinkMm: 2.6 })!.does).toMatch(/2.60 mm, is wider than the bush/)
    expect(step('press', { sinkMm: 1.8 })!.does).not.toMatch(/wider/)
  })

  test('every key once, and cutting only after what goes before', () => {
    const keys = bushingSteps({ ...work, old: 'pressed', spoilt: true }).map((s) => s.key)
    expect(new Set(keys).size).toBe(keys.length)
    expect(mayCut(['mark', 'mask'])).toBe(false)
    expect(mayCut(keys.slice(0, 3))).toBe(true)
    expect(step('bush', { bush: null })!.does).toMatch(/no cutter/i)
  })
})

/** The best there is, by trying every way. */
function everyWay(holes: NamedHole[], stock: StockBush[]): { missing: number; broach: number } {
  let best = { missing: Infinity, broach: Infinity }
  const left = stock.map((b) => b.count)
  const walk = (i: number, missing: number, broach: number): void => {
    const hole = holes[i]
    if (!hole) {
      if (missing < best.missing || (missing === best.missing && broach < best.broach)) best = { missing, broach }
      return
    }
    stock.forEach((b, s) => {
      if ((left[s] ?? 0) < 1 || whyItDoesNotFit(hole, b, DEFAULT_BUSHING_RULES) !== null) return
      left[s]!--
      walk(i + 1, missing, broach + Math.max(0, finishedHoleMm(hole.finishedPivotMm) - b.insideMm))
      left[s]!++
    })
    walk(i + 1, missing + 1, broach)
  }
  walk(0, 0, 0)
  return best
}
