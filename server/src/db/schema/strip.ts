import { boolean, doublePrecision, index, integer, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { byWhom } from './people.ts'
import { photos } from './files.ts'
import { ofJob } from './jobs.ts'

export const stripMarks = pgTable(
  'strip_marks',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    key: text('key').notNull(),
    state: text('state').notNull(),
    note: text('note').notNull(),
    at: moment('at').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [uniqueIndex('strip_marks_key').on(t.jobId, t.key)],
)

export const stripSteps = pgTable(
  'strip_steps',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    position: doublePrecision('position').notNull(),
    part: text('part').notNull(),
    tray: text('tray').notNull(),
    screws: text('screws').notNull(),
    marks: text('marks').notNull(),
    remark: text('remark').notNull(),
    count: integer('count').notNull(),
    photoId: uuid('photo_id').references(() => photos.id),
    back: boolean('back').notNull(),
    notBack: text('not_back').notNull().default(''),
    at: moment('at').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('strip_steps_job').on(t.jobId)],
)

export const cleanParts = pgTable(
  'clean_parts',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    name: text('name').notNull(),
    material: text('material').notNull(),
    finish: text('finish').notNull(),
    done: boolean('done').notNull(),
    at: moment('at').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('clean_parts_job').on(t.jobId)],
)

export const timers = pgTable(
  'timers',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    title: text('title').notNull(),
    startedAt: moment('started_at').notNull(),
    endsAt: moment('ends_at').notNull(),
    stopped: boolean('stopped').notNull(),
    bath: text('bath').notNull(),
    step: integer('step').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('timers_job').on(t.jobId)],
)
