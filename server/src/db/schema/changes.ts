import { customType, pgTable, uuid } from 'drizzle-orm/pg-core'

const xid8 = customType<{ data: string }>({ dataType: () => 'xid8' })

/**
 * Which transaction last changed a visit, a clock or an owner, or a row that hangs on it. The database itself keeps it: whatever
 * was reckoned of a visit holds as long as it is the same.
 */
export const lastChanges = pgTable('last_changes', {
  of: uuid('of').primaryKey(),
  change: xid8('change').notNull(),
})
