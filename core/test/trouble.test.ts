import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  DEFAULT_TROUBLE_TABLE,
  likelihoodWord,
  observedElsewhere,
  reasonTrouble,
  sharpened,
  type Answer,
  type TroubleTable,
} from '../src/index.ts'

/** Two causes, two checks: small enough to write the whole joint table down. */
const SMALL: TroubleTable = {
  causes: [
    { key: 'a', title: 'A', weight: 3, remark: '' },
    { key: 'b', title: 'B', weight: 1, remark: '' },
  ],
  checks: [
    {
      key: 'x',
      question: 'X?',
      how: '',
      minutes: 2,
      yearsUpTo: null,
      otherwise: [0.5, 0.5],
      given: { a: [0.2, 0.8], b: [0.9, 0.1] },
    },
    { key: 'y', question: 'Y?', how: '', minutes: 1, yearsUpTo: null, otherwise: [0.5, 0.5], given: { a: [0.6, 0.4] } },
  ],
}

describe('against a joint table written out', () => {
  const joint: { c: string; x: number; y: number; p: number }[] = []
  for (const [c, share] of [
    ['a', 0.75],
    ['b', 0.25],
  ] as const)
    for (const x of [0, 1])
      for (const y of [0, 1]) {
        const row = (key: string) => SMALL.checks.find((k) => k.key === key)!
        const chance = (key: string, o: number) => (row(key).given[c] ?? row(key).otherwise)[o]!
        joint.push({ c, x, y, p: share * chance('x', x) * chance('y', y) })
      }

  test('probabilities are those of the rows that fit', () => {
    const fits = joint.filter((r) => r.x === 0 && r.y === 1)
    const truth = fits.find((r) => r.c === 'b')!.p / fits.reduce((s, r) => s + r.p, 0)
    const { causes } = reasonTrouble(SMALL, { x: 'yes', y: 'no' })
    expect(causes.find((c) => c.cause === 'b')?.probability).toBeCloseTo(truth, 12)
  })

  test('what a check tells is the entropy it is expected to take away', () => {
    const h = (ps: number[]) => -ps.reduce((s, p) => s + (p > 0 ? p * Math.log2(p) : 0), 0)
    const of = (rows: typeof joint) => rows.reduce((s, r) => s + r.p, 0)
    const conditional = [0, 1].reduce((s, x) => {
      const rows = joint.filter((r) => r.x === x)
      const total = of(rows)
      return s + total * h(['a', 'b'].map((c) => of(rows.filter((r) => r.c === c)) / total))
    }, 0)
    const x = reasonTrouble(SMALL, {}).checks.find((c) => c.check === 'x')
    expect(x?.tells).toBeCloseTo(h([0.75, 0.25]) - conditional, 12)
  })

  test('a factor says how much an answer spoke for a cause', () => {
    const { causes } = reasonTrouble(SMALL, { x: 'yes' })
    // P(x|b) / P(x) = 0.9 / (0.75 × 0.2 + 0.25 × 0.9)
    expect(causes.find((c) => c.cause === 'b')?.because[0]?.factor).toBeCloseTo(0.9 / 0.375, 12)
  })
})

describe('the craft’s own table', () => {
  const keys = DEFAULT_TROUBLE_TABLE.checks.map((c) => c.key)
  const p = (answers: Record<string, Answer>, cause: string) =>
    reasonTrouble(DEFAULT_TROUBLE_TABLE, answers).causes.find((c) => c.cause === cause)!.probability
  const first = (answers: Record<string, Answer>) => reasonTrouble(DEFAULT_TROUBLE_TABLE, answers).causes[0]?.cause

  test('chances of a check’s answers sum to one for every cause, and name causes that exist', () => {
    const causes = DEFAULT_TROUBLE_TABLE.causes.map((c) => c.key)
    for (const check of DEFAULT_TROUBLE_TABLE.checks)
      for (const [cause, row] of [['otherwise', check.otherwise] as const, ...Object.entries(check.given)]) {
        expect(row.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
        expect(row).toHaveLength((check.yearsUpTo?.length ?? 1) + 1)
        if (cause !== 'otherwise') expect(causes).toContain(cause)
      }
  })

  test('“don’t know” to everything gives the shares back', () => {
    const unknown = Object.fromEntries(keys.map((k) => [k, k === 'yearsSinceOil' ? null : ('unknown' as const)]))
    const { causes } = reasonTrouble(DEFAULT_TROUBLE_TABLE, unknown)
    const shares = sharpened(DEFAULT_TROUBLE_TABLE, {})
    for (const { cause, probability } of causes)
      expect(probability).toBeCloseTo(shares[DEFAULT_TROUBLE_TABLE.causes.findIndex((c) => c.key === cause)]!, 12)
  })

  test('whatever is answered, probabilities sum to one and none is nought', () => {
    const answer = fc.constantFrom<Answer>('yes', 'no', 'unknown')
    const answers = fc.record({
      ...Object.fromEntries(keys.filter((k) => k !== 'yearsSinceOil').map((k) => [k, answer])),
      yearsSinceOil: fc.option(fc.double({ min: 0, max: 80, noNaN: true })),
    })
    fc.assert(
      fc.property(answers, (given) => {
        const { causes, checks } = reasonTrouble(DEFAULT_TROUBLE_TABLE, given)
        expect(causes.reduce((s, c) => s + c.probability, 0)).toBeCloseTo(1, 9)
        expect(Math.min(...causes.map((c) => c.probability))).toBeGreaterThan(0)
        for (const check of checks) {
          expect(check.tells).toBeGreaterThanOrEqual(0)
          expect((given as Record<string, Answer>)[check.check] ?? 'unknown').toBe('unknown')
        }
      }),
    )
  })

  test('each telling sign brings its cause to the front', () => {
    expect(first({ movedLately: 'yes', evenBeat: 'no', tiltCures: 'yes' })).toBe('beat-out')
    expect(first({ stopsInWarning: 'yes', evenBeat: 'yes' })).toBe('strike-in-warning')
    expect(first({ stopsAtMoonChange: 'yes', stopsSamePlace: 'yes' })).toBe('moon-calendar')
    expect(first({ yearsSinceOil: 14, needsExtraDrive: 'yes', evenBeat: 'yes', holesShake: 'no' })).toBe('oil-dry')
    expect(first({ holesShake: 'yes', needsExtraDrive: 'yes', evenBeat: 'yes', yearsSinceOil: 2 })).toBe('worn-holes')
    expect(first({ stopsSamePlace: 'yes', beatComesBack: 'yes' })).toBe('bent-tooth')
  })

  test('long since oiled speaks for dry oil, lately oiled against it', () => {
    expect(p({ yearsSinceOil: 20 }, 'oil-dry')).toBeGreaterThan(p({}, 'oil-dry'))
    expect(p({ yearsSinceOil: 1 }, 'oil-dry')).toBeLessThan(p({}, 'oil-dry'))
  })

  test('the cheapest telling check comes first: hear the beat before taking the drive off', () => {
    const { checks } = reasonTrouble(DEFAULT_TROUBLE_TABLE, {})
    const place = (key: string) => checks.findIndex((c) => c.check === key)
    expect(place('evenBeat')).toBeLessThan(place('needsExtraDrive'))
    const worth = checks.map((c) => c.tells / c.minutes)
    expect(worth).toEqual([...worth].sort((a, b) => b - a))
  })

  test('the workshop’s own cases sharpen the shares, and never wipe the others out', () => {
    const shares = sharpened(DEFAULT_TROUBLE_TABLE, { suspension: 30 })
    const at = DEFAULT_TROUBLE_TABLE.causes.findIndex((c) => c.key === 'suspension')
    // 30 cases of the table, 6 of 102 for the suspension, and 30 of our own.
    const before = 6 / DEFAULT_TROUBLE_TABLE.causes.reduce((s, c) => s + c.weight, 0)
    expect(shares[at]).toBeCloseTo((30 * before + 30) / 60, 12)
    expect(Math.min(...shares)).toBeGreaterThan(0)
  })

  test('an answer that is none is refused by its name', () => {
    expect(() => reasonTrouble(DEFAULT_TROUBLE_TABLE, { evenBeat: 'perhaps' as never })).toThrow(
      /observations.evenBeat/,
    )
    expect(() => reasonTrouble(DEFAULT_TROUBLE_TABLE, { yearsSinceOil: -1 })).toThrow(/observations.yearsSinceOil/)
    expect(() => reasonTrouble(DEFAULT_TROUBLE_TABLE, { yearsSinceOil: 'yes' })).toThrow(/years from 0 to 500/)
  })

  test('a word never claims more than its number', () => {
    expect([0.9, 0.6, 0.3, 0.1, 0.01].map(likelihoodWord)).toEqual([
      'very likely',
      'likely',
      'possible',
      'less likely',
      'hardly',
    ])
  })
})

describe('what flows in from the other surfaces', () => {
  const nothing = {
    movedLately: 'unknown' as const,
    yearsSinceOil: null,
    beat: null,
    driveMarginPercent: null,
    holesToBush: 0,
    holesMeasured: 0,
    periodicWheel: null,
    stops: { sameTurnOf: null, inWarning: null, atChange: null },
  }

  test('nothing found, nothing claimed', () => {
    expect(observedElsewhere(nothing)).toEqual([])
  })

  test('each finding becomes an answer that says where it is from', () => {
    const flowed = observedElsewhere({
      movedLately: 'yes',
      yearsSinceOil: 9,
      beat: 'must',
      driveMarginPercent: -12,
      holesToBush: 2,
      holesMeasured: 6,
      periodicWheel: 'Escape',
      stops: nothing.stops,
    })
    expect(Object.fromEntries(flowed.map((f) => [f.check, f.answer]))).toEqual({
      movedLately: 'yes',
      yearsSinceOil: 9,
      evenBeat: 'no',
      needsExtraDrive: 'yes',
      holesShake: 'yes',
      beatComesBack: 'yes',
    })
    expect(flowed.find((f) => f.check === 'holesShake')?.from).toBe('the holes: 2 of 6 measured want a bush')
    // All of them are checks that the table knows.
    for (const { check } of flowed) expect(DEFAULT_TROUBLE_TABLE.checks.map((c) => c.key)).toContain(check)
  })

  test('a sound beat and sound holes speak too', () => {
    const flowed = observedElsewhere({ ...nothing, beat: 'sound', holesMeasured: 3, driveMarginPercent: 40 })
    expect(flowed.map((f) => f.answer)).toEqual(['yes', 'no', 'no'])
  })
})
