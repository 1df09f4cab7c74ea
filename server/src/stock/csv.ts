import { check, STOCK_KINDS, StockChange } from '@treadle/contract'
import { stringify } from 'csv-stringify/sync'
import { setImmediate } from 'node:timers/promises'
import { v7 as uuid } from 'uuid'
import { sheetRecords } from '../http/sheetRecords.ts'

const COLUMNS = [
  ['kind', 'kind'],
  ['name', 'name'],
  ['material', 'material'],
  ['outsideMm', 'outside mm'],
  ['insideMm', 'inside mm'],
  ['lengthMm', 'length mm'],
  ['measuredMm', 'measured mm'],
  ['widthMm', 'width mm'],
  ['thickMm', 'thick mm'],
  ['count', 'count'],
  ['lowAt', 'low at'],
  ['drawer', 'drawer'],
] as const satisfies readonly (readonly [keyof StockChange, string])[]
const NUMBERS = new Set<string>([
  'outsideMm',
  'insideMm',
  'lengthMm',
  'measuredMm',
  'widthMm',
  'thickMm',
  'count',
  'lowAt',
])
const MOST_ROWS = 8000
/** Between so many rows others get their turn. */
const ROWS_A_TURN = 250

interface WrongLine {
  line: number
  message: string
}

export interface ReadList {
  rows: { line: number; row: StockChange }[]
  wrong: WrongLine[]
}

/** The drawers as a list with a heading, figures in mm with a point; words that a sheet would reckon are made harmless. */
export function stockCsv(rows: StockChange[]): string {
  return stringify(
    rows.map((row) => COLUMNS.map(([key]) => row[key] ?? '')),
    { header: true, columns: COLUMNS.map(([, title]) => title), escape_formulas: true },
  )
}

/**
 * Reads a list: separated by commas, semicolons or tabs, figures with a point or a comma. A row that can't be is named
 * by its line and left out; a column that is not known, or missing, stops the whole.
 */
export async function readStockCsv(text: string): Promise<ReadList> {
  // The heading, and one to see that there are more.
  const records = sheetRecords(text, MOST_ROWS + 2)
  if (typeof records === 'string') return { rows: [], wrong: [{ line: 1, message: records }] }
  const [head, ...body] = records
  if (!head) return { rows: [], wrong: [{ line: 1, message: 'The list is empty.' }] }
  const titles = head.record.map((t) => t.toLowerCase())
  const unknown = titles.filter((t) => !COLUMNS.some(([, title]) => title === t))
  const missing = ['kind', 'count'].filter((t) => !titles.includes(t))
  if (unknown.length > 0 || missing.length > 0) {
    const known = COLUMNS.map(([, title]) => title).join(', ')
    const what =
      unknown.length > 0 ? `The column “${unknown[0]}” is not known` : `The column “${missing[0]}” is missing`
    return { rows: [], wrong: [{ line: 1, message: `${what}; known are ${known}.` }] }
  }
  if (body.length > MOST_ROWS)
    return { rows: [], wrong: [{ line: 1, message: `At most ${MOST_ROWS} rows at once; split the list.` }] }
  const rows: ReadList['rows'] = []
  const wrong: WrongLine[] = []
  const seen = new Map<string, number>()
  for (const [i, { record, info }] of body.entries()) {
    if (i % ROWS_A_TURN === 0) await setImmediate()
    const row = rowOf(titles, record)
    const checked = await check(StockChange, row)
    if (!checked.ok) {
      wrong.push({ line: info.lines, message: `${checked.errors.map((e) => e.message).join('. ')}.` })
      continue
    }
    const same = identity(checked.value)
    const before = seen.get(same)
    if (before !== undefined) {
      wrong.push({ line: info.lines, message: `The same as line ${before}: give its whole count in one row.` })
      continue
    }
    seen.set(same, info.lines)
    rows.push({ line: info.lines, row: checked.value })
  }
  return { rows, wrong }
}

function rowOf(titles: string[], record: string[]): Record<string, unknown> {
  const cell = (title: string) => record[titles.indexOf(title)]?.trim() ?? ''
  const entries = COLUMNS.map(([key, title]) => {
    const words = titles.includes(title) ? cell(title) : ''
    if (!NUMBERS.has(key)) return [key, key === 'kind' ? kindOf(words) : words.replace(/^'(?=[=+\-@])/, '')]
    if (words === '') return [key, key === 'count' || key === 'lowAt' ? 0 : null]
    // What is no plain decimal number stays as it is, and is refused by its name.
    return [key, /^[+-]?\d+([.,]\d+)?$/.test(words) ? Number(words.replace(',', '.')) : words]
  })
  return { ...(Object.fromEntries(entries) as Record<string, unknown>), id: uuid(), version: 0 }
}

function kindOf(words: string): string {
  return STOCK_KINDS.find((k) => k === words.toLowerCase()) ?? words
}

/** What makes two rows the same thing: all but how many there are, and where. */
export function identity(row: Omit<StockChange, 'id' | 'version'>): string {
  const { kind, name, material, outsideMm, insideMm, lengthMm, measuredMm, widthMm, thickMm } = row
  return JSON.stringify([
    kind,
    name.toLowerCase(),
    material.toLowerCase(),
    outsideMm,
    insideMm,
    lengthMm,
    measuredMm,
    widthMm,
    thickMm,
  ])
}
