import { asc, inArray } from 'drizzle-orm'
import type { Queries } from '../db/connect.ts'
import {
  arborTests,
  bushings,
  cleanParts,
  depthTrials,
  escapementSheets,
  estimates,
  gateOverrides,
  holes,
  jobs,
  listenings,
  madeParts,
  nowMarks,
  observations,
  pivots,
  powerOffs,
  rateEvents,
  readings,
  reservations,
  springSheets,
  stripMarks,
  stripSteps,
  suspensions,
  timers,
  wheelSheets,
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
  listenings: { orderBy: asc(listenings.at), columns: { beatTimesS: false } },
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
    const { wheels, springs, suspensions: hung, escapements, depths, madeParts: parts, ...others } = rest
    const { owner, plateMap, trainSheets, ...clock } = whole
    const {
      powerOffs: offs,
      overrides,
      holes: found,
      arborTests: tests,
      pivots: ends,
      bushings: work,
      ...more
    } = others
    const { reservations: promised, listenings: heard, readings: read, events, estimates: offers, ...last } = more
    const {
      stripMarks: marks,
      stripSteps: steps,
      cleanParts: cleaned,
      timers: running,
      nowMarks: said,
      observations: seen,
      ...job
    } = last
    return {
      job,
      clock,
      owner,
      plateMap,
      trainSheets,
      powerOffs: offs,
      overrides,
      holes: found,
      arborTests: tests,
      pivots: ends,
      bushings: work,
      reservations: promised,
      wheels,
      springs,
      suspensions: hung,
      escapements,
      depths,
      madeParts: parts,
      listenings: heard,
      readings: read,
      events,
      estimates: offers,
      stripMarks: marks,
      stripSteps: steps,
      cleanParts: cleaned,
      timers: running,
      nowMarks: said,
      observations: seen,
    }
  })
}
