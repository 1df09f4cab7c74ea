import type { Against, LaidAgainst } from '@treadle/core'
import type { EChartsCoreOption } from 'echarts/core'
import type { WatchColours } from './watchOption.ts'

export const AGAINST_TITLES: Record<Against, string> = {
  winding: 'hours since winding',
  warmth: 'temperature, °C',
  hour: 'time of day',
}

const HOURS_A_DAY = 24

/** The rate of every half hour against something else than time. */
export function againstOption(
  { points, line }: LaidAgainst,
  against: Against,
  colours: WatchColours,
  fontFamily: string,
): EChartsCoreOption {
  const axis = {
    axisLine: { lineStyle: { color: colours.line } },
    axisLabel: { color: colours.quiet, fontSize: 13 },
    splitLine: { lineStyle: { color: colours.line, opacity: 0.5 } },
    nameTextStyle: { color: colours.quiet, fontSize: 13 },
  }
  return {
    animation: false,
    textStyle: { fontFamily, color: colours.ink },
    grid: { top: 30, bottom: 56, left: 62, right: 24 },
    tooltip: { trigger: 'item', confine: true, valueFormatter: undefined },
    xAxis: {
      type: 'value',
      name: AGAINST_TITLES[against],
      nameLocation: 'middle',
      nameGap: 32,
      scale: true,
      ...(against === 'hour' && { min: 0, max: HOURS_A_DAY, interval: 3 }),
      ...axis,
      splitLine: { show: false },
      axisLabel: { ...axis.axisLabel, ...(against === 'hour' && { formatter: '{value}:00' }) },
    },
    yAxis: { name: 'rate, s a day', scale: true, ...axis, nameTextStyle: { ...axis.nameTextStyle, align: 'left' } },
    series: [
      {
        name: 'half hours',
        type: 'scatter',
        symbolSize: 9,
        itemStyle: { color: colours.brass, opacity: 0.75 },
        data: points,
        tooltip: {
          formatter: ({ data: [x, rate] }: { data: [number, number] }) => `${x.toFixed(1)}: ${rate.toFixed(2)} s a day`,
        },
      },
      {
        name: 'line',
        type: 'line',
        showSymbol: false,
        silent: true,
        lineStyle: { color: colours.steel, width: 2 },
        data: line,
      },
    ],
  }
}
