import type { Estimate, TrainSheetChange } from '@treadle/contract'
import {
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { byWhom } from './people.ts'
import { clocks, ofJob, photos } from './workshop.ts'

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

/** The counts of a train; they are the clock's, whatever visit they were taken on. */
export const trainSheets = pgTable(
  'train_sheets',
  {
    id: uuid('id').primaryKey(),
    clockId: uuid('clock_id')
      .notNull()
      .references(() => clocks.id),
    train: text('train').notNull(),
    arbors: jsonb('arbors').$type<TrainSheetChange['arbors']>().notNull(),
    hourly: integer('hourly'),
    escape: boolean('escape').notNull(),
    greatTurns: doublePrecision('great_turns'),
    motion: jsonb('motion').$type<TrainSheetChange['motion']>(),
    faultPeriodS: doublePrecision('fault_period_s'),
    version: version(),
  },
  (t) => [uniqueIndex('train_sheets_train').on(t.clockId, t.train)],
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

/** One revision of a job's estimate; the database refuses to change an accepted one. */
export const estimates = pgTable(
  'estimates',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    revision: integer('revision').notNull(),
    state: text('state').notNull(),
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

/** What a person said of a thing that is owed: done, later, not needed. */
export const nowMarks = pgTable(
  'now_marks',
  {
    jobId: ofJob(),
    kind: text('kind').notNull(),
    subject: text('subject').notNull(),
    state: text('state').notNull(),
    dueS: doublePrecision('due_s'),
    untilS: doublePrecision('until_s'),
    ...byWhom(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.kind, t.subject] })],
)

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
