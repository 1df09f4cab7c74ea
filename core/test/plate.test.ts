import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  clearance,
  distanceMm,
  FieldError,
  fourByDistances,
  locate,
  markerPlace,
  pointAt,
  rectangle,
  thenBy,
  trueByDistance,
  trueByPoints,
  trued,
  type PlateHole,
  type Trueing,
} from '../src/index.ts'

/** Places to a tenth of a millimetre, as they would be typed. */
const tenths = fc.integer({ min: -800, max: 800 }).map((n) => n / 10)
const place = fc.record({ xMm: tenths, yMm: tenths })

function cross(a: { xMm: number; yMm: number }, b: typeof a, c: typeof a): number {
  return (b.xMm - a.xMm) * (c.yMm - a.yMm) - (b.yMm - a.yMm) * (c.xMm - a.xMm)
}

describe('locate', () => {
  test('3, 4 and 5: both places, by x and then y', () => {
    const both = locate([
      { xMm: 0, yMm: 0, distanceMm: 5 },
      { xMm: 6, yMm: 0, distanceMm: 5 },
    ])
    expect(both).toHaveLength(2)
    expect(both[0]).toMatchObject({ residualMm: 0 })
    expect(both.map((p) => [p.xMm, p.yMm])).toEqual([
      [expect.closeTo(3), expect.closeTo(-4)],
      [expect.closeTo(3), expect.closeTo(4)],
    ])
  })

  test('any hole is found again from its distances to two others', () => {
    fc.assert(
      fc.property(place, place, place, (a, b, hole) => {
        fc.pre(distanceMm(a, b) > 1 && distanceMm(a, hole) > 0.5 && distanceMm(b, hole) > 0.5)
        const found = locate([
          { ...a, distanceMm: distanceMm(a, hole) },
          { ...b, distanceMm: distanceMm(b, hole) },
        ])
        expect(Math.min(...found.map((f) => distanceMm(f, hole)))).toBeLessThan(1e-3)
        expect(found[0]!.xMm).toBeLessThanOrEqual(found[1]!.xMm)
      }),
    )
  })

  test('any hole is found from three exact distances, and only there', () => {
    fc.assert(
      fc.property(place, place, place, place, (a, b, c, hole) => {
        fc.pre(Math.abs(cross(a, b, c)) > 60 && [a, b, c].every((p) => distanceMm(p, hole) > 0.5))
        const found = locate([a, b, c].map((p) => ({ ...p, distanceMm: distanceMm(p, hole) })))
        expect(found).toHaveLength(1)
        expect(distanceMm(found[0]!, hole)).toBeLessThan(1e-4)
        expect(found[0]!.residualMm).toBeLessThan(1e-5)
      }),
      { numRuns: 60 },
    )
  })

  test('three that don’t agree meet at the least squares: no place on a fine grid does better', () => {
    const from = [
      { xMm: 0, yMm: 0, distanceMm: 30.2 },
      { xMm: 50, yMm: 0, distanceMm: 30 },
      { xMm: 25, yMm: 40, distanceMm: 23.1 },
    ]
    const [found] = locate(from)
    const sum = (x: number, y: number) =>
      from.reduce((all, p) => all + (Math.hypot(x - p.xMm, y - p.yMm) - p.distanceMm) ** 2, 0)
    let least = Infinity
    for (let x = -5; x <= 5; x += 0.05)
      for (let y = -5; y <= 5; y += 0.05) least = Math.min(least, sum(found!.xMm + x, found!.yMm + y))
    expect(sum(found!.xMm, found!.yMm)).toBeLessThanOrEqual(least + 1e-12)
    expect(found!.residualMm).toBeCloseTo(Math.sqrt(sum(found!.xMm, found!.yMm) / 3), 9)
  })

  test('three in one line leave two sides, and both are said', () => {
    const hole = { xMm: 12, yMm: 9 }
    const line = [0, 20, 45].map((xMm) => ({ xMm, yMm: 0, distanceMm: distanceMm({ xMm, yMm: 0 }, hole) }))
    const found = locate(line)
    expect(found.map((f) => f.yMm)).toEqual([expect.closeTo(-9, 4), expect.closeTo(9, 4)])
  })

  test.each([
    [30, 4, /miss each other by 16.000 mm/],
    [80, 10, /lies inside the other and they miss each other by 20.000 mm/],
  ])('circles of %d and %d mm that don’t meet say by how much', (a, b, says) => {
    const from = [
      { xMm: 0, yMm: 0, distanceMm: a },
      { xMm: 50, yMm: 0, distanceMm: b },
    ]
    expect(() => locate(from)).toThrow(says)
  })

  test('the same hole twice, one hole, a distance of nothing', () => {
    const one = { xMm: 1, yMm: 1, distanceMm: 5 }
    expect(() => locate([one, { ...one, distanceMm: 4 }])).toThrow(/another hole/)
    expect(() => locate([one])).toThrow(/two known holes/)
    expect(() => locate([one, { xMm: 3, yMm: 1, distanceMm: 0 }])).toThrow(/from\[1\]\.distanceMm/)
    expect(() => locate([one, one, one])).toThrow(/same one/)
  })
})

describe('clearance', () => {
  const hole = (name: string, xMm: number, yMm: number, diameterMm: number): PlateHole => ({
    name,
    xMm,
    yMm,
    diameterMm,
  })
  const square = [
    { xMm: 0, yMm: 0 },
    { xMm: 100, yMm: 0 },
    { xMm: 100, yMm: 100 },
    { xMm: 0, yMm: 100 },
  ]

  test('what is left between two holes, and to the edge', () => {
    const found = clearance([hole('a', 50, 50, 4), hole('b', 54.5, 50, 4), hole('c', 2, 50, 3)], 0.8, square)
    expect(found).toEqual([
      { between: ['a', 'b'], leftMm: expect.closeTo(0.5) },
      { between: ['c', 'edge'], leftMm: expect.closeTo(0.5) },
    ])
  })

  test('just the wall is enough; a hole over the edge is below nothing', () => {
    expect(clearance([hole('a', 0, 0, 2), hole('b', 2.8, 0, 2)])).toEqual([])
    const [over] = clearance([hole('a', -1, 50, 2)], 0.8, square)
    expect(over!.leftMm).toBeCloseTo(-2)
  })

  test('a hole’s rim, walked round point by point, comes as near to the edge as is said', () => {
    const corner = [...square.slice(0, 2), { xMm: 70, yMm: 60 }, { xMm: 20, yMm: 90 }]
    fc.assert(
      fc.property(
        fc.double({ min: 25, max: 60, noNaN: true }),
        fc.double({ min: 10, max: 50, noNaN: true }),
        (x, y) => {
          const [found] = clearance([hole('a', x, y, 6)], 50, corner)
          let least = Infinity
          corner.forEach((a, i) => {
            const b = corner[(i + 1) % corner.length]!
            for (let k = 0; k <= 400; k++) {
              const p = { xMm: a.xMm + ((b.xMm - a.xMm) * k) / 400, yMm: a.yMm + ((b.yMm - a.yMm) * k) / 400 }
              least = Math.min(least, distanceMm(p, { xMm: x, yMm: y }) - 3)
            }
          })
          expect(found!.leftMm).toBeCloseTo(least, 1)
        },
      ),
      { numRuns: 40 },
    )
  })

  test('two holes of one name, and an edge of two corners, are refused', () => {
    expect(() => clearance([hole('a', 0, 0, 1), hole('a', 9, 0, 1)])).toThrow(/name of its own/)
    expect(() => clearance([hole('a', 0, 0, 1)], 0.8, square.slice(0, 2))).toThrow(/three corners/)
  })
})

describe('marker', () => {
  test('two neighbours to the right: it is laid to the left, both points as far as can be', () => {
    const holes = [
      { name: 'third', xMm: 0, yMm: 0, diameterMm: 1 },
      { name: 'a', xMm: 6, yMm: 4, diameterMm: 2 },
      { name: 'b', xMm: 6, yMm: -4, diameterMm: 2 },
    ]
    const found = markerPlace(holes, 'third', 6)
    expect(found.clockAngleDeg).toBeCloseTo(270, 3)
    expect(distanceMm(found.points[0], found.points[1])).toBeCloseTo(6, 6)
  })

  test('no angle of a fine sweep is clearer, whatever stands about', () => {
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 1, maxLength: 8 }),
        fc.double({ min: 3, max: 20, noNaN: true }),
        fc.double({ min: 20, max: 120, noNaN: true }),
        (others, reach, spread) => {
          const holes = [
            { name: 'it', xMm: 0, yMm: 0, diameterMm: 1.2 },
            ...others.map((p, i) => ({ ...p, name: `h${i}`, diameterMm: 2.4 })),
          ]
          const clear = (deg: number) =>
            Math.min(
              ...[deg - spread / 2, deg + spread / 2].flatMap((side) =>
                holes.slice(1).map((h) => distanceMm(pointAt({ xMm: 0, yMm: 0 }, side, reach), h) - 1.2),
              ),
            )
          const swept = Math.max(...Array.from({ length: 3600 }, (_, i) => clear(i / 10)))
          fc.pre(swept > 0.01)
          const found = markerPlace(holes, 'it', reach, spread)
          expect(found.clearMm!).toBeGreaterThanOrEqual(swept - 1e-9)
          expect(found.clearMm!).toBeCloseTo(clear(found.clockAngleDeg), 9)
        },
      ),
      { numRuns: 60 },
    )
  })

  test('nothing about: any way does; no way at all is said', () => {
    const it = { name: 'it', xMm: 0, yMm: 0, diameterMm: 1 }
    expect(markerPlace([it], 'it', 5)).toMatchObject({ clockAngleDeg: 0, clearMm: null })
    const ring = Array.from({ length: 12 }, (_, i) => ({
      ...pointAt({ xMm: 0, yMm: 0 }, i * 30, 5),
      name: `r${i}`,
      diameterMm: 4,
    }))
    expect(() => markerPlace([it, ...ring], 'it', 5)).toThrow(/falls in a hole/)
    expect(() => markerPlace([it], 'that', 5)).toThrow(/must be one of it/)
    expect(() => markerPlace([it, ...ring], 'it', 0.4)).toThrow(/beyond the hole itself/)
  })
})

describe('a photo made true', () => {
  test('two points and their distance, taken square on', () => {
    const trueing = trueByDistance({ x: 100, y: 900 }, { x: 500, y: 900 }, 40)
    expect(trued(trueing, { x: 100, y: 900 })).toEqual({ xMm: 0, yMm: expect.closeTo(0) })
    expect(trued(trueing, { x: 500, y: 800 })).toEqual({ xMm: expect.closeTo(40), yMm: expect.closeTo(10) })
    expect(() => trueByDistance({ x: 1, y: 1 }, { x: 1, y: 1 }, 40)).toThrow(/apart from each other/)
  })

  test('a plate photographed from anywhere: every hole comes out where it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.array(place, { minLength: 1, maxLength: 6 }),
        (tilt, yaw, roll, holes) => {
          const see = camera(tilt, yaw, roll)
          const corners = rectangle(120, 90)
          const trueing = trueByPoints(corners.map(see), corners)
          for (const hole of holes) expect(distanceMm(trued(trueing, see(hole)), hole)).toBeLessThan(1e-6)
        },
      ),
      { numRuns: 80 },
    )
  })

  test('four known distances and a diagonal give the same four corners, whatever their shape', () => {
    const corners = [
      { xMm: 0, yMm: 0 },
      { xMm: 0, yMm: 80 },
      { xMm: 95, yMm: 88 },
      { xMm: 110, yMm: -6 },
    ]
    const d = (a: number, b: number) => distanceMm(corners[a]!, corners[b]!)
    const found = fourByDistances([d(0, 1), d(1, 2), d(2, 3), d(3, 0)], d(0, 2))
    found.forEach((p, i) => expect(distanceMm(p, corners[i]!)).toBeLessThan(1e-9))
    expect(() => fourByDistances([80, 10, 94, 110], 130)).toThrow(FieldError)
  })

  test('three points in a line can’t make a photo true', () => {
    const seen = [0, 100, 200].map((x) => ({ x, y: 10 }))
    expect(() => trueByPoints([...seen, { x: 50, y: 300 }], rectangle(100, 80))).toThrow(/in one line/)
  })

  test('one change after another is both at once', () => {
    const scale: Trueing = [2, 0, 5, 0, 2, -3, 0, 0, 1]
    const corners = rectangle(60, 40)
    const trueing = trueByPoints(corners.map(camera(0.3, -0.2, 0.5)), corners)
    const p = trued(trueing, { x: 320, y: 410 })
    const both = trued(thenBy(trueing, scale), { x: 320, y: 410 })
    expect(both).toEqual({ xMm: expect.closeTo(2 * p.xMm + 5, 9), yMm: expect.closeTo(2 * p.yMm - 3, 9) })
  })
})

/** A camera half a metre off that looks at the plate's middle, turned three ways: pixels for a place. */
function camera(tilt: number, yaw: number, roll: number) {
  return ({ xMm, yMm }: { xMm: number; yMm: number }) => {
    const [x0, y0] = [xMm - 60, yMm - 45]
    const [x1, z1] = [x0 * Math.cos(yaw), x0 * Math.sin(yaw)]
    const [y2, z2] = [y0 * Math.cos(tilt) - z1 * Math.sin(tilt), y0 * Math.sin(tilt) + z1 * Math.cos(tilt)]
    const [x3, y3] = [x1 * Math.cos(roll) - y2 * Math.sin(roll), x1 * Math.sin(roll) + y2 * Math.cos(roll)]
    return { x: 2000 + (3000 * x3) / (500 + z2), y: 1500 - (3000 * y3) / (500 + z2) }
  }
}
