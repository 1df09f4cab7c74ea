import { FieldError, requirePositive, requireWithin } from '../check/require.ts'

export interface Trundles {
  /** the thickest less the thinnest, mm */
  spreadMm: number
  /** numbers from 1: the fewest, so that the rest lie within the tolerance of each other */
  replace: number[]
  verdict: 'sound' | 'replace the bad ones' | 'replace all'
  /** the middle of those that stay: what new ones are made to, mm */
  keptMm: number
}

/** How far the trundles of a lantern pinion may differ, mm: a workshop rule; 0.013 is met with. */
export const TRUNDLE_TOLERANCE_MM = 0.01
/** Gauges show steps of a micrometre at best; less is how a computer keeps a decimal. */
const ROUNDING_MM = 1e-9

/**
 * Which trundles of a lantern pinion to replace: the fewest, so that the rest lie within the tolerance of each other.
 *
 * Of the sorted diameters the longest run no wider than the tolerance stays; of two as long the thicker, since trundles
 * wear thin and never thick. Where half of them or more would go, all are made new.
 *
 * @param diametersMm - one each, mm, in the order round the pinion; 3 to 40, above 0
 * @throws FieldError for figures that can’t be
 * @example lanternTrundles([1.2, 1.2, 1.14, 1.2, 1.2, 1.2]).replace // [3]
 */
export function lanternTrundles(diametersMm: number[], toleranceMm = TRUNDLE_TOLERANCE_MM): Trundles {
  const n = diametersMm.length
  if (n < 3 || n > 40) throw new FieldError('diametersMm', n, 'give each of 3 to 40 trundles')
  diametersMm.forEach((mm, i) => requirePositive(`diametersMm[${i}]`, mm))
  requireWithin('toleranceMm', toleranceMm, 0, 1)
  const sorted = [...diametersMm].sort((a, b) => b - a)
  let best = { from: 0, count: 0 }
  for (let from = 0; from < n; from++) {
    const thick = sorted[from] ?? 0
    const count = sorted.filter((mm, i) => i >= from && thick - mm <= toleranceMm + ROUNDING_MM).length
    if (count > best.count) best = { from, count }
  }
  const thickest = sorted[best.from] ?? 0
  const thinnest = sorted[best.from + best.count - 1] ?? 0
  const replace = diametersMm.flatMap((mm, i) => (mm > thickest || mm < thinnest ? [i + 1] : []))
  return {
    spreadMm: (sorted[0] ?? 0) - (sorted.at(-1) ?? 0),
    replace,
    verdict: replace.length === 0 ? 'sound' : replace.length * 2 >= n ? 'replace all' : 'replace the bad ones',
    keptMm: (thickest + thinnest) / 2,
  }
}
