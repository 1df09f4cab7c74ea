import type { Brought } from '@treadle/contract'
import { boolean, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'

export const people = pgTable('people', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  initials: text('initials').notNull(),
  active: boolean('active').notNull(),
  version: version(),
})

/** Whoever made a row: the name as it was then, and who that is; nobody where the name is none of the workshop's. */
export const byWhom = () => ({
  who: text('who').notNull(),
  whoId: uuid('who_id').references(() => people.id),
})

/** By which archive a row was brought, when and by whom it was taken in; null: it was written here. */
export const broughtBy = () => ({ brought: jsonb('brought').$type<Brought>() })

/** When and by whom a row was written last, and its version. */
export const made = () => ({ at: moment('at').notNull(), ...byWhom(), version: version() })
