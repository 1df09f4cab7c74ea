import type { BushingChange } from '@treadle/contract'
import type { BushingMethod } from '@treadle/core'
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { made } from './people.ts'
import { stock } from './drawers.ts'
import { holes } from './holes.ts'
import { ofJob } from './jobs.ts'

/** The work on one hole of the plan; a hole has one. */
export const bushings = pgTable(
  'bushings',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    holeId: uuid('hole_id')
      .notNull()
      .references(() => holes.id, { onDelete: 'cascade' }),
    method: text('method').$type<BushingMethod>().notNull(),
    spoilt: boolean('spoilt').notNull(),
    source: text('source').$type<BushingChange['source']>().notNull(),
    stockId: uuid('stock_id').references(() => stock.id),
    cutterMm: doublePrecision('cutter_mm'),
    outsideMm: doublePrecision('outside_mm'),
    insideMm: doublePrecision('inside_mm'),
    lengthMm: doublePrecision('length_mm'),
    pivotMm: doublePrecision('pivot_mm'),
    finishedMm: doublePrecision('finished_mm'),
    done: jsonb('done').$type<BushingChange['done']>().notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [index('bushings_job').on(t.jobId), uniqueIndex('bushings_hole').on(t.holeId)],
)

/** Promised to a job; taken out of the drawer once it is in hand. */
export const reservations = pgTable(
  'reservations',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    stockId: uuid('stock_id')
      .notNull()
      .references(() => stock.id),
    holeId: uuid('hole_id').references(() => holes.id, { onDelete: 'cascade' }),
    count: integer('count').notNull(),
    taken: boolean('taken').notNull(),
    ...made(),
  },
  (t) => [index('reservations_job').on(t.jobId), index('reservations_stock').on(t.stockId)],
)
