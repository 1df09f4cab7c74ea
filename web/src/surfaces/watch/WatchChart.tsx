import type { RateEventRow, WatchPage } from '@treadle/contract'
import { blocksAgainst, type Against, type WatchBlock } from '@treadle/core'
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
import { againstOption } from './againstOption.ts'
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
  blocks,
  view,
  timeZone,
  label,
}: {
  page: WatchPage
  events: RateEventRow[]
  blocks: WatchBlock[]
  /** minute by minute over time, or its half hours against something else */
  view: 'time' | Against
  timeZone: string
  label: string
}) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const drawn = useRef('')
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
      drawn.current = ''
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
    const option =
      view === 'time'
        ? watchOption(page, events, colours, style.fontFamily)
        : againstOption(
            blocksAgainst(blocks, view, Date.parse(page.watch.beganAt) / 1000, timeZone),
            view,
            colours,
            style.fontFamily,
          )
    // What is zoomed to stays while minutes are added.
    const layout = `${view} ${page.watch.temperatures.length > 0}`
    if (layout === drawn.current) chart.current?.setOption(option, { replaceMerge: ['series'] })
    else chart.current?.setOption(option, { notMerge: true })
    drawn.current = layout
  }, [page, events, blocks, view, timeZone, scheme])
  return <div ref={box} className={styles.chart} role="img" aria-label={label} />
}
