import { describe, expect, test } from 'vitest'
import { ask, refused } from './ask.ts'

describe('a clock set up in its place, as it is asked', () => {
  test('hands: stops and blows forward, what waiting takes, and the least work with its reason', () => {
    const plan = ask('hands.plan', { shows: '10:50', trueTime: '13:04', halves: 'none' })
    expect(plan).toEqual({
      forwardMinutes: 134,
      stops: 3,
      blows: 24,
      waitMinutes: 586,
      advise: 'forward',
      why: 'Forward by 2 h 14 min with 3 stops and 24 blows: some 70 s of work. To wait for it would take 9 h 46 min.',
    })
    expect(ask('hands.plan', { shows: '10:50', trueTime: '13:04' })).toMatchObject({ stops: 0, blows: 0 })
    // 11:00, :15, :30, :45, 12:00 … 13:00: nine quarters.
    expect(ask('hands.plan', { shows: '10:50', trueTime: '13:04', halves: 'none', quarters: true })).toMatchObject({
      stops: 9,
      blows: 24,
    })
    expect(ask('hands.plan', { shows: '4:10', trueTime: '16:04', halves: 'one', backAllowed: true }).advise).toBe(
      'back',
    )
    expect(refused('hands.plan', { shows: '13:00', trueTime: '13:04' })).toBe('shows')
    expect(refused('hands.plan', { shows: '1:00', trueTime: '24:00' })).toBe('trueTime')
    expect(refused('hands.plan', { shows: '1:00', trueTime: '12:00', halves: 'two' })).toBe('halves')
    expect(refused('hands.plan', { shows: '1:00', trueTime: '12:00', secondsPerBlow: -1 })).toBe('secondsPerBlow')
  })

  test('trips of a count wheel', () => {
    // 3, half, 4, half, 5, half, 6, half: then seven is next.
    expect(ask('strike.trips', { willStrike: 3, shouldStrike: 7, halves: 'one' })).toEqual({ trips: 8, blows: 22 })
    expect(ask('strike.trips', { willStrike: 3, shouldStrike: 7, halves: 'none' })).toEqual({ trips: 4, blows: 18 })
    expect(refused('strike.trips', { willStrike: 3, shouldStrike: 7, halves: 'hour' })).toBe('halves')
    expect(refused('strike.trips', { willStrike: 3.5, shouldStrike: 7, halves: 'one' })).toBe('willStrike')
  })

  test('the moon’s age and what its disc needs', () => {
    // New on 12 August 2026 at 17:37, full on 28 August at 4:18, universal time.
    const moon = ask('moon.age', { at: '2026-08-13T17:37:00Z' })
    expect(moon.ageDays).toBeCloseTo(1, 2)
    expect(Math.abs(Date.parse(String(moon.nextFullAt)) - Date.parse('2026-08-28T04:18:00Z'))).toBeLessThan(120_000)
    expect(Date.parse(String(moon.nextNewAt))).toBeGreaterThan(Date.parse('2026-09-10T00:00:00Z'))
    expect(ask('moon.set', { at: '2026-08-13T17:37:00Z', showsAgeDays: 0 })).toEqual({ clicksForward: 2 })
    expect(ask('moon.set', { at: '2026-08-13T17:37:00Z', showsAgeDays: 2 })).toEqual({ clicksForward: 57 })
    expect(refused('moon.age', { at: '2026-08-13' })).toBe('at')
    expect(refused('moon.set', { at: '2026-08-13T17:37:00Z', showsAgeDays: -1 })).toBe('showsAgeDays')
    expect(refused('moon.set', { at: '2026-08-13T17:37:00Z', showsAgeDays: 1, clicksPerLunation: 1.5 })).toBe(
      'clicksPerLunation',
    )
  })

  test('a calendar: clicks now, and the next date that needs a hand', () => {
    expect(ask('calendar.set', { showsDay: 28, date: '2026-03-01' })).toEqual({
      clicksForward: 4,
      nextByHand: { date: '2026-05-01', clicks: 1 },
    })
    expect(refused('calendar.set', { showsDay: 0, date: '2026-03-01' })).toBe('showsDay')
    expect(refused('calendar.set', { showsDay: 1, date: '2026-02-30' })).toBe('date')
  })

  test('a wedge under the seat board beside the packing under the feet', () => {
    expect(ask('beat.remedy', { offsetDeg: -0.7, seatSpacingMm: 180 })).toEqual({
      seatPackMm: 180 * Math.tan((0.7 * Math.PI) / 180),
      seatPackUnder: 'right',
    })
    expect(refused('beat.remedy', { offsetDeg: 1, seatSpacingMm: -5 })).toBe('seatSpacingMm')
  })
})
