import type { BushingChange, PlateMapChange, StockChange } from '@treadle/contract'
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { moment, version } from './columns.ts'
import { byWhom } from './people.ts'
import { clocks, holes, ofJob, photos } from './workshop.ts'

const ofArbor = () => ({
  train: text('train').notNull(),
  arbor: text('arbor').notNull(),
  arborIndex: integer('arbor_index').notNull(),
})
const made = () => ({ at: moment('at').notNull(), ...byWhom(), version: version() })

/** The two plates of a clock; one row a clock, whatever visit it was measured on. */
export const plateMaps = pgTable(
  'plate_maps',
  {
    id: uuid('id').primaryKey(),
    clockId: uuid('clock_id')
      .notNull()
      .references(() => clocks.id),
    arbors: jsonb('arbors').$type<PlateMapChange['arbors']>().notNull(),
    fixtures: jsonb('fixtures').$type<PlateMapChange['fixtures']>().notNull(),
    edge: jsonb('edge').$type<PlateMapChange['edge']>().notNull(),
    betweenMm: doublePrecision('between_mm'),
    photoId: uuid('photo_id').references(() => photos.id),
    trueing: jsonb('trueing').$type<number[]>(),
    note: text('note').notNull(),
    version: version(),
  },
  (t) => [uniqueIndex('plate_maps_clock').on(t.clockId)],
)

/** What an arbor does between the empty plates, clean and dry. */
export const arborTests = pgTable(
  'arbor_tests',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    ...ofArbor(),
    endshakeMm: doublePrecision('endshake_mm'),
    binds: jsonb('binds').$type<string[]>().notNull(),
    feel: text('feel').notNull(),
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
    plate: text('plate').notNull(),
    nail: text('nail').notNull(),
    firstMm: doublePrecision('first_mm'),
    secondMm: doublePrecision('second_mm'),
    outOfRoundMm: doublePrecision('out_of_round_mm'),
    runoutMm: doublePrecision('runout_mm'),
    grooveDepthMm: doublePrecision('groove_depth_mm'),
    originalMm: doublePrecision('original_mm'),
    arborMm: doublePrecision('arbor_mm'),
    shoulder: text('shoulder').notNull(),
    rust: boolean('rust').notNull(),
    ownerTold: boolean('owner_told').notNull(),
    work: text('work').notNull(),
    finishedMm: doublePrecision('finished_mm'),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('pivots_place').on(t.jobId, t.train, t.arbor, t.plate)],
)

/** The work on one hole of the plan; a hole has one. */
export const bushings = pgTable(
  'bushings',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    holeId: uuid('hole_id')
      .notNull()
      .references(() => holes.id, { onDelete: 'cascade' }),
    method: text('method').notNull(),
    spoilt: boolean('spoilt').notNull(),
    source: text('source').notNull(),
    stockId: uuid('stock_id').references(() => stock.id),
    cutterMm: doublePrecision('cutter_mm'),
    outsideMm: doublePrecision('outside_mm'),
    insideMm: doublePrecision('inside_mm'),
    lengthMm: doublePrecision('length_mm'),
    pivotMm: doublePrecision('pivot_mm'),
    finishedMm: doublePrecision('finished_mm'),
    done: jsonb('done').$type<BushingChange['done']>().notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [index('bushings_job').on(t.jobId), uniqueIndex('bushings_hole').on(t.holeId)],
)

/** What the drawers hold. */
export const stock = pgTable('stock', {
  id: uuid('id').primaryKey(),
  kind: text('kind').notNull(),
  name: text('name').notNull(),
  material: text('material').notNull(),
  outsideMm: doublePrecision('outside_mm'),
  insideMm: doublePrecision('inside_mm'),
  lengthMm: doublePrecision('length_mm'),
  measuredMm: doublePrecision('measured_mm'),
  count: integer('count').notNull(),
  lowAt: integer('low_at').notNull(),
  drawer: text('drawer').notNull(),
  version: version(),
})

/** Promised to a job; taken out of the drawer once it is in hand. */
export const reservations = pgTable(
  'reservations',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    stockId: uuid('stock_id')
      .notNull()
      .references(() => stock.id),
    holeId: uuid('hole_id').references(() => holes.id, { onDelete: 'cascade' }),
    count: integer('count').notNull(),
    taken: boolean('taken').notNull(),
    ...made(),
  },
  (t) => [index('reservations_job').on(t.jobId), index('reservations_stock').on(t.stockId)],
)

/** A list that was taken into the drawers, with what was there before, so that it can be taken back. */
export const stockImports = pgTable('stock_imports', {
  id: uuid('id').primaryKey(),
  at: moment('at').notNull(),
  ...byWhom(),
  added: jsonb('added').$type<string[]>().notNull(),
  before: jsonb('before').$type<StockChange[]>().notNull(),
  undone: boolean('undone').notNull(),
  /** of the list as it was sent, SHA-256; lists from before have none */
  digest: text('digest'),
})
