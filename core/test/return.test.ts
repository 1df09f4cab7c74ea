import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  discAngleDeg,
  invoiceTotal,
  journeySteps,
  JOURNEYS,
  mercuryLoss,
  MERCURY_WAYS,
  mercurySteps,
  setUpSteps,
  SYNODIC_MONTH,
  tideMinutes,
  unlessRefused,
  type JourneyClock,
  type SetUpClock,
} from '../src/index.ts'

const tall: JourneyClock & SetUpClock = {
  kind: 'longcase',
  trains: [
    { train: 'going', power: 'weight', weightKg: 5.1 },
    { train: 'strike', power: 'weight', weightKg: 5.6 },
  ],
  mercury: false,
  things: [
    { name: 'left weight', hung: 'strike', massKg: 5.6 },
    { name: 'right weight', hung: 'going', massKg: 5.1 },
    { name: 'hood' },
  ],
  work: { moon: true, calendar: false, mercury: false },
}
const mantel: JourneyClock & SetUpClock = {
  kind: 'mantel',
  trains: [{ train: 'going', power: 'spring' }],
  mercury: false,
  things: [{ name: 'key' }],
  work: { moon: false, calendar: false, mercury: false },
}
const keys = (steps: { key: string }[]) => steps.map((s) => s.key)
const before = (steps: { key: string }[], first: string, second: string) =>
  keys(steps).indexOf(first) >= 0 && keys(steps).indexOf(first) < keys(steps).indexOf(second)

describe('the journey of a case', () => {
  test('a tall clock comes down hood first, weights before the pendulum, the movement last; by two', () => {
    const steps = journeySteps(tall, 'away')
    expect(before(steps, 'hood', 'weights-off')).toBe(true)
    expect(before(steps, 'weights-height', 'weights-mark')).toBe(true)
    expect(before(steps, 'weights-mark', 'weights-off')).toBe(true)
    expect(before(steps, 'weights-off', 'pendulum')).toBe(true)
    expect(before(steps, 'pendulum', 'movement')).toBe(true)
    expect(steps.find((s) => s.key === 'case')?.caution).toMatch(/Two people/)
    expect(steps.find((s) => s.key === 'movement')?.caution).toMatch(/Two people/)
  })

  test('names this clock’s own things: which weight hung where, how heavy, what is in the box', () => {
    const steps = journeySteps(tall, 'away')
    expect(steps.find((s) => s.key === 'weights-mark')?.does).toContain('left weight (strike), right weight (going)')
    expect(steps.find((s) => s.key === 'weights-off')?.caution).toContain('5.6 kg')
    expect(steps.find((s) => s.key === 'loose')?.does).toContain('left weight, right weight, hood')
    expect(keys(journeySteps({ ...tall, trains: [{ train: 'chime', power: 'spring' }] }, 'away'))).toContain('rods')
  })

  test('a mantel clock has no weights, no hood and no second person; it is carried tipped forward', () => {
    const steps = journeySteps(mantel, 'owner')
    expect(keys(steps).filter((k) => /weights|hood|movement|case$/.test(k))).toEqual([])
    expect(steps.find((s) => s.key === 'carried')?.does).toMatch(/face a little down/)
  })

  test('mercury is never carried in its jar', () => {
    for (const way of ['away', 'owner'] as const)
      expect(journeySteps({ ...tall, mercury: true }, way).find((s) => s.key === 'pendulum')?.caution).toMatch(
        /mercury.*not tipped/,
      )
  })

  test('home begins where away ends, the owner’s list is the whole of both, and no key stands twice', () => {
    for (const clock of [tall, mantel]) {
      const [away, home, owner] = JOURNEYS.map((way) => keys(journeySteps(clock, way)))
      expect(new Set([...away!, ...home!])).toEqual(new Set(owner))
      for (const list of [away!, home!, owner!]) expect(new Set(list).size).toBe(list.length)
    }
  })
})

describe('the walk that sets it up', () => {
  test('pendulum, then weights, then the beat, then the minutes, then the hands; the hood last', () => {
    const steps = setUpSteps(tall, true)
    for (const [first, second] of [
      ['spacer', 'movement'],
      ['movement', 'pendulum'],
      ['pendulum', 'weights'],
      ['weights', 'beat'],
      ['beat', 'settle'],
      ['settle', 'hands'],
      ['hands', 'moon'],
      ['moon', 'last'],
    ] as const)
      expect([first, second, before(steps, first, second)]).toEqual([first, second, true])
    expect(steps.find((s) => s.key === 'spacer')?.does).toMatch(/as thick as the skirting/)
    expect(steps.find((s) => s.key === 'holes')?.caution).toMatch(/pipes and wires/)
  })

  test('by the school: level first, or its footing as it stands', () => {
    expect(keys(setUpSteps(tall, true))).toContain('plumb')
    expect(keys(setUpSteps(tall, false))).not.toContain('plumb')
    expect(keys(setUpSteps(tall, false))).toContain('firm')
  })

  test('a wall clock has three points, a shelf clock is wound, only a clock with a moon sets one', () => {
    expect(keys(setUpSteps({ ...tall, kind: 'wall' }, true))).toContain('points')
    const shelf = keys(setUpSteps(mantel, true))
    expect(shelf).toContain('wind')
    expect(shelf.filter((k) => ['weights', 'moon', 'mercury', 'spacer', 'points'].includes(k))).toEqual([])
  })

  test('mercury comes in only once the case is fixed, and before the pendulum hangs', () => {
    const steps = setUpSteps({ ...tall, work: { ...tall.work, mercury: true } }, true)
    expect(before(steps, 'spacer', 'mercury')).toBe(true)
    expect(before(steps, 'mercury', 'pendulum')).toBe(true)
  })
})

describe('mercury', () => {
  test('what the scale can’t be is missing; what it can be is not', () => {
    // 812.4 g of mercury left the jar, and 811.9 came into the bottles: half a gram, by a scale good to a tenth.
    const lost = mercuryLoss(1302.4, 490, 811.9, 0.1)
    expect(lost.lostG).toBeCloseTo(0.5, 9)
    expect(lost.lostMl).toBeCloseTo(0.5 / 13.546, 9)
    expect(lost.errorG).toBeCloseTo(0.3464, 4)
    expect(lost.missing).toBe(true)
    expect(mercuryLoss(1302.4, 490, 812.2, 0.1).missing).toBe(false)
    expect(mercuryLoss(1302.4, 490, 813, 0.1).missing).toBe(false)
  })

  test('with nothing lost, weighings that err as said call it missing about once in forty times', () => {
    // The sum of three uniform errors of a scale's standard deviation 0.1.
    let called = 0
    const times = 4000
    let state = 12345
    const random = () => (state = (state * 1103515245 + 12345) % 2147483648) / 2147483648
    const error = () => 0.1 * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    for (let i = 0; i < times; i++) if (mercuryLoss(1300 + error(), 490 + error(), 810 + error(), 0.1).missing) called++
    expect(called / times).toBeGreaterThan(0.012)
    expect(called / times).toBeLessThan(0.036)
  })

  test('refuses a jar that is heavier than before, by its field', () => {
    expect(unlessRefused(() => mercuryLoss(400, 401, 0, 0.1))).toMatchObject({ field: 'jarAfter' })
  })

  test('every way weighs before it opens, and labels what it keeps', () => {
    for (const way of MERCURY_WAYS) {
      const steps = mercurySteps(way)
      expect(steps[0]?.key).toBe('weigh-before')
      expect(before(steps, 'decant', 'weigh-after')).toBe(true)
      expect(keys(steps)).toContain('label')
    }
  })
})

describe('the moon of a dial', () => {
  test('is full at the top, and new at an edge; southern discs go the other way', () => {
    expect(discAngleDeg(SYNODIC_MONTH / 2)).toBeCloseTo(90, 6)
    expect(discAngleDeg(0)).toBe(180)
    expect(discAngleDeg(0, true)).toBe(0)
    fc.assert(
      fc.property(fc.double({ min: 0, max: 29.5, noNaN: true }), (age) => {
        expect(discAngleDeg(age) + discAngleDeg(age, true)).toBeCloseTo(180, 9)
      }),
    )
  })

  test('a tide ring goes round the clock in a moon: at full moon it is where it was at new', () => {
    expect(tideMinutes(0, 690)).toBe(690)
    // Half a lunation is once round a dial of twelve hours.
    expect(tideMinutes(SYNODIC_MONTH / 2, 690)).toBe(690)
    // A day later is some 49 minutes later, as tides are.
    expect(tideMinutes(1, 0)).toBe(Math.round(1440 / SYNODIC_MONTH))
  })
})

describe('an invoice', () => {
  const line = (unitPrice: string, source: string, quantity = 1, taxed = true) => ({
    unitPrice,
    source,
    quantity,
    taxed,
  })

  test('what was left out costs nothing; deposit and payments come off', () => {
    const lines = [line('95.00', 'estimate', 2), line('38.00', 'left'), line('12.50', 'added')]
    const paid = [{ amount: '73.35' }]
    // 202.50 net, 20 % tax 40.50.
    expect(invoiceTotal({ lines, payments: paid, taxPercent: '20' })).toEqual({
      ...{ net: '202.50', tax: '40.50', gross: '243.00' },
      ...{ paid: '73.35', owed: '169.65', over: '0.00' },
    })
  })

  test('paid beyond what it comes to is owed to the owner, and nothing to the shop', () => {
    const told = invoiceTotal({ lines: [line('10.00', 'estimate')], payments: [{ amount: '12.00' }], taxPercent: '0' })
    expect([told.owed, told.over]).toEqual(['0.00', '2.00'])
  })

  test('to the cent, whatever was paid: gross = paid + owed − over', () => {
    const cents = fc.integer({ min: 0, max: 9_999_999 }).map((n) => (n / 100).toFixed(2))
    fc.assert(
      fc.property(fc.array(cents, { maxLength: 5 }), fc.array(cents, { maxLength: 5 }), (prices, sums) => {
        const told = invoiceTotal({
          lines: prices.map((p) => line(p, 'estimate')),
          payments: sums.map((amount) => ({ amount })),
          taxPercent: '7.7',
        })
        const inCents = (text: string) => Math.round(Number(text) * 100)
        expect(inCents(told.gross)).toBe(inCents(told.paid) + inCents(told.owed) - inCents(told.over))
      }),
    )
  })

  test('refuses what is no amount, by its place', () => {
    expect(() => invoiceTotal({ lines: [], payments: [{ amount: 'ten' }], taxPercent: '0' })).toThrow(/payments\[0\]/)
  })
})
