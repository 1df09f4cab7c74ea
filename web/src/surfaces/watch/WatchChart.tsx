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
import { useEffect, useRef, useState } from 'react'
import { againstOption } from './againstOption.ts'
import { watchOption, wholeOf, type WatchColours } from './watchOption.ts'
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
  /** what the chart was last drawn of, but for the stretch that is looked at */
  const last = useRef<unknown[]>([])
  /** what the finer points are there for; none: all of it, coarsely */
  const [seen, setSeen] = useState<[number, number] | undefined>()
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
        ? watchOption(page, events, colours, style.fontFamily, seen)
        : againstOption(
            blocksAgainst(blocks, view, Date.parse(page.watch.beganAt) / 1000, timeZone),
            view,
            colours,
            style.fontFamily,
          )
    // What is zoomed to stays while minutes are added.
    const layout = `${view} ${page.watch.temperatures.length > 0}`
    const whole = [page, events, blocks, view, timeZone, scheme]
    const { series } = option as { series: { name: string; data: unknown }[] }
    if (layout === drawn.current && whole.every((part, i) => part === last.current[i]))
      // Other points of the same lines: drawn with the next step of the zoom, not beside it.
      chart.current?.setOption(
        { series: series.map(({ name, data }) => ({ name, data })) },
        { lazyUpdate: true, silent: true },
      )
    else if (layout === drawn.current) chart.current?.setOption(option, { replaceMerge: ['series'] })
    else chart.current?.setOption(option, { notMerge: true })
    drawn.current = layout
    last.current = whole
    const follow = (event: unknown) => {
      const next = seenNow(event, wholeOf(page))
      if (!sameWindow(next, seen)) setSeen(next)
    }
    chart.current?.on('datazoom', follow)
    const made = chart.current
    return () => {
      made?.off('datazoom', follow)
    }
  }, [page, events, blocks, view, timeZone, scheme, seen])
  return <div ref={box} className={styles.chart} role="img" aria-label={label} />
}

/** So much more than is looked at is drawn on either side: a small step of the zoom needs no other points. */
const BESIDE = 0.75

/** The stretch whose minutes are drawn, ms. */
function seenNow(event: unknown, wholeMs: [number, number]): [number, number] {
  const { batch, ...single } = event as { batch?: Zoomed[] } & Zoomed
  const { start, end } = batch?.[0] ?? single
  const at = (percent: number) => wholeMs[0] + (percent / 100) * (wholeMs[1] - wholeMs[0])
  const beside = BESIDE * (at(end) - at(start))
  return [at(start) - beside, at(end) + beside]
}

/** What a step of the zoom tells, per cent of the whole. */
interface Zoomed {
  start: number
  end: number
}

/** Whether the points that are there do for another window as well: it lies within, and is not much narrower. */
function sameWindow(next: [number, number], seen: [number, number] | undefined): boolean {
  if (!seen) return false
  const [span, has] = [next[1] - next[0], seen[1] - seen[0]]
  const beside = (BESIDE * span) / (1 + 2 * BESIDE)
  return next[0] + beside >= seen[0] && next[1] - beside <= seen[1] && span > 0.4 * has
}
