import type {
  DepthTrialChange,
  EscapementSheetChange,
  MadePartChange,
  SpringSheetChange,
  WheelSheetChange,
} from '@treadle/contract'
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { donors, stock } from './drawers.ts'
import { photos } from './files.ts'
import { ofJob } from './jobs.ts'
import { made } from './people.ts'

const mm = (name: string) => doublePrecision(name)

/** A wheel or pinion of an arbor, as it was found and what is done about it. */
export const wheelSheets = pgTable(
  'wheel_sheets',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    train: text('train').notNull(),
    arbor: text('arbor').notNull(),
    arborIndex: integer('arbor_index').notNull(),
    part: text('part').$type<WheelSheetChange['part']>().notNull(),
    count: integer('count'),
    outsideMm: mm('outside_mm'),
    boreMm: mm('bore_mm'),
    thickMm: mm('thick_mm'),
    faults: jsonb('faults').$type<WheelSheetChange['faults']>().notNull(),
    worn: text('worn').$type<WheelSheetChange['worn']>().notNull(),
    click: text('click').$type<WheelSheetChange['click']>().notNull(),
    clickSpring: text('click_spring').$type<WheelSheetChange['click']>().notNull(),
    rivet: text('rivet').$type<WheelSheetChange['click']>().notNull(),
    rivetMm: mm('rivet_mm'),
    holes: jsonb('holes').$type<WheelSheetChange['holes']>().notNull(),
    mirrorDeg: mm('mirror_deg'),
    arms: integer('arms'),
    armMm: mm('arm_mm'),
    leafMm: mm('leaf_mm'),
    grooveFromMm: mm('groove_from_mm'),
    grooveToMm: mm('groove_to_mm'),
    grooveMm: mm('groove_mm'),
    trundlesMm: jsonb('trundles_mm').$type<WheelSheetChange['trundlesMm']>().notNull(),
    shroud: text('shroud').$type<WheelSheetChange['click']>().notNull(),
    way: text('way').$type<WheelSheetChange['way']>().notNull(),
    donorId: uuid('donor_id').references(() => donors.id),
    ownerAgreed: boolean('owner_agreed').notNull(),
    done: jsonb('done').$type<string[]>().notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('wheel_sheets_place').on(t.jobId, t.train, t.arbor, t.part)],
)

/** The mainspring of a train. */
export const springSheets = pgTable(
  'spring_sheets',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    train: text('train').$type<SpringSheetChange['train']>().notNull(),
    widthMm: mm('width_mm'),
    innerMm: mm('inner_mm'),
    middleMm: mm('middle_mm'),
    outerMm: mm('outer_mm'),
    lengthMm: mm('length_mm'),
    coils: mm('coils'),
    barrelInsideMm: mm('barrel_inside_mm'),
    barrelHeightMm: mm('barrel_height_mm'),
    arborMm: mm('arbor_mm'),
    turnsUsed: mm('turns_used'),
    looseMm: mm('loose_mm'),
    end: text('end').$type<SpringSheetChange['end']>().notNull(),
    holeEnd: text('hole_end').$type<SpringSheetChange['holeEnd']>().notNull(),
    set: boolean('set').notNull(),
    rust: boolean('rust').notNull(),
    cracks: boolean('cracks').notNull(),
    choice: text('choice').$type<SpringSheetChange['choice']>().notNull(),
    stockId: uuid('stock_id').references(() => stock.id),
    fittedWidthMm: mm('fitted_width_mm'),
    fittedThickMm: mm('fitted_thick_mm'),
    fittedLengthMm: mm('fitted_length_mm'),
    winderNmm: mm('winder_nmm'),
    done: jsonb('done').$type<string[]>().notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('spring_sheets_place').on(t.jobId, t.train), index('spring_sheets_stock').on(t.stockId)],
)

/** The suspension spring; a job has one. */
export const suspensions = pgTable(
  'suspensions',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    blades: integer('blades').notNull(),
    thickMm: mm('thick_mm'),
    widthMm: mm('width_mm'),
    freeMm: mm('free_mm'),
    massKg: mm('mass_kg'),
    kinked: boolean('kinked').notNull(),
    rust: boolean('rust').notNull(),
    twisted: boolean('twisted').notNull(),
    makeshift: boolean('makeshift').notNull(),
    fittedThickMm: mm('fitted_thick_mm'),
    fittedWidthMm: mm('fitted_width_mm'),
    fittedFreeMm: mm('fitted_free_mm'),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('suspensions_job').on(t.jobId)],
)

/** The escapement; a job has one. */
export const escapementSheets = pgTable(
  'escapement_sheets',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    kind: text('kind').$type<EscapementSheetChange['kind']>().notNull(),
    teeth: integer('teeth'),
    tipRadiusMm: mm('tip_radius_mm'),
    centreDistanceMm: mm('centre_distance_mm'),
    spannedSpaces: mm('spanned_spaces'),
    palletMm: mm('pallet_mm'),
    acrossMm: mm('across_mm'),
    liftDeg: mm('lift_deg'),
    lockDeg: mm('lock_deg'),
    swingDeg: mm('swing_deg'),
    palletEntry: jsonb('pallet_entry').$type<EscapementSheetChange['palletEntry']>().notNull(),
    palletExit: jsonb('pallet_exit').$type<EscapementSheetChange['palletExit']>().notNull(),
    photoId: uuid('photo_id').references(() => photos.id, { onDelete: 'set null' }),
    trueing: jsonb('trueing').$type<number[]>(),
    nearerMm: mm('nearer_mm').notNull(),
    openedDeg: mm('opened_deg').notNull(),
    tipRadiiMm: jsonb('tip_radii_mm').$type<EscapementSheetChange['tipRadiiMm']>().notNull(),
    bent: jsonb('bent').$type<number[]>().notNull(),
    leftLow: jsonb('left_low').$type<number[]>().notNull(),
    topped: jsonb('topped').$type<string[]>().notNull(),
    grooveEntryMm: mm('groove_entry_mm'),
    grooveExitMm: mm('groove_exit_mm'),
    faces: text('faces').$type<EscapementSheetChange['faces']>().notNull(),
    cock: text('cock').$type<EscapementSheetChange['cock']>().notNull(),
    balance: text('balance').$type<EscapementSheetChange['balance']>().notNull(),
    staff: text('staff').$type<EscapementSheetChange['staff']>().notNull(),
    jewel: text('jewel').$type<EscapementSheetChange['jewel']>().notNull(),
    roller: text('roller').$type<EscapementSheetChange['roller']>().notNull(),
    way: text('way').$type<EscapementSheetChange['way']>().notNull(),
    ownerAgreed: boolean('owner_agreed').notNull(),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('escapement_sheets_job').on(t.jobId)],
)

/** A wheel and a pinion in the depthing tool. */
export const depthTrials = pgTable(
  'depth_trials',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    train: text('train').notNull(),
    arbor: text('arbor').notNull(),
    arborIndex: integer('arbor_index').notNull(),
    gearing: text('gearing').$type<DepthTrialChange['gearing']>().notNull(),
    runnerMm: mm('runner_mm'),
    moduleMm: mm('module_mm'),
    trials: jsonb('trials').$type<DepthTrialChange['trials']>().notNull(),
    keptMm: mm('kept_mm'),
    note: text('note').notNull(),
    ...made(),
  },
  (t) => [uniqueIndex('depth_trials_place').on(t.jobId, t.train, t.arbor)],
)

/** A part that is made for a clock. */
export const madeParts = pgTable(
  'made_parts',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    part: text('part').$type<MadePartChange['part']>().notNull(),
    name: text('name').notNull(),
    sizes: jsonb('sizes').$type<MadePartChange['sizes']>().notNull(),
    done: jsonb('done').$type<string[]>().notNull(),
    ...made(),
  },
  (t) => [index('made_parts_job').on(t.jobId)],
)
