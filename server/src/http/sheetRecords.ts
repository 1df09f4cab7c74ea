import { parse } from 'csv-parse/sync'

interface SheetRecord {
  record: string[]
  info: { lines: number }
}

/**
 * The lines of a sheet, at most `most`, separated by commas, semicolons or tabs as its first line is; or why it can’t be
 * read. Lines may be longer or shorter than the first; cells come trimmed.
 */
export function sheetRecords(text: string, most: number): SheetRecord[] | string {
  const first = text.slice(0, text.search(/\r?\n|$/))
  try {
    return parse(text, {
      delimiter: [';', '\t'].find((d) => first.includes(d)) ?? ',',
      bom: true,
      trim: true,
      info: true,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
      to: most,
    }) as unknown as SheetRecord[]
  } catch (error) {
    return `It can’t be read as a list: ${(error as Error).message}`
  }
}
