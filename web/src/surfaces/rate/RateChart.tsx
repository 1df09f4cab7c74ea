import type { RateEventRow, Reading } from '@treadle/contract'
import type { Expected, RateBook } from '@treadle/core'
import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent } from 'echarts/components'
import { init, use as register, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useComputedColorScheme } from '@mantine/core'
import { useEffect, useRef } from 'react'
import { fitChart } from '../../parts/fitChart.ts'
import { chartOption, type ChartColours } from './chartOption.ts'
import styles from './Rate.module.css'

register([LineChart, ScatterChart, GridComponent, MarkLineComponent, SVGRenderer])

/** The rate book as a chart; its words for those who can't see it stand beside it in the page. */
export default function RateChart({
  book,
  readings,
  events,
  expected,
  fromMs,
  label,
}: {
  book: RateBook
  readings: Reading[]
  events: RateEventRow[]
  expected: Expected | null
  fromMs: number
  label: string
}) {
  const box = useRef<HTMLDivElement>(null)
  const drawn = useRef<EChartsType>(null)
  const scheme = useComputedColorScheme('light')
  useEffect(() => {
    if (!box.current) return
    const chart = init(box.current, undefined, { renderer: 'svg' })
    drawn.current = chart
    return fitChart(chart, box.current)
  }, [])
  useEffect(() => {
    const style = getComputedStyle(document.body)
    const colour = (name: string) => style.getPropertyValue(`--${name}`).trim()
    const colours: ChartColours = {
      ink: colour('ink'),
      quiet: colour('quiet'),
      line: colour('line'),
      steel: colour('steel'),
      brass: colour('brass'),
      verdigris: colour('verdigris'),
    }
    const option = chartOption({ book, readings, events, expected, fromMs }, colours, style.fontFamily)
    drawn.current?.setOption(option, { notMerge: true })
  }, [book, readings, events, expected, fromMs, scheme])
  return <div ref={box} className={styles.chart} role="img" aria-label={label} />
}
