import type { Bay } from '@treadle/core'
import type { CameWith, Pendulum, Settings, Train, Work } from '@treadle/contract'
import {
  boolean,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  serial,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { byWhom } from './people.ts'

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
/** The job a row belongs to. */
export const ofJob = () =>
  uuid('job_id')
    .notNull()
    .references(() => jobs.id)

/** One row: what the workshop decides for itself. */
export const settings = pgTable('settings', {
  id: integer('id').primaryKey(),
  values: jsonb('values').$type<Omit<Settings, 'version'>>().notNull(),
  version: version(),
})

export const owners = pgTable('owners', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  phone: text('phone').notNull(),
  address: text('address').notNull(),
})

export const clocks = pgTable('clocks', {
  id: uuid('id').primaryKey(),
  ownerId: uuid('owner_id')
    .notNull()
    .references(() => owners.id),
  name: text('name').notNull(),
  kind: text('kind').notNull(),
  marks: text('marks').notNull(),
  trains: jsonb('trains').$type<Train[]>().notNull(),
  pendulum: jsonb('pendulum').$type<Pendulum>().notNull(),
  work: jsonb('work')
    .$type<Work>()
    .notNull()
    .default({ strikeWork: null, moon: false, calendar: false, mercury: false }),
  version: version(),
})

/** One visit of one clock. */
export const jobs = pgTable(
  'jobs',
  {
    id: uuid('id').primaryKey(),
    number: serial('number').notNull().unique(),
    clockId: uuid('clock_id')
      .notNull()
      .references(() => clocks.id),
    bay: text('bay').$type<Bay>().notNull(),
    complaint: text('complaint').notNull(),
    runs: text('runs').notNull(),
    cameWith: jsonb('came_with').$type<CameWith[]>().notNull(),
    promisedOn: date('promised_on', { mode: 'string' }),
    standsAt: text('stands_at').notNull().default(''),
    movedLately: text('moved_lately').notNull().default('unknown'),
    lastServiced: integer('last_serviced'),
    receivedAt: moment('received_at').notNull(),
    partedAt: moment('parted_at'),
    closedAt: moment('closed_at'),
    version: version(),
  },
  (t) => [index('jobs_clock').on(t.clockId), index('jobs_open').on(t.closedAt)],
)

export const powerOffs = pgTable(
  'power_offs',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    train: text('train').notNull(),
    method: text('method').notNull(),
    proofs: jsonb('proofs').$type<string[]>().notNull().default([]),
    at: moment('at').notNull(),
    ...byWhom(),
  },
  (t) => [uniqueIndex('power_offs_train').on(t.jobId, t.train)],
)

export const gateOverrides = pgTable(
  'gate_overrides',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    gate: text('gate').notNull(),
    reason: text('reason').notNull(),
    at: moment('at').notNull(),
    ...byWhom(),
  },
  (t) => [index('gate_overrides_job').on(t.jobId)],
)

export const holes = pgTable(
  'holes',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    train: text('train').notNull(),
    arbor: text('arbor').notNull(),
    arborIndex: integer('arbor_index').notNull(),
    plate: text('plate').notNull(),
    role: text('role').notNull(),
    longAxisMm: doublePrecision('long_axis_mm'),
    shortAxisMm: doublePrecision('short_axis_mm'),
    wearDeg: doublePrecision('wear_deg'),
    pivotMm: doublePrecision('pivot_mm'),
    plateMm: doublePrecision('plate_mm'),
    moduleMm: doublePrecision('module_mm'),
    depthShiftMm: doublePrecision('depth_shift_mm'),
    shakeMm: doublePrecision('shake_mm'),
    leanDeg: doublePrecision('lean_deg'),
    old: text('old').notNull().default('none'),
    oldHoleMm: doublePrecision('old_hole_mm'),
    sinkMm: doublePrecision('sink_mm'),
    waived: text('waived').notNull().default(''),
    /** the figures as they were typed, with their unit */
    typed: jsonb('typed').notNull(),
    verdictOverride: text('verdict_override'),
    overrideReason: text('override_reason').notNull(),
    bushed: boolean('bushed').notNull(),
    flagged: boolean('flagged').notNull(),
    measuredBy: text('measured_by').notNull(),
    whoId: byWhom().whoId,
    version: version(),
  },
  (t) => [uniqueIndex('holes_place').on(t.jobId, t.train, t.arbor, t.plate)],
)

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
    firstSide: text('first_side'),
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
    hasSound: boolean('has_sound').notNull(),
    changeMm: doublePrecision('change_mm'),
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
    way: text('way').notNull(),
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
    kind: text('kind').notNull(),
    turns: doublePrecision('turns'),
    note: text('note').notNull(),
    ...byWhom(),
    version: version(),
  },
  (t) => [index('rate_events_job').on(t.jobId)],
)

/** Bytes of a photo or a sound, in chunks so that none is ever held whole. */
export const files = pgTable('files', {
  id: uuid('id').primaryKey(),
  type: text('type').notNull(),
  size: integer('size').notNull(),
})

export const fileChunks = pgTable(
  'file_chunks',
  {
    fileId: uuid('file_id')
      .notNull()
      .references(() => files.id, { onDelete: 'cascade' }),
    part: integer('part').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.fileId, t.part] })],
)

export const photos = pgTable(
  'photos',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    caption: text('caption').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    takenAt: moment('taken_at').notNull(),
    originalId: uuid('original_id')
      .notNull()
      .references(() => files.id),
    screenId: uuid('screen_id')
      .notNull()
      .references(() => files.id),
    /** small, for lists; photos from before there were any have none */
    thumbId: uuid('thumb_id').references(() => files.id),
    /** of the picture as it was sent, SHA-256; photos from before have none */
    digest: text('digest'),
    who: text('who').notNull().default(''),
    whoId: byWhom().whoId,
  },
  (t) => [index('photos_job').on(t.jobId)],
)

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
  },
  (t) => [index('journal_job').on(t.jobId, t.at), index('journal_about').on(t.about, t.aboutId, t.at)],
)
