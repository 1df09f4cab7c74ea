import type { DonorChange, OilChange, StockChange, ToolChange } from '@treadle/contract'
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { files } from './files.ts'
import { byWhom } from './people.ts'

/** What the drawers hold. */
export const stock = pgTable('stock', {
  id: uuid('id').primaryKey(),
  kind: text('kind').$type<StockChange['kind']>().notNull(),
  name: text('name').notNull(),
  material: text('material').notNull(),
  outsideMm: doublePrecision('outside_mm'),
  insideMm: doublePrecision('inside_mm'),
  lengthMm: doublePrecision('length_mm'),
  measuredMm: doublePrecision('measured_mm'),
  widthMm: doublePrecision('width_mm'),
  thickMm: doublePrecision('thick_mm'),
  count: integer('count').notNull(),
  lowAt: integer('low_at').notNull(),
  drawer: text('drawer').notNull(),
  version: version(),
})

/** A list that was taken into the drawers, with what was there before, so that it can be taken back. */
export const stockImports = pgTable('stock_imports', {
  id: uuid('id').primaryKey(),
  at: moment('at').notNull(),
  ...byWhom(),
  added: jsonb('added').$type<string[]>().notNull(),
  before: jsonb('before').$type<StockChange[]>().notNull(),
  undone: boolean('undone').notNull(),
  /** of the list as it was sent, SHA-256; lists from before have none */
  digest: text('digest'),
})

/** The donor ledger: used parts, found by kind and count. */
export const donors = pgTable(
  'donors',
  {
    id: uuid('id').primaryKey(),
    kind: text('kind').$type<DonorChange['kind']>().notNull(),
    count: integer('count'),
    moduleMm: doublePrecision('module_mm'),
    boreMm: doublePrecision('bore_mm'),
    outsideMm: doublePrecision('outside_mm'),
    arborMm: doublePrecision('arbor_mm'),
    side: text('side').$type<DonorChange['side']>().notNull(),
    there: integer('there').notNull(),
    from: text('from').notNull(),
    drawer: text('drawer').notNull(),
    note: text('note').notNull(),
    /** its picture */
    fileId: uuid('file_id').references(() => files.id),
    version: version(),
  },
  (t) => [index('donors_kind_count').on(t.kind, t.count)],
)

/** Files, abrasives and stones. */
export const tools = pgTable('tools', {
  id: uuid('id').primaryKey(),
  kind: text('kind').$type<ToolChange['kind']>().notNull(),
  name: text('name').notNull(),
  shape: text('shape').$type<ToolChange['shape']>().notNull(),
  cut: text('cut').$type<ToolChange['cut']>().notNull(),
  grit: integer('grit'),
  lengthMm: doublePrecision('length_mm'),
  widthMm: doublePrecision('width_mm'),
  keptFor: text('kept_for').$type<ToolChange['keptFor']>().notNull(),
  hard: boolean('hard').notNull(),
  worn: text('worn').$type<ToolChange['worn']>().notNull(),
  drawer: text('drawer').notNull(),
  note: text('note').notNull(),
  version: version(),
})

/** Oils and greases. */
export const oils = pgTable('oils', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  kind: text('kind').$type<OilChange['kind']>().notNull(),
  openedOn: text('opened_on'),
  keepsYears: doublePrecision('keeps_years').notNull(),
  school: text('school').$type<OilChange['school']>().notNull(),
  drawer: text('drawer').notNull(),
  note: text('note').notNull(),
  version: version(),
})
