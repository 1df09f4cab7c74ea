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
import { fitChart } from '../../parts/fitChart.ts'
import { useLatest } from '../../parts/useLatest.ts'
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
  /** what is drawn finely; none: all of it alike */
  const [seen, setSeen] = useState<[number, number] | undefined>()
  const shown = useLatest(page)
  const scheme = useComputedColorScheme('light')
  useEffect(() => {
    if (!box.current) return
    const made = init(box.current)
    chart.current = made
    const leave = fitChart(made, box.current)
    // While it is moved, what is there is moved; once it rests, what is looked at is drawn finely.
    let rest = 0
    made.on('datazoom', (event) => {
      window.clearTimeout(rest)
      rest = window.setTimeout(() => {
        const next = seenNow(event, wholeOf(shown.current))
        setSeen((now) => (sameWindow(next, now) ? now : next))
      }, REST_MS)
    })
    return () => {
      window.clearTimeout(rest)
      leave()
      chart.current = null
      drawn.current = ''
    }
  }, [shown])
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
    if (layout === drawn.current) chart.current?.setOption(option, { replaceMerge: ['series'] })
    else chart.current?.setOption(option, { notMerge: true })
    drawn.current = layout
  }, [page, events, blocks, view, timeZone, scheme, seen])
  return <div ref={box} className={styles.chart} role="img" aria-label={label} />
}

/** A chart that was not moved for so long is at rest. */
const REST_MS = 150

/** So much more than is looked at is drawn finely on either side: a small step needs no other points. */
const BESIDE = 0.75

/** The stretch that is drawn finely, ms. */
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
