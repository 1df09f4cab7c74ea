import { requireCount } from '../check/require.ts'

/** So many of a number, and between what shares the truth is likely to lie. */
export interface SeenShare {
  times: number
  of: number
  /** 0 to 1; with nothing seen from 0 to 1 */
  low: number
  high: number
}

const Z = 1.959964

/**
 * A share with its 95 % interval: few things seen tell little, and say so.
 *
 * Wilson’s score interval: the wider the fewer were seen, never below 0 or above 1.
 * Source: E. B. Wilson, J. Am. Stat. Assoc. 22 (1927) 209.
 *
 * @param times - 0 to `of`
 * @param of - 0 to 1 000 000
 */
export function shareOfSeen(times: number, of: number): SeenShare {
  requireCount('of', of, 0, 1_000_000)
  requireCount('times', times, 0, of)
  if (of === 0) return { times, of, low: 0, high: 1 }
  const p = times / of
  const middle = (p + (Z * Z) / (2 * of)) / (1 + (Z * Z) / of)
  const half = (Z / (1 + (Z * Z) / of)) * Math.sqrt((p * (1 - p)) / of + (Z * Z) / (4 * of * of))
  return { times, of, low: Math.max(0, middle - half), high: Math.min(1, middle + half) }
}
