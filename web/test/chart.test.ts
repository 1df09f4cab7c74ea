import { rateBook } from '@treadle/core'
import { newEvent, type RateEventRow, type Reading } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { chartOption } from '../src/surfaces/rate/chartOption.ts'

const DAY_MS = 86_400_000
const START = Date.UTC(2026, 2, 1)
const at = (day: number) => new Date(START + day * DAY_MS).toISOString()
const COLOURS = { ink: '#000', quiet: '#111', line: '#222', steel: '#333', brass: '#444', verdigris: '#555' }

const reading = (day: number, errorSeconds: number): Reading => ({
  id: String(day),
  jobId: '',
  who: '',
  version: 1,
  at: at(day),
  errorSeconds,
  sigmaSeconds: 0.5,
  way: 'eye',
})
const turned: RateEventRow = { ...newEvent('e', 'nut', at(6)), jobId: '', who: '', turns: 0.5 }

/** Loses 10 s a day for six days, then, half a turn up, gains about 7. */
const READINGS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((d) => reading(d, d <= 6 ? -10 * d : -60 + 7.4 * (d - 6)))

interface Line {
  type: string
  data: [number, number][]
  areaStyle?: object
  lineStyle?: { opacity?: number; color?: string }
}

function lines(fromMs = 0): Line[] {
  const book = rateBook({
    readings: READINGS.map((r) => ({ atS: Date.parse(r.at) / 1000, errorS: r.errorSeconds, sigmaS: r.sigmaSeconds })),
    events: [{ atS: Date.parse(turned.at) / 1000 + 60, kind: 'nut', turns: 0.5 }],
    pitchMm: 0.8,
    lengthMm: 994,
  })
  const option = chartOption(
    { book, readings: READINGS, events: [turned], expected: null, fromMs },
    COLOURS,
    'sans-serif',
  ) as { series: Line[] }
  return option.series
}

describe('the rate chart', () => {
  test('draws a line for each stretch, at the slope that was read', () => {
    const drawn = lines().filter((s) => s.type === 'line' && s.lineStyle?.color === COLOURS.steel)
    const slopes = drawn.map((s) => {
      const [from, to] = [s.data[0]!, s.data.at(-1)!]
      return ((to[1] - from[1]) / (to[0] - from[0])) * DAY_MS
    })
    expect(slopes[0]).toBeCloseTo(-10, 0)
    expect(slopes[1]).toBeCloseTo(7.4, 0)
  })

  test('each line stands within its band, and the band is as wide below as above', () => {
    const series = lines()
    const bands = series.filter((s) => s.areaStyle)
    expect(bands.length).toBeGreaterThanOrEqual(2)
    for (const band of bands) {
      const i = series.indexOf(band)
      const [bottom, line] = [series[i - 1]!, series[i + 1]!]
      line.data.forEach(([, y], k) => {
        const low = bottom.data[k]![1]
        const width = band.data[k]![1]
        expect(width).toBeGreaterThan(0)
        expect(y - low).toBeCloseTo(width / 2, 9)
      })
    }
  })

  test('shows nothing from before the moment asked for', () => {
    const from = START + 6.5 * DAY_MS
    for (const s of lines(from))
      for (const point of s.data ?? []) if (Array.isArray(point)) expect(point[0]).toBeGreaterThanOrEqual(from - DAY_MS)
  })

  test('every reading is a point on it', () => {
    const all = lines().flatMap((s) => s.data ?? [])
    for (const r of READINGS) expect(all.some((p) => Array.isArray(p) && p[0] === Date.parse(r.at))).toBe(true)
  })
})
