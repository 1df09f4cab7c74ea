import type { EChartsType } from 'echarts/core'

/** Keeps a chart as large as its box until what it returns is called; of the size that it has it is not drawn again. */
export function fitChart(chart: EChartsType, box: HTMLElement): () => void {
  const watcher = new ResizeObserver(() => {
    if (chart.getWidth() !== box.clientWidth || chart.getHeight() !== box.clientHeight) chart.resize()
  })
  watcher.observe(box)
  return () => {
    watcher.disconnect()
    chart.dispose()
  }
}
