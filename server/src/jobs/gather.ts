import { asc, inArray } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import {
  arborTests,
  bushings,
  cleanParts,
  depthTrials,
  dryRuns,
  escapementSheets,
  footings,
  estimates,
  gateOverrides,
  holes,
  jobs,
  listenings,
  madeParts,
  nowMarks,
  observations,
  oilSheets,
  pendulums,
  pivots,
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
  watches,
  wheelSheets,
  witnesses,
} from '../db/schema.ts'

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

/** All that the standing of these jobs asks for: one statement, however many they are and whatever hangs on them. */
export async function gatherJobs(queries: Queries, ids: string[]) {
  if (ids.length === 0) return []
  const found = await queries.query.jobs.findMany({
    where: inArray(jobs.id, ids),
    orderBy: asc(jobs.number),
    with: REASONED,
  })
  return found.map(({ clock: whole, ...rest }) => {
    const { owner, plateMap, trainSheets, ...clock } = whole
    const rows = pick(rest, HANGS)
    return { job: without(rest, HANGS), clock, owner, plateMap, trainSheets, ...rows }
  })
}

type Hanging = Exclude<keyof typeof REASONED, 'clock'>
/** What hangs on a job by its own name. */
const HANGS = (Object.keys(REASONED) as (keyof typeof REASONED)[]).filter((key): key is Hanging => key !== 'clock')

function pick<T extends object, K extends keyof T>(from: T, keys: K[]): Pick<T, K> {
  return Object.fromEntries(keys.map((key) => [key, from[key]])) as Pick<T, K>
}

function without<T extends object, K extends keyof T>(from: T, keys: K[]): Omit<T, K> {
  return Object.fromEntries(Object.entries(from).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>
}
