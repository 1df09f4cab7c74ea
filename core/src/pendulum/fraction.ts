const WORDS: Record<number, string> = { 1: '⅛', 2: '¼', 3: '⅜', 4: '½', 5: '⅝', 6: '¾', 7: '⅞' }

/** A turn of the nut to the nearest eighth, as one reads it: 0.27 → "¼", 1.5 → "1½", 0.04 → "less than ⅛". */
export function turnFraction(turns: number): string {
  const eighths = Math.round(Math.abs(turns) * 8)
  if (eighths === 0) return turns === 0 ? '0' : 'less than ⅛'
  const whole = Math.floor(eighths / 8)
  const part = WORDS[eighths % 8] ?? ''
  return `${whole > 0 ? whole : ''}${part}`
}
