import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { circularLossSecondsPerDay, type RateReading } from '../src/index.ts'
import { seededRandom } from '../src/practice/random.ts'
import { influencesOf } from '../src/rate/influences.ts'

const DAY = 86_400
const kinds = (readings: RateReading[], beside: Parameters<typeof influencesOf>[1] = {}) =>
  influencesOf(readings, beside).map((i) => i.kind)
const warm = (of: [day: number, celsius: number][]): RateReading[] =>
  of.map(([day, temperatureC]) => ({ atS: day * DAY, errorS: 0, temperatureC }))

describe('what stands beside the readings', () => {
  test('is looked at once there is enough of it, and it moves', () => {
    expect(kinds([])).toEqual([])
    expect(
      kinds(
        warm([
          [0, 15],
          [3, 20],
        ]),
      ),
    ).toEqual([])
    // A cellar that keeps its warmth to half a degree teaches nothing.
    expect(
      kinds(
        warm([
          [0, 12],
          [3, 12.4],
          [6, 12.2],
        ]),
      ),
    ).toEqual([])
    expect(
      kinds(
        warm([
          [0, 15],
          [3, 20],
          [6, 12],
        ]),
      ),
    ).toEqual(['warmth'])
    const all = warm([
      [0, 15],
      [3, 20],
      [6, 12],
    ]).map((r, i) => ({ ...r, semiArcDeg: 2 + i, pressureHpa: 990 + 10 * i }))
    expect(kinds(all)).toEqual(['warmth', 'arc', 'air'])
  })

  test('its sum is the area under what it stands at, over any stretch', () => {
    const sample = fc.tuple(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: -5, max: 35, noNaN: true }))
    fc.assert(
      fc.property(
        fc.uniqueArray(sample, { minLength: 3, maxLength: 12, selector: ([day]) => Math.round(day * 10) }),
        fc.double({ min: -5, max: 65, noNaN: true }),
        fc.double({ min: 0.5, max: 30, noNaN: true }),
        (samples, fromDay, days) => {
          const [found] = influencesOf(warm(samples))
          fc.pre(found !== undefined)
          // Summed in small steps, the middle of each.
          const STEPS = 3000
          let area = 0
          for (let i = 0; i < STEPS; i++)
            area += found.at((fromDay + (days * (i + 0.5)) / STEPS) * DAY) * (days / STEPS)
          const sum = found.sum((fromDay + days) * DAY) - found.sum(fromDay * DAY)
          expect(Math.abs(sum - area)).toBeLessThan(0.05)
        },
      ),
      { numRuns: 60 },
    )
  })

  test('it is level before the first and after the last, about the middle of all', () => {
    const [warmth] = influencesOf(
      warm([
        [0, 10],
        [10, 20],
        [20, 18],
      ]),
    )
    expect([-50, 0, 5, 10, 20, 90].map((day) => warmth!.at(day * DAY))).toEqual([-6, -6, -1, 4, 2, 2])
  })

  test('an arc counts by its circular error', () => {
    const arcs = [1.5, 3, 2].map((semiArcDeg, i): RateReading => ({ atS: i * DAY, errorS: 0, semiArcDeg }))
    const [arc] = influencesOf(arcs)
    expect(arc!.at(DAY) - arc!.at(0)).toBeCloseTo(circularLossSecondsPerDay(1.5) - circularLossSecondsPerDay(3), 9)
  })

  test('a stray reading makes its mean unsure by its own scatter; a slow season does not', () => {
    const { normal } = seededRandom(11)
    const days = Array.from({ length: 60 }, (_, i) => i)
    const misread = influencesOf(warm(days.map((d) => [d, 18 + 1.5 * normal()])))[0]!
    const season = influencesOf(warm(days.map((d) => [d, 18 + 6 * Math.sin(d / 30)])))[0]!
    // Thirty readings of 1.5° each lie within 1.5/√30 of their mean.
    expect(misread.errorOver(0, 29 * DAY)).toBeGreaterThan(0.7 * (1.5 / Math.sqrt(30)))
    expect(misread.errorOver(0, 29 * DAY)).toBeLessThan(1.3 * (1.5 / Math.sqrt(30)))
    expect(season.errorOver(0, 29 * DAY)).toBeLessThan(0.02)
    // Over a time in which nothing was read it is no surer than one reading.
    expect(misread.errorOver(100 * DAY, 120 * DAY)).toBeCloseTo(misread.errorOver(0, 0), 9)
  })
})

describe('the rhythm of its winding', () => {
  const daily = (n: number): RateReading[] => Array.from({ length: n }, (_, i) => ({ atS: i * DAY, errorS: 0 }))
  const weekly = (n: number) => Array.from({ length: n }, (_, i) => (7 * i + 0.5) * DAY)

  test('rises from each winding to the next, and falls as it is wound', () => {
    const [winding] = influencesOf(daily(29), { windingsS: weekly(4) })
    expect(winding!.kind).toBe('winding')
    const at = (day: number) => winding!.at(day * DAY)
    expect(at(0.5)).toBeCloseTo(-0.5, 6)
    expect(at(4)).toBeCloseTo(0, 5)
    expect(at(7.499)).toBeCloseTo(0.5, 2)
    expect(at(7.5)).toBeCloseTo(-0.5, 6)
    // Over a whole run it adds nothing.
    expect(winding!.sum(14.5 * DAY) - winding!.sum(7.5 * DAY)).toBeCloseTo(0, 3)
  })

  test('is no rhythm where it can’t be told from the rate: few runs, few readings, or the same winding written twice', () => {
    expect(kinds(daily(29), { windingsS: weekly(2) })).toEqual([])
    const sparse = daily(29).filter((_, i) => i % 7 === 0)
    expect(kinds(sparse, { windingsS: weekly(4) })).toEqual([])
    expect(kinds(daily(29), { windingsS: [...weekly(2), ...weekly(2)] })).toEqual([])
    expect(kinds(daily(29), { windingsS: weekly(4) })).toEqual(['winding'])
  })

  test('a forgotten winding is a longer run, to one and a half at most', () => {
    const missed = weekly(6).filter((_, i) => i !== 3)
    const [winding] = influencesOf(daily(40), { windingsS: missed })
    expect(winding!.at(28 * DAY)).toBeGreaterThan(0.5)
    for (let day = 0; day < 40; day += 0.25) expect(winding!.at(day * DAY)).toBeLessThanOrEqual(1 + 1e-9)
  })
})
