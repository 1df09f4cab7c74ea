import { EVENT_TITLES, type RateEventRow, type Reading } from '@treadle/contract'
import { expectedSpreadS, turnFraction, type Expected, type RateBook } from '@treadle/core'
import type { EChartsCoreOption } from 'echarts/core'

const DAY_S = 86_400

export interface ChartColours {
  ink: string
  quiet: string
  line: string
  steel: string
  brass: string
  verdigris: string
}

interface Charted {
  book: RateBook
  readings: Reading[]
  events: RateEventRow[]
  /** what the last change was expected to do */
  expected: Expected | null
  fromMs: number
}

/** Error over time: readings, fitted segment lines with their bands, events, and where it goes from here. */
export function chartOption(
  { book, readings: all, events: happened, expected, fromMs }: Charted,
  colours: ChartColours,
  font: string,
): EChartsCoreOption {
  const readings = all.filter((r) => Date.parse(r.at) >= fromMs)
  const events = happened.filter((e) => Date.parse(e.at) >= fromMs)
  const last = readings.at(-1)
  const text = { color: colours.quiet, fontFamily: font, fontSize: 14 }
  const series: object[] = []
  for (const s of book.segments) {
    if (s.fromS * 1000 < fromMs) continue
    if (s.rateSecondsPerDay === null || s.standardError === null) continue
    const [rate, spread] = [s.rateSecondsPerDay, s.standardError]
    const steps = Array.from({ length: 13 }, (_, i) => s.fromS + ((s.toS - s.fromS) * i) / 12)
    const at = (t: number) => s.meanErrorS + (rate * (t - s.meanS)) / DAY_S
    const band = (t: number) => 2 * Math.hypot(s.meanStandardErrorS, (spread * (t - s.meanS)) / DAY_S)
    const stack = `band${s.fromS}`
    const plain = { type: 'line', silent: true, symbol: 'none', animation: false, stack, stackStrategy: 'all' }
    series.push(
      { ...plain, lineStyle: { opacity: 0 }, data: steps.map((t) => [t * 1000, at(t) - band(t)]) },
      {
        ...plain,
        lineStyle: { opacity: 0 },
        areaStyle: { color: colours.steel, opacity: 0.16 },
        data: steps.map((t) => [t * 1000, 2 * band(t)]),
      },
      {
        type: 'line',
        silent: true,
        symbol: 'none',
        animation: false,
        lineStyle: { color: colours.steel, width: 2.5 },
        data: steps.map((t) => [t * 1000, at(t)]),
      },
    )
  }
  if (expected && last && Date.parse(last.at) > 1000 * expected.fromS) series.push(...bandOf(expected, last, colours))
  if (last && book.rateSecondsPerDay !== null) {
    const from = Date.parse(last.at)
    const span = Math.min(14, Math.max(2, (from - Date.parse(readings[0]?.at ?? last.at)) / 86_400_000 / 6))
    const to = from + span * 86_400_000
    const going = (rate: number, colour: string, dash: 'dotted' | 'dashed', label: string, place: string) => ({
      type: 'line',
      silent: true,
      symbol: 'none',
      animation: false,
      lineStyle: { color: colour, type: dash, width: 2 },
      endLabel: {
        show: true,
        formatter: label,
        color: colour,
        fontFamily: font,
        fontSize: 14,
        offset: [-92, place === 'above' ? -14 : 14],
      },
      data: [
        [from, last.errorSeconds],
        [to, last.errorSeconds + rate * span],
      ],
    })
    const down = book.rateSecondsPerDay < 0
    series.push(going(book.rateSecondsPerDay, colours.steel, 'dotted', 'if left alone', down ? 'below' : 'above'))
    if (book.advice === 'turn')
      series.push(going(0, colours.verdigris, 'dashed', 'after the turn', down ? 'above' : 'below'))
  }
  series.push({
    type: 'scatter',
    symbolSize: 11,
    animation: false,
    itemStyle: { color: 'transparent', borderColor: colours.brass, borderWidth: 2.5 },
    data: readings.map((r) => [Date.parse(r.at), r.errorSeconds]),
    markLine: {
      symbol: 'none',
      silent: true,
      lineStyle: { color: colours.brass, type: 'dotted' },
      label: { color: colours.brass, fontFamily: font, fontSize: 13, rotate: 0 },
      data: events
        .filter(
          (e) => e.kind !== 'winding' && !(e.kind === 'hands' && events.some((n) => n.kind === 'nut' && near(n, e))),
        )
        .map((e) => ({
          xAxis: Date.parse(e.at),
          label: {
            formatter:
              e.kind === 'nut' && e.turns !== null
                ? `${e.turns > 0 ? '↑' : '↓'}${turnFraction(e.turns)}`
                : EVENT_TITLES[e.kind],
          },
        })),
    },
  })
  return {
    textStyle: { fontFamily: font },
    grid: { left: 64, right: 24, top: 30, bottom: 34 },
    xAxis: {
      type: 'time',
      // A day is named once, however short the stretch.
      minInterval: 1000 * DAY_S,
      axisLabel: { ...text, hideOverlap: true, formatter: '{d} {MMM}' },
      axisLine: { lineStyle: { color: colours.line } },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      scale: true,
      axisLabel: { ...text, formatter: (v: number) => `${v < 0 ? '−' : ''}${Math.abs(v)} s` },
      splitLine: { lineStyle: { color: colours.line } },
    },
    series,
  }
}

/** Where the readings after the last change were expected, two standard deviations either way, as an edged band. */
function bandOf(expected: Expected, last: Reading, { brass }: ChartColours): object[] {
  const days = (Date.parse(last.at) / 1000 - expected.fromS) / DAY_S
  const steps = Array.from({ length: 13 }, (_, i) => (days * i) / 12)
  const at = (d: number) => expected.errorS + expected.rateSecondsPerDay * d
  const edge = (side: number) => ({
    type: 'line',
    silent: true,
    symbol: 'none',
    animation: false,
    lineStyle: { color: brass, width: 1.2, type: 'dashed' },
    data: steps.map((d) => [(expected.fromS + d * DAY_S) * 1000, at(d) + side * 2 * expectedSpreadS(expected, d)]),
  })
  return [edge(-1), edge(1)]
}

const TOGETHER_MS = 2 * 3_600_000

/** Whether two events happened in one go, so that one mark on the chart stands for both. */
function near(a: RateEventRow, b: RateEventRow): boolean {
  return Math.abs(Date.parse(a.at) - Date.parse(b.at)) < TOGETHER_MS
}
