import {
  ClockChange,
  DonorChange,
  OilChange,
  Owner,
  Person,
  Settings,
  StockChange,
  ToolChange,
  WORKSHOP_TABLES,
  type ArchiveClash,
  type TableName,
} from '@treadle/contract'
import { isRowKind, wordsOfRows } from '../job/rowWords.ts'
import { same } from '../parts/clash.ts'
import { sayPlain, wordsOf, type FieldWords } from '../parts/fieldWords.ts'
import { spacedOut } from '../parts/say.ts'

const SHOP = {
  settings: Settings,
  clocks: ClockChange,
  owners: Owner,
  people: Person,
  stock: StockChange,
  oils: OilChange,
  donors: DonorChange,
  tools: ToolChange,
}
/** More of one row is not read. */
const MOST_SHOWN = 8
const LONGEST = 120

/** What stands here, and what would: one line of a row. */
export interface Difference {
  label: string
  here: string
  there: string
}

/** What of a row differs, field by field and in words; of lists, only what one of them has and the other has not. */
export function differencesInWords({ table, key, fields }: ArchiveClash): Difference[] {
  const words = wordsOfTable(table, key)
  const all = fields.flatMap(({ name, here, there }) =>
    // What a workshop keeps whole stands in one field, and is read field by field.
    leaves(name === 'values' ? '' : name, here, there).map(([path, was, is]) => {
      const word = words[path]
      const say = (value: unknown) => shortened(word ? word.say(value) : sayPlain(value))
      return { label: word?.label ?? spacedOut(path), here: say(was), there: say(is) }
    }),
  )
  const shown = all.filter(({ here, there }) => here !== there)
  const more = shown.length - MOST_SHOWN
  return more > 0
    ? [...shown.slice(0, MOST_SHOWN), { label: 'and', here: `${more} more`, there: `${more} more` }]
    : shown
}

function wordsOfTable(table: string, key: string): Record<string, FieldWords> {
  if (table === 'workshop_tables' && Object.hasOwn(WORKSHOP_TABLES, key))
    return wordsOf(WORKSHOP_TABLES[key as TableName].schema)
  if (Object.hasOwn(SHOP, table)) return wordsOf(SHOP[table as keyof typeof SHOP])
  const kind = table.replaceAll('_', '-')
  return isRowKind(kind) ? wordsOfRows(kind) : {}
}

type Leaf = [path: string, here: unknown, there: unknown]

function leaves(path: string, here: unknown, there: unknown): Leaf[] {
  if (same(here, there)) return []
  if (Array.isArray(here) && Array.isArray(there)) {
    const not = (of: unknown[], in_: unknown[]) => of.filter((one) => !in_.some((other) => same(one, other)))
    return [[path, not(here as unknown[], there as unknown[]), not(there as unknown[], here as unknown[])]]
  }
  if (!isObject(here) || !isObject(there)) return [[path, here, there]]
  return [...new Set([...Object.keys(here), ...Object.keys(there)])].flatMap((key) =>
    leaves(path === '' ? key : `${path}.${key}`, here[key], there[key]),
  )
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

const shortened = (words: string) => (words.length > LONGEST ? `${words.slice(0, LONGEST)}…` : words)
