import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream, renameSync, rmSync } from 'node:fs'
import { open } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import { sql } from './sql.mjs'

/** Tables in an order in which each finds what it points at. */
export const TABLES = [
  'people',
  'settings',
  'owners',
  'clocks',
  'jobs',
  'power_offs',
  'gate_overrides',
  'holes',
  'files',
  'file_chunks',
  'listenings',
  'readings',
  'rate_events',
  'photos',
  'journal',
  'observations',
  'conditions',
  'train_sheets',
  'confirmed_causes',
  'estimates',
  'invoices',
  'strip_marks',
  'strip_steps',
  'clean_parts',
  'timers',
  'now_marks',
  'workshop_tables',
  'calendar_keys',
  'plate_maps',
  'arbor_tests',
  'pivots',
  'stock',
  'bushings',
  'reservations',
  'stock_imports',
  'donors',
  'tools',
  'wheel_sheets',
  'spring_sheets',
  'suspensions',
  'escapement_sheets',
  'depth_trials',
  'made_parts',
  'oils',
  'dry_runs',
  'oil_sheets',
  'witnesses',
  'strike_counts',
  'watches',
  'watch_minutes',
  'watch_marks',
  'footings',
  'pendulums',
  'run_downs',
  'thermometers',
]
/** What is there once somebody has only looked: the calendar's address. A backup's own takes its place. */
const MADE_BY_LOOKING = new Set(['calendar_keys'])
const FORMAT = 'treadle-backup-2'
/** Has no closing line, so nobody can tell whether it is whole. */
const OLDER_FORMAT = 'treadle-backup-1'
/** Rows that are read together; of pictures, a megabyte each, and of beats by the ten thousand, fewer. */
const READ_AT_ONCE = 200
const FEWER = { file_chunks: 4, listenings: 10 }
/** Rows that are written together: so many, or so many characters, whichever is reached first. */
const MOST_ROWS = 500
const MOST_CHARACTERS = 3_000_000
/** A row is a megabyte of a picture at most, which takes two as text. */
const LONGEST_LINE = 64_000_000
/** Of rows from before there could be one of a kind only. */
const ONE_OF_A_KIND = 8
const EACH_TRAIN_DRY = 11

/** A backup that can't be brought back; the message says why, and nothing was written. */
class ArchiveError extends Error {}

/**
 * Writes the whole workshop, rows, photos and sounds, to one file: gzipped lines of JSON. A header, a row each, and a last
 * line that counts the rows and carries the SHA-256 of all before it.
 *
 * All is read in one snapshot, a few rows at a time, so that the workshop may be worked in meanwhile. The file is written
 * beside its place and put there once it is whole and on the disk, so that one that was there before is never half gone.
 *
 * @returns how many rows
 */
export async function writeArchive(client, file) {
  const fresh = `${file}.part`
  const count = { rows: 0 }
  await client.query('begin isolation level repeatable read read only')
  try {
    await pipeline(Readable.from(lines(client, count)), createGzip(), createWriteStream(fresh, { mode: 0o600 }))
    const written = await open(fresh, 'r+')
    await written.sync().finally(() => written.close())
    renameSync(fresh, file)
    return count.rows
  } catch (error) {
    rmSync(fresh, { force: true })
    throw error
  } finally {
    // A connection that was lost has nothing to undo; what failed before is what is told.
    await client.query('rollback').catch(() => undefined)
  }
}

async function* lines(client, count) {
  const digest = createHash('sha256')
  const line = (text) => {
    digest.update(text)
    return text
  }
  const { rows } = await client.query('select count(*)::int as count from drizzle.__drizzle_migrations')
  yield line(`${JSON.stringify({ format: FORMAT, migrations: rows[0].count, at: new Date().toISOString() })}\n`)
  // A workshop that is not brought up to date yet has no later tables, and is backed up as it is.
  const there = await client.query("select tablename from pg_tables where schemaname = 'public'")
  const known = new Set(there.rows.map((t) => t.tablename))
  for (const table of TABLES.filter((name) => known.has(name))) {
    await client.query(`declare rows no scroll cursor for select to_jsonb(t)::text as row from ${table} t`)
    const atOnce = FEWER[table] ?? READ_AT_ONCE
    for (;;) {
      const got = await client.query(`fetch ${atOnce} from rows`)
      for (const { row } of got.rows) yield line(`{"table":"${table}","row":${row}}\n`)
      count.rows += got.rowCount
      if (got.rowCount < atOnce) break
    }
    await client.query('close rows')
  }
  yield `${JSON.stringify({ end: true, rows: count.rows, sha256: digest.digest('hex') })}\n`
}

/**
 * Brings an archive back into an empty workshop, all or nothing; returns how many rows.
 *
 * It is read twice: once to the end, to see that it is whole and as it was written, before a row is put in. `older`
 * allows one of before closing lines.
 *
 * @throws ArchiveError
 */
export async function readArchive(client, file, { older = false } = {}) {
  for (const table of TABLES) {
    if (MADE_BY_LOOKING.has(table)) continue
    const { rowCount } = await client.query(`select 1 from ${table} limit 1`)
    if (rowCount > 0)
      throw new ArchiveError(`This workshop is not empty (${table} holds rows). Restore into an empty one.`)
  }
  const { migrations } = await inspect(client, file, older)
  await client.query('begin')
  try {
    const unique = migrations < ONE_OF_A_KIND ? await withoutUnique(client) : []
    const rows = await putIn(client, file, migrations)
    // A backup from before the drawers kept their cutters has them among its settings.
    if (migrations < 6) await client.query('select carry_cutters()')
    if (migrations < ONE_OF_A_KIND) await client.query('select settle_older()')
    // One from before each train was run dry by itself says it once for the whole clock.
    if (migrations < EACH_TRAIN_DRY) await client.query('select carry_dry_runs()')
    for (const index of unique) await client.query(index)
    await client.query('commit')
    return rows
  } catch (error) {
    await client.query('rollback').catch(() => undefined)
    throw error
  }
}

/** Reads a backup to its end and refuses it unless it is whole, unchanged and of a Treadle no newer than this. */
async function inspect(client, file, older) {
  const digest = createHash('sha256')
  let header = null
  let end = null
  let rows = 0
  for await (const line of linesOf(file)) {
    if (end) throw new ArchiveError('Something follows the closing line of this backup: it has been changed.')
    if (!header) {
      header = parsed(line)
      if (header.format !== FORMAT && header.format !== OLDER_FORMAT)
        throw new ArchiveError('This file is not a Treadle backup.')
    } else if (line.length < 200 && line.startsWith('{"end":true')) {
      end = parsed(line)
      continue
    } else rows++
    digest.update(line).update('\n')
  }
  if (!header) throw new ArchiveError('This file is empty.')
  const known = await client.query('select count(*)::int as count from drizzle.__drizzle_migrations')
  if (header.migrations > known.rows[0].count)
    throw new ArchiveError('This backup is of a newer Treadle. Bring Treadle up to date first.')
  if (header.format === OLDER_FORMAT) {
    if (!older)
      throw new ArchiveError(
        'This backup is of an older kind, without a closing line, so nobody can tell whether it is whole. To bring it back all the same, add --older.',
      )
    return header
  }
  if (!end) throw new ArchiveError('This backup is cut short: its closing line is missing.')
  if (end.rows !== rows)
    throw new ArchiveError(`This backup has been changed: it tells of ${end.rows} rows and holds ${rows}.`)
  if (end.sha256 !== digest.digest('hex'))
    throw new ArchiveError('This backup has been changed since it was written: its digest does not fit.')
  return header
}

async function putIn(client, file, migrations) {
  let count = 0
  let begun = false
  let batch = { table: '', columns: '', rows: [], characters: 0 }
  const flush = async () => {
    const { table, columns, rows } = batch
    batch = { table: '', columns: '', rows: [], characters: 0 }
    if (rows.length === 0) return
    await client.query(
      `insert into ${table} (${columns}) select ${columns} from jsonb_populate_recordset(null::${table}, $1::jsonb)`,
      [`[${rows.join(',')}]`],
    )
    count += rows.length
  }
  for await (const line of linesOf(file)) {
    if (!begun) {
      begun = true
      continue
    }
    const entry = parsed(line)
    if (entry.end === true) break
    const { table } = entry
    if (!TABLES.includes(table)) throw new ArchiveError(`The backup names a table that is not known: ${table}.`)
    if (MADE_BY_LOOKING.has(table)) await client.query(`delete from ${table}`)
    const row = migrations < 7 && table === 'bushings' ? await toldOfTheHole(client, entry.row) : entry.row
    // Columns that an older backup does not know keep their defaults.
    const names = Object.keys(row)
    if (!names.every((name) => /^[a-z_]+$/.test(name)))
      throw new ArchiveError(`The backup names a column that can’t be: ${table}.`)
    const columns = names.map((name) => `"${name}"`).join(', ')
    if (batch.table !== table || batch.columns !== columns) {
      await flush()
      batch = { ...batch, table, columns }
    }
    const text = JSON.stringify(row)
    batch.rows.push(text)
    batch.characters += text.length
    if (batch.rows.length >= MOST_ROWS || batch.characters >= MOST_CHARACTERS) await flush()
  }
  await flush()
  return count
}

/** The lines of a gzipped file, one at a time; no more of it is held than the line and a piece of the next. */
async function* linesOf(file) {
  const source = createReadStream(file)
  const plain = createGunzip()
  source.on('error', (error) => plain.destroy(error))
  source.pipe(plain)
  let held = []
  let length = 0
  try {
    for await (const chunk of plain) {
      let from = 0
      for (let at = chunk.indexOf(10); at >= 0; at = chunk.indexOf(10, from)) {
        held.push(chunk.subarray(from, at))
        yield Buffer.concat(held).toString('utf8')
        held = []
        length = 0
        from = at + 1
      }
      const rest = chunk.subarray(from)
      held.push(rest)
      length += rest.length
      if (length > LONGEST_LINE) throw new ArchiveError('This file is not a Treadle backup: a line of it has no end.')
    }
  } catch (error) {
    if (error.code === 'Z_BUF_ERROR') throw new ArchiveError('This backup is cut short.')
    if (error.code?.startsWith('Z_'))
      throw new ArchiveError('This file is no backup, or is damaged: it can’t be unpacked.')
    throw error
  } finally {
    source.destroy()
    plain.destroy()
  }
  if (length > 0) throw new ArchiveError('This backup is cut short: its last line has no end.')
}

function parsed(line) {
  try {
    return JSON.parse(line)
  } catch {
    throw new ArchiveError('This backup is damaged: a line of it can’t be read.')
  }
}

/** Takes away what lets one row of a kind in only, so that older ones come in; gives what makes it anew. */
async function withoutUnique(client) {
  const { rows } = await client.query(sql('unique-indexes'))
  for (const { indexname } of rows) await client.query(`drop index ${indexname}`)
  return rows.map((row) => row.indexdef)
}

/** What was met in a hole stood with the work on it before it stood with the hole. */
async function toldOfTheHole(client, row) {
  const { old, ...rest } = row
  if (old !== 'none') await client.query('update holes set old = $1 where id = $2', [old, rest.hole_id])
  return rest
}
