import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  careDue,
  careOwed,
  careState,
  guaranteeDue,
  guaranteeUntil,
  OIL_SCHOOLS,
  oilDoubt,
  recallsOf,
  shareOfSeen,
  yearOf,
  type CareFacts,
  type OilSchool,
  type OwedMark,
  type YearVisit,
} from '../src/index.ts'

const facts: CareFacts = {
  ...{ oiledOn: '2024-03-10', stopGap: false, doubt: null },
  ...{ mercury: false, chimes: false, weights: true, moon: false },
}
const s = (day: string) => Date.parse(`${day}T12:00:00Z`) / 1000
const DAY = 86_400

describe('a guarantee', () => {
  test.each([
    ['2026-03-15', 12, '2027-03-14'],
    ['2026-01-31', 1, '2026-02-28'],
    ['2026-03-01', 12, '2027-02-28'],
    ['2024-02-29', 12, '2025-02-28'],
    ['2024-02-28', 12, '2025-02-27'],
  ])('from %s for %i months lasts until %s', (from, months, until) => {
    expect(guaranteeUntil(from, months)).toBe(until)
  })

  test('none is given for no months, and it never ends before it began', () => {
    expect(guaranteeUntil('2026-03-15', 0)).toBeNull()
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2000-01-01'), max: new Date('2090-01-01'), noInvalidDate: true }),
        fc.integer({ min: 1, max: 120 }),
        (date, months) => {
          const from = date.toISOString().slice(0, 10)
          const until = guaranteeUntil(from, months)!
          const days = (Date.parse(until) - Date.parse(from)) / 86_400_000
          expect(days).toBeGreaterThan(months * 28 - 2)
          expect(days).toBeLessThan(months * 31 + 1)
        },
      ),
    )
  })
})

describe('what falls due of a clock at home', () => {
  const kinds = (part: Partial<CareFacts> = {}) =>
    careDue({ ...facts, ...part }, 'default').map((d) => [d.kind, d.dueOn])

  test('its oil by the school, in order of time', () => {
    expect(kinds()).toEqual([
      ['check', '2027-03-10'],
      ['service', '2029-03-10'],
    ])
  })

  test('the end of its guarantee, from the day it went home', () => {
    expect(guaranteeDue('2024-03-31T16:00:00Z', 24)).toMatchObject({
      kind: 'guarantee',
      dueOn: '2026-03-30',
      withIt: [],
    })
    expect(guaranteeDue('2024-03-31', 24)?.why).toBe('It went home 2024-03-31 with 24 months of guarantee.')
    expect(guaranteeDue('2024-03-31', 0)).toBeNull()
  })

  test('old oil, or oil that did not stay, is looked at after a year; a long school does not hide it', () => {
    expect(kinds({ doubt: 'bottle-over' })[0]).toEqual(['check', '2025-03-10'])
    expect(careDue({ ...facts, doubt: 'ran-out' }, 'long')[0]?.dueOn).toBe('2025-03-10')
    expect(careDue({ ...facts, doubt: 'ran-out' }, 'long')[0]?.why).toMatch(/not to stay/)
    // The short school asks for it as soon by itself.
    expect(careDue({ ...facts, doubt: 'ran-out' }, 'short')[0]?.dueOn).toBe('2025-03-10')
  })

  test('is doubted where its bottle was past its time, or where its last picture since then shows that it ran', () => {
    const oiled = '2024-03-10T12:00:00Z'
    const bottle = { openedOn: '2022-01-01', keepsYears: 3 }
    const seen = (moment: 'oiled' | 'trial' | 'visit', state: '' | 'stays' | 'spread' | 'dry', day: string) => ({
      moment,
      state,
      at: `${day}T12:00:01Z`,
    })
    expect(oilDoubt(oiled, bottle, [])).toBeNull()
    expect(oilDoubt(oiled, null, [])).toBeNull()
    expect(oilDoubt(oiled, { ...bottle, keepsYears: 2 }, [])).toBe('bottle-over')
    expect(oilDoubt(oiled, bottle, [seen('trial', 'spread', '2024-03-17')])).toBe('ran-out')
    expect(oilDoubt(oiled, bottle, [seen('oiled', 'dry', '2024-03-10')])).toBe('ran-out')
    // Wiped and oiled anew after it ran; judged well later; not judged; as it came.
    expect(oilDoubt(oiled, bottle, [seen('trial', 'spread', '2024-03-09')])).toBeNull()
    const ran = seen('oiled', 'spread', '2024-03-11')
    expect(oilDoubt(oiled, bottle, [ran, seen('trial', 'stays', '2024-03-17')])).toBeNull()
    expect(oilDoubt(oiled, bottle, [ran, seen('trial', '', '2024-03-17')])).toBe('ran-out')
    expect(oilDoubt(oiled, bottle, [seen('visit', 'dry', '2024-03-12')])).toBeNull()
  })

  test('says what to look at: mercury, chimes, weights and moon only where there are any', () => {
    const look = (part: Partial<CareFacts>) => careDue({ ...facts, ...part }, 'default')[0]!.look.join(' ')
    expect(look({})).toMatch(/Suspension/)
    expect(look({})).not.toMatch(/Mercury|Chime|Moon/)
    expect(look({ mercury: true, chimes: true, moon: true })).toMatch(/Mercury.*Chime.*Moon/)
    expect(look({ weights: false })).not.toMatch(/Lines/)
  })

  test('suspension, mercury and chimes are inspected each time', () => {
    const withIt = (part: Partial<CareFacts>) =>
      Object.fromEntries(careDue({ ...facts, ...part }, 'default').map((d) => [d.kind, d.withIt]))
    expect(withIt({})).toEqual({ check: ['suspension'], service: ['suspension'] })
    expect(withIt({ mercury: true, chimes: true }).check).toEqual(['suspension', 'mercury', 'chimes'])
  })

  test.each(Object.entries(OIL_SCHOOLS))('the school “%s” looks at the oil before it is serviced', (school, years) => {
    const dues = careDue(facts, school as OilSchool)
    expect(dues.map((d) => [d.kind, Number(d.dueOn.slice(0, 4)) - 2024])).toEqual([
      ['check', years.checkYears],
      ['service', years.serviceYears],
    ])
  })

  test('a word before the guarantee ends, and none after', () => {
    const dues = [...careDue(facts, 'default'), guaranteeDue('2024-03-31', 24)!]
    const at = (day: string) => recallsOf(dues, 'UTC', s(day)).map((o) => o.subject)
    expect(at('2026-02-01')).toEqual([])
    expect(at('2026-03-10')).toEqual(['guarantee'])
    expect(at('2026-04-02')).toEqual([])
  })

  test('is to come, due, put off, answered, not wanted, or lapsed', () => {
    const due = careDue(facts, 'default')[0]!
    const nowS = s('2027-04-01')
    const owed = careOwed(due, 'UTC', nowS)
    const mark = (state: OwedMark['state'], untilS: number | null = null): OwedMark[] => [
      { kind: 'recall', subject: '', state, dueS: owed.dueS, untilS },
    ]
    expect(careState(owed, [], s('2027-01-01'))).toBe('coming')
    expect(careState(owed, [], nowS)).toBe('due')
    expect(careState(owed, [], s('2028-04-01'))).toBe('lapsed')
    expect(careState(owed, mark('done'), nowS)).toBe('answered')
    expect(careState(owed, mark('not-needed'), nowS)).toBe('not-needed')
    expect(careState(owed, mark('later', nowS + DAY), nowS)).toBe('put-off')
    expect(careState(owed, mark('later', nowS - DAY), nowS)).toBe('due')
    // It was oiled again since: what was said of the old day is not said of the new one.
    const again = careOwed(careDue({ ...facts, oiledOn: '2025-03-10' }, 'default')[0]!, 'UTC', nowS)
    expect(careState(again, mark('done'), nowS)).toBe('coming')
  })
})

describe('a share of what was seen', () => {
  // Published: E. B. Wilson's interval for 15 of 148 (R. G. Newcombe, Stat. Med. 17 (1998) 857, table I, method 3).
  test.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i lies between %f and %f', (times, of, low, high) => {
    const share = shareOfSeen(times, of)
    expect(share.low).toBeCloseTo(low, 4)
    expect(share.high).toBeCloseTo(high, 4)
  })

  test('nothing seen tells nothing', () => {
    expect(shareOfSeen(0, 0)).toMatchObject({ low: 0, high: 1 })
  })
})

describe('a year of the workshop', () => {
  const nowS = s('2026-11-20')
  let number = 0
  const visit = (part: Partial<YearVisit>): YearVisit => ({
    ...{ jobId: `j${++number}`, number, clockId: 'a', clock: 'Clock', cameS: 0, leftS: null, calledOff: false },
    ...{ causes: [], oil: null, bushes: [] },
    ...part,
  })
  const third = { hole: 'going, third arbor, back', kind: 'turned here' }

  test('counts what came and went month by month, and what came back too soon', () => {
    const told = yearOf(
      [
        visit({ clockId: 'a', cameS: s('2025-06-01'), leftS: s('2025-07-01'), oil: 'Pale' }),
        visit({ clockId: 'a', cameS: s('2026-02-10'), leftS: s('2026-03-01'), causes: ['Beat'], oil: 'Pale' }),
        visit({ clockId: 'b', cameS: s('2026-02-20'), causes: ['Dirt'] }),
        visit({ clockId: 'c', cameS: s('2026-02-21'), calledOff: true }),
        // Three years on is no call-back.
        visit({ clockId: 'd', cameS: s('2022-06-01'), leftS: s('2022-07-01'), oil: 'Pale' }),
        visit({ clockId: 'd', cameS: s('2026-02-22') }),
      ],
      '2026-11',
      'UTC',
      nowS,
    )
    expect(told.months.map((m) => m.month).at(0)).toBe('2025-12')
    expect(told.months.find((m) => m.month === '2026-02')).toEqual({ month: '2026-02', came: 3, left: 0, again: 1 })
    expect(told.months.find((m) => m.month === '2026-03')?.left).toBe(1)
    expect(told.again).toMatchObject([{ clockId: 'a', days: 224, causes: ['Beat'], oil: 'Pale' }])
    expect(told.causes).toEqual([
      { cause: 'Beat', times: 1 },
      { cause: 'Dirt', times: 1 },
    ])
    expect(told.noCause).toBe(1)
    // Of three oilings with Pale one came back, one lasted two years and more, and one is too young to tell.
    expect(told.oils).toMatchObject([{ name: 'Pale', share: { times: 1, of: 2 }, notYet: 1 }])
  })

  test('a bush is judged only by a clock that was here again', () => {
    const { bushes } = yearOf(
      [
        visit({ clockId: 'a', cameS: s('2020-01-01'), leftS: s('2020-02-01'), bushes: [third] }),
        visit({ clockId: 'a', cameS: s('2025-01-01'), leftS: s('2025-02-01'), bushes: [third] }),
        visit({ clockId: 'b', cameS: s('2020-01-01'), leftS: s('2020-02-01'), bushes: [third] }),
        visit({ clockId: 'b', cameS: s('2025-01-01'), leftS: s('2025-02-01') }),
      ],
      '2026-11',
      'UTC',
      nowS,
    )
    // Three holes were bushed by a clock that left, of which two clocks came again: one was bushed again there.
    expect(bushes).toMatchObject([{ name: 'turned here', share: { times: 1, of: 2 }, notYet: 1 }])
  })

  test('months are the workshop’s own: what came at its midnight is of the new month', () => {
    const at = Date.parse('2026-03-31T22:30:00Z') / 1000
    const of = (zone: string) =>
      yearOf([visit({ cameS: at })], '2026-11', zone, nowS).months.find((m) => m.came === 1)?.month
    expect(of('UTC')).toBe('2026-03')
    expect(of('Europe/Oslo')).toBe('2026-04')
  })
})
