import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { setWorkshopZone } from '../src/data/workshopZone.ts'
import {
  count,
  dayAndHour,
  dayShort,
  dayToday,
  figure,
  leaning,
  signed,
  daysSpoken,
  spoken,
  times,
  whenAbout,
  whenDue,
  whenShort,
} from '../src/parts/say.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** A Friday, ten in the morning in UTC. */
const NOW = Date.parse('2026-11-27T10:00:00Z')

beforeEach(() => {
  vi.useFakeTimers({ now: NOW, toFake: ['Date'] })
  setWorkshopZone('UTC')
})
afterEach(() => {
  vi.useRealTimers()
  setWorkshopZone('UTC')
})

describe('figures', () => {
  test('say their value to the places asked, without a thousands mark, and with a true minus', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.integer({ min: 0, max: 4 }), (value, most) => {
        const said = figure(value, most)
        expect(said).toMatch(/^−?\d+(\.\d+)?$/)
        expect(said).not.toBe('−0')
        expect(Math.abs(Number(said.replace('−', '-')) - value)).toBeLessThanOrEqual(0.5 * 10 ** -most + 1e-9)
      }),
    )
    expect(figure(43_200)).toBe('43200')
    expect(figure(-0.25)).toBe('−0.25')
  })

  test('signed: nought has no sign, however it came about', () => {
    expect([signed(0.3, 2), signed(-12, 1), signed(0, 1), signed(-0.04, 1), signed(0.04, 1)]).toEqual([
      ...['+0.30', '−12.0', '0.0', '0.0', '0.0'],
    ])
  })

  test('counts with their words', () => {
    expect([count(1, 'reading'), count(3, 'reading'), count(0, 'reading')]).toEqual([
      ...['1 reading', '3 readings', '0 readings'],
    ])
    expect(count(2, 'hole bushed', 'holes bushed')).toBe('2 holes bushed')
    expect([1, 2, 5].map(times)).toEqual(['once', 'twice', '5 times'])
  })

  test('a lean has a side only where it is one', () => {
    expect([leaning(0.4), leaning(-0.4, 1), leaning(-0.004)]).toEqual([
      '0.40° to the right',
      '0.4° to the left',
      '0.00°',
    ])
  })
})

describe('moments, by the workshop’s clock', () => {
  test('the same moment is another hour, and another day, elsewhere', () => {
    const late = '2026-11-27T23:30:00Z'
    expect(whenShort(late)).toBe('Fri 23:30')
    setWorkshopZone('Asia/Tokyo')
    expect(whenShort(late)).toBe('Sat 8:30')
    expect(dayToday()).toBe('2026-11-27')
    vi.setSystemTime(Date.parse('2026-11-27T16:00:00Z'))
    expect(dayToday()).toBe('2026-11-28')
    // In Vienna it is the next day for an hour more than here.
    setWorkshopZone('Europe/Vienna')
    expect(dayAndHour(new Date('2026-07-31T22:05:00Z'))).toBe('Saturday 1 August, 0:05')
  })

  test('a weekday alone is told only where it can be no other', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20 * 24, max: 20 * 24 }), (hours) => {
        const said = whenShort(new Date(NOW + hours * HOUR).toISOString())
        expect(/\d{4}/.test(said)).toBe(Math.abs(hours) >= 6 * 24)
      }),
    )
  })

  test('about when: never more than half an hour from it, whatever day that makes it', () => {
    const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 * 24 * 60 }), (minutes) => {
        const at = NOW + minutes * 60_000
        const [day, hour] = whenAbout(at).split(', about ')
        const midnight = NOW - 10 * HOUR
        // Read back: of the days to come, the one of that name.
        const ahead =
          day === 'today'
            ? 0
            : day === 'tomorrow'
              ? 1
              : [2, 3, 4, 5, 6].find((n) => WEEKDAYS[new Date(midnight + n * DAY).getUTCDay()] === day)
        const said = midnight + ahead! * DAY + Number.parseInt(hour!) * HOUR
        expect(Math.abs(said - at)).toBeLessThanOrEqual(HOUR / 2)
      }),
    )
    expect(whenAbout(NOW)).toBe('now')
    // Ten to midnight is about nought o’clock of the day after.
    expect(whenAbout(Date.parse('2026-11-27T23:50:00Z'))).toBe('tomorrow, about 0:00')
    expect(whenAbout(NOW + 10 * DAY)).toBe('7 December')
  })

  test('when it is due: the hour today, the weekday soon, else the date', () => {
    const due = (hours: number) => whenDue(new Date(NOW + hours * HOUR), new Date(NOW))
    expect([due(2.5), due(26), due(6 * 24)]).toEqual(['12:30', 'Sat 12:00', '3 Dec'])
  })

  test('a day on a tag is that day in every zone', () => {
    for (const zone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago', 'UTC']) {
      setWorkshopZone(zone)
      expect(dayShort('2026-11-27')).toBe('Fri 27 Nov')
    }
  })

  test('the journal’s moments are said, and nothing else of it is touched', () => {
    setWorkshopZone('Europe/Vienna')
    expect(spoken('Heard at 2026-11-27T09:05:00.000Z: 2026-11-27 is no moment.')).toBe(
      'Heard at Fri 10:05: 2026-11-27 is no moment.',
    )
  })

  test('a day in what is due is that day in every zone, and no moment is taken for one', () => {
    for (const zone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago', 'UTC']) {
      setWorkshopZone(zone)
      expect(daysSpoken('Oiled 2021-12; it went home 2024-03-31 with 24 months; at 2024-03-31T09:05:00Z.')).toBe(
        'Oiled December 2021; it went home 31 March 2024 with 24 months; at 2024-03-31T09:05:00Z.',
      )
    }
  })
})
