/** What a figure is of: the unit it is kept in. */
export type FigureUnit = 'mm' | 'm' | '°' | 's' | 'kg' | ''

/** One of a unit as it may be typed after a figure, in the unit that the figure is kept in. */
const UNITS: Record<FigureUnit, Record<string, number>> = {
  mm: { mm: 1, cm: 10, m: 1000, µm: 0.001, um: 0.001, thou: 0.0254, in: 25.4, inch: 25.4, inches: 25.4, '"': 25.4 },
  m: { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048, km: 1000 },
  '°': { '°': 1, deg: 1, degrees: 1, "'": 1 / 60 },
  s: { s: 1, sec: 1, seconds: 1, min: 60, minutes: 60, h: 3600, hours: 3600, ms: 0.001 },
  kg: { kg: 1, g: 0.001, lb: 0.453_592_37, oz: 0.028_349_523_125 },
  '': {},
}

const VULGAR: Record<string, string> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
}

export type FigureRead = { read: true; value: number | null } | { read: false; sentence: string }

/**
 * Reads a figure as people type it: decimal point or comma, a fraction ("1/2", "1 1/2", "½"), a true or a plain minus
 * sign, its unit after it, and minutes with seconds ("2:30") where it is a time. Empty is no figure: null.
 *
 * It is read whole or not at all: two figures run together, or one with anything else in it, are refused in a sentence.
 *
 * @param unit - what it is kept in
 * @param typedIn - what is meant where no unit is typed; the unit it is kept in when not given
 * @param named - other words that may stand after it and change nothing, such as "turns"
 */
export function readFigure(
  typed: string,
  unit: FigureUnit,
  { typedIn, named = [] }: { typedIn?: string | undefined; named?: string[] | undefined } = {},
): FigureRead {
  const text = typed.trim()
  if (text === '') return { read: true, value: null }
  const minutes = unit === 's' ? /^([-−+]?)(\d+):([0-5]?\d(?:[.,]\d+)?)$/.exec(text) : null
  if (minutes) {
    const [, sign, min = '', sec = ''] = minutes
    const value = 60 * Number(min) + Number(sec.replace(',', '.'))
    return { read: true, value: sign === '-' || sign === '−' ? -value : value }
  }
  const [, sign = '', number = '', word = ''] =
    /^([-−+]?)\s*(\d[\d.,]*(?:\s*\d+\s*\/\s*\d+)?(?:\s*\/\s*\d+)?\s*[¼½¾⅛⅜⅝⅞]?|[.,]\d+|[¼½¾⅛⅜⅝⅞])\s*(\D*)$/u.exec(
      text,
    ) ?? []
  const size = sizeOf(number)
  const one = scaleOf(word.trim(), unit, typedIn, named)
  if (size === null)
    return { read: false, sentence: `“${text}” can’t be read as one figure: type it such as 2.5, 2,5 or 1/2` }
  if (one === null) {
    const known = [...Object.keys(UNITS[unit]).slice(0, 4), ...named]
    return {
      read: false,
      sentence: `“${word.trim()}” is no unit of this figure${known.length > 0 ? `: ${known.join(', ')}` : ''}`,
    }
  }
  const value = (sign === '-' || sign === '−' ? -1 : 1) * size * one
  // A unit turned into another brings digits that nobody typed.
  return { read: true, value: one === 1 ? value : Number(value.toPrecision(10)) }
}

/** The size of "2.5", "2,5", "1/2", "1 1/2", "1½"; null where it is none of these. */
function sizeOf(number: string): number | null {
  const spelled = number.trim().replace(/[¼½¾⅛⅜⅝⅞]/u, (c) => ` ${VULGAR[c] ?? ''}`)
  const fraction = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(spelled.trim())
  if (fraction) {
    const [, whole = '0', over = '', under = ''] = fraction
    return Number(under) === 0 ? null : Number(whole) + Number(over) / Number(under)
  }
  const plain = spelled.trim().replace(',', '.')
  return /^(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : null
}

function scaleOf(word: string, unit: FigureUnit, typedIn: string | undefined, named: string[]): number | null {
  if (word === '') return typedIn === undefined ? 1 : (UNITS[unit][typedIn] ?? 1)
  if (named.includes(word)) return 1
  return UNITS[unit][word] ?? UNITS[unit][word.toLowerCase()] ?? null
}
