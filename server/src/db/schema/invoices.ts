import type { Invoice } from '@treadle/contract'
import { jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { ofJob } from './jobs.ts'
import { made } from './people.ts'

/** What a job costs its owner in the end, and what is paid of it; a job has one. */
export const invoices = pgTable(
  'invoices',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    issuedOn: text('issued_on').notNull(),
    lines: jsonb('lines').$type<Invoice['lines']>().notNull(),
    payments: jsonb('payments').$type<Invoice['payments']>().notNull(),
    currency: text('currency').notNull(),
    taxPercent: text('tax_percent').notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('invoices_job').on(t.jobId)],
)
