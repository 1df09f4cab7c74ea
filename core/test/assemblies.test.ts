import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  assemblyPlan,
  isPlate,
  meshMarks,
  partsCount,
  placeBetween,
  POWERS,
  proofsFor,
  reasonTrouble,
  type TroubleTable,
} from '../src/index.ts'

const step = fc.record({
  id: fc.uuid(),
  position: fc.double({ min: -1e6, max: 1e6, noNaN: true }),
  part: fc.constantFrom('dial', 'hands', 'bridge', 'Back plate'),
  count: fc.integer({ min: 1, max: 20 }),
  back: fc.boolean(),
  notBack: fc.constantFrom('', '', 'its spring was replaced'),
  tray: fc.constantFrom('going', 'strike', 'chime', 'case'),
})
const log = fc.uniqueArray(step, { selector: (s) => s.id, maxLength: 160 })

describe('any strip log, read backwards', () => {
  const trains = fc.subarray(['going', 'strike', 'chime'], { minLength: 1 })
  type Step = {
    id: string
    position: number
    part: string
    count: number
    back: boolean
    notBack: string
    tray: string
  }
  const partsOf = (steps: Step[], of: string[]) =>
    assemblyPlan(steps, of, {}).flatMap((i) => (i.kind === 'part' ? [i.part] : []))

  test('has every step once, and within a tray the last out goes in first', () => {
    fc.assert(
      fc.property(log, trains, (steps, of) => {
        const parts = partsOf(steps, of)
        expect(parts.map((s) => s.id).sort()).toEqual(steps.map((s) => s.id).sort())
        const last = steps.filter((s) => isPlate(s.part)).sort((a, b) => a.position - b.position)[0]
        // Between the plates, and outside of them, each tray by itself is the log read backwards.
        for (const tray of ['going', 'strike', 'chime', 'case']) {
          const inside = parts.filter((s) => s.tray === tray && last && s.position > last.position)
          inside.slice(1).forEach((s, i) => expect(s.position).toBeLessThanOrEqual(inside[i]!.position))
        }
      }),
    )
  })

  test('the first train runs dry alone before any part of another goes between the plates', () => {
    fc.assert(
      fc.property(log, (steps) => {
        const plan = assemblyPlan(steps as Step[], ['going', 'strike'], { going: ['Great', 'Escape'] })
        const dry = plan.findIndex((i) => i.kind === 'dry' && i.train === 'going')
        const plate = (steps as Step[]).filter((s) => isPlate(s.part)).sort((a, b) => a.position - b.position)[0]
        const strike = plan.findIndex(
          (i) => i.kind === 'part' && i.part.tray === 'strike' && (!plate || i.part.position > plate.position),
        )
        expect(dry).toBeGreaterThanOrEqual(0)
        if (strike >= 0) expect(strike).toBeGreaterThan(dry)
        expect(plan.filter((i) => i.kind === 'dry').map((i) => i.kind === 'dry' && i.train)).toEqual([
          'going',
          'strike',
        ])
        expect(new Set(plan.map((i) => i.key)).size).toBe(plan.length)
      }),
    )
  })

  test('a movement of one train is closed once, and its pivots are brought in from the great wheel up', () => {
    const plan = assemblyPlan([], ['going'], { going: ['Great', 'Centre', 'Escape'] })
    expect(plan.map((i) => i.key)).toEqual(['stand', 'caught-all', 'pivots-all', 'endshake-all', 'dry-going'])
    const pivots = plan.find((i) => i.key === 'pivots-all')
    expect(pivots?.kind === 'led' && pivots.step.does).toContain('In turn: Great, Centre, Escape.')
  })

  test('parts out are parts back, parts that stay out for a reason, and parts left over', () => {
    fc.assert(
      fc.property(log, (steps) => {
        const { partsOut, partsBack, partsKept, leftOver } = partsCount(steps)
        expect(partsBack + partsKept + leftOver.reduce((n, s) => n + s.count, 0)).toBe(partsOut)
        expect(leftOver.every((s) => !s.back && s.notBack === '')).toBe(true)
      }),
    )
  })

  test('does not depend on the order in which its rows are fetched', () => {
    fc.assert(
      fc.property(log, trains, (steps, of) => {
        const keys = (from: Step[]) => assemblyPlan(from, of, {}).map((i) => i.key)
        expect(keys([...steps].reverse())).toEqual(keys(steps))
      }),
    )
  })

  test.each([
    ['Back plate', true],
    ['front plate with its pillars', true],
    ['Name plate', false],
    ['Back plate screws', false],
    ['Dial plate', false],
  ])('%s is a plate: %s', (part, is) => {
    expect(isPlate(part)).toBe(is)
  })
})

test('a place at the end, at the beginning and between is where it says', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
      fc.double({ min: 1e-6, max: 1e6, noNaN: true }),
      (a, gap) => {
        expect(placeBetween(a, null)).toBeGreaterThan(a)
        expect(placeBetween(null, a)).toBeLessThan(a)
        const between = placeBetween(a, a + gap)
        expect(between).toBeGreaterThanOrEqual(a)
        expect(between).toBeLessThanOrEqual(a + gap)
      },
    ),
  )
})

describe('any clock', () => {
  const work = fc.record({
    trains: fc
      .subarray(['going', 'strike', 'chime'], { minLength: 1 })
      .map((names) => names.map((train) => ({ train, power: 'spring' }))),
    strikeWork: fc.constantFrom('count-wheel' as const, 'rack' as const, null),
    moon: fc.boolean(),
    calendar: fc.boolean(),
    pendulum: fc.boolean(),
  })

  test('has each mark once, and always that of its clicks', () => {
    fc.assert(
      fc.property(work, (w) => {
        const keys = meshMarks(w).map((m) => m.key)
        expect(new Set(keys).size).toBe(keys.length)
        expect(keys).toContain('clicks')
        const strikes = w.trains.some((t) => t.train === 'strike')
        expect(keys.includes('warning')).toBe(strikes)
        // Where nobody has looked how it counts, both are asked for; a train that is not there asks for nothing.
        expect(keys.includes('count-wheel')).toBe(strikes && w.strikeWork !== 'rack')
        expect(keys.includes('gathering-pallet')).toBe(strikes && w.strikeWork !== 'count-wheel')
        expect(keys.includes('moon')).toBe(w.moon)
      }),
    )
  })

  test('is never off without a hand on its great wheel, whatever drives it', () => {
    for (const power of POWERS)
      for (const kind of ['wall', 'longcase', 'tower', 'mantel'])
        for (const mercury of [true, false]) {
          const keys = proofsFor(power, kind, mercury).map((p) => p.key)
          expect(new Set(keys).size).toBe(keys.length)
          expect(keys).toContain('great-wheel')
          expect(keys.includes('mercury')).toBe(mercury)
        }
  })
})

describe('any table of troubles', () => {
  const chance = fc.double({ min: 0.03, max: 0.97, noNaN: true })
  const table: fc.Arbitrary<TroubleTable> = fc
    .tuple(
      fc.array(fc.integer({ min: 1, max: 50 }), { minLength: 2, maxLength: 5 }),
      fc.array(fc.array(chance, { minLength: 5, maxLength: 5 }), { minLength: 1, maxLength: 4 }),
    )
    .map(([weights, rows]) => ({
      causes: weights.map((weight, i) => ({ key: `c${i}`, title: '', weight, remark: '' })),
      checks: rows.map((row, k) => ({
        key: `k${k}`,
        question: '',
        how: '',
        minutes: 1,
        yearsUpTo: null,
        otherwise: [0.5, 0.5],
        given: Object.fromEntries(weights.map((_, i) => [`c${i}`, [row[i]!, 1 - row[i]!]])),
      })),
    }))
  const p = (t: TroubleTable, answers: Record<string, 'yes' | 'no'>) =>
    new Map(reasonTrouble(t, answers).causes.map((c) => [c.cause, c.probability]))

  test('answers may be given in any order', () => {
    fc.assert(
      fc.property(table, (t) => {
        const keys = t.checks.map((c) => c.key)
        const [one, other] = [keys, [...keys].reverse()].map((order) =>
          p(t, Object.fromEntries(order.map((k) => [k, 'yes' as const]))),
        )
        for (const [cause, probability] of one!) expect(other!.get(cause)).toBeCloseTo(probability, 12)
      }),
    )
  })

  test('before it is answered, a check moves nothing on the average', () => {
    fc.assert(
      fc.property(table, (t) => {
        const check = t.checks[0]!
        const [prior, yes, no] = [p(t, {}), p(t, { [check.key]: 'yes' }), p(t, { [check.key]: 'no' })]
        const pYes = [...prior].reduce((s, [cause, share]) => s + share * check.given[cause]![0]!, 0)
        for (const [cause, share] of prior)
          expect(pYes * yes.get(cause)! + (1 - pYes) * no.get(cause)!).toBeCloseTo(share, 9)
      }),
    )
  })

  test('no check tells more than there is to know', () => {
    fc.assert(
      fc.property(table, (t) => {
        const { causes, checks } = reasonTrouble(t, {})
        const entropy = -causes.reduce((h, c) => h + c.probability * Math.log2(c.probability), 0)
        for (const check of checks) {
          expect(check.tells).toBeLessThanOrEqual(Math.min(1, entropy) + 1e-9)
          expect(check.tells).toBeGreaterThanOrEqual(0)
        }
      }),
    )
  })

  test('a check that is the same under every cause tells nothing', () => {
    const t: TroubleTable = {
      causes: [1, 2, 3].map((weight, i) => ({ key: `c${i}`, title: '', weight, remark: '' })),
      checks: [{ key: 'k', question: '', how: '', minutes: 1, yearsUpTo: null, otherwise: [0.3, 0.7], given: {} }],
    }
    expect(reasonTrouble(t, {}).checks[0]?.tells).toBeCloseTo(0, 12)
    expect(p(t, { k: 'yes' })).toEqual(p(t, {}))
  })
})
