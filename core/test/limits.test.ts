import { describe, expect, test } from 'vitest'
import {
  bathCheck,
  bushingPlan,
  driveMargin,
  markerPlace,
  careDue,
  recallsOf,
  visitInWords,
  whenOpen,
  type VisitFacts,
} from '../src/index.ts'

describe('a bath reads what a part is called as well as what it is said to be of', () => {
  const out = (name: string, material = 'brass', bath = 'ammoniated') => bathCheck(bath, [{ name, material }]).keepOut
  test.each([
    ['mainspring', 'steel'],
    ['strike main spring', 'steel'],
    ['platform', 'brass'],
    ['mercury jar', 'glass'],
    ['bellows', 'brass'],
    ['luminous dial', 'brass'],
    ['radium hands', 'steel'],
  ])('%s of %s stays out', (name, material) => {
    expect(out(name, material)).toHaveLength(1)
  })

  test.each([
    ['aluminium hand', 'brass'],
    ['mainspring barrel', 'brass'],
    ['plates', 'brass'],
  ])('%s of %s may go in', (name, material) => {
    expect(out(name, material)).toEqual([])
  })

  test('what is not known stays dry, and aluminium is not luminous', () => {
    expect(out('thing', 'unobtainium')[0]?.why).toMatch(/not known here/)
    expect(out('hand', 'aluminium')[0]?.why).toMatch(/aluminium and zinc are eaten/)
  })
})

test.each([
  [4, 2.8, 'good'],
  [1, 0.7, 'good'],
  [3, 2.7, 'watch'],
  [0.3, 0.27, 'watch'],
  [3, 2.71, 'poor'],
])('of %d kg, %d needed: exactly a third part and a tenth count as met', (fitted, least, verdict) => {
  expect(driveMargin(fitted, least).verdict).toBe(verdict)
})

test('a marker whose points would stand in its own hole is refused, also where nothing else is near', () => {
  expect(() => markerPlace([{ name: 'centre', xMm: 0, yMm: 0, diameterMm: 4 }], 'centre', 1.5)).toThrow(
    /reachMm is 1.5: it must reach beyond the hole itself, 2 mm/,
  )
})

test('a hole that is left says every limit that it exceeds all the same', () => {
  // Play (1.24 + 1.24)/2 − 1.1 = 12.7 % is over; it is round, so the rule of any two leaves it.
  const plan = bushingPlan({ longAxisMm: 1.24, shortAxisMm: 1.24, pivotMm: 1.1, plateMm: 2, role: 'other' }, [])
  expect(plan.verdict).toBe('leave')
  expect(plan.reasons.some((r) => /^Play is 13 % of the pivot; here 10 is the most/.test(r))).toBe(true)
})

describe('the hours of the workshop', () => {
  const hours = { openFrom: 8, openUntil: 18, timeZone: 'Europe/Oslo' }
  const at = (iso: string) => Date.parse(iso) / 1000
  test.each([
    // One in the night is eight in the morning; in winter Oslo is an hour ahead.
    ['2026-11-24T00:00:00Z', '2026-11-24T07:00:00Z'],
    ['2026-11-24T12:30:00Z', '2026-11-24T12:30:00Z'],
    ['2026-11-24T19:00:00Z', '2026-11-25T07:00:00Z'],
    // Over the night on which summer time ends.
    ['2026-10-24T20:00:00Z', '2026-10-25T07:00:00Z'],
  ])('%s is put to %s', (asked, put) => {
    expect(whenOpen(at(asked), hours)).toBe(at(put))
  })
})

test('a clock at home is thought of a month before its oil is due, for service rather than a look where that is near', () => {
  const now = Date.parse('2026-11-28T09:00:00Z') / 1000
  const plain = {
    stopGap: false,
    doubt: null,
    mercury: false,
    chimes: false,
    weights: true,
    moon: false,
  }
  const due = (oiledOn: string, stopGap = false) =>
    recallsOf(careDue({ ...plain, oiledOn, stopGap }, 'default'), 'UTC', now)[0]
  expect(due('2024-11-28')).toBeUndefined()
  expect(due('2023-12-10')?.title).toMatch(/due for a look/)
  expect(due('2023-12-10')?.weight).toBe('sound')
  expect(due('2021-12-10')?.title).toMatch(/Due for service/)
  expect(due('2025-11-20', true)?.weight).toBe('watch')
})

describe('a visit in words', () => {
  const nothing: VisitFacts = {
    job: { scope: 'whole', partedAt: null },
    clock: { pendulum: { pitchMm: null, lengthMm: null } },
    ...{ holes: [], pivots: [], events: [], listenings: [], estimates: [], observations: [], causes: [], readings: [] },
  }
  const settings = { rateToleranceSecondsPerDay: 10, rateGoalSecondsPerDay: 1 }
  const tell = (part: Partial<VisitFacts>) => visitInWords({ ...nothing, ...part }, settings).join(' ')

  test('says nothing that was not done', () => {
    expect(tell({})).toBe('')
    expect(tell({ job: { scope: 'untouched', partedAt: null } })).toBe('It went back as it came.')
  })

  test('tells bushes by hole, pivots, oil, beat and rate at leaving', () => {
    const day = (n: number) => new Date(Date.UTC(2026, 2, 1 + n))
    const words = tell({
      job: { scope: 'whole', partedAt: day(0) },
      holes: [
        { arbor: 'Third arbor', plate: 'back', bushed: true },
        { arbor: 'Centre', plate: 'front', bushed: false },
      ],
      pivots: [{ arbor: 'Fly', plate: 'back', work: 'burnished' }],
      events: [{ at: day(1), kind: 'oiled', turns: null }],
      listenings: [
        { at: '2026-01-01T00:00:00Z', firstToSecondMs: 500.4, secondToFirstMs: 499.8, outOfBeatStandardError: 0.1 },
      ],
      readings: [2, 4, 6, 8].map((d) => ({ at: day(d), errorSeconds: -3 * d, sigmaSeconds: 0.5 })),
      causes: [{ cause: 'beat-out' }],
    })
    expect(words).toMatch(
      /One hole bushed: third arbor, back\. Pivots: fly, back, burnished\. Oiled\. Beat at leaving: 0\.3 ms out\./,
    )
    expect(words).toMatch(/Rate at leaving: it loses 3\.0/)
  })
})
