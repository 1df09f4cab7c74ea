import { doublePrecision, index, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { byWhom } from './people.ts'
import { photos } from './files.ts'
import { ofJob } from './jobs.ts'

/** Something seen, tried or asked; its key says what. */
export const observations = pgTable(
  'observations',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    key: text('key').notNull(),
    answer: text('answer').notNull(),
    figure: doublePrecision('figure'),
    second: doublePrecision('second'),
    note: text('note').notNull(),
    photoId: uuid('photo_id').references(() => photos.id),
    at: moment('at').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [uniqueIndex('observations_key').on(t.jobId, t.key)],
)

export const conditions = pgTable(
  'conditions',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    kind: text('kind').notNull(),
    name: text('name').notNull(),
    class: text('class').notNull(),
    note: text('note').notNull(),
    photoId: uuid('photo_id').references(() => photos.id),
    x: doublePrecision('x'),
    y: doublePrecision('y'),
    at: moment('at').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('conditions_job').on(t.jobId)],
)

export const confirmedCauses = pgTable(
  'confirmed_causes',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    cause: text('cause').notNull(),
    note: text('note').notNull(),
    at: moment('at').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('confirmed_causes_job').on(t.jobId)],
)
