import type { DryRunChange, OilSheetChange, StrikeCountChange, WitnessChange } from '@treadle/contract'
import { doublePrecision, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { moment } from './columns.ts'
import { oils } from './drawers.ts'
import { photos } from './files.ts'
import { ofJob } from './jobs.ts'
import { made } from './people.ts'

/** A train run dry between the plates. */
export const dryRuns = pgTable(
  'dry_runs',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    train: text('train').$type<DryRunChange['train']>().notNull(),
    drivenBy: text('driven_by').$type<DryRunChange['drivenBy']>().notNull(),
    amount: doublePrecision('amount'),
    backsOff: text('backs_off').$type<DryRunChange['backsOff']>().notNull(),
    verdict: text('verdict').$type<DryRunChange['verdict']>().notNull(),
    ranAt: moment('ran_at').notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('dry_runs_train').on(t.jobId, t.train)],
)

const oil = (name: string) => uuid(name).references(() => oils.id)

/** What is oiled on a visit; a job has one. */
export const oilSheets = pgTable(
  'oil_sheets',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    pivotOilId: oil('pivot_oil_id'),
    heavyOilId: oil('heavy_oil_id'),
    greaseId: oil('grease_id'),
    added: jsonb('added').$type<OilSheetChange['added']>().notNull(),
    sinks: jsonb('sinks').$type<OilSheetChange['sinks']>().notNull(),
    done: jsonb('done').$type<string[]>().notNull(),
    left: jsonb('left').$type<string[]>().notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('oil_sheets_job').on(t.jobId), index('oil_sheets_pivot_oil').on(t.pivotOilId)],
)

/** A picture of the sinks at a moment. */
export const witnesses = pgTable(
  'witnesses',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    moment: text('moment').$type<WitnessChange['moment']>().notNull(),
    side: text('side').$type<WitnessChange['side']>().notNull(),
    photoId: uuid('photo_id')
      .notNull()
      .references(() => photos.id),
    state: text('state').$type<WitnessChange['state']>().notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [index('witnesses_job').on(t.jobId)],
)

/** What a clock struck at one time of the round. */
export const strikeCounts = pgTable(
  'strike_counts',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    hour: integer('hour').notNull(),
    quarter: integer('quarter').notNull(),
    quarters: integer('quarters'),
    blows: integer('blows'),
    way: text('way').$type<StrikeCountChange['way']>().notNull(),
    heardAt: moment('heard_at').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('strike_counts_time').on(t.jobId, t.hour, t.quarter)],
)
