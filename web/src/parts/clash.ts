import type { FieldWords } from './fieldWords.ts'

export type Row = Record<string, unknown>

/** A change that met somebody else's of the same row. */
export interface Change {
  words: Record<string, FieldWords>
  /** the row as it was changed from; none: it was begun anew */
  base?: object | undefined
  mine: object
  /** sends the row as it was chosen, onto their version and under the id that their row has */
  send: (row: Row, version: number, id: string) => void
  takeTheirs?: ((theirs: Row) => void) | undefined
}

export interface Clash extends Change {
  mine: Row
  theirs: Row
  /** fields by their path that both changed, each another way, and that people read */
  fields: string[]
  /** fields that I changed */
  touched: string[]
}

/** What of a change is mine, and what of it they changed too. */
export function clashOf(change: Change, theirs: Row): Clash {
  const mine = change.mine as Row
  const base = change.base as Row | undefined
  const touched = leavesOf(mine, theirs, base).filter((p) => !base || !same(valueAt(mine, p), valueAt(base, p)))
  const fields = touched.filter(
    (p) =>
      change.words[p] &&
      !same(valueAt(mine, p), valueAt(theirs, p)) &&
      (!base || !same(valueAt(theirs, p), valueAt(base, p))),
  )
  return { ...change, mine, theirs, fields, touched }
}

const BOOKKEEPING = new Set(['id', 'version', 'jobId', 'clockId', 'at', 'who', 'whoId', 'measuredBy', 'standing'])

/**
 * The fields of a change, each by its path: of an object that all have, its own fields ("pendulum.lengthMm"), so that
 * two people who change two figures of it do not take each other's back. A list is one field.
 */
function leavesOf(mine: Row, theirs: Row, base: Row | undefined, within = ''): string[] {
  return Object.keys(mine).flatMap((key) => {
    if (within === '' && BOOKKEEPING.has(key)) return []
    const [m, t, b] = [mine[key], theirs[key], base?.[key]]
    return isPlain(m) && isPlain(t) && (base === undefined || isPlain(b))
      ? leavesOf(m, t, base && (b as Row), `${within}${key}.`)
      : [`${within}${key}`]
  })
}

const isPlain = (value: unknown): value is Row => typeof value === 'object' && value !== null && !Array.isArray(value)

/** What stands in a row at a path. */
export function valueAt(row: Row, path: string): unknown {
  return path.split('.').reduce<unknown>((value, key) => (isPlain(value) ? value[key] : undefined), row)
}

/**
 * What a press changes a row from: the row without what the press says, so that what it says is its own even where it
 * says what stood there, as a take-back does.
 */
export function without<R extends object>(row: R, said: object): Partial<R> {
  return Object.fromEntries(Object.entries(row).filter(([key]) => !(key in said))) as Partial<R>
}

export type Choice = Record<string, 'mine' | 'theirs'>

/** Their row with my changes in it, but for those fields where theirs was chosen. */
export function merged({ mine, theirs, touched }: Clash, choice: Choice): Row {
  const row = structuredClone(Object.fromEntries(Object.keys(mine).map((k) => [k, k in theirs ? theirs[k] : mine[k]])))
  for (const path of touched) if (choice[path] !== 'theirs') put(row, path.split('.'), valueAt(mine, path))
  return row
}

function put(row: Row, [key = '', ...rest]: string[], value: unknown): void {
  if (rest.length === 0) row[key] = value
  else put(row[key] as Row, rest, value)
}

export const versionOf = (row: Row) => Number(row.version)

/** Whether two values say the same; an absent field and one that is null do. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b || (a ?? null) === (b ?? null)) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((k) => same((a as Row)[k], (b as Row)[k]))
}
