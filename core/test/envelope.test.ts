import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { envelope, finelyWithin, type ChartPoint } from '../src/index.ts'

const line = fc
  .array(fc.option(fc.double({ min: -1e3, max: 1e3, noNaN: true }), { freq: 12 }), { minLength: 1, maxLength: 900 })
  .map((values): ChartPoint[] => values.map((v, i) => [10 * i, v]))

describe('a line with fewer points', () => {
  test('keeps its highest and lowest, its order and its gaps, and has no more than were asked for', () => {
    fc.assert(
      fc.property(line, fc.integer({ min: 20, max: 200 }), (points, most) => {
        const few = envelope(points, most)
        expect(few.length).toBeLessThanOrEqual(Math.max(points.length > most ? 1.5 * most + 3 : most, 3))
        expect(few.every((p, i) => i === 0 || p[0] > few[i - 1]![0])).toBe(true)
        for (const p of few) expect(points).toContain(p)
        const known = (all: ChartPoint[]) => all.flatMap(([, v]) => (v === null ? [] : [v]))
        if (known(points).length > 0) {
          expect(Math.max(...known(few))).toBe(Math.max(...known(points)))
          expect(Math.min(...known(few))).toBe(Math.min(...known(points)))
        }
        expect(few.some(([, v]) => v === null)).toBe(points.some(([, v]) => v === null))
      }),
    )
  })
  test('a short one stays as it is', () => {
    const points: ChartPoint[] = [
      [0, 1],
      [1, 2],
    ]
    expect(envelope(points, 2)).toBe(points)
  })
  test('within a window it is fine, on either side coarse, and nowhere missing', () => {
    fc.assert(
      fc.property(
        line,
        fc.integer({ min: 20, max: 200 }),
        fc.tuple(fc.nat(9000), fc.nat(9000)),
        (points, most, ends) => {
          const [from, to] = ends.toSorted((a, b) => a - b) as [number, number]
          const drawn = finelyWithin(points, most, [from, to])
          expect(drawn.every((p, i) => i === 0 || p[0] > drawn[i - 1]![0])).toBe(true)
          const inside = (all: ChartPoint[]) => all.filter(([at]) => at >= from && at <= to)
          expect(inside(drawn)).toEqual(envelope(inside(points), most))
          const highest = (all: ChartPoint[]) => Math.max(...all.map(([, v]) => v ?? -Infinity))
          expect(highest(drawn)).toBe(highest(points))
          expect(drawn.length).toBeLessThanOrEqual(3 * most + 9)
        },
      ),
    )
  })
})
