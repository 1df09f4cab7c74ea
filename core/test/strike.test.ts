import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  countWheel,
  dropAcrossMm,
  oilPlan,
  OIL_PARTS,
  oilSink,
  sinkFilledToMm,
  strikeBlows,
  strikeTrain,
  trialStanding,
} from '../src/index.ts'

describe('blows', () => {
  test('of a round, as they are counted by hand', () => {
    // 1 + 2 + … + 12, twelve halves, each hour twice.
    expect(strikeBlows('none')).toEqual({ inTwelveHours: 78, aDay: 156 })
    expect(strikeBlows('one')).toEqual({ inTwelveHours: 90, aDay: 180 })
    expect(strikeBlows('hour')).toEqual({ inTwelveHours: 156, aDay: 312 })
  })
})

describe('a strike train', () => {
  // Worked by hand: 13 pins, one turn of the pin wheel is 13 blows; 78 : 6 is 13 turns of the next arbor a turn, so one a blow.
  const usual = { wheels: [84, 78, 70, 60], pinions: [12, 6, 7, 6], pinWheel: { arbor: 1, pins: 13 }, lockingArbor: 2 }

  test('locks right where its counts are the usual ones', () => {
    const train = strikeTrain({ ...usual, halves: 'none', turnsOfGreat: 14 })
    expect(train.locksRight).toBe(true)
    expect(train.faults).toEqual([])
    // The great wheel turns 1/7 for one of the pin wheel: 1/91 a blow; the fly 10 × 10 a blow.
    expect(train.turnsPerBlow[0]).toBeCloseTo(1 / 91, 12)
    expect(train.turnsPerBlow.slice(1)).toEqual([1 / 13, 1, 10, 100])
    // 14 turns are 1274 blows; 156 a day.
    expect(train.days).toBeCloseTo(1274 / 156, 12)
  })

  test('a wrong count is told by how long it takes to stand right again', () => {
    const wrong = strikeTrain({ ...usual, wheels: [84, 80, 70, 60] })
    expect(wrong.locksRight).toBe(false)
    // 80/(6·13) = 40/39.
    expect(wrong.faults[0]).toMatch(/Arbor 2 turns 40\/39 at a blow.*after 39 blows/)
    expect(wrong.days).toBeNull()
  })

  test('counts so large that no float holds their product lock as the whole numbers say', () => {
    // 997 is prime: eight such wheels over eight pinions of 97 never come out even; 970 is ten times 97, and does.
    const large = { wheels: Array<number>(8).fill(997), pinWheel: { arbor: 0, pins: 1 }, lockingArbor: 8 }
    expect(strikeTrain({ ...large, pinions: Array<number>(8).fill(97) }).locksRight).toBe(false)
    expect(
      strikeTrain({ ...large, wheels: [...Array<number>(7).fill(970), 97], pinions: Array<number>(8).fill(97) })
        .locksRight,
    ).toBe(true)
  })

  test('a locking arbor that turns more than once a blow locks as well', () => {
    expect(strikeTrain({ ...usual, lockingArbor: 3 }).locksRight).toBe(true)
  })

  test('turning every arbor by its own counts gives the same, whatever the counts', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 20, max: 120 }), fc.integer({ min: 6, max: 14 })), {
          minLength: 1,
          maxLength: 6,
        }),
        fc.integer({ min: 1, max: 30 }),
        fc.nat(),
        fc.nat(),
        (meshes, pins, a, b) => {
          const wheels = meshes.map((m) => m[0])
          const pinions = meshes.map((m) => m[1])
          const pinArbor = a % (meshes.length + 1)
          const lockingArbor = b % (meshes.length + 1)
          const train = strikeTrain({ wheels, pinions, pinWheel: { arbor: pinArbor, pins }, lockingArbor })
          // Teeth that pass each mesh at a blow are the same on both sides.
          meshes.forEach(([wheel, pinion], i) =>
            // A share, since a fly turns a million times as far as its great wheel.
            expect((train.turnsPerBlow[i]! * wheel) / (train.turnsPerBlow[i + 1]! * pinion)).toBeCloseTo(1, 12),
          )
          expect(train.turnsPerBlow[pinArbor]! * pins).toBeCloseTo(1, 9)
          // The lock, by whole teeth only.
          let [over, under] = [1n, BigInt(pins)]
          for (let i = pinArbor; i < lockingArbor; i++)
            [over, under] = [over * BigInt(wheels[i]!), under * BigInt(pinions[i]!)]
          for (let i = pinArbor; i > lockingArbor; i--)
            [over, under] = [over * BigInt(pinions[i - 1]!), under * BigInt(wheels[i - 1]!)]
          expect(train.locksRight).toBe(over % under === 0n)
        },
      ),
    )
  })

  test.each([
    ['pinions', { pinions: [12, 6] }],
    ['wheels[1]', { wheels: [84, 7.5, 70, 60] }],
    ['pinWheel.pins', { pinWheel: { arbor: 1, pins: 0 } }],
    ['pinWheel.arbor', { pinWheel: { arbor: 9, pins: 13 } }],
    ['lockingArbor', { lockingArbor: 5 }],
    ['turnsOfGreat', { turnsOfGreat: -1 }],
  ])('refuses %s that can’t be', (field, part) => {
    expect(() => strikeTrain({ ...usual, ...part })).toThrow(expect.objectContaining({ field }))
  })
})

describe('a count wheel', () => {
  test('of the hours alone: each slot after the sum of the hours so far', () => {
    const { divisions, slots } = countWheel('none')
    expect(divisions).toBe(78)
    expect(slots.map((s) => s.after)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])
    // By hand: 1, 3, 6, 10, 15, 21, 28, 36, 45, 55, 66, 78 of 78.
    const sums = [1, 3, 6, 10, 15, 21, 28, 36, 45, 55, 66, 78]
    slots.forEach((s, i) => expect(s.atDeg).toBeCloseTo((sums[i]! * 360) / 78, 10))
  })

  test('with halves: every slot is its own blows after the one before, in the order of the day', () => {
    const { divisions, slots } = countWheel('one')
    expect(divisions).toBe(90)
    expect(slots).toHaveLength(24)
    const at = (after: number) => slots.find((s) => s.after === after)!.atDeg / 4
    expect(at(12.5)).toBeCloseTo(1, 10)
    for (let hour = 1; hour <= 12; hour++) {
      const before = hour === 1 ? 12.5 : hour - 0.5
      expect(at(hour) - at(before)).toBeCloseTo(hour, 10)
      if (hour < 12) expect(at(hour + 0.5) - at(hour)).toBeCloseTo(1, 10)
    }
    expect(at(12)).toBeCloseTo(90, 10)
  })
})

describe('an oil sink', () => {
  /** A sink in thin slices, each as wide as it is there. */
  const slices = (acrossMm: number, depthMm: number, shape: 'cup' | 'cone') => {
    const a = acrossMm / 2
    const ball = (a * a + depthMm * depthMm) / (2 * depthMm)
    const n = 20_000
    let sum = 0
    for (let i = 0; i < n; i++) {
      const below = ((i + 0.5) / n) * depthMm
      const r2 = shape === 'cone' ? (a * (1 - below / depthMm)) ** 2 : ball * ball - (ball - depthMm + below) ** 2
      sum += Math.PI * r2 * (depthMm / n)
    }
    return sum
  }

  test('holds what its slices hold', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.constantFrom('cup' as const, 'cone' as const),
        (across, share, shape) => {
          const depth = (share * across) / 2
          expect(oilSink(across, depth, shape).fullMicrolitres / slices(across, depth, shape)).toBeCloseTo(1, 5)
        },
      ),
      { numRuns: 40 },
    )
  })

  test('a half ball, and a cone, by their own formulas', () => {
    expect(oilSink(2, 1).fullMicrolitres).toBeCloseTo((2 / 3) * Math.PI, 12)
    expect(oilSink(2, 3, 'cone').fullMicrolitres).toBeCloseTo(Math.PI, 12)
    expect(oilSink(2, 1).microlitres).toBeCloseTo(0.4 * Math.PI, 12)
    expect(oilSink(2, 1, 'cup', 0.5).microlitres).toBeCloseTo(Math.PI / 3, 12)
  })

  test('filled so high it holds its share, by its slices', () => {
    for (const shape of ['cup', 'cone'] as const)
      for (const [across, depth] of [
        [2.4, 0.8],
        [3, 1.5],
        [1.2, 0.2],
      ] as const) {
        const high = sinkFilledToMm(across, depth, shape)
        const a = across / 2
        const ball = (a * a + depth * depth) / (2 * depth)
        const n = 50_000
        let sum = 0
        for (let i = 0; i < n; i++) {
          const up = ((i + 0.5) / n) * high
          const r2 = shape === 'cone' ? ((a * up) / depth) ** 2 : ball * ball - (ball - up) ** 2
          sum += Math.PI * r2 * (high / n)
        }
        expect(sum / oilSink(across, depth, shape).microlitres).toBeCloseTo(1, 4)
      }
  })

  test('a drop is as large as what it holds', () => {
    expect((Math.PI / 6) * dropAcrossMm(0.4) ** 3).toBeCloseTo(0.4, 12)
  })

  test.each([
    ['depthMm', [2, 1.1, 'cup', 0.6]],
    ['acrossMm', [0, 1, 'cup', 0.6]],
    ['fill', [2, 1, 'cup', 0]],
    ['fill', [2, 1, 'cone', 1.2]],
  ] as const)('refuses %s', (field, [across, depth, shape, fill]) => {
    expect(() => oilSink(across, depth, shape, fill)).toThrow(expect.objectContaining({ field }))
  })
})

describe('what is oiled', () => {
  test('by the rules of the craft, each with how much and why', () => {
    const { points } = oilPlan(OIL_PARTS.map((part) => ({ name: `the ${part}`, part })))
    const withWhat = Object.fromEntries(points.map((p) => [p.name.slice(4), p.with]))
    expect(withWhat).toEqual({
      pivot: 'pivot oil',
      'great pivot': 'heavy oil',
      'pallet faces': 'pivot oil',
      'crutch fork': 'pivot oil',
      suspension: 'pivot oil',
      mainspring: 'heavy oil',
      click: 'grease',
      ratchet: 'grease',
      'wheel teeth': 'dry',
      'pinion leaves': 'dry',
      'motion work teeth': 'dry',
      'hammer tail': 'grease',
      'lifting surface': 'grease',
      'chime activator': 'grease',
      'pulley axle': 'pivot oil',
    })
    for (const point of points) {
      expect(point.howMuch).not.toBe('')
      expect(point.why).not.toBe('')
    }
    expect(points[0]?.howMuch).toMatch(/half to two thirds/)
  })
})

describe('a trial', () => {
  const DAY = 86_400
  const run = (part: Partial<Parameters<typeof trialStanding>[0]>) =>
    trialStanding({ days: 7, startedAtS: 0, changesS: [], windingsS: [], nowS: 3 * DAY, ...part })

  test('counts from its start, and from the last change after it', () => {
    expect(run({}).countsFromS).toBe(0)
    expect(run({ changesS: [-5 * DAY, DAY, 2 * DAY] }).countsFromS).toBe(2 * DAY)
    // What is still to come has changed nothing.
    expect(run({ changesS: [4 * DAY] }).countsFromS).toBe(0)
  })

  test('is over when its days are up and it was wound since it counts', () => {
    const late = { nowS: 9 * DAY, changesS: [2 * DAY] }
    expect(run({ ...late, windingsS: [DAY] })).toMatchObject({
      over: false,
      wanted: ['a full winding since it counts'],
    })
    expect(run({ ...late, windingsS: [3 * DAY] })).toMatchObject({ over: true, wanted: [], endsAtS: 9 * DAY })
    expect(run({ ...late, nowS: 9 * DAY - 1, windingsS: [3 * DAY] }).over).toBe(false)
  })

  test('says what is still wanted', () => {
    expect(run({}).wanted).toEqual(['4 days more without a change', 'a full winding since it counts'])
    expect(run({ nowS: 6.5 * DAY, windingsS: [DAY] }).wanted).toEqual(['12 hours more without a change'])
  })

  test('whatever happens, it never ends before its days have passed since every change', () => {
    const times = fc.array(fc.integer({ min: -20 * DAY, max: 40 * DAY }), { maxLength: 8 })
    fc.assert(
      fc.property(
        times,
        times,
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 0, max: 40 * DAY }),
        (changesS, windingsS, days, nowS) => {
          const told = trialStanding({ days, startedAtS: 0, changesS, windingsS, nowS })
          const quiet = changesS.every((c) => c > nowS || nowS - c >= days * DAY) && nowS >= days * DAY
          const wound = windingsS.some((w) => w > Math.max(0, ...changesS.filter((c) => c <= nowS)) && w <= nowS)
          expect(told.over).toBe(quiet && wound)
          expect(told.wanted.length === 0).toBe(told.over)
        },
      ),
    )
  })
})
