import type { UnreadableRow } from '@treadle/contract'
import { asc, eq, getTableName, sql } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'
import type { Queries } from '../db/connect.ts'
import {
  arborTests,
  bushings,
  cleanParts,
  clocks,
  conditions,
  confirmedCauses,
  depthTrials,
  dryRuns,
  escapementSheets,
  footings,
  estimates,
  gateOverrides,
  holes,
  invoices,
  jobs,
  listenings,
  madeParts,
  nowMarks,
  observations,
  oilSheets,
  pendulums,
  pivots,
  plateMaps,
  powerOffs,
  rateEvents,
  readings,
  reservations,
  runDowns,
  springSheets,
  strikeCounts,
  stripMarks,
  stripSteps,
  suspensions,
  thermometers,
  timers,
  trainSheets as trainSheetsTable,
  watches,
  wheelSheets,
  witnesses,
} from '../db/schema.ts'
import { readableRows, withBlanks } from '../db/readable.ts'
import type { CarriedName } from '../db/tableNames.ts'

/** What the gates of a job and what is owed to it ask for, each in the order in which it was made or is worked. */
const REASONED = {
  clock: { with: { owner: { columns: { version: false } }, plateMap: true, trainSheets: true } },
  powerOffs: { orderBy: asc(powerOffs.at) },
  overrides: { orderBy: asc(gateOverrides.at) },
  holes: { orderBy: asc(holes.id) },
  arborTests: { orderBy: asc(arborTests.at) },
  pivots: { orderBy: asc(pivots.id) },
  bushings: { orderBy: asc(bushings.at) },
  reservations: { orderBy: asc(reservations.at) },
  wheels: { orderBy: asc(wheelSheets.id) },
  springs: { orderBy: asc(springSheets.at) },
  suspensions: { orderBy: asc(suspensions.at) },
  escapements: { orderBy: asc(escapementSheets.at) },
  depths: { orderBy: asc(depthTrials.at) },
  madeParts: { orderBy: asc(madeParts.at) },
  dryRuns: { orderBy: asc(dryRuns.ranAt) },
  oilSheets: { orderBy: asc(oilSheets.at) },
  witnesses: { orderBy: asc(witnesses.at) },
  strikeCounts: { orderBy: asc(strikeCounts.heardAt) },
  watches: { orderBy: asc(watches.beganAt), columns: { temperatures: false } },
  footings: { orderBy: asc(footings.at) },
  pendulums: { orderBy: asc(pendulums.at) },
  runDowns: { orderBy: asc(runDowns.ranAt) },
  thermometers: { orderBy: asc(thermometers.at) },
  listenings: { orderBy: asc(listenings.at), columns: { beatTimesS: false, sides: false } },
  readings: { orderBy: asc(readings.at) },
  events: { orderBy: asc(rateEvents.at) },
  estimates: { orderBy: asc(estimates.revision) },
  stripMarks: { orderBy: asc(stripMarks.at) },
  stripSteps: { orderBy: asc(stripSteps.position) },
  cleanParts: { orderBy: asc(cleanParts.at) },
  timers: { orderBy: asc(timers.endsAt) },
  nowMarks: { orderBy: asc(nowMarks.kind) },
  observations: { orderBy: asc(observations.at) },
} as const

/** What besides only a job's own pages show. */
const SHOWN = {
  conditions: { orderBy: asc(conditions.at) },
  confirmedCauses: { orderBy: asc(confirmedCauses.at) },
  invoices: { orderBy: asc(invoices.at) },
} as const

/**
 * The whole of one job, and all of it that can't be read: by this its pages are shown, its work is held, and it may not be
 * closed.
 */
export async function gatherJob(queries: Queries, id: string) {
  const found = await asked(WHOLE, queries, askWhole).execute({ id })
  if (!found) return undefined
  const { conditions: condition, confirmedCauses: causes, invoices: bills, ...reasoned } = found
  const rows = whatCanBeRead(reasoned)
  const { unreadable } = rows
  return {
    ...rows,
    conditions: readableRows('conditions', conditions, condition, unreadable),
    confirmedCauses: readableRows('confirmed_causes', confirmedCauses, causes, unreadable),
    invoices: readableRows('invoices', invoices, bills, unreadable),
  }
}

/** All that the standing of these jobs asks for: one statement, however many they are and whatever hangs on them. */
export async function gatherJobs(queries: Queries, ids: string[]) {
  return ids.length === 0 ? [] : (await asked(STANDINGS, queries, askStandings).execute({ ids })).map(whatCanBeRead)
}

const askWhole = (queries: Queries) =>
  queries.query.jobs
    .findFirst({ where: eq(jobs.id, sql.placeholder('id')), with: { ...REASONED, ...SHOWN } })
    .prepare('whole_job')

const askStandings = (queries: Queries) =>
  queries.query.jobs
    .findMany({
      where: sql`${jobs.id} = any(${sql.placeholder('ids')}::uuid[])`,
      orderBy: asc(jobs.number),
      with: REASONED,
    })
    .prepare('standings_of_jobs')

type Reasoned = Awaited<ReturnType<ReturnType<typeof askStandings>['execute']>>[number]

const WHOLE = new WeakMap<Queries, ReturnType<typeof askWhole>>()
const STANDINGS = new WeakMap<Queries, ReturnType<typeof askStandings>>()

/** A statement of forty tables takes longer to put together than to answer: it is put together once. */
function asked<S>(known: WeakMap<Queries, S>, queries: Queries, ask: (queries: Queries) => S): S {
  const there = known.get(queries) ?? ask(queries)
  known.set(queries, there)
  return there
}

/** A row that can't be read takes nothing with it: it is left out, and told of. */
function whatCanBeRead({ clock: whole, ...rest }: Reasoned) {
  const { owner, plateMap, trainSheets, ...clock } = whole
  const unreadable: UnreadableRow[] = []
  const rows = pick(rest, HANGS)
  for (const key of HANGS) readable(rows, key, unreadable)
  const [map] = plateMap === null ? [] : readableRows('plate_maps', plateMaps, [plateMap], unreadable)
  return {
    job: withBlanks('jobs', jobs, without(rest, HANGS), unreadable),
    clock: withBlanks('clocks', clocks, clock, unreadable),
    owner,
    plateMap: map ?? null,
    trainSheets: readableRows('train_sheets', trainSheetsTable, trainSheets, unreadable),
    ...rows,
    unreadable,
  }
}

/** Leaves out of one kind of rows those that can't be read. */
function readable<K extends Hanging>(rows: Record<K, object[]>, key: K, told: UnreadableRow[]): void {
  const table = TABLES[key]
  rows[key] = readableRows(getTableName(table) as CarriedName, table, rows[key], told)
}

type Hanging = Exclude<keyof typeof REASONED, 'clock'>
/** The table of each kind. */
const TABLES: Record<Hanging, PgTable> = {
  powerOffs,
  overrides: gateOverrides,
  holes,
  arborTests,
  pivots,
  bushings,
  reservations,
  wheels: wheelSheets,
  springs: springSheets,
  suspensions,
  escapements: escapementSheets,
  depths: depthTrials,
  madeParts,
  dryRuns,
  oilSheets,
  witnesses,
  strikeCounts,
  watches,
  footings,
  pendulums,
  runDowns,
  thermometers,
  listenings,
  readings,
  events: rateEvents,
  estimates,
  stripMarks,
  stripSteps,
  cleanParts,
  timers,
  nowMarks,
  observations,
}
/** What hangs on a job by its own name. */
const HANGS = (Object.keys(REASONED) as (keyof typeof REASONED)[]).filter((key): key is Hanging => key !== 'clock')

function pick<T extends object, K extends keyof T>(from: T, keys: K[]): Pick<T, K> {
  return Object.fromEntries(keys.map((key) => [key, from[key]])) as Pick<T, K>
}

function without<T extends object, K extends keyof T>(from: T, keys: K[]): Omit<T, K> {
  return Object.fromEntries(Object.entries(from).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>
}
