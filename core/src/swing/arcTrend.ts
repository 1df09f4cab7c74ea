import { linearRegression } from 'simple-statistics'

/** How a semi-arc that is watched for a while changes. */
export interface ArcTrend {
  perMinuteDeg: number
  standardError: number
  minutes: number
  meanDeg: number
}

const LEAST = 8
const LEAST_MINUTES = 0.25

/**
 * The slow change of an arc, by a line through what was told of it from time to time; null with too little.
 *
 * What is told every second shares its pictures with the seconds before: its error counts each stretch of so long once.
 *
 * @param sharedS - pictures are held for so long
 */
export function arcTrend(arcs: { atS: number; deg: number }[], sharedS: number): ArcTrend | null {
  const [first, last] = [arcs[0], arcs.at(-1)]
  if (!first || !last || arcs.length < LEAST) return null
  const minutes = (last.atS - first.atS) / 60
  if (minutes < LEAST_MINUTES) return null
  const points = arcs.map((a) => [(a.atS - first.atS) / 60, a.deg])
  const { m, b } = linearRegression(points)
  const mean = minutes / 2
  let [left, spread] = [0, 0]
  for (const [t = 0, deg = 0] of points) {
    left += (deg - b - m * t) ** 2
    spread += (t - mean) ** 2
  }
  const apart = (last.atS - first.atS) / (arcs.length - 1)
  return {
    perMinuteDeg: m,
    standardError: Math.sqrt((left / (arcs.length - 2) / spread) * Math.max(1, sharedS / apart)),
    minutes,
    meanDeg: b + m * mean,
  }
}
