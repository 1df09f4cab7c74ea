import type { WatchChange, WatchMark } from '@treadle/contract'
import { boolean, doublePrecision, index, integer, pgTable, primaryKey, real, text, uuid } from 'drizzle-orm/pg-core'
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
    ...made(),
  },
  (t) => [index('watches_job').on(t.jobId)],
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
