import type { Bay } from '@treadle/core'
import type { CameWith, Estimate, Pendulum, Settings, Train, TrainSheetChange, Work } from '@treadle/contract'
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
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })
const version = () => integer('version').notNull().default(1)
const ofJob = () =>
  uuid('job_id')
    .notNull()
    .references(() => jobs.id)

export const people = pgTable('people', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  initials: text('initials').notNull(),
  active: boolean('active').notNull(),
  version: version(),
})

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
    who: text('who').notNull(),
  },
  (t) => [index('power_offs_job').on(t.jobId)],
)

export const gateOverrides = pgTable(
  'gate_overrides',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    gate: text('gate').notNull(),
    reason: text('reason').notNull(),
    at: moment('at').notNull(),
    who: text('who').notNull(),
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
    /** the figures as they were typed, with their unit */
    typed: jsonb('typed').notNull(),
    verdictOverride: text('verdict_override'),
    overrideReason: text('override_reason').notNull(),
    bushed: boolean('bushed').notNull(),
    flagged: boolean('flagged').notNull(),
    measuredBy: text('measured_by').notNull(),
    version: version(),
  },
  (t) => [index('holes_job').on(t.jobId)],
)

export const listenings = pgTable(
  'listenings',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    at: moment('at').notNull(),
    who: text('who').notNull(),
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
    who: text('who').notNull(),
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
    who: text('who').notNull(),
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
  },
  (t) => [index('photos_job').on(t.jobId)],
)

/** What happened, for good: the database refuses to change or remove an entry. */
export const journal = pgTable(
  'journal',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    at: moment('at').notNull(),
    who: text('who').notNull(),
    kind: text('kind').notNull(),
    text: text('text').notNull(),
    figures: jsonb('figures').$type<Record<string, unknown>>().notNull(),
    corrects: uuid('corrects'),
  },
  (t) => [index('journal_job').on(t.jobId, t.at)],
)

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
    who: text('who').notNull(),
    version: version(),
  },
  (t) => [index('observations_job').on(t.jobId)],
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
    who: text('who').notNull(),
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
  (t) => [index('train_sheets_clock').on(t.clockId)],
)

export const confirmedCauses = pgTable(
  'confirmed_causes',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    cause: text('cause').notNull(),
    note: text('note').notNull(),
    at: moment('at').notNull(),
    who: text('who').notNull(),
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
    who: text('who').notNull(),
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
    who: text('who').notNull(),
    version: version(),
  },
  (t) => [index('strip_marks_job').on(t.jobId)],
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
    who: text('who').notNull(),
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
    who: text('who').notNull(),
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
    who: text('who').notNull(),
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
    who: text('who').notNull(),
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
