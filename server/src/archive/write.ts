import { outlinesOf } from '@treadle/core'
import { and, eq, sql, type SQL } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import yazl from 'yazl'
import type { Database, Queries } from '../db/connect.ts'
import { files, holes, jobs, plateMaps } from '../db/schema.ts'
import { inOneMoment } from '../door/transaction.ts'
import { ENDINGS, isKept } from '../files/kinds.ts'
import { readFile } from '../files/store.ts'
import { plateSvg } from '../plates/svg.ts'
import { readSettings } from '../settings/store.ts'
import type { Row } from './checkRow.ts'
import { allRows, rowsOfClock, type Chosen } from './chosen.ts'
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, type ArchiveManifest } from './manifest.ts'
import { schemaOfTables } from './schemaOfTables.ts'
import { CARRIED, type Carried, type CarriedName } from './tables.ts'

/** Rows that are read together; of beats by the ten thousand, fewer. */
const AT_ONCE = 500
const FEWER: Record<string, number> = { listenings: 20, watches: 20 }

const ABOUT = `This is the history of a clock, or of a whole clock workshop, in open formats.

treadle.json   what this is, and the SHA-256 of every other file
schema.json    the fields of each table, as JSON Schema
tables/        a table each, a row a line, JSON
files/         photographs and sounds, by the id that rows give them
drawings/      plates as SVG, for reading; they are drawn anew from the rows
`

/**
 * Writes a clock’s whole history, or the whole workshop, into one zip at `path`: all of one moment.
 *
 * @param clockId - null: the workshop
 */
export async function writeArchive(
  db: Database,
  path: string,
  clockId: string | null,
  { at, version }: { at: Date; version: string },
): Promise<void> {
  await inOneMoment(db, async (tx) => {
    const chosen = clockId === null ? allRows() : await rowsOfClock(tx, clockId)
    const { workshop } = await readSettings(tx)
    const zip = new yazl.ZipFile()
    const entries: ArchiveManifest['entries'] = []
    const add = (name: string, content: AsyncIterable<Buffer>, compress: boolean, counted?: () => number) => {
      zip.addReadStreamLazy(name, { compress, mtime: at }, (done) => {
        const hash = createHash('sha256')
        let bytes = 0
        const seen = async function* () {
          for await (const chunk of content) {
            hash.update(chunk)
            bytes += chunk.length
            yield chunk
          }
          const rows = counted?.()
          entries.push({ path: name, bytes, sha256: hash.digest('hex'), ...(rows !== undefined && { rows }) })
        }
        done(null, Readable.from(seen()))
      })
    }
    const out = zip.outputStream as Readable
    zip.on('error', (error: Error) => out.destroy(error))
    add('about.txt', ofText(ABOUT), true)
    add('schema.json', ofText(`${JSON.stringify(schemaOfTables(), null, 2)}\n`), true)
    const kept = await filesOf(tx, chosen)
    const leaving = new LeftOut(kept.filter(({ type }) => !isKept(type)).map(({ id }) => id))
    for (const one of CARRIED) {
      const where = chosen.get(one.name)
      if (where === null) continue
      let rows = 0
      const lines = async function* () {
        for await (const batch of batchesOf(tx, one, where)) {
          const going = batch.filter((row) => leaving.goes(one, row))
          rows += going.length
          yield Buffer.from(going.map((row) => `${JSON.stringify(row)}\n`).join(''))
        }
      }
      add(`tables/${one.name}.jsonl`, lines(), true, () => rows)
    }
    for (const { id, type } of kept)
      // Sound and pictures hardly become smaller, and slowly.
      if (isKept(type)) add(`files/${id}.${ENDINGS[type]}`, readFile(tx, id), false)
    for (const { name, svg } of await drawingsOf(tx, clockId)) add(`drawings/${name}`, ofText(svg), true)
    // Its turn comes last: by then every other entry has been written and counted.
    zip.addReadStreamLazy('treadle.json', { mtime: at }, (done) => {
      const manifest: ArchiveManifest = {
        format: ARCHIVE_FORMAT,
        version: ARCHIVE_VERSION,
        of: clockId === null ? 'workshop' : 'clock',
        workshop,
        at: at.toISOString(),
        treadle: version,
        entries,
      }
      done(null, Readable.from([Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`)]))
    })
    zip.end()
    await pipeline(out, createWriteStream(path, { mode: 0o600 }))
  })
}

/**
 * What has no place in an archive, from before it was looked at: files of a kind that is not kept, and what can't be without
 * them. What points at one of these points at nothing.
 */
class LeftOut {
  readonly #ids: Map<CarriedName, Set<string>>

  constructor(files: string[]) {
    this.#ids = new Map([['files', new Set(files)]])
  }

  /** Whether a row goes with it; asked of each table after those that it points at. */
  goes(one: Carried, row: Row): boolean {
    const isLeft = (of: CarriedName, id: unknown) => this.#ids.get(of)?.has(String(id)) === true
    if (isLeft(one.name, row.id)) return false
    for (const { column, of } of one.refs) {
      if (!isLeft(of, row[column])) continue
      if (one.columns[column]?.notNull !== true) row[column] = null
      else {
        this.#ids.set(one.name, (this.#ids.get(one.name) ?? new Set()).add(String(row.id)))
        return false
      }
    }
    return true
  }
}

async function* ofText(text: string): AsyncGenerator<Buffer> {
  await Promise.resolve()
  yield Buffer.from(text)
}

/** The rows of a table in the order of their keys, some at a time. */
async function* batchesOf(tx: Queries, one: Carried, where: SQL | undefined): AsyncGenerator<Row[]> {
  const keys = one.keys.map((key) => one.columns[key]!)
  const atOnce = FEWER[one.name] ?? AT_ONCE
  let after: SQL | undefined
  for (;;) {
    const rows: Row[] = await tx
      .select(one.columns)
      .from(one.table)
      .where(and(where, after, one.name === 'files' ? eq(files.staged, false) : undefined))
      .orderBy(...keys)
      .limit(atOnce)
    if (rows.length > 0) yield rows
    const last = rows.at(-1)
    if (!last || rows.length < atOnce) return
    const values = one.keys.map((key) => sql`${last[key]}`)
    after = sql`(${sql.join(keys, sql`, `)}) > (${sql.join(values, sql`, `)})`
  }
}

async function filesOf(tx: Queries, chosen: Chosen): Promise<{ id: string; type: string }[]> {
  const where = chosen.get('files')
  if (where === null) return []
  return tx
    .select({ id: files.id, type: files.type })
    .from(files)
    .where(and(where, eq(files.staged, false)))
    .orderBy(files.id)
}

/** Plates as they are set out, with the holes of the last visit that measured any. */
async function drawingsOf(tx: Queries, clockId: string | null): Promise<{ name: string; svg: string }[]> {
  const maps = await tx
    .select()
    .from(plateMaps)
    .where(clockId === null ? undefined : eq(plateMaps.clockId, clockId))
  const drawn = []
  for (const map of maps) {
    const measured = await tx
      .select({ hole: holes, number: jobs.number })
      .from(holes)
      .innerJoin(jobs, eq(jobs.id, holes.jobId))
      .where(eq(jobs.clockId, map.clockId))
      .orderBy(jobs.number)
    const last = measured.at(-1)?.number
    const own = measured.filter((m) => m.number === last).map((m) => m.hole)
    for (const plate of ['front', 'back'] as const)
      drawn.push({ name: `${map.clockId}-${plate}-plate.svg`, svg: plateSvg(outlinesOf(map, own, plate)) })
  }
  return drawn
}
