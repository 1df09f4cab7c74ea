import type { RateEventRow, WatchPage } from '@treadle/contract'
import { LineChart, ScatterChart } from 'echarts/charts'
import {
  AxisPointerComponent,
  DataZoomComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components'
import { init, use as register, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useComputedColorScheme } from '@mantine/core'
import { useEffect, useRef } from 'react'
import { watchOption, type WatchColours } from './watchOption.ts'
import styles from './Watch.module.css'

register([
  LineChart,
  ScatterChart,
  AxisPointerComponent,
  DataZoomComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  CanvasRenderer,
])

/** The minutes of a watch over time, zoomed by wheel, fingers or the bar below; its words stand beside it in the page. */
export default function WatchChart({
  page,
  events,
  label,
}: {
  page: WatchPage
  events: RateEventRow[]
  label: string
}) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const scheme = useComputedColorScheme('light')
  useEffect(() => {
    if (!box.current) return
    const made = init(box.current)
    chart.current = made
    const watcher = new ResizeObserver(() => made.resize())
    watcher.observe(box.current)
    return () => {
      watcher.disconnect()
      made.dispose()
      chart.current = null
    }
  }, [])
  useEffect(() => {
    const style = getComputedStyle(document.body)
    const colour = (name: keyof WatchColours) => style.getPropertyValue(`--${name}`).trim()
    const colours: WatchColours = {
      ink: colour('ink'),
      quiet: colour('quiet'),
      line: colour('line'),
      steel: colour('steel'),
      brass: colour('brass'),
      verdigris: colour('verdigris'),
      amber: colour('amber'),
      madder: colour('madder'),
    }
    // What is zoomed to stays while minutes are added.
    chart.current?.setOption(watchOption(page, events, colours, style.fontFamily), { replaceMerge: ['series'] })
  }, [page, events, scheme])
  return <div ref={box} className={styles.chart} role="img" aria-label={label} />
}
