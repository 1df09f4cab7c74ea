import { expect, test } from 'vitest'
import { dayThere, isTimeZone, timeThere, whenThere } from '../src/index.ts'

const iso = (day: string, hour: number, zone: string) => new Date(1000 * whenThere(day, hour, zone)).toISOString()

test.each([
  // Offsets by the time zone database: UTC+1 in winter, UTC+2 in summer.
  ['2026-01-15', 17, 'Europe/Oslo', '2026-01-15T16:00:00.000Z'],
  ['2026-07-15', 17, 'Europe/Oslo', '2026-07-15T15:00:00.000Z'],
  // Half an hour beside the whole hours, and the other side of the date line.
  ['2026-07-15', 17, 'Asia/Kolkata', '2026-07-15T11:30:00.000Z'],
  ['2026-01-15', 17, 'Pacific/Auckland', '2026-01-15T04:00:00.000Z'],
  ['2026-01-15', 17, 'America/Los_Angeles', '2026-01-16T01:00:00.000Z'],
  ['2026-01-15', 17, 'UTC', '2026-01-15T17:00:00.000Z'],
  // The day on which the clocks go forward, after they went.
  ['2026-03-29', 17, 'Europe/Oslo', '2026-03-29T15:00:00.000Z'],
  // Skipped by the clocks: an hour later; shown twice: the first.
  ['2026-03-29', 2.5, 'Europe/Oslo', '2026-03-29T01:30:00.000Z'],
  ['2026-10-25', 2.5, 'Europe/Oslo', '2026-10-25T00:30:00.000Z'],
])('%s at %d in %s is %s', (day, hour, zone, expected) => {
  expect(iso(day, hour, zone)).toBe(expected)
  if (Number.isInteger(hour)) expect(timeThere(whenThere(day, hour, zone), zone)).toBe(`${day} ${hour}:00`)
})

test('the day of an evening is that day there, whatever day it is elsewhere', () => {
  const evening = Date.parse('2026-03-16T01:30:00Z') / 1000
  expect(['America/Vancouver', 'UTC', 'Asia/Tokyo'].map((zone) => dayThere(evening, zone))).toEqual([
    ...['2026-03-15', '2026-03-16', '2026-03-16'],
  ])
})

test('a zone that the calendar does not know is refused by name', () => {
  expect(isTimeZone('Europe/Oslo')).toBe(true)
  expect(isTimeZone('Europe/Nowhere')).toBe(false)
  expect(() => whenThere('2026-01-01', 9, 'Europe/Nowhere')).toThrow(/timeZone/)
})
