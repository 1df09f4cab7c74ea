import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  bathCheck,
  costPerYear,
  DEFAULT_BATHS,
  driveMargin,
  estimateSpan,
  FINISHES,
  heedMarks,
  MATERIALS,
  missingCounts,
  motionWork,
  revisionChanges,
  sortIntoBaths,
  springEnergy,
  trainBeats,
  trainDirections,
  trainDuration,
  trainSheet,
  type EstimateLine,
  type Owed,
} from '../src/index.ts'

const count = (min: number, max: number) => fc.integer({ min, max })
const cents = count(0, 500_000).map((n) => `${Math.floor(n / 100)}.${String(n % 100).padStart(2, '0')}`)

const line: fc.Arbitrary<EstimateLine> = fc.record({
  id: fc.uuid(),
  title: fc.constantFrom('Bush', 'Service', 'Spring'),
  kind: fc.constantFrom('fixed', 'range', 'if-needed'),
  quantity: count(0, 9),
  unitPrice: cents,
  upToPrice: fc.constant(null),
  taxed: fc.boolean(),
})

describe('trains, whatever their counts', () => {
  const train = fc.array(fc.record({ wheel: count(30, 120), pinion: count(6, 16) }), { minLength: 1, maxLength: 5 })

  test('the sheet and the beats agree, arbor by arbor', () => {
    fc.assert(
      fc.property(train, count(15, 50), (meshes, escapeTeeth) => {
        const { beatsPerHour, periodsS } = trainBeats(
          meshes.map((m) => m.wheel),
          meshes.map((m) => m.pinion),
          escapeTeeth,
        )
        const arbors = [...meshes.map((m) => m.wheel), escapeTeeth].map((wheel, i) => ({
          name: `Arbor ${i}`,
          wheel,
          pinion: i === 0 ? null : meshes[i - 1]!.pinion,
        }))
        const sheet = trainSheet(arbors, 0, true)
        expect(sheet.beatsPerHour).toBeCloseTo(beatsPerHour, 6)
        sheet.arbors.forEach((a, i) => expect(a.periodS).toBeCloseTo(periodsS[i]!, 6))
        expect(sheet.arbors.map((a) => a.turn)).toEqual(trainDirections(meshes.length, 'clockwise'))
      }),
    )
  })

  test('reckoned from any of its arbors, a train has the same ratios', () => {
    fc.assert(
      fc.property(train, fc.nat(), (meshes, pick) => {
        const arbors = [...meshes.map((m) => m.wheel), 30].map((wheel, i) => ({
          name: `Arbor ${i}`,
          wheel,
          pinion: i === 0 ? null : meshes[i - 1]!.pinion,
        }))
        const hourly = pick % arbors.length
        const [whole, other] = [trainSheet(arbors, 0, false), trainSheet(arbors, hourly, false)]
        const scale = whole.arbors[hourly]!.periodS! / 3600
        other.arbors.forEach((a, i) => expect(a.periodS! * scale).toBeCloseTo(whole.arbors[i]!.periodS!, 4))
      }),
    )
  })

  test('the duration counted turn by turn: every hour the centre turns once', () => {
    fc.assert(
      fc.property(count(60, 180), count(6, 16), count(1, 30), (great, pinion, turns) => {
        // The great wheel's teeth pass one by one; each pinion's worth of them is an hour.
        const hours = (great * turns) / pinion
        expect(trainDuration(great, pinion, turns).days).toBeCloseTo(hours / 24, 9)
      }),
    )
  })

  test('a wheel between two others changes the ratio by its own counts and no more', () => {
    const plain = trainDuration(144, 12, 10).hoursPerTurn
    fc.assert(
      fc.property(count(6, 16), count(30, 120), (pinion, wheel) => {
        expect(trainDuration(144, 12, 10, [{ pinion, wheel }]).hoursPerTurn).toBeCloseTo((plain * wheel) / pinion, 9)
      }),
    )
  })

  test('motion work and its mirror: swapping both pairs leaves the ratio', () => {
    fc.assert(
      fc.property(count(6, 20), count(20, 60), count(6, 20), count(20, 60), (c, m, p, h) => {
        expect(motionWork(c, m, p, h).ratio).toBeCloseTo(motionWork(p, h, c, m).ratio, 12)
      }),
    )
  })

  test('no proposal for a lost wheel is further off than one that comes after it', () => {
    fc.assert(
      fc.property(count(48, 96), count(6, 12), count(3000, 12_000), (wheel, pinion, beats) => {
        const offs = missingCounts([wheel, null], [pinion, null], 30, beats, 1).map((c) => Math.abs(c.offPercent))
        offs.slice(1).forEach((off, i) => expect(off).toBeGreaterThanOrEqual(offs[i]! - 1e-7))
      }),
      { numRuns: 40 },
    )
  })
})

describe('springs, whatever their size', () => {
  const spring = fc.record({
    widthMm: fc.double({ min: 4, max: 60, noNaN: true }),
    thicknessMm: fc.double({ min: 0.15, max: 0.7, noNaN: true }),
    share: fc.double({ min: 0.25, max: 0.75, noNaN: true }),
    barrelInsideMm: fc.double({ min: 25, max: 80, noNaN: true }),
    arborShare: fc.double({ min: 0.25, max: 0.4, noNaN: true }),
  })

  test('from run down the wound torque and energy only rise, and the energy lies between the two torques’ work', () => {
    fc.assert(
      fc.property(spring, ({ share, arborShare, ...s }) => {
        const arborMm = s.barrelInsideMm * arborShare
        const free = (Math.PI / 4) * (s.barrelInsideMm ** 2 - arborMm ** 2)
        const whole = { ...s, arborMm, lengthMm: (free * share) / s.thicknessMm }
        const all = springEnergy(whole)
        const half = springEnergy(whole, all.turnsAvailable / 2)
        const angle = 2 * Math.PI * all.turnsAvailable
        expect(all.energyJ).toBeLessThanOrEqual((all.torqueWoundNmm * angle) / 1000)
        expect(all.energyJ).toBeGreaterThanOrEqual((all.torqueRunDownNmm * angle) / 1000)
        expect(half.torqueNmm).toBeLessThanOrEqual(all.torqueNmm)
        expect(half.energyJ).toBeLessThan(all.energyJ)
        expect(all.turnsAvailable).toBeLessThanOrEqual(all.turnsAtBest + 1e-9)
      }),
    )
  })
})

describe('estimates, whatever their lines', () => {
  test('the most is never below the least, and both are net and tax together', () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), count(0, 30), (lines, tax) => {
        const { least, most } = estimateSpan(lines, String(tax))
        expect(Number(most.gross)).toBeGreaterThanOrEqual(Number(least.gross))
        for (const { net, tax: part, gross } of [least, most])
          expect(Math.round(100 * (Number(net) + Number(part)))).toBe(Math.round(100 * Number(gross)))
      }),
    )
  })

  test('a revision against itself has changed nothing; against nothing, every line is new', () => {
    fc.assert(
      fc.property(fc.uniqueArray(line, { selector: (l) => l.id, maxLength: 8 }), (lines) => {
        expect(revisionChanges(lines, lines)).toEqual([])
        expect(revisionChanges([], lines).map((c) => c.change)).toEqual(lines.map(() => 'added'))
        expect(revisionChanges(lines, []).map((c) => c.change)).toEqual(lines.map(() => 'dropped'))
      }),
    )
  })

  test('a longer life never costs more a year', () => {
    fc.assert(
      fc.property(cents, count(1, 50), (price, years) => {
        expect(Number(costPerYear(price, years + 1))).toBeLessThanOrEqual(Number(costPerYear(price, years)))
      }),
    )
  })
})

describe('cleaning, whatever is in the movement', () => {
  const part = fc.record({
    name: fc.string({ minLength: 1 }).filter((s) => s.trim() !== ''),
    material: fc.constantFrom(...MATERIALS),
    finish: fc.constantFrom(...FINISHES),
  })

  test('no part is lost, and none lies in a bath that it must be kept from', () => {
    fc.assert(
      fc.property(
        fc.array(part, { maxLength: 20 }),
        fc.constantFrom(...DEFAULT_BATHS.map((b) => b.key)),
        (parts, preferred) => {
          const { baths, dry } = sortIntoBaths(parts, DEFAULT_BATHS, preferred)
          expect(baths.reduce((n, b) => n + b.parts.length, dry.length)).toBe(parts.length)
          for (const { bath, parts: inside } of baths) expect(bathCheck(bath.key, inside).keepOut).toEqual([])
          for (const { why } of dry) expect(why).not.toBe('')
        },
      ),
    )
  })
})

test('the margin is what is left of the fitted: none at all when all of it is needed', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 100, noNaN: true }),
      fc.double({ min: 0.05, max: 2, noNaN: true }),
      (fitted, share) => {
        expect(driveMargin(fitted, fitted * share).marginPercent).toBeCloseTo(100 * (1 - share), 6)
      },
    ),
  )
})

test('marks hide what they name and nothing else', () => {
  const owed = (kind: Owed['kind'], subject: string): Owed => ({
    kind,
    subject,
    dueS: 100,
    weight: 'watch',
    title: '',
    why: '',
  })
  const kinds = ['wind', 'bath', 'order', 'promise'] as const
  const thing = fc.record({ kind: fc.constantFrom(...kinds), subject: fc.constantFrom('', 'a', 'b') })
  fc.assert(
    fc.property(fc.array(thing, { maxLength: 8 }), thing, (things, marked) => {
      const list = things.map((t) => owed(t.kind, t.subject))
      const left = heedMarks(list, [{ ...marked, state: 'done', dueS: 100, untilS: null }], 50)
      expect(left).toEqual(list.filter((o) => o.kind !== marked.kind || o.subject !== marked.subject))
    }),
  )
})
