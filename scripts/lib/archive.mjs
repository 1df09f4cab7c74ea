import { createReadStream, createWriteStream } from 'node:fs'
import { createInterface } from 'node:readline'
import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import { createGunzip, createGzip } from 'node:zlib'

/** Tables in an order in which each finds what it points at. */
const TABLES = [
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
]
const FORMAT = 'treadle-backup-1'
const AT_ONCE = 20

/**
 * Writes the whole workshop, rows, photos and sounds, to one file: gzipped lines of JSON, a header and then a row each.
 *
 * All is read in one snapshot, a few rows at a time, so that the workshop may be worked in meanwhile.
 */
export async function writeArchive(client, file) {
  await client.query('begin isolation level repeatable read read only')
  try {
    await pipeline(Readable.from(lines(client)), createGzip(), createWriteStream(file, { mode: 0o600 }))
  } finally {
    await client.query('rollback')
  }
}

async function* lines(client) {
  const { rows } = await client.query('select count(*)::int as count from drizzle.__drizzle_migrations')
  yield `${JSON.stringify({ format: FORMAT, migrations: rows[0].count, at: new Date().toISOString() })}\n`
  for (const table of TABLES) {
    await client.query(`declare rows no scroll cursor for select to_jsonb(t)::text as row from ${table} t`)
    for (;;) {
      const got = await client.query(`fetch ${AT_ONCE} from rows`)
      for (const { row } of got.rows) yield `{"table":"${table}","row":${row}}\n`
      if (got.rowCount < AT_ONCE) break
    }
    await client.query('close rows')
  }
}

/** Brings an archive back into an empty workshop, all or nothing; returns how many rows. */
export async function readArchive(client, file) {
  for (const table of TABLES) {
    const { rowCount } = await client.query(`select 1 from ${table} limit 1`)
    if (rowCount > 0) throw new Error(`This workshop is not empty (${table} holds rows). Restore into an empty one.`)
  }
  const input = createReadStream(file).pipe(createGunzip())
  let count = 0
  let begun = null
  await client.query('begin')
  try {
    for await (const line of createInterface({ input, crlfDelay: Infinity })) {
      const entry = JSON.parse(line)
      if (!begun) {
        if (entry.format !== FORMAT) throw new Error('This file is not a Treadle backup.')
        const { rows } = await client.query('select count(*)::int as count from drizzle.__drizzle_migrations')
        if (entry.migrations > rows[0].count)
          throw new Error('This backup is of a newer Treadle. Bring Treadle up to date first.')
        begun = entry
        continue
      }
      if (!TABLES.includes(entry.table)) throw new Error(`The backup names a table that is not known: ${entry.table}.`)
      const row = begun.migrations < 7 ? await toldOfTheHole(client, entry) : entry.row
      // Columns that an older backup does not know keep their defaults.
      const columns = Object.keys(row)
      if (!columns.every((name) => /^[a-z_]+$/.test(name)))
        throw new Error(`The backup names a column that can’t be: ${entry.table}.`)
      const named = columns.map((name) => `"${name}"`).join(', ')
      await client.query(
        `insert into ${entry.table} (${named})
         select ${named} from jsonb_populate_record(null::${entry.table}, $1::jsonb)`,
        [JSON.stringify(row)],
      )
      count++
    }
    if (!begun) throw new Error('This file is empty.')
    await client.query(
      "select setval(pg_get_serial_sequence('jobs', 'number'), greatest(1, (select coalesce(max(number), 1) from jobs)))",
    )
    // A backup from before the drawers kept their cutters has them among its settings.
    if (begun.migrations < 6) await client.query('select carry_cutters()')
    await client.query('commit')
    return count
  } catch (error) {
    await client.query('rollback')
    throw error
  }
}

/** What was met in a hole stood with the work on it before it stood with the hole. */
async function toldOfTheHole(client, { table, row }) {
  if (table !== 'bushings') return row
  const { old, ...rest } = row
  if (old !== 'none') await client.query('update holes set old = $1 where id = $2', [old, rest.hole_id])
  return rest
}
