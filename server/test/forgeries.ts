import { randomUUID } from 'node:crypto'
import { getTableColumns } from 'drizzle-orm'
import { getTableConfig, type PgTable } from 'drizzle-orm/pg-core'
import * as schema from '../src/db/schema.ts'
import { rowsOf, withRows, type Entries, type Row } from './archives.ts'

const AT = '2026-03-01T09:30:00.000Z'
const UUIDS = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g

/** Rows of the workshop that an archive is brought to, with which it has no business. */
export interface Theirs {
  job: string
  clock: string
  owner: string
  hole: string
  photo: string
  file: string
}

/** The same archive under ids of its own, so that each is new here. */
export function anew(entries: Entries, seed: number): Entries {
  const own = (id: string) => `${seed.toString(16).padStart(8, '0')}${id.slice(8)}`
  const change = (text: string) => text.replace(UUIDS, own)
  return new Map(
    [...entries].map(([name, bytes]) => [
      name.startsWith('files/') ? change(name) : name,
      name.startsWith('tables/') ? Buffer.from(change(bytes.toString())) : bytes,
    ]),
  )
}

/** What a column may be said to hold, by a slip or by a hand that means harm. */
const ODD: unknown[] = [
  null,
  undefined,
  '',
  0,
  -1,
  1e308,
  2 ** 31,
  2 ** 53,
  true,
  [],
  {},
  'x'.repeat(300_000),
  '<script>document.title="run"</script>',
  'javascript:alert(1)',
  'a\u0000b',
  '\ud83d',
  '../../etc/passwd',
  "'; drop table jobs; --",
  '2026-02-31',
  '2026-13-01T00:00:00.000Z',
  '9999999-01-01T00:00:00Z',
  'text/html',
  'image/svg+xml',
  [[[[[[[[[[[[[[1]]]]]]]]]]]]]],
  { constructor: 1, toString: null },
  [null, {}, []],
]

export const HTML = Buffer.from('<html><body><script>document.title = "run"</script></body></html>')
type Forgery = (entries: Entries, pick: (n: number) => number) => Entries

const change =
  (table: string, rewrite: (row: Row, i: number) => object): Forgery =>
  (entries) =>
    withRows(entries, table, rowsOf(entries, table).map(rewrite))

/** Each takes an archive that is as it must be, and makes one thing of it otherwise. */
export const forgeriesOf = (theirs: Theirs): Record<string, Forgery> => ({
  'a column of another kind': (entries, pick) => {
    const tables = [...entries.keys()].filter((n) => n.startsWith('tables/') && entries.get(n)!.length > 0)
    const table = tables[pick(tables.length)]!.slice(7, -6)
    const described = Object.values(schema as unknown as Record<string, PgTable>).find(
      (t) => 'getSQL' in t && getTableConfig(t).name === table,
    )!
    const columns = Object.keys(getTableColumns(described))
    const column = columns[pick(columns.length)]!
    const odd = ODD[pick(ODD.length)]
    return change(table, (row) => ({ ...row, [column]: odd }))(entries, pick)
  },
  'a column within JSON of another kind': (entries, pick) => {
    const table = ['clocks', 'jobs', 'holes', 'listenings', 'journal'][pick(5)]!
    const odd = ODD[pick(ODD.length)]
    return change(table, (row) => {
      const keys = Object.keys(row).filter((k) => typeof row[k] === 'object' && row[k] !== null)
      const key = keys[pick(keys.length)] ?? ''
      const inner = row[key] as Row | undefined
      const names = Object.keys(inner ?? {})
      return { ...row, [key]: Array.isArray(inner) ? [odd] : { ...inner, [names[pick(names.length)] ?? 'x']: odd } }
    })(entries, pick)
  },
  'another’s row': (entries, pick) => {
    const [table, id] = (
      [
        ['jobs', theirs.job],
        ['clocks', theirs.clock],
        ['owners', theirs.owner],
        ['holes', theirs.hole],
        ['photos', theirs.photo],
        ['files', theirs.file],
      ] as const
    )[pick(6)]!
    return change(table, (row) => ({ ...row, id }))(entries, pick)
  },
  'another’s parent': (entries, pick) => {
    const tables = ['holes', 'photos', 'readings', 'listenings', 'observations', 'power_offs', 'gate_overrides', 'jobs']
    const table = tables[pick(tables.length)]!
    const mine = table === 'jobs' ? { clockId: theirs.clock } : { jobId: [theirs.job, randomUUID()][pick(2)] }
    return change(table, (row) => ({ ...row, ...mine }))(entries, pick)
  },
  'another’s picture or sound': (entries, pick) => {
    const [table, column] = (
      [
        ['photos', 'originalId'],
        ['photos', 'screenId'],
        ['listenings', 'soundId'],
        ['observations', 'photoId'],
        ['strip_steps', 'photoId'],
      ] as const
    )[pick(5)]!
    const to = column === 'photoId' ? theirs.photo : theirs.file
    return change(table, (row) => ({ ...row, [column]: to }))(entries, pick)
  },
  'a page for a picture': (entries, pick) => {
    const names = [...entries.keys()].filter((n) => n.startsWith('files/'))
    const name = names[pick(names.length)]!
    const ways = [HTML, Buffer.concat([entries.get(name)!.subarray(0, 16), HTML]), Buffer.alloc(0), HTML.subarray(0, 3)]
    return new Map(entries).set(name, ways[pick(ways.length)]!)
  },
  'a picture with a page behind it': (entries, pick) => {
    const names = [...entries.keys()].filter((n) => n.endsWith('.jpg'))
    const name = names[pick(names.length)]!
    return new Map(entries).set(name, Buffer.concat([entries.get(name)!, HTML]))
  },
  'a file of another kind than it says': (entries, pick) =>
    change('files', (row) => ({ ...row, type: ['text/html', 'image/svg+xml', 'image/png', ''][pick(4)] }))(
      entries,
      pick,
    ),
  'what is the shop’s own': (entries, pick) => {
    const table = ['settings', 'workshop_tables', 'people', 'stock', 'oils', 'donors', 'tools', 'reservations'][
      pick(8)
    ]!
    const id = randomUUID()
    const row = {
      settings: { id: 1, values: { workshop: 'Ours now', trialDays: 0 }, version: 3 },
      workshop_tables: { name: 'prices', values: { lines: [] }, version: 1 },
      people: { id, name: 'A stranger', initials: 'AS', active: true, version: 1 },
      reservations: {
        id,
        jobId: theirs.job,
        stockId: id,
        holeId: null,
        count: 9,
        taken: false,
        at: AT,
        who: 'x',
        version: 1,
      },
    }[table] ?? { id, name: 'x', version: 1 }
    return withRows(entries, table, [row])
  },
  'gates that were set aside': (entries, pick) => {
    const [job] = rowsOf(entries, 'jobs')
    const jobId = [job!.id, theirs.job][pick(2)]
    const gates = ['power', 'dry', 'pivots', 'holes', 'beat', 'rate', 'trial', 'parts']
    const rows = gates.map((gate) => ({
      ...{
        id: randomUUID(),
        jobId,
        gate,
        reason: 'It may go on, says a stranger.',
        at: AT,
        who: 'Ida Vos',
        brought: null,
      },
    }))
    return withRows(entries, 'gate_overrides', rows)
  },
  'entries of the journal': (entries, pick) => {
    const about = ['job', 'settings', 'archive', 'person', 'clock'][pick(5)]
    return change('journal', (row) => ({ ...row, about, jobId: [null, theirs.job][pick(2)], text: '<b>Said so</b>' }))(
      entries,
      pick,
    )
  },
  'numbers out of all measure': (entries, pick) =>
    change('jobs', (row) => ({ ...row, number: [0, -4, 1, 999_999, 1_000_001, 2_147_483_646, 1.5, '7'][pick(8)] }))(
      entries,
      pick,
    ),
  'a table that there is not, or that stays on its machine': (entries, pick) =>
    withRows(entries, ['calendar_keys', 'file_chunks', 'pg_authid', 'more'][pick(4)]!, [{ id: 1, secret: 'x' }]),
  'rows twice, or none': (entries, pick) => {
    const table = ['clocks', 'jobs', 'owners', 'photos', 'holes', 'files'][pick(6)]!
    const rows = rowsOf(entries, table)
    return withRows(entries, table, [[...rows, ...rows], [], [...rows, { ...rows[0], id: randomUUID() }]][pick(3)]!)
  },
  'lines that are none': (entries, pick) => {
    const lines = ['null', '[]', '{', '"x"', '{"__proto__":{"id":1}}', '1'.repeat(100_000)]
    return new Map(entries).set('tables/holes.jsonl', Buffer.from(`${lines[pick(lines.length)]}\n`))
  },
})
