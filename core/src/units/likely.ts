/** Between so many times its neighbours and as many times less a figure is taken as it is. */
const TEN_TIMES_FROM = 6

/**
 * Whether a figure is about ten times off, either way, what the figures beside it make likely: a point that was lost, or
 * another unit. Gives the middle one of them to ask by; null where it is likely, or nothing tells.
 *
 * @param beside - figures of the same kind on the same thing; nulls and noughts tell nothing
 */
export function tenTimesOff(value: number, beside: (number | null)[]): number | null {
  const known = beside.flatMap((v) => (v === null || v === 0 ? [] : [Math.abs(v)])).sort((a, b) => a - b)
  const middle = known[Math.floor((known.length - 1) / 2)]
  if (middle === undefined || value === 0) return null
  const ratio = Math.abs(value) / middle
  return ratio >= TEN_TIMES_FROM || ratio <= 1 / TEN_TIMES_FROM ? middle : null
}
