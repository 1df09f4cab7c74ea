import type { PendulumSheetChange, RunDownChange, ThermometerRow } from '@treadle/contract'
import { doublePrecision, index, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { moment } from './columns.ts'
import { ofJob } from './jobs.ts'
import { made } from './people.ts'

/** The pendulum of a clock laid out on a visit; a job has one. */
export const pendulums = pgTable(
  'pendulums',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    parts: jsonb('parts').$type<PendulumSheetChange['parts']>().notNull(),
    threadUpMm: doublePrecision('thread_up_mm'),
    threadDownMm: doublePrecision('thread_down_mm'),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('pendulums_job').on(t.jobId)],
)

/** A pendulum left to run down, and what drives the clock. */
export const runDowns = pgTable(
  'run_downs',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    when: text('when').$type<RunDownChange['when']>().notNull(),
    ranAt: moment('ran_at').notNull(),
    way: text('way').$type<RunDownChange['way']>().notNull(),
    readings: jsonb('readings').$type<RunDownChange['readings']>().notNull(),
    semiArcDeg: doublePrecision('semi_arc_deg'),
    massG: doublePrecision('mass_g'),
    drive: text('drive').$type<RunDownChange['drive']>().notNull(),
    weightKg: doublePrecision('weight_kg'),
    fallMm: doublePrecision('fall_mm'),
    torqueNmm: doublePrecision('torque_nmm'),
    turns: doublePrecision('turns'),
    hours: doublePrecision('hours'),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [index('run_downs_job').on(t.jobId)],
)

/** How warm it was beside a clock; a job has one. */
export const thermometers = pgTable(
  'thermometers',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    temperatures: jsonb('temperatures').$type<ThermometerRow['temperatures']>().notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('thermometers_job').on(t.jobId)],
)
