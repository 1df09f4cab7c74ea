import type { StockChange } from '@treadle/contract'
import { boolean, doublePrecision, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
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
