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
  /** fields that both changed, each another way, and that people read */
  fields: string[]
  /** fields that I changed */
  touched: string[]
}

/** What of a change is mine, and what of it they changed too. */
export function clashOf(change: Change, theirs: Row): Clash {
  const mine = change.mine as Row
  const base = change.base as Row | undefined
  const touched = Object.keys(mine).filter((k) => !BOOKKEEPING.has(k) && (!base || !same(mine[k], base[k])))
  const fields = touched.filter(
    (k) => change.words[k] && !same(mine[k], theirs[k]) && (!base || !same(theirs[k], base[k])),
  )
  return { ...change, mine, theirs, fields, touched }
}

const BOOKKEEPING = new Set(['id', 'version', 'jobId', 'clockId', 'at', 'who', 'whoId', 'measuredBy', 'standing'])

export type Choice = Record<string, 'mine' | 'theirs'>

/** Their row with my changes in it, but for those fields where theirs was chosen. */
export function merged({ mine, theirs, touched }: Clash, choice: Choice): Row {
  const kept = Object.keys(mine).map((k): [string, unknown] => [
    k,
    touched.includes(k) && choice[k] !== 'theirs' ? mine[k] : k in theirs ? theirs[k] : mine[k],
  ])
  return Object.fromEntries(kept)
}

export const versionOf = (row: Row) => Number(row.version)

/** Whether two values say the same; an absent field and one that is null do. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b || (a ?? null) === (b ?? null)) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((k) => same((a as Row)[k], (b as Row)[k]))
}
