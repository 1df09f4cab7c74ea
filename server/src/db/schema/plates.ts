import type { PlateMapChange } from '@treadle/contract'
import { doublePrecision, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { version } from './columns.ts'
import { clocks } from './clocks.ts'
import { photos } from './files.ts'

/** The two plates of a clock; one row a clock, whatever visit it was measured on. */
export const plateMaps = pgTable(
  'plate_maps',
  {
    id: uuid('id').primaryKey(),
    clockId: uuid('clock_id')
      .notNull()
      .references(() => clocks.id),
    arbors: jsonb('arbors').$type<PlateMapChange['arbors']>().notNull(),
    fixtures: jsonb('fixtures').$type<PlateMapChange['fixtures']>().notNull(),
    edge: jsonb('edge').$type<PlateMapChange['edge']>().notNull(),
    betweenMm: doublePrecision('between_mm'),
    photoId: uuid('photo_id').references(() => photos.id),
    trueing: jsonb('trueing').$type<number[]>(),
    note: text('note').notNull(),
    version: version(),
  },
  (t) => [uniqueIndex('plate_maps_clock').on(t.clockId)],
)
