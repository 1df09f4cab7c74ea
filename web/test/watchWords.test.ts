import type { WatchPage, WatchRow } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { duration, headline, stopOf, tellsInWords } from '../src/surfaces/watch/words.ts'
import { watchOption } from '../src/surfaces/watch/watchOption.ts'
import { againstOption } from '../src/surfaces/watch/againstOption.ts'
import { leaning } from '../src/parts/say.ts'

const watch = {
  id: 'w',
  beganAt: '2026-06-01T20:00:00Z',
  endedAt: null,
  beatsPerHour: 7200,
} as unknown as WatchRow
const minute = (n: number) => ({
  minute: n,
  fromS: 60 * n,
  seconds: 60,
  beatsHeard: 120,
  beatsExpected: 120,
  rateSecondsPerDay: n,
  rateStandardError: 0.1,
  outOfBeatMs: 1,
  outOfBeatStandardError: 0.1,
  scatterMs: 0.2,
  firstDb: -20,
  secondDb: -22,
  aheadS: 0,
  sinceS: 0,
})
const silent = (fromS: number, toS: number | null) => ({
  id: `${fromS}`,
  kind: 'silent' as const,
  fromS,
  toS,
  blows: null,
  bird: false,
  note: 'not heard',
  soundStored: false,
})
const page = (marks: WatchPage['marks'] = []): WatchPage => ({
  watch: { ...watch, temperatures: [] },
  minutes: [minute(0), minute(1)],
  marks,
})

describe('a watch in words', () => {
  test.each([
    [45, '45 s'],
    [600, '10 min'],
    [7200, '2 h'],
    [11_160, '3 h 6 min'],
    [200_000, '2 days 7 h'],
  ])('%d s is %s', (s, words) => {
    expect(duration(s)).toBe(words)
  })

  test('its headline says that it runs, is over, or stopped; a silence that ended is no stop', () => {
    const now = Date.parse('2026-06-01T23:00:00Z')
    expect(headline(null, undefined, now)).toBe('No watch has been kept')
    expect(headline(watch, page([silent(60, 100)]), now)).toBe('Watching, 3 h')
    expect(headline({ ...watch, endedAt: '2026-06-01T21:00:00Z' }, page(), now)).toBe('Watched for 60 min')
    expect(headline(watch, page([silent(60, null)]), now)).toMatch(/^It stopped \w{3} \d\d:\d\d:\d\d$/)
    expect(stopOf(page([silent(60, 100)]))).toBeNull()
  })

  const wheels = { arbors: [], meshes: [] }
  test('says its rate with the sound card’s own error in it, or that this is not known', () => {
    const rate = { secondsPerDay: -3, standardError: 0.3, fromS: 0, toS: 36_000 }
    const words = (ppmError: number | null) =>
      tellsInWords({ rate, sinceWinding: null, perDegree: null, settled: null, wheels }, [], false, true, ppmError)[0]!
        .text
    // 5 ppm are 0.432 s a day; with 0.3 that is 0.53.
    expect(words(5)).toBe('Over 10 h without a break it loses 3.0 ± 0.5 s a day.')
    expect(words(null)).toContain('the sound card’s own clock is off: it has not been compared')
  })

  test('calls it power only where a winding is known, and names the wheel', () => {
    const sinceWinding = { perHour: 0.2, standardError: 0.02, hours: 12 }
    const told = (wound: boolean, bySpring = true) =>
      tellsInWords(
        {
          rate: null,
          sinceWinding,
          perDegree: { perC: -0.62, standardError: 0.1, celsius: 4 },
          settled: null,
          wheels: { arbors: [{ arbor: 1, periodS: 450, amplitudeMs: 1.25, chance: 1e-5 }], meshes: [] },
        },
        ['Centre', 'Third'],
        wound,
        bySpring,
        0,
      ).map((t) => t.text)
    expect(told(true)[0]).toMatch(
      /^As its power falls it gains 0\.20 ± 0\.02 s a day more every hour, over 12 h: not isochronous/,
    )
    expect(told(false)[0]).toMatch(/no winding is written down/)
    // A weight's power does not fall.
    expect(told(true, false)[0]).toMatch(/^As the hours since its winding go .* a weight pulls evenly/)
    expect(told(true)[1]).toMatch(/^Each degree warmer it loses 0\.62 ± 0\.10 s a day more/)
    expect(told(true)[2]).toBe('Third: every 8 min it comes early and late by 1.3 ms.')
  })
})

const colours = {
  ink: '#1',
  quiet: '#2',
  line: '#3',
  steel: '#4',
  brass: '#5',
  verdigris: '#6',
  amber: '#7',
  madder: '#8',
}

describe('the chart of a watch', () => {
  const winding = { id: 'e', at: '2026-06-01T20:01:00Z', kind: 'winding' } as never
  const before = { id: 'f', at: '2026-05-01T20:01:00Z', kind: 'winding' } as never
  interface Series {
    name: string
    data: [number, number | null][]
    markLine?: { data: { name: string }[] }
    markArea?: { data: { name?: string }[][] }
  }
  const series = watchOption(
    page([silent(30, null), { ...silent(70, null), kind: 'strike', blows: 3 }]),
    [winding, before],
    colours,
    'serif',
  ).series as Series[]
  const of = (name: string) => series.find((s) => s.name === name)!

  test('has each minute in its middle, the events inside it, and a stop to its end', () => {
    const began = Date.parse('2026-06-01T20:00:00Z')
    expect(of('rate').data).toEqual([
      [began + 30_000, 0],
      [began + 90_000, 1],
    ])
    expect(of('rate').markLine!.data.map((d) => d.name)).toEqual(['wound'])
    expect(of('rate').markArea!.data).toEqual([
      [{ xAxis: began + 30_000, name: 'stopped' }, { xAxis: began + 120_000 }],
    ])
    expect(of('strikes').data).toEqual([[began + 70_000, 0]])
  })

  interface Drawn {
    grid: unknown[]
    yAxis: { name: string }[]
    dataZoom: { xAxisIndex: number[] }[]
    series: Series[]
  }
  const drawn = (shown: WatchPage, seen?: [number, number]) =>
    watchOption(shown, [], colours, 'serif', seen) as unknown as Drawn

  test('has a strip for the warmth where that is known, zoomed with the others', () => {
    expect(drawn(page()).yAxis.map((a) => a.name)).not.toContain('°C')
    const warm = page()
    warm.watch.temperatures = [{ at: '2026-06-01T20:00:30Z', celsius: 18 }]
    const option = drawn(warm)
    expect(option.grid).toHaveLength(4)
    expect(option.yAxis[3]!.name).toBe('°C')
    expect(option.dataZoom[0]!.xAxisIndex).toEqual([0, 1, 2, 3])
    expect(option.series.find((s) => s.name === '°C')!.data).toEqual([[Date.parse('2026-06-01T20:00:30Z'), 18]])
  })

  test('of a week draws few points, its extremes with them, and all of what is looked at closely', () => {
    const week = { ...page(), minutes: Array.from({ length: 10_080 }, (_, n) => minute(n)) }
    week.minutes[5000] = { ...minute(5000), rateSecondsPerDay: 999 }
    const rate = (seen?: [number, number]) => drawn(week, seen).series.find((s) => s.name === 'rate')!.data
    expect(rate().length).toBeLessThan(700)
    expect(rate().some(([, v]) => v === 999)).toBe(true)
    const began = Date.parse('2026-06-01T20:00:00Z')
    const [from, to] = [began + 3_600_000, began + 7_200_000]
    const near = rate([from, to])
    const hour = near.filter(([at]) => at >= from && at <= to)
    expect(hour.length).toBeGreaterThanOrEqual(59)
    expect(hour.length).toBeLessThanOrEqual(61)
    // What lies beside it is there before anybody gets to it.
    expect(near.length).toBeLessThan(1000)
    expect(near.some(([, v]) => v === 999)).toBe(true)
  })
})

describe('half hours against something else than time', () => {
  const laid = {
    points: [
      [1, -3],
      [2, -4],
    ] as [number, number][],
    line: [] as [number, number][],
  }

  test.each([
    ['winding', 'hours since winding', undefined],
    ['warmth', 'temperature, °C', undefined],
    ['hour', 'time of day', 24],
  ] as const)('by %s the axis says so', (against, name, max) => {
    const option = againstOption(laid, against, colours, 'serif') as unknown as {
      xAxis: { name: string; max?: number }
      series: { data: unknown[] }[]
    }
    expect(option.xAxis.name).toBe(name)
    expect(option.xAxis.max).toBe(max)
    expect(option.series[0]!.data).toEqual(laid.points)
  })
})

describe('how a case leans, in words', () => {
  test.each([
    [0.4, '0.40° to the right'],
    [-1.234, '1.23° to the left'],
    [0, '0.00°'],
    [-0.001, '0.00°'],
  ])('%d°', (deg, words) => expect(leaning(deg)).toBe(words))
  test('to as many places as are wanted', () => expect(leaning(-0.46, 1)).toBe('0.5° to the left'))
})
