import type { CameWith, JobRow, NowMark } from '@treadle/contract'
import type { Bay, Ending, GateName, ScopeKind, WaitsFor } from '@treadle/core'
import {
  date,
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
import { broughtBy, byWhom } from './people.ts'
import { clocks } from './clocks.ts'

/** The job a row belongs to. */
export const ofJob = () =>
  uuid('job_id')
    .notNull()
    .references(() => jobs.id)

/** One visit of one clock. */
export const jobs = pgTable(
  'jobs',
  {
    id: uuid('id').primaryKey(),
    /** counted in the change that takes it in, so that none is ever left out */
    number: integer('number').notNull().unique(),
    /** what it was elsewhere, where an archive brought it and that was another’s here */
    numberElsewhere: integer('number_elsewhere'),
    clockId: uuid('clock_id')
      .notNull()
      .references(() => clocks.id),
    bay: text('bay').$type<Bay>().notNull(),
    complaint: text('complaint').notNull(),
    runs: text('runs').$type<JobRow['runs']>().notNull(),
    cameWith: jsonb('came_with').$type<CameWith[]>().notNull(),
    promisedOn: date('promised_on', { mode: 'string' }),
    standsAt: text('stands_at').notNull().default(''),
    movedLately: text('moved_lately').$type<JobRow['movedLately']>().notNull().default('unknown'),
    lastServiced: integer('last_serviced'),
    receivedAt: moment('received_at').notNull(),
    partedAt: moment('parted_at'),
    closedAt: moment('closed_at'),
    ending: text('ending').$type<Ending>().notNull().default(''),
    scope: text('scope').$type<ScopeKind>().notNull().default('whole'),
    scopeTrain: text('scope_train').$type<JobRow['scopeTrain']>().notNull().default(''),
    scopeReason: text('scope_reason').notNull().default(''),
    waitsFor: text('waits_for').$type<WaitsFor>().notNull().default(''),
    waitsNote: text('waits_note').notNull().default(''),
    waitsUntil: date('waits_until', { mode: 'string' }),
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
    gate: text('gate').$type<GateName>().notNull(),
    reason: text('reason').notNull(),
    at: moment('at').notNull(),
    ...byWhom(),
    ...broughtBy(),
  },
  (t) => [index('gate_overrides_job').on(t.jobId)],
)

/** What a person said of a thing that is owed: done, later, not needed. */
export const nowMarks = pgTable(
  'now_marks',
  {
    jobId: ofJob(),
    kind: text('kind').notNull(),
    subject: text('subject').notNull(),
    state: text('state').$type<NowMark['state']>().notNull(),
    dueS: doublePrecision('due_s'),
    untilS: doublePrecision('until_s'),
    ...byWhom(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.kind, t.subject] })],
)
