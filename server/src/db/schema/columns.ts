import { integer, timestamp } from 'drizzle-orm/pg-core'

/** A moment with its zone, as a Date. */
export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })
/** The version a change is made on; a new row has 1. */
export const version = () => integer('version').notNull().default(1)
