import { describe, expect, test } from 'vitest'
import {
  DEFAULT_BUSHING_RULES,
  DEFAULT_PIVOT_RULES,
  depthsOf,
  expectedWear,
  holesOfPlate,
  judgeHole,
  movementOf,
  movementOfJob,
  NOWHERE,
  placeOfHole,
  planOfPivot,
  withFinishedPivot,
  type HoleFacts,
  type HolePlace,
  type HoleRules,
  type PlacedArbor,
} from '../src/index.ts'
import { UNSEEN_PIVOT, unmeasured } from './facts.ts'

/** Judged by its own figures, where no pivot is on record. */
const judged = (hole: HoleFacts, rules: HoleRules, place: HolePlace = NOWHERE) => judgeHole(hole, [], rules, place)

const arbor = (name: string, index: number, xMm: number, yMm: number): PlacedArbor => ({
  train: 'going',
  name,
  index,
  role: 'other',
  xMm,
  yMm,
  pinionAt: 0.5,
  wheelAt: 0.5,
  moduleMm: null,
})
const MAP = {
  arbors: [arbor('Third', 2, 0, 72), arbor('Great', 0, 0, 0), arbor('Centre', 1, 0, 36)],
  fixtures: [
    { name: 'Pillar', kind: 'pillar' as const, plate: 'both' as const, xMm: 30, yMm: 0, diameterMm: 6 },
    { name: 'Screw', kind: 'screw' as const, plate: 'back' as const, xMm: 20, yMm: 0, diameterMm: 3 },
  ],
}
const SHEET = {
  train: 'going' as const,
  arbors: [
    { name: 'Great', pinion: null, wheel: 84 },
    { name: 'Centre', pinion: 8, wheel: 64 },
    { name: 'Third', pinion: 8, wheel: 60 },
  ],
  hourly: 1,
  escape: false,
  greatTurns: null,
}
const place = { train: 'going', arbor: 'Third', plate: 'back', role: 'other' } as const
const RULES = { bushing: DEFAULT_BUSHING_RULES, cuttersMm: [1.6, 2, 2.3] }

describe('the movement on its plates', () => {
  test('places come from the map, counts and turning from the sheet, great wheel first', () => {
    const [train] = movementOf(MAP, [SHEET])
    expect(train!.arbors.map((a) => [a.name, a.pinion, a.wheel, a.turn])).toEqual([
      ['Great', null, 84, 'anticlockwise'],
      ['Centre', 8, 64, 'clockwise'],
      ['Third', 8, 60, 'anticlockwise'],
    ])
    expect(movementOf(null, [SHEET])).toEqual([])
  })

  test('a strike train with no hourly arbor turns about all the same', () => {
    const strike = { ...SHEET, train: 'strike' as const, hourly: null }
    const map = { ...MAP, arbors: MAP.arbors.map((a) => ({ ...a, train: 'strike' as const })) }
    expect(movementOf(map, [strike])[0]!.arbors.map((a) => a.turn)).toEqual([
      'anticlockwise',
      'clockwise',
      'anticlockwise',
    ])
  })

  test('the last arbor, driven from below by a wheel that turns clockwise, wears to the right', () => {
    const found = expectedWear(movementOf(MAP, [SHEET]), place)
    // Its driver’s tooth goes right at the top; it is pushed that way and up by the pressure angle.
    expect(found).toBeCloseTo(70, 6)
    expect(expectedWear(movementOf(MAP, []), place)).toBeNull()
    expect(expectedWear(movementOf(MAP, [SHEET]), { ...place, arbor: 'Fly' })).toBeNull()
  })

  test('a hole’s own depth: along the line of centres all of its wear counts', () => {
    const worn = { ...unmeasured(place), longAxisMm: 1.3, shortAxisMm: 1.1, pivotMm: 1, wearDeg: 0 }
    const movement = movementOf(MAP, [SHEET])
    const depth = (hole: HoleFacts, trains = movement) => placeOfHole(trains, hole).depth
    expect(depth(worn)).toEqual({ moduleMm: 1, depthShiftMm: expect.closeTo(0.2) })
    expect(depth({ ...worn, wearDeg: 90 })!.depthShiftMm).toBeCloseTo(0)
    expect(depth({ ...worn, wearDeg: null })).toBeNull()
    expect(depth(worn, movementOf(MAP, []))).toBeNull()
  })

  test('a hole that a repair left off its centre goes back; wrong counts are no repair', () => {
    const at = (yMm: number) =>
      movementOf({ arbors: MAP.arbors.map((a) => (a.name === 'Third' ? { ...a, moduleMm: 1, yMm } : a)) }, [SHEET])
    const hole = { ...unmeasured(place), longAxisMm: 1.1, shortAxisMm: 1.1, pivotMm: 1 }
    // 64 and 8 at module 1 stand 36 apart.
    expect(placeOfHole(at(72), hole).offCentre).toBeNull()
    expect(placeOfHole(at(72.4), hole).offCentre).toEqual({ mm: expect.closeTo(0.4), deg: 180 })
    expect(placeOfHole(at(71.7), hole).offCentre).toEqual({ mm: expect.closeTo(0.3), deg: expect.closeTo(0) })
    expect(placeOfHole(at(90), hole).offCentre).toBeNull()
    // The cutter about the true centre takes in the old hole on its far side.
    const rules = { bushing: DEFAULT_BUSHING_RULES, cuttersMm: [2, 2.5, 3] }
    const bushed = { ...hole, plateMm: 2, verdictOverride: 'bush' as const, oldHoleMm: 1.9 }
    expect(judged(bushed, rules).plan!.cutterMm).toBe(2)
    expect(judged(bushed, rules, placeOfHole(at(72.4), hole)).plan!.cutterMm).toBe(3)
  })

  test('the table of depths: what the plan bushes is true again, what it leaves is not', () => {
    const [train] = movementOf(MAP, [SHEET])
    const worn = { ...unmeasured(place), longAxisMm: 1.5, shortAxisMm: 1.1, pivotMm: 1, wearDeg: 0 }
    const left = depthsOf(train!, [worn], () => false)
    const done = depthsOf(train!, [worn], () => true)
    const last = (table: typeof left) => ['worn', 'middle', 'true'].map((c) => table[c as 'worn'].at(-1)!.depthShiftMm)
    expect(last(done)).toEqual([expect.closeTo(0.2), expect.closeTo(0.1), 0])
    expect(last(left)).toEqual([expect.closeTo(0.2), expect.closeTo(0.2), expect.closeTo(0.2)])
  })

  test('the holes of one plate: its own screws and no other’s', () => {
    expect(holesOfPlate(MAP, 'front', () => 1).map((h) => h.name)).not.toContain('Screw')
    expect(holesOfPlate(MAP, 'back', () => 1).map((h) => h.name)).toContain('Screw')
  })
})

describe('judging a hole by whatever measured it', () => {
  const hole = unmeasured(place)

  test('nothing measured: not judged; waived: done without a verdict', () => {
    expect(judged(hole, RULES)).toMatchObject({ verdict: null, done: false, play: null })
    expect(judged({ ...hole, waived: 'Renewed last year.' }, RULES)).toMatchObject({ verdict: null, done: true })
  })

  test('a lean gives the play alone: enough to leave it, or to send for the caliper', () => {
    const free = judged({ ...hole, pivotMm: 1, plateMm: 2, leanDeg: 1 }, RULES)
    expect(free).toMatchObject({ verdict: 'leave', plan: null, done: true })
    const loose = judged({ ...hole, pivotMm: 1, plateMm: 2, leanDeg: 8 }, RULES)
    expect(loose).toMatchObject({ verdict: 'bush', plan: null })
    expect(loose.sure).toBeGreaterThan(0.99)
    const close = judged({ ...hole, pivotMm: 1, plateMm: 2, leanDeg: 3 }, RULES)
    expect(close.settleBy).toBe('caliper')
  })

  test('a gauge figure is taken as it is, and near the limit says so', () => {
    expect(judged({ ...hole, pivotMm: 1, shakeMm: 0.09 }, RULES)).toMatchObject({
      verdict: 'leave',
      nearLimit: true,
    })
    expect(judged({ ...hole, pivotMm: 1, shakeMm: 0.11 }, RULES).verdict).toBe('bush')
    expect(judged({ ...hole, pivotMm: 1, shakeMm: 0.07, role: 'escape' }, RULES).verdict).toBe('bush')
  })

  test('the map’s depth decides where the other schools would leave it; what was typed goes before it', () => {
    const measured = { ...hole, longAxisMm: 2.12, shortAxisMm: 2.03, pivotMm: 2, plateMm: 2, wearDeg: 0 }
    expect(judged(measured, RULES).verdict).toBe('leave')
    expect(judged(measured, RULES, { depth: { moduleMm: 0.6, depthShiftMm: 0.09 }, offCentre: null }).verdict).toBe(
      'bush',
    )
    const typed = { ...measured, moduleMm: 0.6, depthShiftMm: 0.01 }
    expect(judged(typed, RULES, { depth: { moduleMm: 0.6, depthShiftMm: 0.09 }, offCentre: null }).verdict).toBe(
      'leave',
    )
  })
})

describe('the finished pivot', () => {
  const measured = { ...unmeasured(place), longAxisMm: 1.2, shortAxisMm: 1.1, pivotMm: 1.05, plateMm: 2, wearDeg: 0 }
  const end = { train: 'going', arbor: 'Third', plate: 'back', finishedMm: 0.95 as number | null }

  test('sizes follow it, and only it', () => {
    expect(judgeHole(measured, [end], RULES, NOWHERE).plan!.drilledMm).toBeCloseTo(0.88)
    expect(withFinishedPivot(measured, [{ ...end, finishedMm: null }])).toBe(measured)
    expect(withFinishedPivot(measured, [{ ...end, plate: 'front' }])).toBe(measured)
  })

  test('a new one thicker than its hole wants a bush, and is no error', () => {
    const thick = judgeHole(measured, [{ ...end, finishedMm: 1.15 }], RULES, NOWHERE)
    expect(thick).toMatchObject({ verdict: 'bush' })
    expect(thick.plan!.finishedHoleMm).toBeGreaterThan(1.15)
  })
})

test('counts that can’t be leave the plates without counts, not without a page', () => {
  const [train] = movementOf(MAP, [{ ...SHEET, hourly: 9 }])
  expect(train!.arbors.map((a) => a.wheel)).toEqual([null, null, null])
})

describe('a pivot as it was found', () => {
  const pivot = UNSEEN_PIVOT

  test('nothing is said before the gauge; then the larger figure counts', () => {
    expect(planOfPivot(pivot, DEFAULT_PIVOT_RULES)).toBeNull()
    expect(planOfPivot({ ...pivot, firstMm: 1, secondMm: 0.98 }, DEFAULT_PIVOT_RULES)).toMatchObject({
      verdict: 'polish',
      finishedMm: expect.closeTo(0.98),
    })
  })

  test('a nail that catches is a groove even where none was measured', () => {
    expect(planOfPivot({ ...pivot, firstMm: 1, nail: 'catches' }, DEFAULT_PIVOT_RULES)!.verdict).toBe(
      'file and burnish',
    )
    expect(planOfPivot({ ...pivot, firstMm: 1, outOfRoundMm: 0.06 }, DEFAULT_PIVOT_RULES)!.finishedMm).toBeCloseTo(0.94)
  })

  test('under nine tenths of her sister it is let in anew', () => {
    const plan = planOfPivot({ ...pivot, firstMm: 1 }, DEFAULT_PIVOT_RULES, 1.2)
    expect(plan).toMatchObject({ verdict: 're-pivot' })
    expect(plan!.reasons[0]).toMatch(/sister’s 1.20/)
    expect(planOfPivot({ ...pivot, firstMm: 1, shoulder: 'worn' }, DEFAULT_PIVOT_RULES)!.reasons.join()).toMatch(
      /shoulder is worn/,
    )
  })
})

describe('one verdict, whoever asks', () => {
  const hole = { ...unmeasured(place), longAxisMm: 1.2, shortAxisMm: 1.1, pivotMm: 1.05, plateMm: 2, wearDeg: 0 }
  const end = { train: 'going', arbor: 'Third', plate: 'back', finishedMm: 0.95 }
  const job = { plateMap: MAP, trainSheets: [SHEET], holes: [hole], pivots: [end] }

  test('it knows the finished pivot and the place on the plates', () => {
    const { judged: ask, trains } = movementOfJob(job, RULES)
    expect(ask(hole)).toEqual(judgeHole(hole, [end], RULES, placeOfHole(trains, hole)))
    expect(ask(hole)).toMatchObject({ pivotMm: 0.95, verdict: 'bush' })
    expect(ask(hole)).toBe(ask(hole))
  })

  test('a person’s verdict goes before the rule’s', () => {
    const worn = { ...hole, longAxisMm: 1.32, pivotMm: 1, plateMm: 2.4 }
    expect(judged(worn, RULES).verdict).toBe('bush')
    expect(judged({ ...worn, verdictOverride: 'leave' }, RULES)).toMatchObject({
      verdict: 'leave',
      plan: { verdict: 'leave' },
    })
    expect(judged({ ...worn, pivotMm: null }, RULES).plan).toBeNull()
  })
})
