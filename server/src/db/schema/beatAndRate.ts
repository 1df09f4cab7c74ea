import type { RateEventKind, ReadingWay, Side, SideSound } from '@treadle/core'
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { byWhom } from './people.ts'
import { files } from './files.ts'
import { ofJob } from './jobs.ts'

export const listenings = pgTable(
  'listenings',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    at: moment('at').notNull(),
    ...byWhom(),
    pickup: text('pickup').notNull(),
    fileName: text('file_name').notNull(),
    purpose: text('purpose').notNull(),
    firstSide: text('first_side').$type<Side>(),
    beatsPerHour: doublePrecision('beats_per_hour').notNull(),
    nominalBeatsPerHour: doublePrecision('nominal_beats_per_hour').notNull(),
    rateSecondsPerDay: doublePrecision('rate_seconds_per_day').notNull(),
    rateStandardError: doublePrecision('rate_standard_error').notNull(),
    firstToSecondMs: doublePrecision('first_to_second_ms').notNull(),
    secondToFirstMs: doublePrecision('second_to_first_ms').notNull(),
    outOfBeatStandardError: doublePrecision('out_of_beat_standard_error').notNull(),
    scatterMs: doublePrecision('scatter_ms').notNull(),
    beatsHeard: integer('beats_heard').notNull(),
    beatsExpected: integer('beats_expected').notNull(),
    rejected: integer('rejected').notNull(),
    slips: integer('slips').notNull(),
    secondsAnalysed: doublePrecision('seconds_analysed').notNull(),
    confidence: doublePrecision('confidence').notNull(),
    analyserVersion: text('analyser_version').notNull(),
    beatTimesS: jsonb('beat_times_s').$type<number[]>().notNull(),
    sides: jsonb('sides').$type<[SideSound, SideSound]>(),
    hasSound: boolean('has_sound').notNull(),
    changeMm: doublePrecision('change_mm'),
    /** the clock's semi-arc as it was written down then, degrees; not there in what was kept before that was told */
    semiArcDeg: doublePrecision('semi_arc_deg'),
    soundId: uuid('sound_id').references(() => files.id),
  },
  (t) => [index('listenings_job').on(t.jobId)],
)

export const readings = pgTable(
  'readings',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    at: moment('at').notNull(),
    errorSeconds: doublePrecision('error_seconds').notNull(),
    sigmaSeconds: doublePrecision('sigma_seconds').notNull(),
    way: text('way').$type<ReadingWay>().notNull(),
    temperatureC: doublePrecision('temperature_c'),
    semiArcDeg: doublePrecision('semi_arc_deg'),
    pressureHpa: doublePrecision('pressure_hpa'),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('readings_job').on(t.jobId)],
)

export const rateEvents = pgTable(
  'rate_events',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    at: moment('at').notNull(),
    kind: text('kind').$type<RateEventKind>().notNull(),
    turns: doublePrecision('turns'),
    grams: doublePrecision('grams'),
    showed: text('showed').notNull().default(''),
    note: text('note').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('rate_events_job').on(t.jobId)],
)
