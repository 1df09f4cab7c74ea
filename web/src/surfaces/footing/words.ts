/** "0.40° to the right" of a case that leans; "0.00°" of one that stands upright. */
export function leaning(deg: number, digits = 2): string {
  const size = Math.abs(deg).toFixed(digits)
  return `${size}°${Number(size) === 0 ? '' : deg > 0 ? ' to the right' : ' to the left'}`
}
