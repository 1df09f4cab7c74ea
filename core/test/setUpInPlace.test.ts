import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  beatRemedy,
  calendarSetting,
  dayMinutes,
  shownMinutes,
  dialTime,
  FieldError,
  handsPlan,
  moonAge,
  moonClicks,
  strikesRight,
  strikeTrips,
  SYNODIC_MONTH,
  type Halves,
} from '../src/index.ts'

/** Which field is refused; null: none is. */
function refusedField(ask: () => unknown): string | null {
  try {
    ask()
  } catch (error) {
    if (error instanceof FieldError) return error.field
    throw error
  }
  return null
}

describe('hands', () => {
  /** The clock itself, turned on by a minute at a time until it shows the true time. */
  function turned(showsMinutes: number, trueMinutes: number, halves: Halves | undefined, quarters: boolean) {
    let [shown, minutes, stops, blows] = [showsMinutes, 0, 0, 0]
    while (shown !== trueMinutes % 720) {
      shown = (shown + 1) % 720
      minutes++
      const [hour, past] = [Math.floor(shown / 60), shown % 60]
      const strikes = halves !== undefined && (past === 0 || (past === 30 && halves !== 'none'))
      if (strikes || (quarters && past % 15 === 0)) stops++
      if (strikes) blows += past === 0 || halves === 'hour' ? hour || 12 : 1
    }
    return { minutes, stops, blows }
  }
  const halves = fc.constantFrom<Halves | undefined>(undefined, 'none', 'one', 'hour')
  const shown = fc.integer({ min: 0, max: 719 })
  const time = fc.integer({ min: 0, max: 1439 })

  test('minutes, stops and blows are those of the clock turned on minute by minute', () => {
    fc.assert(
      fc.property(shown, time, halves, fc.boolean(), (showsMinutes, trueMinutes, half, quarters) => {
        const plan = handsPlan({ showsMinutes, trueMinutes, halves: half, quarters })
        const clock = turned(showsMinutes, trueMinutes, half, quarters)
        expect([plan.forwardMinutes, plan.stops, plan.blows]).toEqual([clock.minutes, clock.stops, clock.blows])
        // Stopped, it is right once the true time has gone round to it.
        expect((trueMinutes + plan.waitMinutes) % 720).toBe(showsMinutes)
      }),
      { numRuns: 2000 },
    )
  })

  test('the whole round strikes what a round strikes', () => {
    for (const half of ['none', 'one', 'hour'] as const) {
      const blows = strikesRight('rack', half).reduce((sum, struck) => sum + struck.blows, 0)
      // From a minute past twelve to twelve: all of them.
      expect(handsPlan({ showsMinutes: 1, trueMinutes: 720, halves: half }).blows).toBe(blows)
    }
  })

  test('from ten to eleven to four past one: eleven, twelve and one, 24 blows', () => {
    const plan = handsPlan({ showsMinutes: 650, trueMinutes: 784, halves: 'none' })
    expect(plan).toMatchObject({ forwardMinutes: 134, stops: 3, blows: 24, waitMinutes: 586, advise: 'forward' })
    expect(plan.way.map((stop) => [stop.time, stop.blows])).toEqual([
      ['11:00', 11],
      ['12:00', 12],
      ['1:00', 1],
    ])
  })

  test('a few minutes ahead: it waits; back only where its kind allows; behind: forward', () => {
    const ahead = { showsMinutes: 305, trueMinutes: 300, halves: 'one' } as const
    expect(handsPlan(ahead)).toMatchObject({ waitMinutes: 5, advise: 'wait' })
    expect(handsPlan({ ...ahead, backAllowed: true }).advise).toBe('back')
    expect(handsPlan({ showsMinutes: 290, trueMinutes: 300, halves: 'one', backAllowed: true }).advise).toBe('forward')
    expect(handsPlan({ showsMinutes: 300, trueMinutes: 1020 })).toMatchObject({ forwardMinutes: 0, advise: 'forward' })
  })

  test('more work never makes a way advised that was not', () => {
    fc.assert(
      fc.property(shown, time, fc.double({ min: 0.2, max: 10, noNaN: true }), (showsMinutes, trueMinutes, seconds) => {
        const at = (secondsPerBlow: number) =>
          handsPlan({ showsMinutes, trueMinutes, halves: 'one', secondsPerBlow }).advise
        if (at(2 * seconds) === 'forward') expect(at(seconds)).toBe('forward')
      }),
    )
  })

  test('times are read as a dial and a day show them, and refused by their field', () => {
    expect([shownMinutes('shows', '12:05'), shownMinutes('shows', '0:05'), shownMinutes('shows', '10:50')]).toEqual([
      5, 5, 650,
    ])
    expect(dayMinutes('trueTime', '23:59')).toBe(1439)
    for (const odd of ['13:00', '10:60', '10', 'ten', '-1:00', '10:5'])
      expect(refusedField(() => shownMinutes('shows', odd))).toBe('shows')
    for (const odd of ['24:00', '12:60', '']) expect(refusedField(() => dayMinutes('trueTime', odd))).toBe('trueTime')
    expect(refusedField(() => handsPlan({ showsMinutes: 0, trueMinutes: 1, secondsPerBlow: 0 }))).toBe('secondsPerBlow')
    for (let minutes = 0; minutes < 720; minutes++) expect(shownMinutes('shows', dialTime(minutes))).toBe(minutes)
  })
})

describe('a count wheel out of step', () => {
  test('tripped one strike at a time until the right hour is next', () => {
    for (const halves of ['none', 'one'] as const)
      for (let will = 1; will <= 12; will++)
        for (let should = 1; should <= 12; should++) {
          let [hour, atHalf, trips, blows] = [will, false, 0, 0]
          while (hour !== should || atHalf) {
            blows += atHalf ? 1 : hour
            if (halves === 'one' && !atHalf) atHalf = true
            else [hour, atHalf] = [(hour % 12) + 1, false]
            trips++
          }
          expect(strikeTrips(will, should, halves)).toEqual({ trips, blows })
        }
    expect(refusedField(() => strikeTrips(0, 3, 'none'))).toBe('willStrike')
    expect(refusedField(() => strikeTrips(1, 13, 'none'))).toBe('shouldStrike')
  })
})

describe('the moon', () => {
  const at = (iso: string) => Date.parse(iso) / 1000

  test('new and full moons are those that almanacs publish, within two minutes', () => {
    // United States Naval Observatory, phases of the moon, universal time to the minute.
    const published: ['new' | 'full', string][] = [
      ['new', '2000-01-06T18:14Z'],
      ['full', '2000-01-21T04:40Z'],
      ['new', '2015-03-20T09:36Z'],
      ['full', '2015-09-28T02:50Z'],
      ['new', '2017-08-21T18:30Z'],
      ['full', '2018-01-31T13:27Z'],
      ['full', '2019-01-21T05:16Z'],
      ['new', '2020-06-21T06:41Z'],
      ['full', '2021-05-26T11:14Z'],
      ['new', '2024-04-08T18:21Z'],
      ['full', '2025-03-14T06:55Z'],
      ['new', '2026-08-12T17:37Z'],
    ]
    for (const [phase, iso] of published) {
      const before = moonAge(at(iso) - 4 * 86_400)
      const foundS = phase === 'new' ? before.nextNewAtS : before.nextFullAtS
      expect(Math.abs(foundS - at(iso)), `${phase} moon of ${iso}`).toBeLessThan(120)
      const then = moonAge(at(iso) + 300)
      expect(then.illuminatedPercent).toBeGreaterThan(phase === 'new' ? -1 : 99.5)
      if (phase === 'new') expect(then.ageDays).toBeLessThan(0.01)
    }
  })

  test('its age goes on with the time, from one new moon to the next', () => {
    fc.assert(
      fc.property(fc.integer({ min: at('1900-01-01T00:00Z'), max: at('2100-01-01T00:00Z') }), (atS) => {
        const moon = moonAge(atS)
        const lunation = moon.ageDays + (moon.nextNewAtS - atS) / 86_400
        // The shortest and the longest are 29.26 and 29.84 days.
        expect(lunation).toBeGreaterThan(29.2)
        expect(lunation).toBeLessThan(29.9)
        const later = moonAge(atS + 3600)
        if (moon.nextNewAtS > atS + 3600) expect(later.ageDays - moon.ageDays).toBeCloseTo(1 / 24, 4)
      }),
      { numRuns: 60 },
    )
    expect(refusedField(() => moonAge(at('1650-01-01T00:00Z')))).toBe('at')
    expect(refusedField(() => moonAge(Number.NaN))).toBe('at')
  })

  test('clicks bring the disc to within half a click of the moon', () => {
    const age = fc.double({ min: 0, max: SYNODIC_MONTH, noNaN: true })
    fc.assert(
      fc.property(age, age, fc.constantFrom(59, 60, 118), (trueAge, shows, clicks) => {
        const forward = moonClicks(trueAge, shows, clicks)
        expect(forward).toBeGreaterThanOrEqual(0)
        expect(forward).toBeLessThan(clicks)
        const off = (shows + (forward * SYNODIC_MONTH) / clicks - trueAge) / SYNODIC_MONTH
        expect(Math.abs(off - Math.round(off)) * clicks).toBeLessThan(0.5 + 1e-9)
      }),
    )
    expect(moonClicks(14.77, 0)).toBe(30)
    expect(refusedField(() => moonClicks(3, 31))).toBe('showsAgeDays')
    expect(refusedField(() => moonClicks(3, 3, 0))).toBe('clicksPerLunation')
  })
})

describe('a calendar of 31 days', () => {
  test('four years of it day by day: a hand only when told, and always right with it', () => {
    // It goes on by one each midnight; on the days that were named it is given the clicks that were named.
    const day = (ms: number) => new Date(ms).toISOString().slice(0, 10)
    const start = Date.UTC(2023, 11, 20)
    let shows = 20
    let { nextByHand } = calendarSetting(shows, day(start))
    for (let ms = start + 86_400_000; ms < Date.UTC(2028, 0, 1); ms += 86_400_000) {
      shows = (shows % 31) + 1
      if (day(ms) === nextByHand.date) {
        shows = ((shows - 1 + nextByHand.clicks) % 31) + 1
        nextByHand = calendarSetting(shows, day(ms)).nextByHand
      }
      expect([day(ms), shows]).toEqual([day(ms), new Date(ms).getUTCDate()])
    }
  })

  test('from any day to any date, the fewest clicks forward', () => {
    for (let shows = 1; shows <= 31; shows++)
      for (let date = 1; date <= 31; date++) {
        let [clicks, on] = [0, shows]
        while (on !== date) [clicks, on] = [clicks + 1, (on % 31) + 1]
        expect(calendarSetting(shows, `2026-01-${String(date).padStart(2, '0')}`).clicksForward).toBe(clicks)
      }
    expect(calendarSetting(28, '2028-02-10').nextByHand).toEqual({ date: '2028-03-01', clicks: 2 })
    expect(calendarSetting(28, '2026-12-31').nextByHand).toEqual({ date: '2027-03-01', clicks: 3 })
  })

  test('a day or a date that is none is refused by its field', () => {
    for (const odd of [0, 32, 1.5]) expect(refusedField(() => calendarSetting(odd, '2026-01-01'))).toBe('showsDay')
    for (const odd of ['2026-02-29', '2026-13-01', '2026-1-1', 'today', '2026-04-31'])
      expect(refusedField(() => calendarSetting(1, odd))).toBe('date')
  })
})

describe('a wedge under the seat board', () => {
  test('is as high as its bearers’ distance times the tangent, on the side that must come up', () => {
    // A board of 180 on a wedge of 2.2 leans by atan(2.2 / 180) = 0.7°.
    const remedy = beatRemedy(-0.7, { seatSpacingMm: 180, footSpacingMm: 320 })
    expect(remedy.seatPackMm).toBeCloseTo(2.2, 2)
    expect((Math.atan(remedy.seatPackMm! / 180) * 180) / Math.PI).toBeCloseTo(0.7, 10)
    expect([remedy.seatPackUnder, remedy.packUnder]).toEqual(['right', 'right'])
    expect(beatRemedy(0, { seatSpacingMm: 180 })).toEqual({ seatPackMm: 0, seatPackUnder: null })
    expect(refusedField(() => beatRemedy(1, { seatSpacingMm: 0 }))).toBe('seatSpacingMm')
  })
})
