import { index, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { moment } from './columns.ts'
import { broughtBy, byWhom } from './people.ts'
import { jobs } from './jobs.ts'

/**
 * What happened, for good: the database refuses to change or remove an entry.
 *
 * An entry is about a job, or, where it has none, about a thing of the workshop: a clock, an owner, a person, the
 * settings, a table, the drawers.
 */
export const journal = pgTable(
  'journal',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id').references(() => jobs.id),
    about: text('about').notNull().default('job'),
    aboutId: text('about_id'),
    at: moment('at').notNull(),
    ...byWhom(),
    kind: text('kind').notNull(),
    text: text('text').notNull(),
    figures: jsonb('figures').$type<Record<string, unknown>>().notNull(),
    corrects: uuid('corrects'),
    ...broughtBy(),
  },
  (t) => [index('journal_job').on(t.jobId, t.at), index('journal_about').on(t.about, t.aboutId, t.at)],
)
