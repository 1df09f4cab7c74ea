import type { Settings } from '@treadle/contract'
import { integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import { version } from './columns.ts'

/** One row: what the workshop decides for itself. */
export const settings = pgTable('settings', {
  id: integer('id').primaryKey(),
  values: jsonb('values').$type<Omit<Settings, 'version'>>().notNull(),
  version: version(),
})

/** Tables the workshop keeps for itself: prices, baths, the trouble finder's; each whole. */
export const workshopTables = pgTable('workshop_tables', {
  name: text('name').primaryKey(),
  values: jsonb('values').$type<object>().notNull(),
  version: version(),
})

/** One row: the secret part of the calendar's address. */
export const calendarKeys = pgTable('calendar_keys', {
  id: integer('id').primaryKey(),
  secret: text('secret').notNull(),
})
