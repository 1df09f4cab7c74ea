import { describe, expect, test } from 'vitest'
import { blocksAgainst, watchBlocks, type TemperatureAt, type WatchedMinute } from '../src/index.ts'

const minute = (n: number, rate: number | null): WatchedMinute => ({
  fromS: 60 * n,
  seconds: 60,
  rateSecondsPerDay: rate,
  rateStandardError: 0.2,
  aheadS: null,
  sinceS: 0,
})
const BEGAN = Date.parse('2026-06-01T20:00:00Z') / 1000
/** Twelve hours whose rate falls by 0.5 s a day every hour since a winding in the middle. */
const minutes = Array.from({ length: 720 }, (_, n) => minute(n, 3 - 0.5 * (((n + 0.5) / 60) % 6)))
const warm: TemperatureAt[] = [0, 2, 4].map((h) => ({ atS: 3600 * h, celsius: 16 + h }))

describe('the half hours of a watch laid against something', () => {
  const blocks = watchBlocks(minutes, [6 * 3600], warm)

  test('each half hour is the middle of its minutes, a winding begins a new one', () => {
    expect(blocks).toHaveLength(24)
    expect(blocks[0]).toMatchObject({ winding: 0, rate: 3 - 0.5 * 0.25 })
    expect(blocks[12]!.winding).toBe(1)
    expect(blocks[12]!.hours).toBeCloseTo(0.25, 2)
  })

  test('against the hours since winding both windings lie on one line', () => {
    const { points, line } = blocksAgainst(blocks, 'winding', BEGAN, 'UTC')
    expect(points).toHaveLength(24)
    expect((line[1]![1] - line[0]![1]) / (line[1]![0] - line[0]![0])).toBeCloseTo(-0.5, 2)
  })

  test('against the warmth only where it is known', () => {
    const { points } = blocksAgainst(blocks, 'warmth', BEGAN, 'UTC')
    expect(points.length).toBeLessThan(24)
    expect(points[0]![0]).toBeCloseTo(16.25, 1)
  })

  test('against the time of day, by the workshop’s clock, past midnight from nought, and with no line', () => {
    const { points, line } = blocksAgainst(blocks, 'hour', BEGAN, 'Europe/Vienna')
    expect(line).toEqual([])
    expect(points[0]![0]).toBeCloseTo(22.25, 1)
    expect(points.some(([hour]) => hour < 1)).toBe(true)
    expect(points.every(([hour]) => hour >= 0 && hour < 24)).toBe(true)
  })

  test('of too few points there is no line', () => {
    expect(blocksAgainst(blocks.slice(0, 2), 'winding', BEGAN, 'UTC').line).toEqual([])
  })

  test('minutes that tell nothing make no half hour', () => {
    expect(watchBlocks(Array.from({ length: 60 }, (_, n) => minute(n, n % 6 === 0 ? 1 : null)))).toEqual([])
  })
})
