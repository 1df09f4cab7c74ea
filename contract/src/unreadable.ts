import { line, only, string, type InferType } from './fields.ts'

/** A row that can’t be read as it stands, from a newer Treadle, a foreign hand or a slip long ago: it is left out of all else. */
export interface UnreadableRow {
  table: string
  /** its own id */
  id: string
  /** what it is of, as far as that can be read */
  title: string
  /** which of its fields can’t be read */
  field: string
}

/** Which of them is seen to. */
export const UnreadableChoice = only({
  table: line(60).required(),
  /** empty: its table has no ids */
  id: string().max(100).defined(),
  field: line(200).required(),
})
export type UnreadableChoice = InferType<typeof UnreadableChoice>
