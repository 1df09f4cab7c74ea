import type { CardChoices, ClockHome, ClockKind, Pendulum, Train, TrainSheetChange, Work } from '@treadle/contract'
import type { TrainName } from '@treadle/core'
import { boolean, doublePrecision, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { version } from './columns.ts'

export const owners = pgTable('owners', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  phone: text('phone').notNull(),
  address: text('address').notNull(),
  version: version(),
})

export const clocks = pgTable('clocks', {
  id: uuid('id').primaryKey(),
  ownerId: uuid('owner_id')
    .notNull()
    .references(() => owners.id),
  name: text('name').notNull(),
  kind: text('kind').$type<ClockKind>().notNull(),
  marks: text('marks').notNull(),
  trains: jsonb('trains').$type<Train[]>().notNull(),
  pendulum: jsonb('pendulum').$type<Pendulum>().notNull(),
  work: jsonb('work')
    .$type<Work>()
    .notNull()
    .default({ strikeWork: null, moon: false, calendar: false, mercury: false }),
  home: jsonb('home').$type<ClockHome>(),
  card: jsonb('card').$type<CardChoices>(),
  version: version(),
})

/** The counts of a train; they are the clock's, whatever visit they were taken on. */
export const trainSheets = pgTable(
  'train_sheets',
  {
    id: uuid('id').primaryKey(),
    clockId: uuid('clock_id')
      .notNull()
      .references(() => clocks.id),
    train: text('train').$type<TrainName>().notNull(),
    arbors: jsonb('arbors').$type<TrainSheetChange['arbors']>().notNull(),
    hourly: integer('hourly'),
    escape: boolean('escape').notNull(),
    greatTurns: doublePrecision('great_turns'),
    motion: jsonb('motion').$type<TrainSheetChange['motion']>(),
    faultPeriodS: doublePrecision('fault_period_s'),
    version: version(),
  },
  (t) => [uniqueIndex('train_sheets_train').on(t.clockId, t.train)],
)
