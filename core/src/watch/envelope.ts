/** A point of a chart: when, and how much; null: not known then, and no line is drawn across. */
export type ChartPoint = [at: number, value: number | null]

/**
 * The same line with at most about `most` points: of each stretch the lowest and the highest stay, in order of time, and
 * a gap stays a gap; so no peak is lost however far out one looks.
 *
 * @param points - in order of time
 */
export function envelope(points: ChartPoint[], most: number): ChartPoint[] {
  if (points.length <= most) return points
  const together = Math.ceil((2 * points.length) / most)
  const out: ChartPoint[] = []
  for (let from = 0; from < points.length; from += together) {
    let low: ChartPoint | null = null
    let high: ChartPoint | null = null
    let gap: ChartPoint | null = null
    for (let i = from; i < Math.min(points.length, from + together); i++) {
      const point = points[i] as ChartPoint
      if (point[1] === null) gap = point
      else {
        if (low === null || point[1] < (low[1] ?? 0)) low = point
        if (high === null || point[1] > (high[1] ?? 0)) high = point
      }
    }
    const kept = [low, high === low ? null : high, gap].filter((p) => p !== null)
    out.push(...kept.sort((a, b) => a[0] - b[0]))
  }
  return out
}

/** The points within a window, with one on either side so that the line runs on to its edges. */
export function within(points: ChartPoint[], from: number, to: number): ChartPoint[] {
  const first = points.findIndex(([at]) => at >= from)
  if (first === -1) return points.slice(-1)
  const after = points.findIndex(([at]) => at > to)
  return points.slice(Math.max(0, first - 1), after === -1 ? points.length : after + 1)
}
