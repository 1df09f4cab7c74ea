import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  assemblyOf,
  meshMarks,
  placeBetween,
  POWERS,
  proofsFor,
  reasonTrouble,
  type TroubleTable,
} from '../src/index.ts'

const step = fc.record({
  id: fc.uuid(),
  position: fc.double({ min: -1e6, max: 1e6, noNaN: true }),
  part: fc.constantFrom('dial', 'hands', 'bridge', 'plate'),
  count: fc.integer({ min: 1, max: 20 }),
  back: fc.boolean(),
})
const log = fc.uniqueArray(step, { selector: (s) => s.id, maxLength: 160 })

describe('any strip log, read backwards', () => {
  test('has every step once, the last out first', () => {
    fc.assert(
      fc.property(log, (steps) => {
        const { steps: back } = assemblyOf(steps)
        expect(new Set(back.map((s) => s.id))).toEqual(new Set(steps.map((s) => s.id)))
        back.slice(1).forEach((s, i) => expect(s.position).toBeLessThanOrEqual(back[i]!.position))
      }),
    )
  })

  test('parts out are parts back and parts left over', () => {
    fc.assert(
      fc.property(log, (steps) => {
        const { partsOut, partsBack, leftOver } = assemblyOf(steps)
        expect(partsBack + leftOver.reduce((n, s) => n + s.count, 0)).toBe(partsOut)
        expect(leftOver.every((s) => !s.back)).toBe(true)
      }),
    )
  })

  test('does not depend on the order in which its rows are fetched', () => {
    fc.assert(
      fc.property(log, (steps) => {
        const ids = (of: typeof steps) => assemblyOf(of).steps.map((s) => s.id)
        expect(ids([...steps].reverse())).toEqual(ids(steps))
      }),
    )
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
