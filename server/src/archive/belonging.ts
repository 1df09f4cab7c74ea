import { inArray } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import type { Row } from './checkRow.ts'
import type { ArchiveManifest } from './manifest.ts'
import { CARRIED, carriedBy, parentOf, SHOPS, type Carried, type CarriedName } from './tables.ts'
import type { FoundFile } from './wholeFiles.ts'
import { unreadable } from './zip.ts'

/** What the first version carried with a clock for its rows’ sake. */
const ONCE_CARRIED: ReadonlySet<CarriedName> = new Set<CarriedName>([
  'people',
  'stock',
  'reservations',
  'oils',
  'donors',
])
/** Tables whose rows others hang on: of these it is known which are there. */
const POINTED_AT = new Set(CARRIED.flatMap(({ refs }) => refs.map((ref) => ref.of)))
/** A sound is pointed at by these; all else that points at a file shows a picture. */
const OF_SOUND = 'soundId'

/**
 * What each row of an archive hangs on. A clock’s archive holds that clock, its owner, and what hangs on them; in either
 * kind no row hangs on what is not in it, nor on another visit’s, nor shows another’s file.
 */
export class Belonging {
  readonly #manifest: ArchiveManifest
  readonly #files: Map<string, FoundFile>
  /** of each table that is pointed at: its rows’ ids, and what each hangs on itself */
  readonly #ids = new Map<CarriedName, Map<string, string>>()
  /** of the shop: what is known here, or comes in with this */
  readonly #links = new Map<CarriedName, Map<string, boolean>>()

  constructor(manifest: ArchiveManifest, files: Map<string, FoundFile>) {
    this.#manifest = manifest
    this.#files = files
  }

  /**
   * Whether a table's rows are looked at; not: they are left out.
   *
   * @throws Refused what a clock's archive may not hold
   */
  takes({ name }: Carried): boolean {
    const { of, version } = this.#manifest
    if (of === 'workshop' || !SHOPS.has(name)) return true
    if (version === 1 && ONCE_CARRIED.has(name)) return false
    throw unreadable(
      `A clock’s archive holds that clock: this one would bring ${name.replaceAll('_', ' ')}, which are the shop’s own.`,
    )
  }

  /** Notes a row, and refuses one that hangs on what it may not. */
  requireOwn(one: Carried, row: Row, where: string): void {
    const parent = parentOf(one)
    const id = typeof row.id === 'string' ? row.id : null
    for (const { column, of } of one.refs) {
      const to = row[column]
      if (typeof to !== 'string' || SHOPS.has(of)) continue
      if (of === 'files') this.#requireFile(to, column, where)
      else this.#requireThere(one, row, { column, of, to }, where)
    }
    if (this.#manifest.of === 'clock') this.#requireThatClock(one, row, where)
    if (id === null || !POINTED_AT.has(one.name)) return
    const ids = this.#ids.get(one.name) ?? new Map<string, string>()
    this.#ids.set(one.name, ids)
    if (ids.has(id)) throw unreadable(`${where}: it is there twice.`)
    ids.set(id, String(parent ? row[parent.column] : ''))
  }

  #requireFile(id: string, column: string, where: string): void {
    const file = this.#files.get(id)
    if (!file) throw unreadable(`It is not whole: ${where} shows the file ${id}, which is not in it.`)
    if ((file.kind === 'audio/wav') !== (column === OF_SOUND))
      throw unreadable(`${where}: ${column} is not what it must be.`)
  }

  #requireThere(
    one: Carried,
    row: Row,
    { column, of, to }: { column: string; of: CarriedName; to: string },
    where: string,
  ) {
    const hangsOn = this.#ids.get(of)?.get(to)
    if (hangsOn === undefined)
      throw unreadable(`It is not whole: a row points at one that is not in it.`, `${where}: ${column} is ${to}.`)
    const target = carriedBy(of)
    const [mine, theirs] = [parentOf(one), target && parentOf(target)]
    // What is a visit's own is shown by that visit's rows, and by those of its clock.
    if (!mine || mine.column === column || theirs?.of !== 'jobs') return
    const own = String(row[mine.column])
    const same = mine.of === 'jobs' ? hangsOn === own : this.#ids.get('jobs')?.get(hangsOn) === own
    if (!same) throw unreadable(`${where}: ${column} is another visit’s.`)
  }

  #requireThatClock({ name }: Carried, row: Row, where: string): void {
    const another = (what: string) => unreadable(`A clock’s archive holds that clock: ${where} is ${what}.`)
    if ((name === 'clocks' || name === 'owners') && (this.#ids.get(name)?.size ?? 0) > 0)
      throw another(`another ${name === 'clocks' ? 'clock' : 'owner'}`)
    if (name !== 'journal' || row.jobId) return
    const [clock] = this.#ids.get('clocks')?.keys() ?? []
    if (row.about !== 'clock' || row.aboutId !== clock) throw another('no entry of its own')
  }

  /** What of the rows’ pointers into the shop is known here is kept; the others point at nobody. */
  async link(queries: Queries, one: Carried, rows: Row[]): Promise<void> {
    for (const { column, of } of one.refs.filter((ref) => SHOPS.has(ref.of))) {
      const known = this.#links.get(of) ?? new Map<string, boolean>()
      this.#links.set(of, known)
      const asked = [...new Set(rows.map((r) => r[column]))].filter((id) => typeof id === 'string' && !known.has(id))
      const there = carriedBy(of)
      if (there && asked.length > 0) {
        const found = await queries
          .select({ id: there.columns.id! })
          .from(there.table)
          .where(inArray(there.columns.id!, asked))
        for (const id of asked as string[]) known.set(id, false)
        for (const { id } of found) known.set(String(id), true)
      }
      for (const row of rows) if (typeof row[column] === 'string' && known.get(row[column]) !== true) row[column] = null
    }
  }

  /** A row of the shop comes in: others may be linked to it. */
  comesIn({ name }: Carried, id: unknown): void {
    const known = this.#links.get(name) ?? new Map<string, boolean>()
    this.#links.set(name, known)
    if (typeof id === 'string') known.set(id, true)
  }
}
