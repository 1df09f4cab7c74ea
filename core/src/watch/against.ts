import { linearRegression, linearRegressionLine } from 'simple-statistics'
import { timeThere } from '../care/workshopTime.ts'
import type { WatchBlock } from './blocks.ts'

/** What the half hours of a watch may be laid against, besides time itself. */
export type Against = 'winding' | 'warmth' | 'hour'

export interface LaidAgainst {
  /** hours since winding, °C or hours of the day in the workshop; s/day */
  points: [x: number, rate: number][]
  /** the ends of the straight line through them; none of the day, which comes round */
  line: [x: number, rate: number][]
}

/** The rate of every half hour against something else than time; those of which it is not known are left out. */
export function blocksAgainst(blocks: WatchBlock[], against: Against, beganS: number, timeZone: string): LaidAgainst {
  const points = blocks.flatMap((block): [number, number][] => {
    const x = placeOf(block, against, beganS, timeZone)
    return x === null ? [] : [[x, block.rate]]
  })
  if (against === 'hour' || points.length < 3) return { points, line: [] }
  const at = linearRegressionLine(linearRegression(points))
  const xs = points.map(([x]) => x)
  return { points, line: [Math.min(...xs), Math.max(...xs)].map((x) => [x, at(x)]) }
}

function placeOf(block: WatchBlock, against: Against, beganS: number, timeZone: string): number | null {
  if (against === 'winding') return block.hours
  if (against === 'warmth') return block.celsius
  const [hours = 0, minutes = 0] = timeThere(beganS + block.atS, timeZone)
    .slice(-5)
    .split(':')
    .map(Number)
  return hours + minutes / 60
}
