import { FieldError } from '@treadle/core'
import { describe, expect, test } from 'vitest'
import { ask as run } from './ask.ts'

const close = (value: number, digits = 6): unknown => expect.closeTo(value, digits)

const HOLES = [
  { name: 'a', xMm: 0, yMm: 0, diameterMm: 4 },
  { name: 'b', xMm: 10, yMm: 0, diameterMm: 2 },
]
const BUSH = { id: 'x', outsideMm: 2.02, insideMm: 1, lengthMm: 3, count: 1 }
const HERE = { xMm: 0, yMm: 0 }
const BELOW = { xMm: 0, yMm: -30 }
const MESH = { wheelTeeth: 64, pinionLeaves: 8, centreDistanceMm: 36, shiftMm: 0.2 }

describe('the calculations of mending, as they are asked', () => {
  test('a place from two distances: the triangle of 3, 4 and 5, both ways', () => {
    const from = [
      { xMm: 0, yMm: 0, distanceMm: 5 },
      { xMm: 6, yMm: 0, distanceMm: 5 },
    ]
    expect(run('plate.locate', { from })).toMatchObject({
      solutions: [
        { xMm: close(3), yMm: close(-4) },
        { xMm: close(3), yMm: close(4) },
      ],
    })
    const third = run('plate.locate', { from: [...from, { xMm: 3, yMm: 10, distanceMm: 6 }] })
    expect(third).toMatchObject({ solutions: [{ xMm: close(3), yMm: close(4) }], residualMm: close(0) })
  })

  test('plate left: 10 less both radii; the edge by its nearest side', () => {
    expect(run('plate.clearance', { holes: HOLES })).toEqual({ conflicts: [] })
    expect(run('plate.clearance', { holes: HOLES, wallMm: 7.5 })).toEqual({
      conflicts: [{ between: ['a', 'b'], leftMm: close(7) }],
    })
    const edge = [
      { xMm: -20, yMm: -2.5 },
      { xMm: 20, yMm: -2.5 },
      { xMm: 20, yMm: 20 },
      { xMm: -20, yMm: 20 },
    ]
    expect(run('plate.clearance', { holes: HOLES, edge })).toEqual({
      conflicts: [{ between: ['a', 'edge'], leftMm: close(0.5) }],
    })
  })

  test('the marker lies straight away from the only other hole', () => {
    const laid = run('plate.marker', { holes: HOLES, hole: 'a', reachMm: 8 }) as { clockAngleDeg: number }
    // Its neighbour stands at 3 o'clock; the outer points are 30° to both sides of 9.
    expect(laid).toMatchObject({ clockAngleDeg: close(270, 2) })
    expect(laid).toMatchObject({ clearMm: close(Math.hypot(10 + 8 * Math.cos(Math.PI / 6), 4) - 1, 3) })
  })

  test('the last of the train is pushed along its driver’s tooth and out by the pressure angle', () => {
    const last = { at: HERE, turns: 'clockwise', drivenFrom: BELOW, pinionRadiusMm: 4 }
    // Turning clockwise, its driver below turns the other way: the driving tooth goes left at the mesh, and up.
    expect(run('wear.direction', last)).toMatchObject({ clockAngleDeg: close(290) })
    expect(run('wear.direction', { ...last, turns: 'anticlockwise' })).toMatchObject({ clockAngleDeg: close(70) })
    const wheel = { drives: { xMm: 0, yMm: 30 }, wheelRadiusMm: 16, pressureAngleDeg: 0 }
    expect(run('wear.direction', { ...last, ...wheel })).toMatchObject({ forceRatio: close(0.25) })
  })

  test('lean: a cylinder that touches both rims', () => {
    const { holeMm, playMm } = run('wear.fromLean', { leanDeg: 5, pivotMm: 1, plateMm: 2.4 }) as Record<string, number>
    const lean = (5 * Math.PI) / 180
    expect(holeMm).toBeCloseTo(1 / Math.cos(lean) + 2.4 * Math.tan(lean), 6)
    expect(playMm).toBeCloseTo(holeMm! - 1, 9)
    expect(run('wear.fromLean', { leanDeg: 0, pivotMm: 1, plateMm: 2.4 })).toMatchObject({ playMm: close(0) })
  })

  test.each([
    [45, 45, 0.2, 20],
    [225, 45, -0.2, -20],
    [135, 45, 0, 0],
    [105, 45, 0.1, 10],
  ])(
    'wear toward %d° on a line of %d° opens the depth by %d mm',
    (shiftClockAngleDeg, lineClockAngleDeg, mm, percent) => {
      expect(run('depth.afterWear', { ...MESH, shiftClockAngleDeg, lineClockAngleDeg })).toEqual({
        moduleMm: close(1),
        depthShiftMm: close(mm, 3),
        percentOfModule: close(percent, 1),
      })
    },
  )

  test('a pivot: strength goes by the cube; the gravest verdict wins', () => {
    expect(run('pivot.plan', { diameterMm: 1, grooveDepthMm: 0 })).toMatchObject({
      finishedMm: close(1),
      strengthPercent: close(100),
      verdict: 'leave',
    })
    const filed = run('pivot.plan', { diameterMm: 1, grooveDepthMm: 0.03 }) as Record<string, number>
    expect(filed).toMatchObject({ verdict: 'file and burnish' })
    expect(filed.strengthPercent).toBeCloseTo(100 * filed.finishedMm! ** 3, 6)
    expect(run('pivot.plan', { diameterMm: 1, grooveDepthMm: 0.3 })).toMatchObject({ verdict: 're-pivot' })
  })

  test('a bush from the drawers, and why not the others', () => {
    const stock = [
      BUSH,
      { ...BUSH, id: 'none left', count: 0 },
      { ...BUSH, id: 'short', lengthMm: 1 },
      { ...BUSH, id: 'wide', outsideMm: 2.2 },
      { ...BUSH, id: 'open', insideMm: 1.2 },
      { ...BUSH, id: 'more to broach', insideMm: 0.8 },
    ]
    const found = run('bushing.fromStock', { finishedPivotMm: 1, cutterMm: 2, plateMm: 2, stock })
    expect(found).toMatchObject({ choice: 'x', fits: ['x', 'more to broach'] })
    expect((found as { whyNot: { id: string }[] }).whyNot.map((w) => w.id)).toEqual([
      'none left',
      'short',
      'wide',
      'open',
    ])
    // A pivot of 1.1 wants a hole of 1.144: only a narrower bush is broached to it, and the open one is still too wide.
    expect(run('bushing.fromStock', { finishedPivotMm: 1.1, cutterMm: 2, plateMm: 2, stock })).toMatchObject({
      choice: 'x',
    })
  })

  test('bushes for a plan: each hole what fits it, and none promised twice', () => {
    const hole = (name: string, finishedPivotMm: number) => ({ name, finishedPivotMm, cutterMm: 2, plateMm: 2 })
    const stock = [BUSH, { ...BUSH, id: 'y', insideMm: 0.7 }]
    expect(run('bushing.assign', { holes: [hole('wide', 1), hole('narrow', 0.72)], stock })).toMatchObject({
      assigned: { wide: 'x', narrow: 'y' },
      missing: [],
    })
    expect(run('bushing.assign', { holes: [hole('one', 1), hole('two', 1), hole('three', 1)], stock })).toMatchObject({
      missing: [expect.any(String)],
    })
  })
})

test.each<[string, object, string, RegExp?]>([
  ['plate.locate', { from: [{ ...HERE, distanceMm: 1 }] }, 'from', /two known holes/],
  [
    'plate.locate',
    {
      from: [
        { ...HERE, distanceMm: 1 },
        { ...BELOW, distanceMm: 2 },
      ],
    },
    'from[1].distanceMm',
    /27\.000 mm/,
  ],
  [
    'plate.locate',
    {
      from: [
        { ...HERE, distanceMm: 5 },
        { ...HERE, distanceMm: 5 },
      ],
    },
    'from[1]',
  ],
  ['plate.clearance', { holes: [HOLES[0], HOLES[0]] }, 'holes[1].name'],
  ['plate.clearance', { holes: HOLES, edge: [HERE] }, 'edge', /three corners/],
  ['plate.clearance', { holes: HOLES, wallMm: -1 }, 'wallMm'],
  ['plate.marker', { holes: HOLES, hole: 'c', reachMm: 8 }, 'hole', /one of a, b/],
  ['plate.marker', { holes: HOLES, hole: 'a', reachMm: 0 }, 'reachMm'],
  ['plate.marker', { holes: HOLES, hole: 'a', reachMm: 8, spreadDeg: 400 }, 'spreadDeg'],
  ['wear.direction', { at: HERE, turns: 'left', drivenFrom: BELOW, pinionRadiusMm: 4 }, 'turns'],
  ['wear.direction', { at: HERE, turns: 'clockwise', drivenFrom: HERE, pinionRadiusMm: 4 }, 'drivenFrom'],
  [
    'wear.direction',
    { at: HERE, turns: 'clockwise', drivenFrom: BELOW, pinionRadiusMm: 4, drives: { xMm: 20, yMm: 0 } },
    'wheelRadiusMm',
  ],
  ['wear.fromLean', { leanDeg: 90, pivotMm: 1, plateMm: 2 }, 'leanDeg'],
  ['depth.afterWear', { ...MESH, wheelTeeth: 64.5, shiftClockAngleDeg: 0, lineClockAngleDeg: 0 }, 'wheelTeeth'],
  [
    'depth.afterWear',
    { ...MESH, centreDistanceMm: 0, shiftClockAngleDeg: 0, lineClockAngleDeg: 0 },
    'centreDistanceMm',
  ],
  ['pivot.plan', { diameterMm: 1, grooveDepthMm: 0.6 }, 'grooveDepthMm'],
  ['pivot.plan', { diameterMm: 1, originalMm: 0.9, grooveDepthMm: 0 }, 'originalMm'],
  ['pivot.plan', { diameterMm: 1, grooveDepthMm: 0, rust: 'yes' }, 'rust'],
  ['bushing.fromStock', { finishedPivotMm: 2, cutterMm: 2, plateMm: 2, stock: [BUSH] }, 'cutterMm', /leaves no wall/],
  ['bushing.fromStock', { finishedPivotMm: 1, cutterMm: 2, plateMm: 2, stock: [BUSH, BUSH] }, 'stock[1].id'],
  [
    'bushing.fromStock',
    { finishedPivotMm: 1, cutterMm: 2, plateMm: 2, stock: [{ ...BUSH, insideMm: 3 }] },
    'stock[0].insideMm',
  ],
  ['bushing.assign', { holes: [], stock: [BUSH], extra: 1 }, 'extra'],
])('%s with %j names %s', (name, input, field, words = /./) => {
  let refused: unknown
  try {
    run(name, input)
  } catch (error) {
    refused = error
  }
  expect(refused).toBeInstanceOf(FieldError)
  expect(refused).toMatchObject({ field, message: expect.stringMatching(words) as string })
})
