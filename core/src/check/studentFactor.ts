/**
 * By how much two standard errors must grow when the scatter itself is known from few readings, so that they still hold
 * 95 per cent: Student's t over the normal quantile (Abramowitz & Stegun 26.7.5).
 *
 * @param freedom - readings less what was fitted to them, 1 or more
 */
export function studentFactor(freedom: number): number {
  return 1 + 1.21 / freedom + 1.44 / freedom ** 2
}
