import type { ArchiveClash, ArchiveTold } from '@treadle/contract'
import { and, eq, inArray, sql } from 'drizzle-orm'
import { isDeepStrictEqual } from 'node:util'
import pg from 'pg'
import type { Queries } from '../db/connect.ts'
import { jobs } from '../db/schema.ts'
import { digestOf, storeFile } from '../files/store.ts'
import { checkedRow } from './checkRow.ts'
import { requireKind } from './fileKinds.ts'
import { ARCHIVE_VERSION, ArchiveManifest } from './manifest.ts'
import { CARRIED, type Carried } from './tables.ts'
import { OpenZip, unreadable } from './zip.ts'

const AT_ONCE = 200
const MOST_CLASHES = 100
const MOST_LINE = 20_000_000
/** What was written or agreed for good stays as it is here. */
const FOR_GOOD = new Set(['journal', 'estimates', 'files'])
/** How often a row was changed is no difference; a visit’s number is this workshop’s own. */
const NOT_COMPARED: Record<string, string[]> = { jobs: ['number', 'version'] }

/** Clashing rows that are taken as they are in the archive: all that may be, or each as TABLE~KEY. */
export type Take = 'all' | Set<string>

type Row = Record<string, unknown>
/** A row as the archive has it, and as it may be put in. */
interface Read {
  raw: Row
  values: Row
}

/**
 * Reads an archive against this workshop, and, where `keep`, puts in what is not here yet. What stands here otherwise is
 * told and stays, unless it is among what is taken. All or nothing: whoever calls holds the transaction.
 *
 * @throws Refused an archive that was changed, cut, is too large, of a newer Treadle, or whose rows are not what they must be
 */
export async function bringIn(tx: Queries, path: string, keep: boolean, take: Take): Promise<ArchiveTold> {
  const zip = await OpenZip.open(path)
  try {
    const manifest = await manifestOf(zip)
    await requireWhole(zip, manifest)
    const told: ArchiveTold = {
      ...{ of: manifest.of, workshop: manifest.workshop, at: manifest.at, kept: keep },
      ...{ fresh: [], same: 0, freshFiles: 0, sameFiles: 0, clashes: [], moreClashes: 0, taken: [], renumbered: [] },
    }
    for (const one of CARRIED) {
      const name = `tables/${one.name}.jsonl`
      if (!zip.entries.has(name)) continue
      let fresh = 0
      for await (const batch of batchesOf(zip, one, name))
        fresh += await meet(tx, one, batch, { told, keep, take, zip })
      if (fresh > 0) told.fresh.push({ table: one.name, rows: fresh })
    }
    if (keep) await numberOn(tx)
    return told
  } catch (error) {
    throw pointsAtNothing(error) ?? error
  } finally {
    zip.close()
  }
}

/** A row that points at one that is neither here nor in the archive. */
function pointsAtNothing(error: unknown): Error | null {
  const cause = error instanceof Error && error.cause instanceof pg.DatabaseError ? error.cause : error
  if (!(cause instanceof pg.DatabaseError)) return null
  if (cause.code === '23503') return unreadable('It is not whole: a row points at one that is not in it.', cause.detail)
  return cause.code === '23505' || cause.code?.startsWith('22')
    ? unreadable('It does not fit what is here.', cause.detail ?? cause.message)
    : null
}

async function manifestOf(zip: OpenZip): Promise<ArchiveManifest> {
  if (!zip.entries.has('treadle.json')) throw unreadable('This zip is no Treadle archive: it has no treadle.json.')
  const { bytes } = await zip.read('treadle.json')
  const text = await allOf(bytes)
  let said: unknown
  try {
    said = JSON.parse(text)
  } catch {
    throw unreadable('Its treadle.json can’t be read.')
  }
  // Of a newer one nobody knows what its fields are.
  const { version } = (said ?? {}) as { version?: unknown }
  if (typeof version === 'number' && version > ARCHIVE_VERSION)
    throw unreadable('It is of a newer Treadle. Bring this one up to date first.')
  try {
    return ArchiveManifest.validateSync(said, { strict: true })
  } catch (error) {
    throw unreadable('Its treadle.json is not what it must be.', error instanceof Error ? error.message : '')
  }
}

/** Every entry is there, and as it was written; nothing else is. */
async function requireWhole(zip: OpenZip, { entries }: ArchiveManifest): Promise<void> {
  const said = new Set(entries.map((e) => e.path))
  for (const name of zip.entries.keys())
    if (name !== 'treadle.json' && !said.has(name)) throw unreadable(`It holds ${name}, of which it says nothing.`)
  for (const { path, sha256: digest } of entries) {
    const { bytes, sha256 } = await zip.read(path)
    let first = true
    for await (const chunk of bytes) {
      if (first && path.startsWith('files/')) requireKind(path, chunk)
      first = false
    }
    if (sha256() !== digest) throw unreadable(`${path} was changed after it was written.`)
  }
}

async function allOf(bytes: AsyncIterable<Buffer>): Promise<string> {
  const parts: Buffer[] = []
  for await (const chunk of bytes) parts.push(chunk)
  return Buffer.concat(parts).toString('utf8')
}

/** The rows of a table, checked, some at a time. */
async function* batchesOf(zip: OpenZip, one: Carried, name: string): AsyncGenerator<Read[]> {
  const { bytes } = await zip.read(name)
  let batch: Read[] = []
  let line = 0
  for await (const text of linesOf(bytes)) {
    line++
    let raw: unknown
    try {
      raw = JSON.parse(text)
    } catch {
      throw unreadable(`${one.name}, line ${line} can’t be read.`)
    }
    batch.push({ values: checkedRow(one, raw, line), raw: raw as Row })
    if (batch.length < AT_ONCE) continue
    yield batch
    batch = []
  }
  if (batch.length > 0) yield batch
}

async function* linesOf(bytes: AsyncIterable<Buffer>): AsyncGenerator<string> {
  let rest: Buffer = Buffer.alloc(0)
  for await (const chunk of bytes) {
    rest = rest.length === 0 ? chunk : Buffer.concat([rest, chunk])
    let from = 0
    for (let end = rest.indexOf(10, from); end >= 0; end = rest.indexOf(10, from)) {
      if (end > from) yield rest.toString('utf8', from, end)
      from = end + 1
    }
    rest = rest.subarray(from)
    if (rest.length > MOST_LINE) throw unreadable('It holds a row that is far too long.')
  }
  if (rest.length > 0) yield rest.toString('utf8')
}

interface Meeting {
  told: ArchiveTold
  keep: boolean
  take: Take
  zip: OpenZip
}

/** Lays rows beside what is here; says how many are new, and puts them in where they are to be kept. */
async function meet(tx: Queries, one: Carried, batch: Read[], meeting: Meeting): Promise<number> {
  const { told, keep, take } = meeting
  const here = await rowsHere(tx, one, batch)
  let fresh = 0
  for (const { raw, values } of batch) {
    const key = keyOf(one, raw)
    const mine = here.get(key)
    if (!mine) {
      fresh++
      if (one.name === 'files') told.freshFiles++
      await put(tx, one, values, meeting)
      continue
    }
    const differ = differences(one, raw, mine)
    if (differ.length === 0 && (one.name !== 'files' || (await sameBytes(tx, meeting.zip, raw)))) {
      if (one.name === 'files') told.sameFiles++
      else told.same++
      continue
    }
    const mayTake = !FOR_GOOD.has(one.name)
    const clash: ArchiveClash = { table: one.name, key, title: titleOf(raw), fields: differ, mayTake }
    if (keep && mayTake && (take === 'all' || take.has(`${one.name}~${key}`))) {
      await takeOver(tx, one, values, mine)
      told.taken.push(clash)
      continue
    }
    if (told.clashes.length < MOST_CLASHES) told.clashes.push(clash)
    else told.moreClashes++
  }
  return fresh
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

async function rowsHere(tx: Queries, one: Carried, batch: Read[]): Promise<Map<string, Row>> {
  const [first] = one.keys
  if (first === undefined) return new Map()
  const column = one.columns[first]!
  const ids = [...new Set(batch.map((b) => b.values[first]))]
  const found: Row[] = await tx.select().from(one.table).where(inArray(column, ids))
  return new Map(found.map((row) => [keyOf(one, row), row]))
}

/** The fields of a row that are not here as they are in the archive. */
function differences(one: Carried, raw: Row, mine: Row): ArchiveClash['fields'] {
  const apart = NOT_COMPARED[one.name] ?? ['version']
  const asJson = JSON.parse(JSON.stringify(mine)) as Row
  return Object.keys(raw)
    .filter((key) => !apart.includes(key) && !isDeepStrictEqual(raw[key] ?? null, asJson[key] ?? null))
    .map((name) => ({ name, here: asJson[name] ?? null, there: raw[name] ?? null }))
}

function entryOf(zip: OpenZip, id: string): string | undefined {
  return ['jpg', 'png', 'webp', 'wav'].map((e) => `files/${id}.${e}`).find((name) => zip.entries.has(name))
}

async function sameBytes(tx: Queries, zip: OpenZip, raw: Row): Promise<boolean> {
  const name = entryOf(zip, String(raw.id))
  if (name === undefined) return true
  const { bytes, sha256 } = await zip.read(name)
  for await (const _ of bytes);
  return sha256() === (await digestOf(tx, String(raw.id)))
}

async function put(tx: Queries, one: Carried, values: Row, { told, keep, zip }: Meeting): Promise<void> {
  if (one.name === 'files') {
    const id = String(values.id)
    const name = entryOf(zip, id)
    if (name === undefined) throw unreadable(`It lacks the file ${id}.`)
    if (!keep) return
    const { bytes } = await zip.read(name)
    await storeFile(tx, id, String(values.type), bytes)
    return
  }
  const row = one.name === 'jobs' ? await numbered(tx, values, told, keep) : values
  if (keep) await tx.insert(one.table).values(row)
}

/** No workshop has had so many visits. */
const MOST_NUMBER = 1_000_000

/** The next visit that is taken in has a number that nobody has: what serves may only count on, so it does. */
async function numberOn(tx: Queries): Promise<void> {
  await tx.execute(sql`
    with next as (select nextval(pg_get_serial_sequence('jobs', 'number')) as number)
    select count(nextval(pg_get_serial_sequence('jobs', 'number')))
    from next, generate_series(next.number + 1, (select coalesce(max(number), 1) from jobs))`)
}

/** A visit keeps its number where nobody else has it; else the next one here. */
async function numbered(tx: Queries, values: Row, told: ArchiveTold, keep: boolean): Promise<Row> {
  const was = Number(values.number)
  if (was > MOST_NUMBER) throw unreadable(`A visit has the number ${was}, which is no visit’s.`)
  const [other] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.number, was))
  if (!other) return values
  let now: number | null = null
  if (keep) {
    const [highest] = await tx.select({ number: sql<number>`max(${jobs.number})` }).from(jobs)
    now = Number(highest?.number ?? 0) + 1
  }
  told.renumbered.push({ clock: String(values.complaint).slice(0, 80), was, now })
  return { ...values, number: now ?? was }
}

/** The row as the archive has it, as a change of what is here: pages that show it then see that it was changed. */
async function takeOver(tx: Queries, one: Carried, values: Row, mine: Row): Promise<void> {
  const where = and(...one.keys.map((key) => eq(one.columns[key]!, mine[key])))
  const { version: _, number: _n, ...rest } = values
  const next = typeof mine.version === 'number' ? { version: mine.version + 1 } : {}
  await tx
    .update(one.table)
    .set({ ...rest, ...next })
    .where(where)
}
