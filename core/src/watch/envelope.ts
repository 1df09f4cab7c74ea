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

/**
 * What of a row lies within a window, with one on either side so that a line runs on to its edges.
 *
 * @param row - in order of time
 * @param atOf - when each is
 */
export function within<T>(row: T[], atOf: (one: T) => number, from: number, to: number): T[] {
  const first = firstAfter(row, (one) => atOf(one) >= from)
  const after = firstAfter(row, (one) => atOf(one) > to)
  return row.slice(Math.max(0, first - 1), after + 1)
}

/** Where that which holds from some place on begins to hold; the length where it never does. */
function firstAfter<T>(row: T[], holds: (one: T) => boolean): number {
  let [low, high] = [0, row.length]
  while (low < high) {
    const middle = (low + high) >>> 1
    if (holds(row[middle] as T)) high = middle
    else low = middle + 1
  }
  return low
}
