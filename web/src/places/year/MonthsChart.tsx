import type { YearTold } from '@treadle/core'
import { useComputedColorScheme } from '@mantine/core'
import { BarChart } from 'echarts/charts'
import { AriaComponent, GridComponent, LegendComponent } from 'echarts/components'
import { init, use as register } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import { fitChart } from '../../parts/fitChart.ts'
import { dayLike } from '../../parts/say.ts'

register([BarChart, GridComponent, LegendComponent, AriaComponent, SVGRenderer])

const SERIES = [
  ['came', 'came', 'brass-line'],
  ['left', 'went home', 'verdigris'],
  ['again', 'came back within two years', 'madder'],
] as const

/** What came and went in each month of the year; told apart by pattern as well as by colour. */
export default function MonthsChart({ months, label }: { months: YearTold['months']; label: string }) {
  const box = useRef<HTMLDivElement>(null)
  const scheme = useComputedColorScheme('light')
  const drawn = JSON.stringify(months)
  useEffect(() => {
    if (!box.current) return
    const shown = JSON.parse(drawn) as YearTold['months']
    const chart = init(box.current, undefined, { renderer: 'svg' })
    const style = getComputedStyle(document.body)
    const colour = (name: string) => style.getPropertyValue(`--${name}`).trim()
    chart.setOption({
      animation: false,
      // The chart would say of itself that it is one, in its own words.
      aria: { enabled: true, label: { description: label }, decal: { show: true } },
      textStyle: { fontFamily: style.fontFamily, fontSize: 14 },
      grid: { left: 40, right: 10, top: 40, bottom: 28 },
      legend: { top: 0, left: 0, textStyle: { color: colour('ink') } },
      xAxis: {
        type: 'category',
        data: shown.map((m) => dayLike(`${m.month}-15`, 'Nov')),
        axisLabel: { color: colour('quiet') },
      },
      yAxis: {
        type: 'value',
        minInterval: 1,
        axisLabel: { color: colour('quiet') },
        splitLine: { lineStyle: { color: colour('line') } },
      },
      series: SERIES.map(([key, name, tint]) => ({
        name,
        type: 'bar' as const,
        itemStyle: { color: colour(tint) },
        data: shown.map((m) => m[key]),
      })),
    })
    return fitChart(chart, box.current)
  }, [drawn, label, scheme])
  return <div ref={box} role="img" aria-label={label} style={{ height: '17rem' }} />
}
