import type { ArchiveClash, ArchiveTold } from '@treadle/contract'
import { inArray, sql } from 'drizzle-orm'
import { isDeepStrictEqual } from 'node:util'
import type { Database } from '../db/connect.ts'
import { checkedRow, type Row } from './checkRow.ts'
import { Belonging } from './belonging.ts'
import type { LaidBy } from './laidBy.ts'
import type { ArchiveManifest } from './manifest.ts'
import type { Progress } from './progress.ts'
import { CARRIED, parentOf, SHOPS, type Carried, type CarriedName } from './tables.ts'
import type { FoundFile } from './wholeFiles.ts'
import { unreadable, type OpenZip } from './zip.ts'

const AT_ONCE = 200
const MOST_CLASHES = 100
/** What was written or agreed for good stays as it is here. */
const FOR_GOOD: ReadonlySet<CarriedName> = new Set<CarriedName>(['journal', 'estimates', 'gate_overrides'])
/** How often a row was changed is no difference, nor by whom it was brought; a visit’s number is this workshop’s own. */
const NOT_COMPARED = new Set(['version', 'brought', 'number', 'numberElsewhere'])

/** What is asked for of an archive besides what is new. */
export interface Asked {
  /** clashing rows that are taken as they are in it: all that may be, or each as TABLE~KEY */
  take: 'all' | ReadonlySet<string>
  /** tables of the shop’s own that are brought in over what is here */
  kinds: ReadonlySet<string>
}

/** What comes in, apart from rows: files that they show, visits with their numbers, gates that were set aside. */
export interface Coming {
  files: Set<string>
  /** of a visit that is new here: its number there, by its id */
  numbers: Map<string, { number: number; complaint: string }>
  /** rows that come to visits which stand here already, by visit and table */
  toVisits: Map<string, Map<CarriedName, number>>
}

/**
 * Reads the rows of an archive, checks each, lays it beside what is here, and lays by what is to come in. Nothing is
 * written, and nothing of the workshop is held.
 *
 * @throws Refused where a row is not what it must be, or hangs on what it may not
 */
export async function compareRows(
  db: Database,
  zip: OpenZip,
  { manifest, files }: { manifest: ArchiveManifest; files: Map<string, FoundFile> },
  asked: Asked,
  laidBy: LaidBy,
  told: ArchiveTold,
  progress: Progress,
): Promise<Coming> {
  const belonging = new Belonging(manifest, files)
  const coming: Coming = { files: new Set(), numbers: new Map(), toVisits: new Map() }
  const tables = CARRIED.filter(({ name }) => zip.has(`tables/${name}.jsonl`))
  const known = new Set(tables.map(({ name }) => `tables/${name}.jsonl`))
  for (const name of zip.names())
    if (name.startsWith('tables/') && !known.has(name)) throw unreadable(`It holds ${name}, which is no table of ours.`)
  const isEmpty = manifest.of === 'workshop' && (await isEmptyWorkshop(db))
  progress.begin(
    'compare',
    tables.reduce((sum, { name }) => sum + zip.bytesOf(`tables/${name}.jsonl`), 0),
  )
  for (const one of tables) {
    if (!belonging.takes(one)) {
      let rows = 0
      for await (const _ of zip.lines(`tables/${one.name}.jsonl`)) rows++
      if (rows > 0) told.leftOut.push({ table: one.name, rows })
      continue
    }
    const table = new ComparedTable(db, one, { belonging, asked, laidBy, told, coming, isEmpty })
    for await (const batch of batchesOf(zip, one, belonging, files, progress)) await table.meet(batch)
    table.tell()
  }
  told.freshFiles = coming.files.size
  return coming
}

/** Nobody and nothing is here yet; that its ways were set is no harm. */
async function isEmptyWorkshop(db: Database): Promise<boolean> {
  const besides: CarriedName[] = ['settings', 'journal', 'files']
  const any = CARRIED.filter(({ name }) => !besides.includes(name)).map(
    ({ table }) => sql`exists (select 1 from ${table})`,
  )
  const { rows } = await db.execute<{ any: boolean }>(sql`select ${sql.join(any, sql` or `)} as any`)
  return rows[0]?.any !== true
}

/** The rows of a table, checked, some at a time. */
async function* batchesOf(
  zip: OpenZip,
  one: Carried,
  belonging: Belonging,
  files: Map<string, FoundFile>,
  progress: Progress,
): AsyncGenerator<Row[]> {
  let batch: Row[] = []
  let line = 0
  for await (const text of zip.lines(`tables/${one.name}.jsonl`)) {
    line++
    progress.by(Buffer.byteLength(text) + 1)
    const row = checkedRow(one, parsed(text, `${one.name}, line ${line}`), line)
    belonging.requireOwn(one, row, `${one.name}, line ${line}`)
    if (one.name === 'files' && files.get(String(row.id))?.kind !== row.type)
      throw unreadable(`It lacks the file ${String(row.id)}, or that is of another kind than it says.`)
    batch.push(row)
    if (batch.length < AT_ONCE) continue
    yield batch
    batch = []
  }
  if (batch.length > 0) yield batch
}

function parsed(text: string, where: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw unreadable(`${where} can’t be read.`)
  }
}

interface Comparing {
  belonging: Belonging
  asked: Asked
  laidBy: LaidBy
  told: ArchiveTold
  coming: Coming
  isEmpty: boolean
}

/** One table of an archive, laid beside the one that is here. */
class ComparedTable {
  readonly #db: Database
  readonly #one: Carried
  readonly #with: Comparing
  #fresh = 0
  /** of the shop’s own, not asked for */
  readonly #unasked: { fresh: number; otherwise: number; rows: ArchiveClash[] } = { fresh: 0, otherwise: 0, rows: [] }
  #leftOut = 0

  constructor(db: Database, one: Carried, comparing: Comparing) {
    this.#db = db
    this.#one = one
    this.#with = comparing
  }

  async meet(batch: Row[]): Promise<void> {
    const one = this.#one
    // Files come in with the rows that show them.
    if (one.name === 'files') return
    await this.#with.belonging.link(this.#db, one, batch)
    const here = await rowsHere(this.#db, one, batch)
    for (const row of batch) {
      const mine = here.get(keyOf(one, row))
      if (mine) await this.#meetMine(row, mine)
      else await this.#meetNew(row)
    }
  }

  tell(): void {
    const { told } = this.#with
    const table = this.#one.name
    if (this.#fresh > 0) told.fresh.push({ table, rows: this.#fresh })
    if (this.#unasked.fresh + this.#unasked.otherwise > 0) told.shop.push({ table, ...this.#unasked })
    if (this.#leftOut > 0) told.leftOut.push({ table, rows: this.#leftOut })
  }

  async #meetNew(row: Row): Promise<void> {
    const one = this.#one
    const { told, asked, isEmpty, belonging } = this.#with
    // What it is promised to stays with the drawers that it was promised from; a promise of nothing is none.
    if ((one.name === 'reservations' && !isEmpty) || lacksItsLink(one, row)) {
      this.#leftOut++
      return
    }
    if (SHOPS.has(one.name) && !isEmpty && !asked.kinds.has(one.name)) {
      this.#unasked.fresh++
      this.#show(
        this.#unasked.rows,
        row,
        Object.keys(row).map((name) => ({ name, here: null, there: row[name] })),
      )
      return
    }
    this.#fresh++
    belonging.comesIn(one, row.id)
    if (one.name === 'gate_overrides') told.setAside++
    await this.#layBy(row)
  }

  async #meetMine(row: Row, mine: Row): Promise<void> {
    const one = this.#one
    const { told, asked, belonging } = this.#with
    belonging.comesIn(one, row.id)
    const parent = parentOf(one)
    if (parent && mine[parent.column] !== row[parent.column])
      throw unreadable(`${titled(one, row)} is another’s here, and stays with it.`)
    const fields = differences(row, mine)
    if (fields.length === 0) {
      told.same++
      return
    }
    if (SHOPS.has(one.name) && !asked.kinds.has(one.name)) {
      this.#unasked.otherwise++
      this.#show(this.#unasked.rows, row, fields)
      return
    }
    const mayTake = !FOR_GOOD.has(one.name)
    const taken =
      mayTake && (SHOPS.has(one.name) || asked.take === 'all' || asked.take.has(`${one.name}~${keyOf(one, row)}`))
    if (!taken) {
      if (told.clashes.length < MOST_CLASHES) this.#show(told.clashes, row, fields)
      else told.moreClashes++
      return
    }
    this.#show(told.taken, row, fields)
    await this.#layBy(row, { version: typeof mine.version === 'number' ? mine.version : null })
  }

  async #layBy(row: Row, over?: { version: number | null }): Promise<void> {
    const one = this.#one
    const { coming, laidBy } = this.#with
    for (const { column, of } of one.refs)
      if (!over && of === 'files' && typeof row[column] === 'string') coming.files.add(row[column])
    if (one.name === 'jobs' && !over)
      coming.numbers.set(String(row.id), { number: Number(row.number), complaint: String(row.complaint).slice(0, 80) })
    const visit = row.jobId
    if (typeof visit === 'string' && one.name !== 'journal' && !coming.numbers.has(visit)) {
      const tables = coming.toVisits.get(visit) ?? new Map<CarriedName, number>()
      coming.toVisits.set(visit, tables.set(one.name, (tables.get(one.name) ?? 0) + 1))
    }
    await laidBy.add({ table: one.name, row, ...(over && { over }) })
  }

  #show(list: ArchiveClash[], row: Row, fields: ArchiveClash['fields']): void {
    if (list.length >= MOST_CLASHES) return
    const one = this.#one
    list.push({ table: one.name, key: keyOf(one, row), title: titleOf(row), fields, mayTake: !FOR_GOOD.has(one.name) })
  }
}

/** Whether it points at something of the shop that is not here, and is nothing without it. */
function lacksItsLink(one: Carried, row: Row): boolean {
  return one.refs.some(({ column, of }) => SHOPS.has(of) && row[column] === null && one.columns[column]?.notNull)
}

function keyOf(one: Carried, row: Row): string {
  return one.keys.map((key) => String(row[key])).join('+')
}

function titleOf(row: Row): string {
  const said = ['name', 'title', 'key', 'part', 'arbor', 'complaint', 'text', 'kind', 'cause'].find(
    (key) => typeof row[key] === 'string' && row[key] !== '',
  )
  return said === undefined ? '' : String(row[said]).slice(0, 80)
}

function titled(one: Carried, row: Row): string {
  return `${one.name.replaceAll('_', ' ')}, “${titleOf(row)}”,`
}

async function rowsHere(db: Database, one: Carried, batch: Row[]): Promise<Map<string, Row>> {
  const [first] = one.keys
  if (first === undefined) return new Map()
  const ids = [...new Set(batch.map((row) => row[first]))]
  const found: Row[] = await db.select().from(one.table).where(inArray(one.columns[first]!, ids))
  return new Map(found.map((row) => [keyOf(one, row), row]))
}

/** The fields of a row that are not here as they are in the archive. */
function differences(row: Row, mine: Row): ArchiveClash['fields'] {
  const asJson = JSON.parse(JSON.stringify(mine)) as Row
  return Object.keys(row)
    .filter((key) => !NOT_COMPARED.has(key) && !isDeepStrictEqual(row[key] ?? null, asJson[key] ?? null))
    .map((name) => ({ name, here: asJson[name] ?? null, there: row[name] ?? null }))
}
