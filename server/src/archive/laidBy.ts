import { createReadStream } from 'node:fs'
import { appendFile } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import type { Row } from './checkRow.ts'
import type { CarriedName } from './tables.ts'

const HELD_CHARACTERS = 1_000_000

/** A row that is to be put in, or to take the place of the one of this version. */
export interface LaidRow {
  table: CarriedName
  row: Row
  /** of a row that stands here: on which version it is taken over; null: its table has none */
  over?: { version: number | null }
}

/**
 * Rows of an archive that were read and found right, laid by in a file until all of them are: what puts them in then has
 * nothing left to look at, and holds nothing for long.
 */
export class LaidBy {
  readonly #path: string
  #held: string[] = []
  #characters = 0
  count = 0

  constructor(path: string) {
    this.#path = path
  }

  async add(laid: LaidRow): Promise<void> {
    const line = `${JSON.stringify(laid)}\n`
    this.#held.push(line)
    this.#characters += line.length
    this.count++
    if (this.#characters > HELD_CHARACTERS) await this.#write()
  }

  /** What was laid by, in order: rows of one table and of the same fields together. */
  async *batches(most: number): AsyncGenerator<LaidRow[]> {
    await this.#write()
    let batch: LaidRow[] = []
    const shape = ({ table, row, over }: LaidRow) => (over ? '' : `${table} ${Object.keys(row).join()}`)
    for await (const line of createInterface({ input: createReadStream(this.#path), crlfDelay: Infinity })) {
      const laid = JSON.parse(line) as LaidRow
      const [first] = batch
      if (first && (batch.length >= most || laid.over || shape(first) !== shape(laid))) {
        yield batch
        batch = []
      }
      batch.push(laid)
    }
    if (batch.length > 0) yield batch
  }

  async #write(): Promise<void> {
    const text = this.#held.join('')
    this.#held = []
    this.#characters = 0
    await appendFile(this.#path, text, { mode: 0o600 })
  }
}
