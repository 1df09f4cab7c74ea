import { torqueCurve, type Barrel, type Strip } from '@treadle/core'
import { LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, MarkLineComponent } from 'echarts/components'
import { init, use as register } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useComputedColorScheme } from '@mantine/core'
import { useEffect, useRef } from 'react'
import { fitChart } from '../../parts/fitChart.ts'

register([LineChart, GridComponent, LegendComponent, MarkLineComponent, SVGRenderer])

interface Drawn {
  old: Strip
  fitted: Strip | null
  barrel: Barrel
  turnsUsed: number | null
}

/** Torque over the turns, the old spring and the one to be fitted laid over each other, with the turns used marked. */
export default function TorqueChart({ old, fitted, barrel, turnsUsed, label }: Drawn & { label: string }) {
  const box = useRef<HTMLDivElement>(null)
  const scheme = useComputedColorScheme('light')
  // All that is drawn, so that the chart is made anew when it changes and not at each render.
  const drawn = JSON.stringify({ old, fitted, barrel, turnsUsed })
  useEffect(() => {
    if (!box.current) return
    const shown = JSON.parse(drawn) as Drawn
    const chart = init(box.current, undefined, { renderer: 'svg' })
    const style = getComputedStyle(document.body)
    const colour = (name: string) => style.getPropertyValue(`--${name}`).trim()
    const axis = { nameTextStyle: { color: colour('quiet') }, axisLabel: { color: colour('quiet') } }
    const line = (name: string, strip: Strip, dash: boolean, tint: string) => ({
      name,
      type: 'line' as const,
      showSymbol: false,
      lineStyle: { color: colour(tint), width: dash ? 2 : 3, type: dash ? ('dashed' as const) : ('solid' as const) },
      itemStyle: { color: colour(tint) },
      data: torqueCurve(strip, shown.barrel).map((p) => [p.turns, p.torqueNmm]),
      ...(shown.turnsUsed !== null && !dash
        ? {
            markLine: {
              symbol: 'none',
              lineStyle: { color: colour('steel'), type: 'dotted' as const },
              label: { formatter: `${shown.turnsUsed} used`, color: colour('steel') },
              data: [{ xAxis: shown.turnsUsed }],
            },
          }
        : {}),
    })
    chart.setOption({
      animation: false,
      textStyle: { fontFamily: style.fontFamily, fontSize: 14 },
      grid: { left: 64, right: 24, top: 34, bottom: 44 },
      legend: { top: 0, textStyle: { color: colour('ink') } },
      xAxis: { type: 'value', name: 'turns from run down', nameLocation: 'middle', nameGap: 28, ...axis },
      yAxis: { type: 'value', name: 'N·mm', splitLine: { lineStyle: { color: colour('line') } }, ...axis },
      series: [
        line(shown.fitted ? 'old' : 'as found', shown.old, shown.fitted !== null, 'brass'),
        ...(shown.fitted ? [line('fitted', shown.fitted, false, 'verdigris')] : []),
      ],
    })
    return fitChart(chart, box.current)
  }, [drawn, scheme])
  return <div ref={box} style={{ height: 260 }} role="img" aria-label={label} />
}
