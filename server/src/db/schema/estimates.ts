import type { Estimate } from '@treadle/contract'
import { integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { byWhom } from './people.ts'
import { ofJob } from './jobs.ts'

/** One revision of a job's estimate; the database refuses to change an accepted one. */
export const estimates = pgTable(
  'estimates',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    revision: integer('revision').notNull(),
    state: text('state').$type<Estimate['state']>().notNull(),
    lines: jsonb('lines').$type<Estimate['lines']>().notNull(),
    choices: jsonb('choices').$type<Estimate['choices']>().notNull(),
    chosen: text('chosen').notNull(),
    currency: text('currency').notNull(),
    taxPercent: text('tax_percent').notNull(),
    depositPercent: text('deposit_percent').notNull(),
    note: text('note').notNull(),
    sentAt: moment('sent_at'),
    answer: jsonb('answer').$type<Estimate['answer']>(),
    ...byWhom(),
    version: version(),
  },
  (t) => [uniqueIndex('estimates_revision').on(t.jobId, t.revision)],
)
