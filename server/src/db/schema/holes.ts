import type { ArborTestChange, HoleChange, PivotChange, Plate } from '@treadle/contract'
import type { ArborRole, OldBush, PivotWork } from '@treadle/core'
import { boolean, doublePrecision, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { version } from './columns.ts'
import { byWhom, made } from './people.ts'
import { ofJob } from './jobs.ts'

const ofArbor = () => ({
  train: text('train').notNull(),
  arbor: text('arbor').notNull(),
  arborIndex: integer('arbor_index').notNull(),
})
/** What an arbor does between the empty plates, clean and dry. */
export const arborTests = pgTable(
  'arbor_tests',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    ...ofArbor(),
    endshakeMm: doublePrecision('endshake_mm'),
    binds: jsonb('binds').$type<ArborTestChange['binds']>().notNull(),
    feel: text('feel').$type<ArborTestChange['feel']>().notNull(),
    tried: boolean('tried').notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('arbor_tests_arbor').on(t.jobId, t.train, t.arbor)],
)

export const pivots = pgTable(
  'pivots',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    ...ofArbor(),
    plate: text('plate').$type<Plate>().notNull(),
    nail: text('nail').$type<PivotChange['nail']>().notNull(),
    firstMm: doublePrecision('first_mm'),
    secondMm: doublePrecision('second_mm'),
    outOfRoundMm: doublePrecision('out_of_round_mm'),
    runoutMm: doublePrecision('runout_mm'),
    grooveDepthMm: doublePrecision('groove_depth_mm'),
    originalMm: doublePrecision('original_mm'),
    arborMm: doublePrecision('arbor_mm'),
    shoulder: text('shoulder').$type<PivotChange['shoulder']>().notNull(),
    rust: boolean('rust').notNull(),
    ownerTold: boolean('owner_told').notNull(),
    work: text('work').$type<PivotWork>().notNull(),
    finishedMm: doublePrecision('finished_mm'),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('pivots_place').on(t.jobId, t.train, t.arbor, t.plate)],
)

export const holes = pgTable(
  'holes',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    train: text('train').notNull(),
    arbor: text('arbor').notNull(),
    arborIndex: integer('arbor_index').notNull(),
    plate: text('plate').$type<Plate>().notNull(),
    role: text('role').$type<ArborRole>().notNull(),
    longAxisMm: doublePrecision('long_axis_mm'),
    shortAxisMm: doublePrecision('short_axis_mm'),
    wearDeg: doublePrecision('wear_deg'),
    pivotMm: doublePrecision('pivot_mm'),
    plateMm: doublePrecision('plate_mm'),
    moduleMm: doublePrecision('module_mm'),
    depthShiftMm: doublePrecision('depth_shift_mm'),
    shakeMm: doublePrecision('shake_mm'),
    leanDeg: doublePrecision('lean_deg'),
    old: text('old').$type<OldBush>().notNull().default('none'),
    oldHoleMm: doublePrecision('old_hole_mm'),
    sinkMm: doublePrecision('sink_mm'),
    waived: text('waived').notNull().default(''),
    /** the figures as they were typed, with their unit */
    typed: jsonb('typed').$type<HoleChange['typed']>().notNull(),
    verdictOverride: text('verdict_override').$type<'bush' | 'leave'>(),
    overrideReason: text('override_reason').notNull(),
    bushed: boolean('bushed').notNull(),
    flagged: boolean('flagged').notNull(),
    measuredBy: text('measured_by').notNull(),
    whoId: byWhom().whoId,
    version: version(),
  },
  (t) => [uniqueIndex('holes_place').on(t.jobId, t.train, t.arbor, t.plate)],
)
