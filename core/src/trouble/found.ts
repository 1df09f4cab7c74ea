import { gradeHeard, splitTold } from '../beat/heard.ts'
import type { BeatTolerance } from '../beat/tolerance.ts'
import { FieldError } from '../check/require.ts'
import { driveMargin } from '../drive/margin.ts'
import type { HoleFacts } from '../hole/facts.ts'
import type { HoleJudged } from '../hole/judge.ts'
import type { CountedTrain } from '../movement/trains.ts'
import { arborsOfPeriod, trainSheet } from '../train/sheet.ts'
import { latest, secondsOf, type Moment } from '../care/moment.ts'
import { DRIVE_AGAIN, DRIVE_KEY } from '../job/dryRuns.ts'
import type { RateEventKind } from '../rate/kinds.ts'
import type { FoundElsewhere } from './observed.ts'
import { stoppingWork, stopsFound, stopsOf } from './stops.ts'

/** What is on record of a job, as far as the trouble finder asks. */
export interface TroubleFacts {
  job: { movedLately: FoundElsewhere['movedLately']; lastServiced: number | null }
  listenings: { firstToSecondMs: number; secondToFirstMs: number; outOfBeatStandardError: number }[]
  observations: { key: string; figure: number | null; second: number | null }[]
  holes: HoleFacts[]
  trainSheets: (CountedTrain & { faultPeriodS: number | null })[]
  clock: Parameters<typeof stoppingWork>[0]
  events: { at: Moment; kind: RateEventKind; showed: string }[]
}

/** What the other surfaces of a job have found, for the trouble finder. `lastHere` is when it was last handed over. */
export function foundElsewhere(
  data: TroubleFacts,
  tolerance: BeatTolerance,
  judged: (hole: HoleFacts) => HoleJudged,
  lastHere: string | null,
  now: Date,
  timeZone: string,
): FoundElsewhere {
  const { job, listenings, observations, holes, trainSheets, clock, events } = data
  const heard = listenings.at(-1)
  // What was put right since it came has its own test.
  const drive =
    observations.find((o) => o.key === DRIVE_AGAIN && o.second !== null) ??
    observations.find((o) => o.key === DRIVE_KEY)
  const oiled = latest(events.filter((e) => e.kind === 'oiled'))
  const verdicts = holes.map((h) => judged(h).verdict).filter((v) => v !== null)
  return {
    movedLately: job.movedLately,
    yearsSinceOil: yearsSince(
      oiled ? new Date(secondsOf(oiled.at) * 1000).toISOString() : lastHere,
      job.lastServiced,
      now,
    ),
    beat: heard && splitTold(heard) ? gradeHeard(heard, tolerance) : null,
    driveMarginPercent: drive?.figure && drive.second ? driveMargin(drive.figure, drive.second).marginPercent : null,
    holesToBush: verdicts.filter((v) => v === 'bush').length,
    holesMeasured: verdicts.length,
    periodicWheel: periodicWheel(trainSheets),
    stops: stopsFound(stopsOf(events, timeZone), stoppingWork(clock, trainSheets)),
  }
}

function yearsSince(lastHere: string | null, lastServiced: number | null, now: Date): number | null {
  if (lastHere !== null) return Math.max(0, (now.getTime() - Date.parse(lastHere)) / (365.25 * 86_400_000))
  return lastServiced === null ? null : Math.max(0, now.getFullYear() - lastServiced)
}

function periodicWheel(sheets: TroubleFacts['trainSheets']): string | null {
  for (const sheet of sheets) {
    if (sheet.faultPeriodS === null) continue
    const named = namedBy(sheet, sheet.faultPeriodS)
    if (named !== null) return named
  }
  return null
}

function namedBy(sheet: CountedTrain, periodS: number): string | null {
  try {
    return arborsOfPeriod(trainSheet(sheet.arbors, sheet.hourly, sheet.escape), periodS)[0]?.name ?? null
  } catch (error) {
    // Counts that can't be are the train sheet's to say; they name no wheel, and stop nothing else.
    if (error instanceof FieldError) return null
    throw error
  }
}
