import * as contract from '@treadle/contract'
import type { JobPage } from '@treadle/contract'
import { describe, expect, test } from 'vitest'
import { isSchema, type ObjectSchema, type Schema } from 'yup'
import { rowShown, withRow } from '../src/data/withRow.ts'
import { wordsOfRows, type RowKind } from '../src/job/rowWords.ts'
import { boundsOfField } from '../src/parts/boundsOfField.ts'
import { PAGE } from './page.ts'

/** Every schema of the contract that describes a row of named fields. */
const SCHEMAS = Object.entries(contract as Record<string, unknown>).flatMap(([name, schema]) =>
  isSchema(schema) && schema.describe().type === 'object' ? [{ name, schema: schema as ObjectSchema<object> }] : [],
)

function accepts(schema: Schema<unknown>, field: string, value: number): boolean {
  try {
    ;(schema as ObjectSchema<object>).validateSyncAt(field, { [field]: value })
    return true
  } catch {
    return false
  }
}

/** Every figure of every schema that has both its bounds, with them. */
const FIGURES = SCHEMAS.flatMap(({ name, schema }) =>
  Object.entries(schema.describe().fields).flatMap(([field, { type }]) => {
    const { min, max, whole } = boundsOfField([schema, field])
    return type === 'number' && min !== undefined && max !== undefined
      ? [{ name, schema, field, min, max, whole: whole ?? false }]
      : []
  }),
)

describe('the bounds of a figure', () => {
  test('are there for the figures of the bench', () => {
    expect(FIGURES.length).toBeGreaterThan(100)
    expect(boundsOfField([contract.HoleChange, 'longAxisMm'])).toEqual({ min: 0.05, max: 50, whole: false })
    expect(boundsOfField([contract.HoleChange, 'arborIndex'])).toEqual({ min: 0, max: 12, whole: true })
  })

  test('are what the schema accepts: their ends are, and what lies just outside is refused', () => {
    for (const { name, schema, field, min, max, whole } of FIGURES) {
      const beyond = whole ? 1 : Math.max(1e-6, 1e-9 * Math.abs(max))
      const asked = [min, max, min - beyond, max + beyond, ...(whole && max > min ? [min + 0.5] : [])]
      const wanted = [true, true, false, false, ...(whole && max > min ? [false] : [])]
      expect([name, field, asked.map((v) => accepts(schema, field, v))]).toEqual([name, field, wanted])
    }
  })

  test('a field without any, or of no schema, has none', () => {
    expect(boundsOfField(undefined)).toEqual({})
    expect(boundsOfField([contract.HoleChange, 'bushed'])).toMatchObject({ min: undefined, max: undefined })
    expect(boundsOfField([contract.HoleChange, 'no such field'])).toMatchObject({ min: undefined, max: undefined })
  })
})

/** Where the page of a job shows each kind of row. */
const LISTS: Record<RowKind, keyof JobPage> = {
  'arbor-tests': 'arborTests',
  bushings: 'bushings',
  causes: 'confirmedCauses',
  'clean-parts': 'cleanParts',
  conditions: 'conditions',
  depths: 'depths',
  'dry-runs': 'dryRuns',
  escapements: 'escapements',
  estimates: 'estimates',
  events: 'events',
  footings: 'footings',
  holes: 'holes',
  invoices: 'invoices',
  'made-parts': 'madeParts',
  observations: 'observations',
  'oil-sheets': 'oilSheets',
  pendulums: 'pendulums',
  pivots: 'pivots',
  readings: 'readings',
  reservations: 'reservations',
  'run-downs': 'runDowns',
  springs: 'springs',
  suspensions: 'suspensions',
  'strike-counts': 'strikeCounts',
  'strip-marks': 'stripMarks',
  'strip-steps': 'stripSteps',
  timers: 'timers',
  trains: 'trainSheets',
  watches: 'watches',
  wheels: 'wheels',
  witnesses: 'witnesses',
}
/** What changes other rows when it is written: the page is asked for anew. */
const CHANGES_OTHERS: RowKind[] = ['bushings', 'reservations', 'trains', 'springs', 'escapements']
const KINDS = Object.entries(LISTS) as [RowKind, keyof JobPage][]

describe('rows of a job', () => {
  test.each(KINDS)('%s are found where the page shows them, and nowhere else', (kind, list) => {
    const row = { id: 'r' }
    expect(rowShown({ ...PAGE, [list]: [row] }, kind, 'r')).toBe(row)
    expect(rowShown({ ...PAGE, [list]: [row] }, kind, 'another')).toBeUndefined()
    const elsewhere = Object.fromEntries(KINDS.filter(([, other]) => other !== list).map(([, other]) => [other, [row]]))
    expect(rowShown({ ...PAGE, ...elsewhere }, kind, 'r')).toBeUndefined()
  })

  test.each(KINDS)('%s that were kept come into their own list only, or the page is asked for anew', (kind, list) => {
    const standing = { gates: [], owed: [] }
    const now = withRow(PAGE, `/jobs/j/${kind}/r`, { id: 'r', standing })
    expect(now === null).toBe(CHANGES_OTHERS.includes(kind))
    if (now === null) return
    expect((now[list] as { id: string }[]).map((r) => r.id)).toContain('r')
    const others = (page: JobPage) => KINDS.filter(([, other]) => other !== list).map(([, other]) => page[other])
    expect(others(now)).toEqual(others(PAGE))
  })

  test.each(KINDS)('the fields of %s have words of their own, and none that is for no reader', (kind) => {
    const words = wordsOfRows(kind)
    expect(Object.keys(words).length).toBeGreaterThan(0)
    expect(words).not.toHaveProperty('id')
    expect(words).not.toHaveProperty('version')
    for (const [path, { label, say }] of Object.entries(words)) {
      expect([path, label]).toEqual([path, expect.stringMatching(/^[A-ZÄÖÜ°±]/)])
      expect(say(null)).toBe('–')
      // Whatever it is given, nothing is shown as it is stored.
      for (const odd of [true, 1.5, 'word', [], [1, 2], {}]) expect(say(odd)).not.toMatch(/\[object|undefined|NaN|[{}]/)
    }
  })
})
