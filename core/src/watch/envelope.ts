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
 * The same line, finely within a window and coarsely on either side of it, so that nothing is missing however far one
 * moves on from there.
 *
 * @param points - in order of time
 * @param most - so many points within, and half as many on each side
 */
export function finelyWithin(points: ChartPoint[], most: number, [from, to]: [from: number, to: number]): ChartPoint[] {
  const first = firstAfter(points, ([at]) => at >= from)
  const after = firstAfter(points, ([at]) => at > to)
  return [
    ...envelope(points.slice(0, first), most / 2),
    ...envelope(points.slice(first, after), most),
    ...envelope(points.slice(after), most / 2),
  ]
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
