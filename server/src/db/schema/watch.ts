import type { WatchRun } from '@treadle/core'
import type { FootingChange, WatchChange, WatchMark, WatchTemperatures } from '@treadle/contract'
import {
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  real,
  text,
  uuid,
} from 'drizzle-orm/pg-core'
import { moment } from './columns.ts'
import { files } from './files.ts'
import { ofJob } from './jobs.ts'
import { made } from './people.ts'

/** A watch kept on a clock. */
export const watches = pgTable(
  'watches',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    beganAt: moment('began_at').notNull(),
    endedAt: moment('ended_at'),
    device: text('device').notNull(),
    pickup: text('pickup').$type<WatchChange['pickup']>().notNull(),
    beatsPerHour: doublePrecision('beats_per_hour').notNull(),
    ticks: text('ticks').$type<WatchChange['ticks']>().notNull(),
    ppm: doublePrecision('ppm').notNull(),
    ppmError: doublePrecision('ppm_error'),
    temperatures: jsonb('temperatures').$type<WatchTemperatures['temperatures']>().notNull().default([]),
    run: jsonb('run').$type<WatchRun>(),
    ...made(),
  },
  (t) => [index('watches_job').on(t.jobId)],
)

/** Where a clock was found to be in beat, its case rocked. */
export const footings = pgTable(
  'footings',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    way: text('way').$type<FootingChange['way']>().notNull(),
    stoodAtDeg: doublePrecision('stood_at_deg').notNull(),
    evenAtDeg: doublePrecision('even_at_deg').notNull(),
    standardError: doublePrecision('standard_error').notNull(),
    msPerDeg: doublePrecision('ms_per_deg').notNull(),
    swings: integer('swings').notNull(),
    ...made(),
  },
  (t) => [index('footings_job').on(t.jobId)],
)

const ofWatch = () =>
  uuid('watch_id')
    .notNull()
    .references(() => watches.id, { onDelete: 'cascade' })

/** What it did, minute by minute: a week is ten thousand of them. */
export const watchMinutes = pgTable(
  'watch_minutes',
  {
    watchId: ofWatch(),
    minute: integer('minute').notNull(),
    fromS: doublePrecision('from_s').notNull(),
    seconds: real('seconds').notNull(),
    beatsHeard: integer('beats_heard').notNull(),
    beatsExpected: integer('beats_expected').notNull(),
    rateSecondsPerDay: doublePrecision('rate_seconds_per_day'),
    rateStandardError: doublePrecision('rate_standard_error'),
    outOfBeatMs: doublePrecision('out_of_beat_ms'),
    outOfBeatStandardError: doublePrecision('out_of_beat_standard_error'),
    scatterMs: doublePrecision('scatter_ms'),
    firstDb: real('first_db'),
    secondDb: real('second_db'),
    aheadS: doublePrecision('ahead_s'),
    sinceS: doublePrecision('since_s').notNull(),
  },
  (t) => [primaryKey({ columns: [t.watchId, t.minute] })],
)

/** What it heard besides the beats. */
export const watchMarks = pgTable(
  'watch_marks',
  {
    id: uuid('id').primaryKey(),
    watchId: ofWatch(),
    kind: text('kind').$type<WatchMark['kind']>().notNull(),
    fromS: doublePrecision('from_s').notNull(),
    toS: doublePrecision('to_s'),
    blows: integer('blows'),
    bird: boolean('bird').notNull(),
    note: text('note').notNull(),
    soundId: uuid('sound_id').references(() => files.id),
  },
  (t) => [index('watch_marks_watch').on(t.watchId)],
)
