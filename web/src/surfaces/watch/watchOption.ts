import type { RateEventRow, WatchPage } from '@treadle/contract'
import { envelope, finelyWithin, type ChartPoint } from '@treadle/core'
import type { EChartsCoreOption } from 'echarts/core'

export interface WatchColours {
  ink: string
  quiet: string
  line: string
  steel: string
  brass: string
  verdigris: string
  amber: string
  madder: string
}

/** More points than a line has pixels slow the zoom and show nothing. */
const MOST_POINTS = 600

/** From when to when the chart of a watch goes, ms. */
export function wholeOf({ watch, minutes }: Pick<WatchPage, 'watch' | 'minutes'>): [number, number] {
  const began = Date.parse(watch.beganAt)
  const last = minutes.at(-1)
  return [began, last ? began + 1000 * (last.fromS + last.seconds) : began]
}

/** What the chart of a watch shows, above one another by time: rate, out of beat, loudness, with strikes and silences. */
export function watchOption(
  { watch, minutes, marks }: WatchPage,
  events: RateEventRow[],
  colours: WatchColours,
  fontFamily: string,
  /** what is looked at, ms, and drawn finely; all of it when not said */
  seen?: [fromMs: number, toMs: number],
): EChartsCoreOption {
  const began = Date.parse(watch.beganAt)
  const at = (s: number) => began + 1000 * s
  const middle = (m: WatchPage['minutes'][number]) => at(m.fromS + m.seconds / 2)
  const points = (of: (m: WatchPage['minutes'][number]) => number | null): ChartPoint[] => {
    const all = minutes.map((m): ChartPoint => [middle(m), of(m)])
    return seen ? finelyWithin(all, MOST_POINTS, seen) : envelope(all, MOST_POINTS)
  }
  const untilMs = wholeOf({ watch, minutes })[1]
  const axis = {
    axisLine: { lineStyle: { color: colours.line } },
    axisLabel: { color: colours.quiet, fontSize: 13 },
    splitLine: { lineStyle: { color: colours.line, opacity: 0.5 } },
    nameTextStyle: { color: colours.quiet, fontSize: 13, align: 'left' as const },
  }
  const { temperatures } = watch
  const [tops, heights] =
    temperatures.length > 0
      ? [
          [30, 176, 256, 336],
          [106, 46, 46, 46],
        ]
      : [
          [30, 206, 316],
          [136, 68, 68],
        ]
  const grids = tops.map((_, i) => i)
  // Without a graphics card a wider line of many points takes several times as long to draw.
  const width = minutes.length > MOST_POINTS ? 1 : 1.5
  const inside = events.filter((e) => Date.parse(e.at) >= began && Date.parse(e.at) <= untilMs)
  return {
    animation: false,
    textStyle: { fontFamily, color: colours.ink },
    // Room for the labels is set by hand: measuring them anew at every step of the zoom takes a fifth of a frame.
    grid: tops.map((top, i) => ({ top, height: heights[i], left: 62, right: 18, outerBoundsMode: 'none' })),
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    tooltip: {
      trigger: 'axis',
      confine: true,
      valueFormatter: (value: unknown) => (typeof value === 'number' ? value.toFixed(2) : '–'),
    },
    dataZoom: [
      { type: 'inside', xAxisIndex: grids, minValueSpan: 60_000 },
      {
        type: 'slider',
        xAxisIndex: grids,
        bottom: 6,
        height: 22,
        minValueSpan: 60_000,
        showDataShadow: false,
        borderColor: colours.line,
      },
    ],
    xAxis: grids.map((gridIndex) => ({
      type: 'time',
      gridIndex,
      min: began,
      max: untilMs,
      ...axis,
      splitLine: { show: false },
      // The others would be laid out at every step of the zoom to draw a line.
      show: gridIndex === grids.length - 1,
      axisLabel: { ...axis.axisLabel, hideOverlap: true },
    })),
    yAxis: [
      { gridIndex: 0, name: 'rate, s a day', scale: true, ...axis },
      { gridIndex: 1, name: 'out of beat, ms', scale: true, ...axis, splitNumber: 2 },
      { gridIndex: 2, name: 'loudness, dB', scale: true, ...axis, splitNumber: 2 },
      ...(temperatures.length > 0 ? [{ gridIndex: 3, name: '°C', scale: true, ...axis, splitNumber: 2 }] : []),
    ],
    series: [
      {
        name: 'rate',
        type: 'line',
        xAxisIndex: 0,
        yAxisIndex: 0,
        data: points((m) => m.rateSecondsPerDay),
        showSymbol: false,
        lineStyle: { color: colours.brass, width },
        itemStyle: { color: colours.brass },
        markLine: {
          symbol: 'none',
          silent: true,
          lineStyle: { color: colours.steel, type: 'solid' },
          label: { color: colours.steel, fontSize: 13, formatter: '{b}' },
          data: inside.map((e) => ({ xAxis: Date.parse(e.at), name: e.kind === 'winding' ? 'wound' : e.kind })),
        },
        markArea: {
          silent: true,
          itemStyle: { color: colours.madder, opacity: 0.14 },
          label: { color: colours.madder, fontSize: 13, formatter: '{b}' },
          data: marks
            .filter((m) => m.kind === 'silent')
            .map((m) => [
              { xAxis: at(m.fromS), name: m.toS === null ? 'stopped' : 'silent' },
              { xAxis: m.toS === null ? untilMs : at(m.toS) },
            ]),
        },
      },
      {
        name: 'strikes',
        type: 'scatter',
        xAxisIndex: 0,
        yAxisIndex: 0,
        symbol: 'triangle',
        symbolSize: 9,
        itemStyle: { color: colours.verdigris },
        data: marks.filter((m) => m.kind === 'strike').map((m) => [at(m.fromS), lowest(minutes)]),
        tooltip: { show: false },
      },
      {
        name: 'out of beat',
        type: 'line',
        xAxisIndex: 1,
        yAxisIndex: 1,
        data: points((m) => m.outOfBeatMs),
        showSymbol: false,
        lineStyle: { color: colours.brass, width },
        itemStyle: { color: colours.brass },
      },
      ...(['firstDb', 'secondDb'] as const).map((key, i) => ({
        name: i === 0 ? 'one side' : 'the other',
        type: 'line' as const,
        xAxisIndex: 2,
        yAxisIndex: 2,
        data: points((m) => m[key]),
        showSymbol: false,
        lineStyle: {
          color: i === 0 ? colours.brass : colours.steel,
          width,
          type: i === 0 ? ('solid' as const) : ('dashed' as const),
        },
        itemStyle: { color: i === 0 ? colours.brass : colours.steel },
      })),
      ...(temperatures.length > 0
        ? [
            {
              name: '°C',
              type: 'line' as const,
              xAxisIndex: 3,
              yAxisIndex: 3,
              data: temperatures.map((t) => [Date.parse(t.at), t.celsius]),
              showSymbol: temperatures.length < 20,
              lineStyle: { color: colours.madder, width },
              itemStyle: { color: colours.madder },
            },
          ]
        : []),
    ],
  }
}

/** Strikes stand at the foot of the rate. */
function lowest(minutes: WatchPage['minutes']): number {
  return minutes.reduce(
    (least, m) => (m.rateSecondsPerDay === null ? least : Math.min(least, m.rateSecondsPerDay)),
    Infinity,
  )
}
